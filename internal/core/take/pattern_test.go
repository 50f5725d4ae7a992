package take_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// steps draws a melodic project of one bar of plain steps: what a pattern can say without chance.
func steps(t *rapid.T) *score.Project {
	p := testkit.Buoy()
	p.Key = theory.Key{Root: rapid.IntRange(0, 11).Draw(t, "root"), Scale: rapid.SampledFrom([]string{"major", "dorian", "hirajoshi", "blues"}).Draw(t, "scale")}
	p.Swing = rapid.SampledFrom([]int{500, 604}).Draw(t, "swing")
	track := &p.Tracks[0]
	*track = score.Track{
		ID: 1, Name: "Written", Kind: score.Melodic, Channel: 1, Register: theory.Register{Lowest: 0, Highest: 127},
		Source: score.Source{Kind: score.OwnClock, Odds: 100}, Speed: score.Ratio{N: 1, M: 1}, Luck: score.FollowLuck,
		Patterns: []score.Pattern{{Name: "A", Parts: []score.Part{score.NewPart("Part 1")}}},
	}
	part := &track.Patterns[0].Parts[0]
	lane := func(name score.LaneName, value func(step int) int) {
		drawn := part.Lanes.Lane(name).Clone()
		for step := range 16 {
			drawn.Steps[step] = value(step)
		}
		part.Lanes.Set(name, drawn)
	}
	between := func(what string, least, most int) func(int) int {
		return func(int) int { return rapid.IntRange(least, most).Draw(t, what) }
	}
	lane(score.Gate, between("gate", 0, 1))
	part.Lanes.Gate.Steps[0] = score.On // so that there is something
	lane(score.Pitch, between("pitch", -10, 14))
	lane(score.Alteration, between("alteration", -1, 1))
	lane(score.Velocity, between("velocity", 1, 127))
	lane(score.Length, between("length", 5, 75)) // no note reaches the next one, which could have its key
	lane(score.Ratchet, func(step int) int { return rapid.SampledFrom([]int{1, 1, 1, 2, 3, 4}).Draw(t, "ratchet") })
	// A step that is late keeps the strikes of its ratchet clear of the next one.
	lane(score.Nudge, func(step int) int { return rapid.IntRange(0, 20).Draw(t, "nudge") })
	lane(score.Swing, func(int) int { return 0 })
	return p
}

// What was written in steps, played, and written into steps again plays the same: the same keys and velocities, at
// moments and for lengths that are right to a percent of a step.
func TestAPatternOfATakePlaysTheTake(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := steps(t)
		played := take.Render(p, 1)
		written, err := take.ToPattern(played, take.Choice{}, p, &p.Tracks[0], "1/16")
		require.NoError(t, err)
		require.Equal(t, []string{"It has 16 steps of 1/16"}, written.Remarks)
		again := p.Clone()
		again.Tracks[0].Patterns[0] = written.Pattern
		require.NoError(t, again.Validate())
		want, got := played.Notes(), take.Render(again, 1).Notes()
		require.Len(t, got, len(want))
		const percent = 5040/100 + 1
		for i, n := range got {
			require.Equal(t, want[i].Key, n.Key)
			require.InDelta(t, float64(want[i].Start), float64(n.Start), percent)
			require.InDelta(t, float64(want[i].End), float64(n.End), 2*percent)
			require.Equal(t, want[i].Velocity, n.Velocity)
		}
	})
}

// Without a rate, the one is found on whose steps the notes lie: eighth triplets, and 16ths.
func TestTheRateIsFound(t *testing.T) {
	p := testkit.Buoy()
	for rate, step := range map[score.NoteValue]score.Tick{"1/8t": 6720, "1/16": 5040} {
		var notes []midi.Note
		for i := range score.Tick(12) {
			notes = append(notes, note(i*step, 2000, 62))
		}
		found, err := take.ToPattern(written(notes...), take.Choice{}, p, &p.Tracks[0], "")
		require.NoError(t, err)
		require.Equal(t, rate, found.Pattern.Parts[0].Lanes.Gate.Rate)
	}
}

// What hands have played comes back to the tick and the velocity, whatever fingers do: chords of up to eight keys of any sort, each finger early or late and held
// as long as it was.
func TestWhatHandsHavePlayedComesBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := steps(t)
		p.Tracks[0].Transpose = score.Transpose{Degrees: rapid.IntRange(-3, 3).Draw(t, "degrees"), Semitones: rapid.IntRange(-12, 12).Draw(t, "semitones")}
		var played []midi.Note
		for at := score.Tick(0); at < 4; at++ {
			begin := at*4*5040 + score.Tick(rapid.IntRange(0, 2000).Draw(t, "late"))
			for _, key := range rapid.SliceOfNDistinct(rapid.IntRange(24, 100), 1, score.MaxStepNotes, rapid.ID[int]).Draw(t, "keys") {
				n := note(begin+score.Tick(rapid.IntRange(0, 400).Draw(t, "finger")), score.Tick(rapid.IntRange(1, 15_000).Draw(t, "held")), uint8(key))
				n.Velocity = uint8(rapid.IntRange(1, 127).Draw(t, "velocity"))
				played = append(played, n)
			}
		}
		of := written(played...)
		got, err := take.ToPattern(of, take.Choice{}, p, &p.Tracks[0], "1/16")
		require.NoError(t, err)
		require.Equal(t, []string{"It has 16 steps of 1/16"}, got.Remarks)
		again := p.Clone()
		again.Tracks[0].Patterns[0] = got.Pattern
		require.NoError(t, again.Validate())
		want, rendered := of.Notes(), take.Render(again, 1).Notes()
		type heard struct {
			start, end    score.Tick
			key, velocity uint8
		}
		plain := func(notes []midi.Note) (plain []heard) {
			for _, n := range notes {
				plain = append(plain, heard{n.Start, n.End, n.Key, n.Velocity})
			}
			return plain
		}
		require.ElementsMatch(t, plain(want), plain(rendered))
	})
}

// A chord that has a name is one step by its name; one that has none is the notes that it is. A long note lasts whole steps. A rolled chord is one step, and a line of
// notes that are as far apart as its fingers in all is none.
func TestChordsAndLongNotes(t *testing.T) {
	p := testkit.Buoy()
	p.Key = theory.Key{Scale: "major"}
	of := written(note(0, 5040, 60), note(0, 5040, 64), note(0, 5040, 67), // a triad on the first degree
		note(5040, 5040, 61), note(5040, 5040, 62), note(5040, 5040, 63), // no chord
		note(2*5040, 3*5040, 57), note(2*5040, 3*5040, 60), note(2*5040, 3*5040, 64)) // a triad on the sixth
	got, err := take.ToPattern(of, take.Choice{}, p, &p.Tracks[0], "1/16")
	require.NoError(t, err)
	require.Equal(t, []string{"It has 16 steps of 1/16"}, got.Remarks)
	lanes := got.Pattern.Parts[0].Lanes
	require.Equal(t, []int{2, 0, 2}, lanes.Chord.Steps[:3])
	require.Equal(t, []int{100, 100, 102}, lanes.Length.Steps[:3])
	require.Len(t, lanes.Pitch.Own, 1)
	require.Len(t, lanes.Pitch.Own[1].Notes, 3)

	ratchet, err := take.ToPattern(written(note(0, 1260, 60), note(2520, 1260, 60)), take.Choice{}, p, &p.Tracks[0], "1/16")
	require.NoError(t, err)
	require.Empty(t, ratchet.Pattern.Parts[0].Lanes.Pitch.Own, "the lanes say all of an even ratchet")

	var rolled, line []midi.Note
	for i := range score.Tick(4) {
		for finger := range score.Tick(4) {
			rolled = append(rolled, note(i*20_160+finger*400, 9000, uint8(60+3*finger)))
			line = append(line, note((4*i+finger)*5040, 2000, uint8(60+3*finger)))
		}
	}
	for want, notes := range map[score.NoteValue][]midi.Note{"1/4": rolled, "1/16": line} {
		found, err := take.ToPattern(written(notes...), take.Choice{}, p, &p.Tracks[0], "")
		require.NoError(t, err)
		require.Equal(t, want, found.Pattern.Parts[0].Lanes.Gate.Rate)
	}
}

// A kit has a part for each key; what is beyond the 64th step, or would share a step, is said.
func TestAKitAndWhatCannotBeKept(t *testing.T) {
	p := testkit.Demo()
	kit := p.Track(3)
	require.Equal(t, score.Kit, kit.Kind)
	of := take.Render(p, 4)
	got, err := take.ToPattern(of, take.Choice{Tracks: []uint32{3}}, p, kit, "1/16")
	require.NoError(t, err)
	again := p.Clone()
	again.Tracks[2].Patterns[0] = got.Pattern
	require.NoError(t, again.Validate())
	keys := map[uint8]bool{}
	for _, n := range take.ByTrack(of)[2].Notes() {
		keys[n.Key] = true
	}
	require.Len(t, got.Pattern.Parts, len(keys))

	late := written(note(0, 9, 60), note(1000, 9, 60), note(80*1260, 9, 60))
	late.End = 90 * 1260
	got, err = take.ToPattern(late, take.Choice{}, p, &p.Tracks[0], "1/64")
	require.NoError(t, err)
	require.Contains(t, got.Remarks, "1 notes came after the 64th step and were left out")
	got, err = take.ToPattern(late, take.Choice{}, p, &p.Tracks[0], "1/16")
	require.NoError(t, err)
	require.Contains(t, got.Remarks, "1 notes would share a step with another of their key, are no even ratchet with it, and were left out")
	for _, c := range []struct {
		choice take.Choice
		rate   score.NoteValue
	}{{take.Choice{From: 99, To: 99}, ""}, {take.Choice{From: 2000, To: 3000}, ""}, {take.Choice{}, "1/7"}, {take.Choice{Notes: []int{9}}, ""}} {
		_, err = take.ToPattern(late, c.choice, p, &p.Tracks[0], c.rate)
		var field *score.FieldError
		require.ErrorAs(t, err, &field)
	}
}

// What was played in bars three and four goes on as a loop: from bar five on the same notes come again.
func TestALoopGoesOnWithWhatWasPlayed(t *testing.T) {
	p := testkit.Buoy()
	bar := p.Meter.Bar()
	piece := take.Cut(take.Render(p, 4), 2*bar, 4*bar)
	loop, err := take.LoopOf(piece, 1, 2*bar, piece.End)
	require.NoError(t, err)
	looped, _, err := score.Apply(p, score.SetLoop{Track: 1, Loop: loop})
	require.NoError(t, err)
	again := take.Cut(take.Render(looped, 6), 4*bar, 6*bar)
	require.Equal(t, piece.Notes(), again.Notes())
	require.Equal(t, piece.Notes(), take.OfLoop(looped, &looped.Tracks[0]).Notes())

	late := apply(t, piece, take.MoveNotes{Ticks: piece.End - 1})
	moved, err := take.LoopOf(late, 1, 0, piece.End)
	require.NoError(t, err)
	require.Len(t, moved.Notes, len(loop.Notes))
	require.Equal(t, loop.Notes[1].Start-1, moved.Notes[0].Start, "beyond the end is before the beginning of the next pass")

	_, err = take.LoopOf(piece, 9, 0, piece.End)
	require.ErrorContains(t, err, "something to loop")
	from, to, ok := take.LastNotes(piece, 1, 3, 5040)
	require.True(t, ok)
	last := take.Cut(piece, from, to).Notes()
	all := piece.Notes()
	require.Len(t, last, 3)
	require.Equal(t, all[len(all)-3].Key, last[0].Key)
	_, _, ok = take.LastNotes(piece, 9, 3, 5040)
	require.False(t, ok)
}

// The scale of a take is its notes; one that has a name gets it.
func TestTheKeyOfATake(t *testing.T) {
	of := written(note(0, 9, 62), note(10, 9, 64), note(20, 9, 66), note(30, 9, 69), note(40, 9, 83))
	key, err := take.KeyOf(of, take.Choice{}, 2)
	require.NoError(t, err)
	require.Equal(t, theory.Key{Root: 2, Scale: "major pentatonic"}, key)
	key, err = take.KeyOf(of, take.Choice{Notes: []int{0, 1}}, 7)
	require.NoError(t, err)
	require.Equal(t, theory.Key{Root: 2, Scale: theory.Custom, Notes: []int{0, 2}}, key)
	_, err = take.KeyOf(written(), take.Choice{}, 0)
	require.Error(t, err)
}
