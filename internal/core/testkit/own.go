package testkit

import (
	"maps"
	"reflect"
	"slices"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// owns draws what some steps of a lane have of their own, often those at the ends; nil if nothing.
func owns(t *rapid.T, spec score.LaneSpec) map[int]score.StepOwn {
	var drawn map[int]score.StepOwn
	for range rapid.IntRange(1, 3).Draw(t, "own steps") {
		step := rapid.SampledFrom([]int{0, 1, 2, 3, 7, score.MaxSteps - 1}).Draw(t, "own step")
		if own := Own(t, spec); !reflect.DeepEqual(own, score.StepOwn{}) {
			if drawn == nil {
				drawn = map[int]score.StepOwn{}
			}
			drawn[step] = own
		}
	}
	return drawn
}

// Own draws what a step of a lane has of its own.
func Own(t *rapid.T, spec score.LaneSpec) (own score.StepOwn) {
	if rapid.Bool().Draw(t, "own spread") {
		spread := Spread(t)
		own.Spread = &spread
	}
	if seldom(t, "own weights") {
		own.Weights = weights(t, spec)
	}
	if spec.Name != score.Pitch {
		return own
	}
	if seldom(t, "own allowed") {
		own.Allowed = rapid.SampledFrom([][]int{{0}, {4}, {1, 2, 6}, {11}, {100, 127}}).Draw(t, "allowed")
	}
	if rapid.Bool().Draw(t, "own notes") {
		own.Notes, own.Each = StepNotes(t), rapid.Bool().Draw(t, "each")
	}
	return own
}

// WithoutNudges takes nudges of their own from the notes of a part.
func WithoutNudges(part *score.Part) { ChangeNotes(part, func(n *score.StepNote) { n.Nudge = 0 }) }

// WithoutMapsInTime has no track take its pitches from a chord map that runs in time, which goes by the tick of the song.
func WithoutMapsInTime(p *score.Project) {
	for i := range p.Tracks {
		if source := p.Tracks[i].Pitches; source != nil {
			changed := *source
			changed.InTime = false
			p.Tracks[i].Pitches = &changed
		}
	}
}

// ChangeNotes changes all notes that steps of a part have of their own.
func ChangeNotes(part *score.Part, change func(*score.StepNote)) {
	pitch := *part.Lanes.Pitch
	pitch.Own = maps.Clone(pitch.Own)
	for step, own := range pitch.Own {
		own.Notes = slices.Clone(own.Notes)
		for i := range own.Notes {
			change(&own.Notes[i])
		}
		pitch.Own[step] = own
	}
	part.Lanes.Pitch = &pitch
}

// StepNotes draws notes of a step, sometimes as many as there can be and sometimes one.
func StepNotes(t *rapid.T) (notes []score.StepNote) {
	of := func(name string, usual int, rare ...int) int {
		return rapid.SampledFrom(append([]int{usual, usual}, rare...)).Draw(t, name)
	}
	for range rapid.SampledFrom([]int{1, 2, 3, score.MaxStepNotes}).Draw(t, "number of notes") {
		note := score.StepNote{
			Degree: rapid.SampledFrom([]int{0, 2, 4, 7, -3, 56, -56}).Draw(t, "note degree"), Octave: of("note octave", 0, 1, -10, 10), Alteration: of("note alteration", 0, 1, -12),
			Velocity: of("note velocity", 0, -40, 126, -126), Nudge: score.Tick(of("note nudge", 0, 300, -777, 80_640, -80_640)),
			Length: score.Tick(of("note length", 0, 1, 3000, 60_000)),
		}
		same := func(other score.StepNote) bool {
			return other.Degree == note.Degree && other.Octave == note.Octave && other.Alteration == note.Alteration
		}
		if !slices.ContainsFunc(notes, same) {
			notes = append(notes, note)
		}
	}
	return notes
}
