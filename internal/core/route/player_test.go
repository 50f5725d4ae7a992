package route_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

const sixteenth = score.TicksPerQuarter / 4

// stretch is how much of a drawn project the properties look at.
const stretch = 12 * score.TicksPerQuarter

// messages returns what a project plays before a tick.
func messages(p *score.Project, to score.Tick) []midi.Message {
	return route.NewPlayer(p, 0, play.Past{}).Advance(to, nil)
}

// plain returns a project of one track that strikes its first step of a 16th, and nothing else, in a bar.
func plain(change func(*score.Project, *score.Track, *score.Part)) *score.Project {
	p := score.Blank()
	p.Key = theory.Key{Scale: "major"}
	part := &p.Tracks[0].Parts()[0]
	part.Lanes.Gate.Length = 16
	clear(part.Lanes.Gate.Steps)
	part.Lanes.Gate.Steps[0] = score.On
	change(p, &p.Tracks[0], part)
	return p
}

// withProgramLane gives a track a mod lane that chooses program 10, counted from 1.
func withProgramLane(_ *score.Project, _ *score.Track, part *score.Part) {
	part.Mods = []score.Mod{{Target: score.ProgramTarget, Most: 127}}
	part.Lanes.Mod1 = testkit.Buoy().Tracks[0].Parts()[0].Lanes.Lane(score.Mod1).Clone()
	part.Lanes.Mod1.Linked = true
	for step := range part.Lanes.Mod1.Steps {
		part.Lanes.Mod1.Steps[step] = 9
	}
}

// Any way of cutting a stretch gives the same messages as the whole, also where another player takes over; from any
// moment on the notes are those that there are when it is played from the beginning.
func TestAnyCutGivesTheSameMessages(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		player := route.NewPlayer(p, 0, play.Past{})
		var cut []midi.Message
		for from := score.Tick(0); from < stretch; {
			to := min(stretch, from+score.Tick(rapid.IntRange(1, 60_000).Draw(t, "slice")))
			cut = player.Advance(to, cut)
			if rapid.Bool().Draw(t, "another takes over") {
				skipped := score.Tick(rapid.IntRange(1, int(to)).Draw(t, "skipped"))
				ids := []int{p.Tracks[0].ID}
				if group := play.Coupled(p); len(group) > 0 {
					for id := range group {
						if id != ids[0] && group[id] == group[ids[0]] {
							ids = append(ids, id)
						}
					}
				}
				replayed := route.NewPlayer(p, to-skipped, play.Past{Only: ids})
				replayed.Skip(to)
				standing := player.Standing()
				player = player.Change(p, replayed, ids, nil, nil)
				require.Equal(t, standing, player.Standing())
			}
			from = to
		}
		whole := messages(p, stretch)
		require.Equal(t, whole, cut)

		from := score.Tick(rapid.IntRange(0, int(stretch)).Draw(t, "from"))
		var late []midi.Message
		for _, m := range whole {
			if m.Kind == midi.NoteOn && m.Tick >= from {
				late = append(late, m)
			}
		}
		require.Equal(t, withoutNumbers(late), withoutNumbers(noteOns(route.NewPlayer(p, from, play.Past{}).Advance(stretch, nil))))
	})
}

func noteOns(messages []midi.Message) (ons []midi.Message) {
	for _, m := range messages {
		if m.Kind == midi.NoteOn {
			ons = append(ons, m)
		}
	}
	return ons
}

// withoutNumbers returns note-ons without what tells notes on one key apart, which depends on those that sound on.
func withoutNumbers(ons []midi.Message) []midi.Message {
	for i := range ons {
		ons[i].Value = 0
	}
	return ons
}

// Whatever the project, everything that is sent is within what MIDI 1.0 has room for.
func TestEverythingSentIsWithinBounds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		for _, m := range messages(testkit.Project(t), stretch) {
			most := uint16(127)
			switch m.Kind {
			case midi.Bend, midi.WideControl, midi.KeyTuning:
				most = 1<<14 - 1
			case midi.Program:
				most = 16384
			case midi.NoteOn:
				require.Positive(t, m.Velocity)
				most = math.MaxUint16 // which is not sent: it tells notes on one key apart
			case midi.NoteOff:
				most = math.MaxUint16
			}
			require.LessOrEqual(t, m.Value, most, m)
			require.LessOrEqual(t, max(m.Key, m.Velocity), uint8(127))
			require.Less(t, m.Channel, uint8(16))
		}
	})
}

// However parts, chords, strums and ratchets meet, no track ever has more keys down than voices.
func TestNoTrackHasMoreKeysDownThanVoices(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		voices := map[uint32]int{}
		for i := range p.Tracks {
			p.Tracks[i].Voices, p.Tracks[i].Overlap = rapid.IntRange(1, 3).Draw(t, "some voices"), 0
			voices[uint32(p.Tracks[i].ID)] = p.Tracks[i].Voices
		}
		down := map[uint32]int{}
		for _, m := range messages(p, stretch) {
			switch m.Kind {
			case midi.NoteOn:
				down[m.Track]++
				require.LessOrEqual(t, down[m.Track], voices[m.Track], "at %d", m.Tick)
			case midi.NoteOff:
				down[m.Track]--
			}
		}
	})
}

// Of tracks that share a channel the last one's program stands, and what a mod lane sends stands above both: an
// edit does not choose another.
func TestTheLastProgramStands(t *testing.T) {
	p := plain(withProgramLane)
	p.Tracks[0].Program = 3
	other := p.Tracks[0].Clone()
	other.ID, other.Program, other.Patterns[0].Parts[0].Mods = 2, 4, nil
	p.Tracks = append([]score.Track{other}, p.Tracks...)
	var told midi.Settings
	told.Note(messages(p, 4*sixteenth))
	require.Empty(t, told.Missing(route.NewPlayer(p, 4*sixteenth, play.Past{}).Standing(), nil))
}

// A program is chosen when playing begins, with its bank before it, and again where an edit chooses another.
func TestProgramsAreChosen(t *testing.T) {
	p := plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		track.Program, track.Bank, part.Lanes.Gate.Steps[0] = 5, 130, score.Off
	})
	chosen := midi.Message{Track: 1, Kind: midi.Program, Key: 4, Value: 130}
	require.Equal(t, []midi.Message{chosen}, messages(p, 16*sixteenth))
	var told midi.Settings
	told.Note([]midi.Message{chosen})
	p.Tracks[0].Bank = 0
	chosen.Tick, chosen.Value = 100, 0
	require.Equal(t, []midi.Message{chosen}, told.Missing(route.NewPlayer(p, 100, play.Past{}).Standing(), nil))
}

// A mod lane chooses a program by its value, without a bank.
func TestAModLaneChoosesAProgram(t *testing.T) {
	require.Equal(t, midi.Message{Track: 1, Kind: midi.Program, Key: 9}, messages(plain(withProgramLane), 1)[0])
}
