package take_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// written returns a take of notes on one track, a bar of 4/4 long.
func written(notes ...midi.Note) *take.Take {
	t := take.Of(testkit.Buoy(), "Written")
	for i := range notes {
		notes[i].Track = 1
	}
	var keys route.Keys
	t.End = 4 * score.TicksPerQuarter
	t.Messages = keys.Release(t.End, keys.Play(notes, t.End, nil))
	return t
}

func note(start, length score.Tick, key uint8) midi.Note {
	return midi.Note{Start: start, End: start + length, Key: key, Velocity: 90}
}

func apply(t require.TestingT, before *take.Take, e take.Edit) *take.Take {
	after, err := take.Apply(before, e)
	require.NoError(t, err)
	return after
}

// anEdit draws an edit of a take that means something to it.
func anEdit(t *rapid.T, of *take.Take) take.Edit {
	var choice take.Choice
	if notes := of.Count(); notes > 0 && rapid.Bool().Draw(t, "some notes") {
		choice.Notes = rapid.SliceOfN(rapid.IntRange(0, notes-1), 1, 5).Draw(t, "notes")
	}
	from := score.Tick(rapid.IntRange(0, int(of.End)-1).Draw(t, "from"))
	to := score.Tick(rapid.IntRange(int(from)+1, int(of.End)).Draw(t, "to"))
	grid := rapid.SampledFrom(score.NoteValues()).Draw(t, "grid")
	edits := []take.Edit{
		take.Rename{Name: "Fog"},
		take.SetTrack{Track: 1, Mute: rapid.Bool().Draw(t, "mute")},
		take.Trim{From: from, To: to, Aligned: rapid.Bool().Draw(t, "aligned")},
		take.AddNotes{Notes: []take.AddedNote{{Track: 1, Start: from, Length: to, Key: 60, Velocity: 100}}},
		take.DeleteNotes{Choice: choice},
		take.MoveNotes{Choice: choice, Ticks: score.Tick(rapid.IntRange(-200_000, 200_000).Draw(t, "ticks")), Semitones: rapid.IntRange(-127, 127).Draw(t, "semitones")},
		take.ShapeNotes{Choice: choice, Velocity: rapid.IntRange(-126, 126).Draw(t, "louder"), Length: score.Tick(rapid.IntRange(-9999, 9999).Draw(t, "longer"))},
		take.Quantise{Choice: choice, Grid: grid, Strength: rapid.IntRange(0, 100).Draw(t, "strength"), Swing: rapid.IntRange(500, 750).Draw(t, "swing")},
		take.Fit{Choice: choice, Key: theory.Key{Root: rapid.IntRange(0, 11).Draw(t, "root"), Scale: "hirajoshi"}, Direction: "up"},
		take.Thin{Grid: grid},
	}
	first, second := take.MoveNotes{Choice: choice, Semitones: 1}, take.MoveNotes{Choice: choice, Semitones: -2}
	edits = append(edits, take.Several{Edits: []take.EditJSON{{MoveNotes: &first}, {MoveNotes: &second}}})
	if from > 0 || to < of.End {
		edits = append(edits, take.CutOut{From: from, To: to})
	}
	if len(choice.Notes) > 0 {
		edits = append(edits, take.SetNotes{Notes: choice.Notes[:1], Velocities: []int{1}},
			take.SetNotes{Notes: choice.Notes[:1], Lengths: []score.Tick{to}})
	}
	return rapid.SampledFrom(edits).Draw(t, "edit")
}

// Whatever is done to a take, it stays one: its messages are in order, its keys take turns and are up at its end,
// and the take that was edited is as it was. Every edit can be written and read back.
func TestAnEditedTakeIsATake(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		edited := take.Render(p, 2)
		for range rapid.IntRange(1, 4).Draw(t, "edits") {
			if edited.End == 0 {
				return
			}
			edit := anEdit(t, edited)
			data, err := take.EncodeEdit(edit)
			require.NoError(t, err)
			decoded, err := take.DecodeEdit(data)
			require.NoError(t, err)
			require.Equal(t, edit, decoded)

			before := slices.Clone(edited.Messages)
			next := apply(t, edited, edit)
			require.Equal(t, before, edited.Messages)
			requireWhole(t, next)
			require.Equal(t, next.Messages, apply(t, edited, decoded).Messages, "an edit means the same every time")
			edited = next
		}
	})
}

func requireWhole(t require.TestingT, whole *take.Take) {
	down := map[midi.NoteID]bool{}
	var last score.Tick
	for _, m := range whole.Messages {
		require.GreaterOrEqual(t, m.Tick, last)
		require.LessOrEqual(t, m.Tick, whole.End)
		last = m.Tick
		if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
			key := m.NoteID()
			require.Equal(t, m.Kind == midi.NoteOff, down[key], "%v", m)
			down[key] = m.Kind == midi.NoteOn
		}
	}
	for key, isDown := range down {
		require.False(t, isDown, "%v is left down", key)
	}
	require.Zero(t, whole.Tempo[0].Tick)
}

// Taking a take apart and putting it together changes nothing.
func TestAnEditOfNothingChangesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rendered := take.Render(testkit.Project(t), 2)
		moved := apply(t, rendered, take.MoveNotes{})
		require.ElementsMatch(t, rendered.Messages, moved.Messages)
		require.Equal(t, take.Comparison{Same: rendered.Count(), Changed: []int{}, Gone: []int{}, Added: []int{}}, take.Compare(rendered, moved))
	})
}

// Notes 1/64 and 1/32 late of a 16th; half strength takes them half the way. Swing of 66 % sets the second 16th
// of each pair at 66 % of an eighth: 2 × 5040 × 0.66 = 6652.8.
func TestQuantise(t *testing.T) {
	late := written(note(1260, 900, 60), note(5040+2520, 900, 62), note(3*5040-100, 900, 64))
	starts := func(e take.Quantise) (starts []score.Tick) {
		for _, n := range apply(t, late, e).Notes() {
			require.Equal(t, score.Tick(900), n.End-n.Start)
			starts = append(starts, n.Start)
		}
		return starts
	}
	require.Equal(t, []score.Tick{0, 5040, 3 * 5040}, starts(take.Quantise{Grid: "1/16", Strength: 100, Swing: 500}))
	require.Equal(t, []score.Tick{630, 5040 + 1260, 3*5040 - 50}, starts(take.Quantise{Grid: "1/16", Strength: 50, Swing: 500}))
	require.Equal(t, []score.Tick{1260, 5040 + 2520, 3*5040 - 100}, starts(take.Quantise{Grid: "1/16", Strength: 0, Swing: 500}))
	require.Equal(t, []score.Tick{0, 6652, 2*5040 + 6652}, starts(take.Quantise{Grid: "1/16", Strength: 100, Swing: 660}))
	require.Equal(t, []score.Tick{0, 5040 + 2520, 3*5040 - 100}, starts(take.Quantise{Choice: take.Choice{Notes: []int{0}}, Grid: "1/16", Strength: 100, Swing: 500}))
}

// What is chosen moves as a whole, as far as the keyboard and the beginning let it.
func TestNotesMoveTogether(t *testing.T) {
	before := written(note(100, 50, 120), note(200, 50, 60))
	after := apply(t, before, take.MoveNotes{Ticks: -500, Semitones: 12})
	require.Equal(t, []midi.Note{{Start: 0, End: 50, Track: 1, Key: 127, Velocity: 90}, {Start: 100, End: 150, Track: 1, Key: 67, Velocity: 90}}, after.Notes())
}

// A note that is moved onto another is beside it on its key; both keep their lengths.
func TestNotesOfOneKeyKeepTheirLengths(t *testing.T) {
	before := written(note(0, 1000, 60), note(5000, 1000, 60))
	after := apply(t, before, take.MoveNotes{Choice: take.Choice{Notes: []int{1}}, Ticks: -4500})
	require.Equal(t, []midi.Note{{Start: 0, End: 1000, Track: 1, Key: 60, Velocity: 90}, {Start: 500, End: 1500, Track: 1, Key: 60, Velocity: 90}}, after.Notes())
}

// A note that a bend brings in tune takes its bend along.
func TestABendGoesWithItsNote(t *testing.T) {
	p := testkit.Buoy()
	p.Key = theory.Key{Scale: theory.Chromatic, Tuning: &theory.Tuning{Name: "five", Pitches: []string{"240.", "480.", "720.", "960.", "2/1"}}}
	p.Tracks[0].Tuned = &score.Tuned{By: score.BendTuned, Channels: 3, Range: 2}
	require.NoError(t, p.Validate())
	rendered := take.Render(p, 1)
	moved := apply(t, rendered, take.MoveNotes{Ticks: 5040})
	bends := func(of *take.Take, by score.Tick) (bends []midi.Message) {
		for _, n := range of.Notes() {
			if n.Detune == 0 {
				continue
			}
			for _, m := range of.Messages {
				if m.Kind == midi.Bend && m.Tick == n.Start && m.Channel == n.Channel {
					m.Tick += by
					bends = append(bends, m)
				}
			}
		}
		return bends
	}
	require.NotEmpty(t, bends(rendered, 0))
	require.Equal(t, bends(rendered, 5040), bends(moved, 0))
}

// C sharp is between C and D of C major, and B flat between A and B; ties go down.
func TestFit(t *testing.T) {
	foreign := written(note(0, 10, 61), note(100, 10, 70), note(200, 10, 64))
	for direction, want := range map[string][]uint8{"nearest": {60, 69, 64}, "down": {60, 69, 64}, "up": {62, 71, 64}} {
		var keys []uint8
		for _, n := range apply(t, foreign, take.Fit{Key: theory.Key{Scale: "major"}, Direction: direction}).Notes() {
			keys = append(keys, n.Key)
		}
		require.Equal(t, want, keys, direction)
	}
}

// Thinned controllers stand at the end of every stretch where they stood before, and there are fewer of them.
func TestThin(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		thick := written(note(0, 100, 60))
		tick := score.Tick(0)
		var controls []midi.Message
		for range rapid.IntRange(1, 60).Draw(t, "messages") {
			tick += score.Tick(rapid.IntRange(1, 3000).Draw(t, "after"))
			controls = append(controls, midi.Message{Tick: tick, Track: 1, Kind: midi.ControlChange, Key: 74, Value: uint16(rapid.IntRange(0, 5).Draw(t, "value"))})
		}
		thick.Messages = midi.Merge(thick.Messages, controls, nil)
		thick.Finish(tick)
		thin := apply(t, thick, take.Thin{Grid: "1/16"})
		standing := func(of *take.Take, at score.Tick) (value int) {
			value = -1
			for _, m := range of.Messages {
				if m.Kind == midi.ControlChange && m.Tick < at {
					value = int(m.Value)
				}
			}
			return value
		}
		for at := score.Tick(5040); at < tick+5040; at += 5040 {
			require.Equal(t, standing(thick, at), standing(thin, at))
		}
		require.LessOrEqual(t, len(thin.Messages)-2, int(tick/5040)+1)
		require.Equal(t, thick.Notes(), thin.Notes())
	})
}

// Cutting a stretch out leaves the notes around it at the times at which they were, less the stretch.
func TestCutOut(t *testing.T) {
	rendered := take.Render(testkit.Buoy(), 4)
	bar := rendered.Meter.Bar()
	cut := apply(t, rendered, take.CutOut{From: bar, To: 3 * bar})
	require.Equal(t, 2*bar, cut.End)
	first, last := take.Cut(rendered, 0, bar), take.Cut(rendered, 3*bar, 4*bar)
	require.ElementsMatch(t, first.Notes(), take.Cut(cut, 0, bar).Notes())
	require.ElementsMatch(t, last.Notes(), take.Cut(cut, bar, 2*bar).Notes())
}

// Trimmed from within a bar to within another, what is kept stands where it stood in its bar.
func TestTrimLeavesBarsWhole(t *testing.T) {
	bar := testkit.Buoy().Meter.Bar()
	whole := take.Render(testkit.Buoy(), 8)
	from, to := 2*bar+bar/2, 4*bar+bar/3
	trimmed := apply(t, whole, take.Trim{From: from, To: to, Aligned: true})
	require.Equal(t, 3*bar, trimmed.End)
	requireWhole(t, trimmed)
	var want []score.Tick
	for _, n := range whole.Notes() {
		if n.Start >= from && n.Start < to {
			want = append(want, n.Start-2*bar)
		}
	}
	var got []score.Tick
	for _, n := range trimmed.Notes() {
		got = append(got, n.Start)
	}
	require.NotEmpty(t, want)
	require.Equal(t, want, got)
	require.Equal(t, to-from, apply(t, whole, take.Trim{From: from, To: to}).End, "a trim of before")
	tempo := whole.Tempo
	tempo = append(tempo, score.TempoChange{Tick: 3 * bar, Tempo: 200_000})
	whole.Tempo = tempo
	whole.Markers = []take.Marker{{Tick: 3*bar + 7, Text: "Ebb"}}
	trimmed = apply(t, whole, take.Trim{From: from, To: to, Aligned: true})
	require.Equal(t, bar, trimmed.Tempo[1].Tick)
	require.Equal(t, []take.Marker{{Tick: bar + 7, Text: "Ebb"}}, trimmed.Markers)
}

// Changes of pitch leave kits alone, unless the kit or its notes are named.
func TestKitsKeepTheirKeys(t *testing.T) {
	whole := take.Render(testkit.Demo(), 2)
	kit := uint32(testkit.Demo().Tracks[2].ID)
	keysOf := func(of *take.Take, isKit bool) (keys []int) {
		for _, n := range of.Notes() {
			if (n.Track == kit) == isKit {
				keys = append(keys, int(n.Key))
			}
		}
		slices.Sort(keys)
		return keys
	}
	raised := func(keys []int) []int {
		up := slices.Clone(keys)
		for i := range up {
			up[i]++
		}
		return up
	}
	moved := apply(t, whole, take.MoveNotes{Semitones: 1, Ticks: 100})
	require.Equal(t, keysOf(whole, true), keysOf(moved, true))
	require.Equal(t, raised(keysOf(whole, false)), keysOf(moved, false))
	moved = apply(t, whole, take.MoveNotes{Choice: take.Choice{Tracks: []uint32{kit}}, Semitones: 1})
	require.Equal(t, raised(keysOf(whole, true)), keysOf(moved, true))
	first := slices.IndexFunc(whole.Notes(), func(n midi.Note) bool { return n.Track == kit })
	moved = apply(t, whole, take.MoveNotes{Choice: take.Choice{Notes: []int{first}}, Semitones: 1})
	require.NotEqual(t, keysOf(whole, true), keysOf(moved, true))
	fitted := apply(t, whole, take.Fit{Key: theory.Key{Scale: "major", Root: 11}, Direction: "up"})
	require.Equal(t, keysOf(whole, true), keysOf(fitted, true))
	require.NotEqual(t, keysOf(whole, false), keysOf(fitted, false))
	fitted = apply(t, whole, take.Fit{Choice: take.Choice{Tracks: []uint32{kit}}, Key: theory.Key{Scale: "major", Root: 11}, Direction: "up"})
	require.NotEqual(t, keysOf(whole, true), keysOf(fitted, true))
}

// What is muted is not heard, and not lost.
func TestAMutedTrackIsNotHeard(t *testing.T) {
	rendered := take.Render(testkit.Demo(), 2)
	muted := apply(t, rendered, take.SetTrack{Track: 2, Mute: true})
	for _, m := range muted.Audible().Messages {
		require.NotEqual(t, uint32(2), m.Track)
	}
	require.Less(t, muted.Audible().Count(), muted.Count())
	require.Equal(t, rendered.Messages, apply(t, muted, take.SetTrack{Track: 2}).Audible().Messages)
}

func TestEditsThatMakeNoSenseAreRefused(t *testing.T) {
	of := written(note(0, 10, 60))
	for _, e := range []take.Edit{
		take.Rename{}, take.Rename{Name: " x"}, take.SetTrack{Track: 9}, take.Trim{From: 5, To: 5}, take.Trim{From: 0, To: of.End + 1},
		take.CutOut{From: 0, To: of.End}, take.DeleteNotes{Choice: take.Choice{Notes: []int{1}}}, take.DeleteNotes{Choice: take.Choice{Notes: []int{-1}}},
		take.AddNotes{Notes: []take.AddedNote{{Track: 9, Length: 1, Velocity: 1}}}, take.AddNotes{Notes: []take.AddedNote{{Track: 1, Length: 0, Velocity: 1}}},
		take.AddNotes{Notes: []take.AddedNote{{Track: 1, Length: 1, Key: 128, Velocity: 1}}}, take.AddNotes{Notes: []take.AddedNote{{Track: 1, Length: 1, Velocity: 128}}},
		take.ShapeNotes{Percent: 1001}, take.SetNotes{Notes: []int{0}}, take.SetNotes{Notes: []int{0}, Velocities: []int{0}}, take.SetNotes{Notes: []int{0}, Lengths: []score.Tick{0}},
		take.SetNotes{Notes: []int{0}, Velocities: []int{1, 2}},
		take.Quantise{Grid: "1/5", Swing: 500}, take.Quantise{Grid: "1/16", Strength: 101, Swing: 500}, take.Quantise{Grid: "1/16", Swing: 751},
		take.Fit{Direction: "sideways", Key: theory.Key{Scale: "major"}}, take.Fit{Direction: "up", Key: theory.Key{Scale: "sea"}}, take.Thin{Grid: ""},
	} {
		_, err := take.Apply(of, e)
		var field *score.FieldError
		require.ErrorAs(t, err, &field, "%#v", e)
	}
	_, err := take.DecodeEdit([]byte(`{}`))
	require.ErrorContains(t, err, "exactly one change")
}

// Mean and deviation against gonum, the rest counted by hand.
func TestStatistics(t *testing.T) {
	of := written(note(0, 10, 60), note(100, 10, 64), note(100, 10, 67), note(30_000, 10, 60))
	of.Messages[0].Velocity = 30
	of.End = 5*score.TicksPerQuarter - 1
	s := take.StatisticsOf(of)
	mean, deviation := stat.PopMeanStdDev([]float64{30, 90, 90, 90}, nil)
	require.InDelta(t, mean, s.Velocity, 1e-9)
	require.InDelta(t, deviation, s.Deviation, 1e-9)
	require.Equal(t, []take.BarStatistics{{Bar: 1, Notes: 4, Velocity: mean}}, s.Bars)
	require.Equal(t, 2, s.Length)
	require.Equal(t, []take.Tally{{60, 2}, {64, 1}, {67, 1}}, s.Keys)
	require.Equal(t, []take.Tally{{-7, 1}, {7, 1}}, s.Intervals)
	require.Zero(t, take.StatisticsOf(of, 2).Notes)
	require.False(t, math.IsNaN(take.StatisticsOf(of, 2).Velocity))
}

// One note stays, one is a tick of 960 late, one is softer, one is gone and one is new.
func TestCompare(t *testing.T) {
	a := written(note(0, 100, 60), note(500, 100, 60), note(1000, 100, 62), note(2000, 100, 64))
	b := written(note(0, 100, 60), note(521, 100, 60), note(1000, 100, 62), note(3000, 100, 64))
	b = apply(t, b, take.SetNotes{Notes: []int{2}, Velocities: []int{20}})
	require.Equal(t, take.Comparison{Same: 2, Changed: []int{2}, Gone: []int{3}, Added: []int{3}}, take.Compare(a, b))
}
