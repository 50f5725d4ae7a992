package play_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// stretch is how much of a drawn project the properties look at.
const stretch = 12 * score.TicksPerQuarter

// Invariant 2: any way of cutting a stretch, watched or not, gives the same notes and changes as the whole.
func TestCut(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		performer := play.NewPerformer(p)
		if rapid.Bool().Draw(t, "watched") {
			performer = play.NewPerformerAt(p, 0, play.Past{Watch: func(int, int, score.LaneName, play.Move) {}})
		}
		var past play.Past
		var cut []play.Note
		var cutChanges []play.Change
		for from := score.Tick(0); from < stretch; {
			to := min(stretch, from+score.Tick(rapid.IntRange(1, 60_000).Draw(t, "slice")))
			if rapid.Bool().Draw(t, "comes in") {
				m := testkit.Input(t, from)
				m.Tick, _ = performer.Hear(m)
				past.Inputs = append(past.Inputs, m)
			}
			cut = performer.Advance(to, cut)
			cutChanges = performer.Changes(cutChanges)
			from = to
		}

		all := play.NewPerformerAt(p, 0, past)
		whole := all.Advance(stretch, nil)
		require.Equal(t, whole, cut)
		require.Equal(t, all.Changes(nil), cutChanges)
		middle := score.Tick(rapid.IntRange(0, int(stretch)).Draw(t, "middle"))
		halves := play.NewPerformerAt(p, 0, past).Advance(middle, nil)
		require.Equal(t, whole, play.NewPerformerAt(p, middle, past).Advance(stretch, halves))
	})
}

// Invariant 3: the same project and luck repeat; an edit in one track leaves all others as they were.
func TestRepeatAndIsolation(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		require.Equal(t, play.Render(p, 0, stretch, nil), play.Render(p.Clone(), 0, stretch, nil))

		// A condition about another track and a clock of its notes are the ways to hear of another.
		for i := range p.Tracks {
			p.Tracks[i].Source.Kind = score.OwnClock
			for _, pattern := range p.Tracks[i].Patterns {
				for j := range pattern.Parts {
					pattern.Parts[j].Details = nil
				}
			}
		}
		before := play.Render(p, 0, stretch, nil)
		spec := rapid.SampledFrom(score.LaneSpecs()).Draw(t, "lane")
		edited, _, err := score.Apply(p, testkit.SetSteps(t, p.Tracks[0], spec))
		require.NoError(t, err)
		muted := true
		edited, _, err = score.Apply(edited, score.SetTrack{Track: 1, Mute: &muted})
		require.NoError(t, err)
		require.Equal(t, others(before, 1), play.Render(edited, 0, stretch, nil))
	})
}

// Muting a track and unmuting it changes nothing that it plays later.
func TestMuteDecidesAllTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		muted := p.Clone()
		for i := range muted.Tracks {
			muted.Tracks[i].Mute = true
		}
		require.Empty(t, play.Render(muted, 0, stretch, nil))
		require.Equal(t, play.Look(p, 1, 0, stretch), play.Look(muted, 1, 0, stretch))
	})
}

// Invariant 7: no length, first step, order, link, rate or key loses anything: after changing back, all sounds as
// it did.
func TestChangingBackBringsTheMusicBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		at := score.LaneAddress{
			PartAddress: score.PartAddress{Track: 1, Pattern: p.Tracks[0].Playing},
			Lane:        rapid.SampledFrom(score.LaneSpecs()).Draw(t, "lane").Name,
		}
		change := func(p *score.Project, lane score.Lane, key theory.Key) *score.Project {
			next, _, err := score.Apply(p, score.All{Name: "change", Edits: []score.EditJSON{
				{SetLane: &score.SetLane{
					LaneAddress: at, Linked: &lane.Linked, First: &lane.First, Length: &lane.Length, Rate: &lane.Rate, Order: &lane.Order,
				}},
				{SetProject: &score.SetProject{Key: &key}},
			}})
			require.NoError(t, err)
			return next
		}
		before := *p.Tracks[0].Parts()[0].Lanes.Lane(at.Lane)
		other := before
		other.Length = rapid.IntRange(1, score.MaxSteps).Draw(t, "length")
		other.First = rapid.IntRange(0, score.MaxSteps-other.Length).Draw(t, "first")
		other.Rate = rapid.SampledFrom(score.NoteValues()).Draw(t, "rate")
		other.Order = rapid.SampledFrom(score.Orders()).Draw(t, "order")
		other.Linked = at.Lane != score.Gate && rapid.Bool().Draw(t, "linked")

		changed := change(p, other, testkit.Key(t))
		require.Equal(t, play.Render(p, 0, stretch, nil), play.Render(change(changed, before, p.Key), 0, stretch, nil))
	})
}

func others(notes []play.Note, track uint32) []play.Note {
	var kept []play.Note
	for _, n := range notes {
		if n.Track != track {
			kept = append(kept, n)
		}
	}
	return kept
}

// Invariant 4: every pitch that sounds is in the scale, allowed, and in the register; a part of a kit sounds
// at its own note. Out of the scale lead only a transposition by semitones, alterations and chords of a fixed
// quality.
func TestEveryPitchIsInScaleAndRegister(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Modulators { // which are within another register then, or beside the scale
			p.Modulators[i].Moves = slices.DeleteFunc(p.Modulators[i].Moves, func(m score.ModulatorMove) bool {
				return slices.Contains([]string{"semitones", "lowest", "highest"}, m.Control.Name)
			})
		}
		testkit.MakeEqual(p)
		for i := range p.Tracks {
			p.Tracks[i].Pitches = nil // which is a chord's, in the scale or not
			for j := range p.Tracks[i].Parts() {
				lanes := &p.Tracks[i].Parts()[j].Lanes
				lanes.Alteration, lanes.Chord = nil, chordOfDegrees(t)
				testkit.ChangeNotes(&p.Tracks[i].Parts()[j], func(n *score.StepNote) { n.Alteration = 0 })
			}
		}
		spelling := p.Key.Spelling()
		for _, n := range play.Render(p, 0, stretch, nil) {
			track := p.Track(int(n.Track))
			if track.Kind == score.Kit {
				require.Equal(t, track.Pattern(track.Playing).Part(int(n.Part)).Note, int(n.Key))
				continue
			}
			require.GreaterOrEqual(t, int(n.Key), track.Register.Lowest)
			require.LessOrEqual(t, int(n.Key), track.Register.Highest)
			written := int(n.Key) - track.Transpose.Semitones
			degree := spelling.Quantise(written, theory.Nearest)
			require.Equal(t, written, spelling.Note(degree), "in the scale")
			require.Equal(t, degree, spelling.Allow(degree), "allowed")
		}
	})
}

func chordOfDegrees(t *rapid.T) *score.Lane {
	lane := testkit.Buoy().Tracks[0].Parts()[0].Lanes.Lane(score.Chord).Clone()
	lane.Steps[0] = rapid.IntRange(0, 10).Draw(t, "chord")
	require.NotEmpty(t, score.Chords()[lane.Steps[0]].Degrees)
	return lane
}

// What the screen shows beforehand is what sounds.
func TestForecastsComeTrue(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		testkit.MakeAudible(p)
		p.Tracks[0].Solo = true
		from := score.Tick(rapid.IntRange(0, int(stretch)).Draw(t, "from"))
		type heard struct {
			start         score.Tick
			key, velocity int
		}
		sounding := map[heard]bool{}
		for _, n := range play.Render(p, 0, 3*stretch, nil) {
			if n.Track == 1 && n.Part == 0 {
				sounding[heard{n.Start, int(n.Key), int(n.Velocity)}] = true
			}
		}
		outlook := play.Look(p, 1, from, from+stretch)[0]
		for lane, moves := range outlook.Moves {
			for i := 1; i < len(moves); i++ {
				require.Less(t, moves[i-1].Tick, moves[i].Tick, lane)
			}
		}
		for _, f := range outlook.Forecasts {
			for _, hit := range f.Hits {
				for _, n := range hit.Notes {
					if f.Sounds && hit.Sounds && n.Start < 3*stretch { // a long step's late hits can come after what was rendered
						is := heard{n.Start, n.Key, n.Velocity}
						require.True(t, sounding[is], "%v", is)
					}
				}
			}
		}
		forecast := map[heard]bool{}
		for _, f := range play.Look(p, 1, 0, 3*stretch)[0].Forecasts {
			for _, hit := range f.Hits {
				for _, n := range hit.Notes {
					sounds := heard{n.Start, n.Key, n.Velocity}
					forecast[sounds] = forecast[sounds] || f.Sounds && hit.Sounds
				}
			}
		}
		for n := range sounding {
			require.True(t, forecast[n] || n.start >= 2*stretch, "%v sounds without having been forecast", n)
		}
	})
}

// The demo shows chance at work at once: in its first two bars something is left out by chance and
// something sounds by chance.
func TestTheDemoShowsChanceInItsFirstTwoBars(t *testing.T) {
	p := testkit.Buoy()
	var sounded, leftOut int
	for _, f := range play.Look(p, 1, 0, 2*p.Meter.Bar())[0].Forecasts {
		switch {
		case f.Probability == 100:
		case f.Sounds:
			sounded++
		default:
			leftOut++
		}
	}
	require.GreaterOrEqual(t, sounded, 2)
	require.GreaterOrEqual(t, leftOut, 2)
}
