package entry_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/entry"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

var first = score.PartAddress{Track: 1}

func apply(t require.TestingT, p *score.Project, edit score.Edit) *score.Project {
	next, _, err := score.Apply(p, edit)
	require.NoError(t, err)
	return next
}

// linked returns the one-track demo with all lanes of its part linked to its gate, and no chance.
func linked() *score.Project {
	p := testkit.Buoy()
	p.Tracks[0].Register = theory.Register{Lowest: 0, Highest: 127}
	part := &p.Tracks[0].Patterns[0].Parts[0]
	for _, name := range score.LaneNames() {
		if part.Lanes.Has(name) {
			lane := part.Lanes.Lane(name).Clone()
			lane.Linked, lane.Spread = name != score.Gate, nil
			part.Lanes.Set(name, lane)
		}
	}
	part.Details = nil
	return p
}

// Whatever is played into a step sounds in that step: the key, or all keys of a chord, whether it has a name or not, each as loud as it
// was played.
func TestWhatIsPlayedSounds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := linked()
		p.Key = theory.Key{Root: rapid.IntRange(0, 11).Draw(t, "root"), Scale: rapid.SampledFrom([]string{"major", "blues", "minor", "whole tone"}).Draw(t, "scale")}
		p.Tracks[0].Transpose = score.Transpose{Degrees: rapid.IntRange(-3, 3).Draw(t, "degrees"), Semitones: rapid.IntRange(-5, 5).Draw(t, "semitones")}
		root := rapid.IntRange(30, 90).Draw(t, "key")
		struck := []entry.Struck{{Key: root, Velocity: 100}}
		for _, above := range rapid.SampledFrom([][]int{nil, {7}, {4, 7}, {3, 7, 10}, {1, 2, 3, 5, 6, 8, 31}}).Draw(t, "chord") {
			struck = append(struck, entry.Struck{Key: root + above, Velocity: rapid.SampledFrom([]int{100, 80, 1}).Draw(t, "velocity")})
		}
		step := rapid.IntRange(0, 15).Draw(t, "step")
		p = apply(t, p, must(entry.Step(p, entry.Place{At: first, Step: step}, struck)))
		begin := score.Tick(step) * 5040
		var keys [][2]int
		for _, n := range play.Render(p, begin, begin+5040, nil) {
			keys = append(keys, [2]int{int(n.Key), int(n.Velocity)})
		}
		var want [][2]int
		for _, s := range struck {
			want = append(want, [2]int{s.Key, s.Velocity})
		}
		require.ElementsMatch(t, want, keys)
	})
}

// struckAt returns keys that were struck together with a velocity.
func struckAt(velocity int, keys ...int) (struck []entry.Struck) {
	for _, key := range keys {
		struck = append(struck, entry.Struck{Key: key, Velocity: velocity})
	}
	return struck
}

func must(edit score.Edit, err error) score.Edit {
	if err != nil {
		panic(err)
	}
	return edit
}

// The kind of a chord is learned, whatever its root, and the step keeps its pitch.
func TestAChordIsLearned(t *testing.T) {
	p := linked()
	place := entry.Place{At: first, Step: 3}
	pitch := p.Tracks[0].Parts()[0].Lanes.Pitch.Steps[3]
	p = apply(t, p, must(entry.Chord(p, place, struckAt(90, 61, 65, 68, 72))))
	lanes := p.Tracks[0].Parts()[0].Lanes
	require.Equal(t, "maj7", score.Chords()[lanes.Chord.Steps[3]].Name)
	require.Equal(t, pitch, lanes.Pitch.Steps[3])
	var field *score.FieldError
	for _, bad := range [][]entry.Struck{nil, struckAt(90, 60, 61, 62)} {
		_, err := entry.Chord(p, place, bad)
		require.ErrorAs(t, err, &field)
	}
	_, err := entry.Chord(testkit.Demo(), entry.Place{At: score.PartAddress{Track: 3}}, struckAt(90, 36))
	require.ErrorAs(t, err, &field)
}

// Rests and ties are entered; what is there already is no edit; a place that does not exist is refused.
func TestRestsAndTies(t *testing.T) {
	p := linked()
	gates := func() []int { return p.Tracks[0].Parts()[0].Lanes.Gate.Steps }
	p = apply(t, p, must(entry.Tie(p, entry.Place{At: first, Step: 1})))
	require.Equal(t, score.Tie, gates()[1])
	p = apply(t, p, must(entry.Rest(p, entry.Place{At: first, Step: 0})))
	require.Equal(t, score.Off, gates()[0])
	_, err := entry.Rest(p, entry.Place{At: first, Step: 0})
	require.ErrorIs(t, err, entry.ErrSame)
	_, err = entry.Rest(p, entry.Place{At: score.PartAddress{Track: 9}})
	require.ErrorIs(t, err, score.ErrUnknownTrack)
	_, err = entry.Rest(p, entry.Place{At: score.PartAddress{Track: 1, Part: 4}})
	require.ErrorIs(t, err, score.ErrUnknownPart)
	for _, c := range []struct {
		step   int
		struck []entry.Struck
	}{{64, struckAt(1, 60)}, {0, nil}, {0, struckAt(1, 128)}, {0, struckAt(0, 60)}, {0, struckAt(9, 50, 51, 52, 53, 54, 55, 56, 57, 58)}} {
		_, err = entry.Step(p, entry.Place{At: first, Step: c.step}, c.struck)
		require.Error(t, err)
	}
}

// The keys of a kit write into its parts with those keys; a key that no part has is left out.
func TestAKitIsPlayed(t *testing.T) {
	p := testkit.Demo()
	kit := p.Tracks[2].Patterns[0].Parts
	p = apply(t, p, must(entry.Step(p, entry.Place{At: score.PartAddress{Track: 3}, Step: 2},
		append(append(struckAt(77, kit[0].Note), struckAt(88, kit[1].Note)...), struckAt(99, 1)...))))
	for i, velocity := range []int{77, 88} {
		lanes := p.Tracks[2].Patterns[0].Parts[i].Lanes
		require.Equal(t, score.On, lanes.Gate.Steps[2])
		lane := lanes.Lane(score.Velocity)
		step := 2
		if !lane.Linked {
			step = 2 % lane.Length
		}
		require.Equal(t, velocity, lane.Steps[step])
	}
	_, err := entry.Step(p, entry.Place{At: score.PartAddress{Track: 3}}, struckAt(99, 1))
	require.ErrorIs(t, err, entry.ErrSame)
}

// A note that is played a little late, in any pass of the loop, goes to its step with its nudge and length; full
// strength puts it on the step, and one that is held over the loop's end lasts whole steps.
func TestWhere(t *testing.T) {
	p := linked()
	const step = 5040
	for _, c := range []struct {
		start, length score.Tick
		strength      int
		want          entry.Place
		began         score.Tick
	}{
		{2*step + 504, 2520, 0, entry.Place{Step: 2, Nudge: 10, Length: 50}, 2 * step},
		{16*step + 2*step + 504, 2520, 50, entry.Place{Step: 2, Nudge: 5, Length: 50}, 18 * step},
		{3*step - 1000, step, 100, entry.Place{Step: 3, Nudge: 0, Length: 100}, 3 * step},
		{15 * step, 3 * step, 0, entry.Place{Step: 15, Nudge: 0, Length: 102}, 15 * step},
		{31*step + 2600, 1, 0, entry.Place{Step: 0, Nudge: -48, Length: 1}, 32 * step},
	} {
		place, began, ok := entry.Where(p, first, entry.Played{Start: c.start, Notes: []entry.Struck{{Length: c.length}}}, c.strength)
		require.True(t, ok)
		require.Equal(t, c.began, began)
		c.want.At = first
		place.Lanes = nil
		require.Equal(t, c.want, place)
	}
	_, _, ok := entry.Where(p, score.PartAddress{Track: 7}, entry.Played{}, 0)
	require.False(t, ok)
}

// What is played over takes the place of what was there between the notes.
func TestCleared(t *testing.T) {
	p := linked()
	lane := p.Tracks[0].Patterns[0].Parts[0].Lanes.Gate
	for i := range 16 {
		lane.Steps[i] = score.On
	}
	p = apply(t, p, entry.Cleared(p, first, 2*5040, 6*5040))
	require.Equal(t, []int{1, 1, 1, 0, 0, 0, 1, 1}, p.Tracks[0].Patterns[0].Parts[0].Lanes.Gate.Steps[:8])
	require.Nil(t, entry.Cleared(p, first, 2*5040, 6*5040))
	require.Nil(t, entry.Cleared(p, first, 9, 9))
}

// In a kit each part stands where its own loop has it, so one moment is another step of each.
func TestPartsOfAKitArePlayedWhereTheyStand(t *testing.T) {
	p := testkit.Demo()
	at := score.PartAddress{Track: 3}
	parts := p.Tracks[2].Patterns[0].Parts
	require.NotEqual(t, parts[0].Lanes.Gate.Length, parts[1].Lanes.Gate.Length)
	const step = 5040
	n := entry.Played{Notes: append(struckAt(33, parts[0].Note), struckAt(44, parts[1].Note)...), Start: 33*step + 10}
	edits, first, began, ok, err := entry.Timed(p, at, n, 100)
	require.NoError(t, err)
	require.True(t, ok)
	require.Equal(t, 33%parts[0].Lanes.Gate.Length, first)
	require.Equal(t, score.Tick(33*step), began)
	p = apply(t, p, score.All{Name: "played", Edits: edits})
	for i, part := range p.Tracks[2].Patterns[0].Parts[:2] {
		require.Equal(t, score.On, part.Lanes.Gate.Steps[33%parts[i].Lanes.Gate.Length])
	}
	again, _, _, ok, err := entry.Timed(p, at, n, 100)
	require.NoError(t, err)
	require.True(t, ok)
	require.Empty(t, again, "what is there already is no edit")
	_, _, _, ok, err = entry.Timed(p, score.PartAddress{Track: 8}, n, 100)
	require.NoError(t, err)
	require.False(t, ok)
}
