package entry_test

import (
	"cmp"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/entry"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

type sounded struct {
	key, velocity int
	start, length score.Tick
}

func inOrder(notes []sounded) []sounded {
	slices.SortFunc(notes, func(a, b sounded) int { return cmp.Or(cmp.Compare(a.start, b.start), cmp.Compare(a.key, b.key)) })
	return notes
}

// Played, stored and played again: at a quantise strength of 0 every finger sounds to the tick when and as long as it did, on whatever keys, at any speed,
// swing and delay; at 100 all of them start on the step, whatever was played.
func TestWhatIsPlayedInTimeIsKept(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := linked()
		track := &p.Tracks[0]
		clear(track.Parts()[0].Lanes.Gate.Steps) // of ties, which would lengthen what is played
		p.Swing, track.Delay = rapid.SampledFrom([]int{500, 583, 750}).Draw(t, "swing"), score.Tick(rapid.SampledFrom([]int{0, 0, 311}).Draw(t, "delay"))
		track.Speed = rapid.SampledFrom([]score.Ratio{{N: 1, M: 1}, {N: 1, M: 1}, {N: 3, M: 2}}).Draw(t, "speed")
		p.Key = theory.Key{Root: rapid.IntRange(0, 11).Draw(t, "root"), Scale: rapid.SampledFrom([]string{"major", "minor pentatonic", theory.Chromatic}).Draw(t, "scale")}
		track.Jitter = rapid.SampledFrom([]int{0, 20}).Draw(t, "jitter")
		keys := rapid.SliceOfNDistinct(rapid.IntRange(12, 110), 1, score.MaxStepNotes, rapid.ID[int]).Draw(t, "keys")
		played := entry.Played{Start: score.Tick(rapid.IntRange(20_000, 60_000).Draw(t, "start"))}
		var want []sounded
		for i, key := range keys {
			s := entry.Struck{Key: key, Velocity: rapid.IntRange(1, 127).Draw(t, "velocity"), Length: score.Tick(rapid.IntRange(1, 30_000).Draw(t, "length"))}
			if i > 0 {
				s.Late = score.Tick(rapid.IntRange(0, 2500).Draw(t, "late"))
			}
			played.Notes = append(played.Notes, s)
			want = append(want, sounded{key, s.Velocity, played.Start + s.Late, s.Length})
		}
		heard := func(strength int) (notes []sounded, began score.Tick) {
			edits, step, began, ok, err := entry.Timed(p, first, played, strength)
			require.True(t, ok && err == nil, err)
			next := apply(t, p, score.All{Name: "played", Edits: edits})
			next.Tracks[0].Jitter = 0
			for _, n := range play.Render(next, 0, 300_000, nil) {
				if int(n.Step) == step && n.Start > played.Start-6000 && n.Start < played.Start+6000 {
					notes = append(notes, sounded{int(n.Key), int(n.Velocity), n.Start, n.End - n.Start})
				}
			}
			return inOrder(notes), began
		}
		got, _ := heard(0)
		require.Equal(t, inOrder(want), got)
		quantised, _ := heard(100)
		require.Len(t, quantised, len(want))
		for _, n := range quantised {
			require.Equal(t, quantised[0].start, n.start)
		}
	})
}

// A chord that has a name is named, by that and nothing else; one that was struck unevenly stays notes, until it is named, and a named one becomes notes
// that sound the same.
func TestChordsAreNamedAndBecomeNotes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := linked()
		p.Key = theory.Key{Root: rapid.IntRange(0, 11).Draw(t, "root"), Scale: rapid.SampledFrom([]string{"major", "minor", "blues"}).Draw(t, "scale")}
		p.Tracks[0].Transpose = score.Transpose{Degrees: rapid.IntRange(-2, 2).Draw(t, "degrees"), Semitones: rapid.IntRange(-3, 3).Draw(t, "semitones")}
		part := &p.Tracks[0].Parts()[0]
		chord := rapid.IntRange(1, len(score.Chords())-1).Draw(t, "chord")
		lane := part.Lanes.Lane(score.Chord).Clone()
		lane.Linked, lane.Steps[3] = true, chord
		part.Lanes.Chord, part.Lanes.Gate.Steps[3] = lane, score.On
		part.Lanes.Pitch.Steps[3] = rapid.IntRange(-7, 7).Draw(t, "pitch")
		keys := func(p *score.Project) (keys []int) {
			for _, n := range play.Render(p, 3*5040, 4*5040, nil) {
				keys = append(keys, int(n.Key))
			}
			return keys
		}
		noted := apply(t, p, must(entry.AsDegrees(p, first, []int{3})))
		require.ElementsMatch(t, keys(p), keys(noted))
		require.Zero(t, noted.Tracks[0].Parts()[0].Lanes.Chord.Steps[3])
		if named, err := entry.NameIt(noted, first, []int{3}); err == nil { // two kinds of chords can be of the same notes
			require.ElementsMatch(t, keys(p), keys(apply(t, noted, named)))
		}
	})
	p := linked()
	uneven := struckAt(90, 62, 65, 69)
	uneven[1].Length = 400
	p = apply(t, p, must(entry.Step(p, entry.Place{At: first, Step: 5}, uneven)))
	require.Equal(t, score.Tick(400), p.Tracks[0].Parts()[0].Lanes.Pitch.Own[5].Notes[1].Length, "a name would not say how long")
	notes := []score.StepNote{{Degree: 4, Velocity: -3}, {Nudge: 4}, {Degree: 2}}
	p.Tracks[0].Parts()[0].Lanes.Pitch.Own = map[int]score.StepOwn{2: {Notes: notes, Allowed: []int{0, 1, 2, 3, 4, 5, 6}, Each: true}}
	named := apply(t, p, must(entry.NameIt(p, first, []int{1, 2})))
	lanes := named.Tracks[0].Parts()[0].Lanes
	require.Equal(t, "triad", score.Chords()[lanes.Chord.Steps[2]].Name)
	require.Equal(t, score.StepOwn{Allowed: []int{0, 1, 2, 3, 4, 5, 6}}, lanes.Pitch.Own[2])
	for _, refused := range []func() (score.Edit, error){
		func() (score.Edit, error) { return entry.NameIt(p, first, []int{1}) },
		func() (score.Edit, error) { return entry.AsDegrees(p, first, []int{1}) },
		func() (score.Edit, error) { return entry.NameIt(p, first, []int{64}) },
		func() (score.Edit, error) { return entry.NameIt(p, score.PartAddress{Track: 9}, []int{2}) },
		func() (score.Edit, error) {
			loose := p.Clone()
			loose.Tracks[0].Parts()[0].Lanes.Pitch.Linked = false
			return entry.NameIt(loose, first, []int{2})
		},
	} {
		_, err := refused()
		require.Error(t, err)
	}
}
