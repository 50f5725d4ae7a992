package score_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

func buoyPart(p *score.Project) (score.PartAddress, *score.Part) {
	track := &p.Tracks[0]
	at := score.PartAddress{Track: track.ID, Pattern: track.Patterns[0].ID, Part: track.Patterns[0].Parts[0].ID}
	return at, &track.Patterns[0].Parts[0]
}

func pitchOf(p *score.Project) score.LaneAddress {
	at, _ := buoyPart(p)
	return score.LaneAddress{PartAddress: at, Lane: score.Pitch}
}

// What a step must not have of its own, and what is said; nothing of the project has changed then.
func TestWhatStepsMustNotHave(t *testing.T) {
	p := testkit.Buoy()
	before := p.Clone()
	for want, c := range map[string]struct {
		lane score.LaneName
		own  score.StepOwn
	}{
		"lanes.pitch.own.3.notes is 9; it must be at most 8":                                {score.Pitch, score.StepOwn{Notes: make([]score.StepNote, 9)}},
		"lanes.pitch.own.3.notes[1] is the same note as notes[0]; it must be another":       {score.Pitch, score.StepOwn{Notes: []score.StepNote{{Degree: 2}, {Degree: 2, Velocity: 4}}}},
		"lanes.pitch.own.3.notes[0].velocity is 127; it must be -126 to 126":                {score.Pitch, score.StepOwn{Notes: []score.StepNote{{Velocity: 127}}}},
		"lanes.pitch.own.3.notes[0].nudge is 80641; it must be -80640 to 80640":             {score.Pitch, score.StepOwn{Notes: []score.StepNote{{Nudge: score.MaxNoteNudge + 1}}}},
		"lanes.pitch.own.3.notes[0].degree is 57; it must be -56 to 56":                     {score.Pitch, score.StepOwn{Notes: []score.StepNote{{Degree: score.MaxNoteDegree + 1}}}},
		"lanes.pitch.own.3.notes[0].alteration is 13; it must be -12 to 12":                 {score.Pitch, score.StepOwn{Notes: []score.StepNote{{Alteration: score.MaxNoteAlteration + 1}}}},
		"lanes.pitch.own.3.notes[0].length is -1; it must be 0 to 20643840":                 {score.Pitch, score.StepOwn{Notes: []score.StepNote{{Length: -1}}}},
		"lanes.pitch.own.3.spread.highest is -1; it must be 0 to 200":                       {score.Pitch, score.StepOwn{Spread: &score.Spread{Grain: 1, Highest: -1}}},
		"lanes.pitch.own.3.weights[0].highest is 29; it must be 0 to 28":                    {score.Pitch, score.StepOwn{Weights: []score.Weight{{Highest: 29}}}},
		"lanes.pitch.own.3.allowed[1] is 1; it must be above 1":                             {score.Pitch, score.StepOwn{Allowed: []int{1, 1}}},
		"lanes.velocity.own.3 is of notes; it must be without allowed":                      {score.Velocity, score.StepOwn{Each: true}},
		"lanes.gate.own.3 is given; it must be left out":                                    {score.Gate, score.StepOwn{Spread: &score.Spread{Grain: 1}}},
		"lanes.velocity.own.3.weights[0].rest is true; it must be false, because only the ": {score.Velocity, score.StepOwn{Weights: []score.Weight{{Rest: true, Lowest: 1, Highest: 1}}}},
	} {
		at := pitchOf(p)
		at.Lane = c.lane
		_, _, err := score.Apply(p, score.SetOwn{LaneAddress: at, Step: 3, Own: c.own})
		require.ErrorContains(t, err, want)
	}
	for _, edit := range []score.Edit{
		score.SetOwn{LaneAddress: pitchOf(p), Step: 64}, score.SetOwn{LaneAddress: pitchOf(p), Step: -1}, score.ToggleNote{PartAddress: pitchOf(p).PartAddress, Step: 64},
		score.ToggleNote{PartAddress: score.PartAddress{Track: 99}},
	} {
		_, _, err := score.Apply(p, edit)
		require.Error(t, err)
	}
	require.Equal(t, before, p)
}

// 16,384 notes of steps are as many as a project can have.
func TestHowManyNotesAProjectHas(t *testing.T) {
	p := testkit.Buoy()
	notes := make([]score.StepNote, score.MaxStepNotes)
	for i := range notes {
		notes[i].Degree = i
	}
	_, part := buoyPart(p)
	part.Lanes.Pitch.Own = map[int]score.StepOwn{}
	for step := range score.MaxSteps {
		part.Lanes.Pitch.Own[step] = score.StepOwn{Notes: notes}
	}
	pattern := p.Tracks[0].Patterns[0]
	for len(p.Tracks[0].Patterns) < score.MaxProjectNotes/(score.MaxStepNotes*score.MaxSteps)/2 {
		pattern.ID, pattern.Name = len(p.Tracks[0].Patterns), fmt.Sprint("Pattern ", len(p.Tracks[0].Patterns))
		p.Tracks[0].Patterns = append(p.Tracks[0].Patterns, pattern)
	}
	second := p.Tracks[0].Clone()
	second.ID, second.Channel = 9, 9
	p.Tracks = append(p.Tracks, second)
	require.NoError(t, p.Validate())
	third := testkit.Buoy().Tracks[0]
	third.ID, third.Patterns[0].Parts[0].Lanes.Pitch.Own = 10, map[int]score.StepOwn{0: {Notes: notes[:1]}}
	p.Tracks = append(p.Tracks, third)
	require.ErrorContains(t, p.Validate(), "the number of notes of all steps that have notes of their own is 16385; it must be 0 to 16384")
}

// The estimate of how dense a project is counts the notes of steps, and the most that chance of a step's own can make: by hand, of one step a quarter at
// 110 to the minute, each note two events.
func TestNotesOfStepsCount(t *testing.T) {
	p := score.Blank()
	part := &p.Tracks[0].Parts()[0]
	quarters := 110.0 / 60
	require.Equal(t, int(2*quarters), score.EventsPerSecond(p))
	notes := make([]score.StepNote, score.MaxStepNotes)
	for i := range notes {
		notes[i].Degree = i
	}
	part.Lanes.Pitch.Own = map[int]score.StepOwn{}
	for step := range score.MaxSteps {
		part.Lanes.Pitch.Own[step] = score.StepOwn{Notes: notes}
	}
	require.Equal(t, int(16*quarters), score.EventsPerSecond(p))
	part.Lanes.Pitch.Linked = false
	require.Equal(t, int(16*quarters), score.EventsPerSecond(p))
	part.Lanes.Pitch.Own = nil
	ratchet := part.Lanes.Lane(score.Ratchet).Clone()
	ratchet.Own = map[int]score.StepOwn{0: {Weights: []score.Weight{{Lowest: 16, Highest: 16, Weight: 1}}}}
	part.Lanes.Ratchet = ratchet
	require.Equal(t, int(32*quarters), score.EventsPerSecond(p))
}

// Notes are added to a step and taken away by their degrees: what is left has its lowest note in the lane, and the last one stays.
func TestNotesAreToggled(t *testing.T) {
	p := testkit.Buoy()
	at, part := buoyPart(p)
	value := part.Lanes.Pitch.Steps[2]
	notes := func() []score.StepNote { _, part := buoyPart(p); return part.Lanes.Pitch.Own[2].Notes }
	var inverses []score.Edit
	toggle := func(degree int) {
		next, inverse, err := score.Apply(p, score.ToggleNote{PartAddress: at, Step: 2, Degree: degree})
		require.NoError(t, err)
		inverses, p = append(inverses, inverse), next
	}
	before := p
	toggle(value + 2)
	toggle(value + 4)
	require.Equal(t, []score.StepNote{{}, {Degree: 2}, {Degree: 4}}, notes())
	toggle(value)
	_, part = buoyPart(p)
	require.Equal(t, value+2, part.Lanes.Pitch.Steps[2])
	require.Equal(t, []score.StepNote{{}, {Degree: 2}}, notes())
	toggle(value + 4)
	require.Empty(t, notes(), "one note is the usual case")
	_, _, err := score.Apply(p, score.ToggleNote{PartAddress: at, Step: 2, Degree: value + 2})
	require.ErrorContains(t, err, "switch its gate off")
	for i := range score.MaxStepNotes - 1 {
		toggle(value + 3 + i)
	}
	_, _, err = score.Apply(p, score.ToggleNote{PartAddress: at, Step: 2, Degree: value - 9})
	require.ErrorContains(t, err, "the number of notes of the step is 9; it must be at most 8")
	for i := range inverses {
		back, _, err := score.Apply(p, inverses[len(inverses)-1-i])
		require.NoError(t, err)
		p = back
	}
	require.Equal(t, before, p)
}

// Where the notes of a step are too far apart for the lowest to become the step's own, they stay as they were.
func TestNotesFarApartAreToggled(t *testing.T) {
	p := testkit.Buoy()
	value := func() int { _, part := buoyPart(p); return part.Lanes.Pitch.Steps[2] }
	notes := func() []score.StepNote { _, part := buoyPart(p); return part.Lanes.Pitch.Own[2].Notes }
	p = apply(t, p, score.SetSteps{LaneAddress: pitchOf(p), Steps: []score.StepValue{{Step: 2, Value: 0}}})
	p = apply(t, p, score.SetOwn{LaneAddress: pitchOf(p), Step: 2, Own: score.StepOwn{Notes: []score.StepNote{{Degree: -10}, {Degree: 50}}}})
	p = apply(t, p, score.ToggleNote{PartAddress: pitchOf(p).PartAddress, Step: 2, Degree: 2})
	require.Zero(t, value())
	require.Equal(t, []score.StepNote{{Degree: -10}, {Degree: 50}, {Degree: 2}}, notes())
	p = apply(t, p, score.SetOwn{LaneAddress: pitchOf(p), Step: 2, Own: score.StepOwn{Notes: []score.StepNote{{Degree: -6}, {Degree: 50}}}})
	p = apply(t, p, score.ToggleNote{PartAddress: pitchOf(p).PartAddress, Step: 2, Degree: 2})
	require.Equal(t, -6, value())
	require.Equal(t, []score.StepNote{{}, {Degree: 56}, {Degree: 8}}, notes())
}

// What was written last counts: a named chord takes the place of several notes and they that of a chord, and a length takes that of the notes' own; a
// lane with a loop of its own is left as it is, since it does not stand at the step.
func TestTheLastThatIsWrittenCounts(t *testing.T) {
	p := testkit.Buoy()
	at, part := buoyPart(p)
	part.Lanes.Pitch.Linked = true
	for _, name := range []score.LaneName{score.Chord, score.Length} {
		lane := part.Lanes.Lane(name).Clone()
		lane.Linked = true
		part.Lanes.Set(name, lane)
	}
	steps := func(p *score.Project, lane score.LaneName, value int) (*score.Project, score.Edit) {
		next, inverse, err := score.Apply(p, score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: at, Lane: lane}, Steps: []score.StepValue{{Step: 1, Value: value}}})
		require.NoError(t, err)
		return next, inverse
	}
	own := func(p *score.Project) score.StepOwn { _, part := buoyPart(p); return part.Lanes.Pitch.Own[1] }
	chordOf := func(p *score.Project) int { _, part := buoyPart(p); return part.Lanes.Chord.Steps[1] }

	chorded, _ := steps(p, score.Chord, 2)
	several := score.SetOwn{LaneAddress: pitchOf(p), Step: 1, Own: score.StepOwn{Notes: []score.StepNote{{Length: 77}, {Degree: 3, Nudge: 5}}}}
	noted, inverse, err := score.Apply(chorded, several)
	require.NoError(t, err)
	require.Zero(t, chordOf(noted))
	back, _, err := score.Apply(noted, inverse)
	require.NoError(t, err)
	require.Equal(t, chorded, back)

	longer, inverse := steps(noted, score.Length, 80)
	require.Equal(t, []score.StepNote{{}, {Degree: 3, Nudge: 5}}, own(longer).Notes)
	back, _, err = score.Apply(longer, inverse)
	require.NoError(t, err)
	require.Equal(t, noted, back)

	named, _ := steps(noted, score.Chord, 4)
	require.Empty(t, own(named).Notes)
	single := score.SetOwn{LaneAddress: pitchOf(p), Step: 1, Own: score.StepOwn{Notes: []score.StepNote{{Nudge: 5}}}}
	one, _, err := score.Apply(noted, single)
	require.NoError(t, err)
	one, _ = steps(one, score.Chord, 4)
	require.Equal(t, []score.StepNote{{Nudge: 5}}, own(one).Notes, "one note goes with a chord, whose time it is")
	none, _ := steps(noted, score.Chord, 0)
	require.Len(t, own(none).Notes, 2, "no chord takes the place of nothing")

	_, part = buoyPart(noted)
	part.Lanes.Length.Linked = false
	loose, _ := steps(noted, score.Length, 30)
	require.Equal(t, score.Tick(77), own(loose).Notes[0].Length)
}

// A step can have a named chord and several notes, where one of the lanes had a loop of its own when it was written; each edit of either is undone to the
// letter.
func TestChordAndNotesOfOneStep(t *testing.T) {
	p := testkit.Buoy()
	at, part := buoyPart(p)
	part.Lanes.Pitch.Linked = true
	chord := part.Lanes.Lane(score.Chord).Clone()
	chord.Linked, chord.Steps[1] = true, 2
	part.Lanes.Set(score.Chord, chord)
	part.Lanes.Pitch.Own = map[int]score.StepOwn{1: {Notes: []score.StepNote{{}, {Degree: 3}}}}
	require.NoError(t, p.Validate())
	notes := func(notes ...score.StepNote) score.Edit {
		return score.SetOwn{LaneAddress: pitchOf(p), Step: 1, Own: score.StepOwn{Notes: notes}}
	}
	named := func(value int) score.Edit {
		return score.SetSteps{LaneAddress: score.LaneAddress{PartAddress: at, Lane: score.Chord}, Steps: []score.StepValue{{Step: 1, Value: value}}}
	}
	toggle := score.ToggleNote{PartAddress: at, Step: 1, Degree: part.Lanes.Pitch.Steps[1] + 5}
	for _, edit := range []score.Edit{
		notes(), notes(score.StepNote{Nudge: 3}), notes(score.StepNote{}, score.StepNote{Degree: 4}), named(0), named(4), toggle,
	} {
		changed, inverse, err := score.Apply(p, edit)
		require.NoError(t, err)
		require.NotEqual(t, p, changed)
		back, again, err := score.Apply(changed, inverse)
		require.NoError(t, err)
		require.Equal(t, p, back, "%+v", edit)
		redone, _, err := score.Apply(back, again)
		require.NoError(t, err)
		require.Equal(t, changed, redone, "%+v", edit)
	}
}

// What steps have of their own goes with them where they are turned, reversed and doubled, and goes where they are cleared; the file keeps it to the
// letter, and words say where an edit was made.
func TestWhatStepsHaveGoesWithThem(t *testing.T) {
	p := testkit.Buoy()
	_, part := buoyPart(p)
	loop := part.Lanes.Loop(score.Pitch)
	spread := &score.Spread{Grain: 1, Highest: 3, Chance: 50, Depth: 100, Limits: true}
	own := score.StepOwn{Spread: spread, Allowed: []int{1, 5}, Notes: []score.StepNote{{Degree: 3, Nudge: -4}}, Weights: []score.Weight{{Weight: 2, Rest: true}}, Each: true}
	set := score.SetOwn{LaneAddress: pitchOf(p), Step: loop.First, Own: own}
	p, _, err := score.Apply(p, set)
	require.NoError(t, err)
	require.True(t, strings.HasSuffix(score.Describe(p, p, set), ": notes of step 1"), score.Describe(p, p, set))
	at := func(p *score.Project) (steps []int) {
		_, part := buoyPart(p)
		for step := range score.MaxSteps {
			if _, has := part.Lanes.Pitch.Own[step]; has {
				steps = append(steps, step)
				require.Equal(t, own, part.Lanes.Pitch.Own[step])
			}
		}
		return steps
	}
	last := loop.First + loop.Length - 1
	for do, want := range map[score.Reshaping][]int{score.Rotate: {last}, score.Reverse: {last}, score.Clear: nil, score.Invert: {loop.First}, score.Most: {loop.First}} {
		next, inverse, err := score.Apply(p, score.Reshape{LaneAddress: pitchOf(p), Do: do, By: -1})
		require.NoError(t, err)
		require.Equal(t, want, at(next), do)
		back, _, err := score.Apply(next, inverse)
		require.NoError(t, err)
		require.Equal(t, p, back)
	}
	decoded, err := score.Decode(must(score.Encode(p)))
	require.NoError(t, err)
	require.Equal(t, p, decoded)
	taken, _, err := score.Apply(p, score.SetOwn{LaneAddress: pitchOf(p), Step: loop.First})
	require.NoError(t, err)
	require.Empty(t, at(taken), "as the lane")
}

func must[T any](value T, err error) T {
	if err != nil {
		panic(err)
	}
	return value
}
