package score

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/theory"
)

// AddLines adds random lines: small tracks that each play drawn notes of one source, at a rate of their own and as often as their odds say.
type AddLines struct {
	// Track is the id of the track whose notes they draw from: those of its own chord if its pitches are from one, else what it strikes.
	Track int          `json:"track"`
	Lines []RandomLine `json:"lines" jsonschema:"minItems=1,maxItems=8"`
}

// RandomLine is how one of them goes.
type RandomLine struct {
	Rate NoteValue `json:"rate"`
	// Odds is how often a step sounds, in percent.
	Odds int `json:"odds" jsonschema:"minimum=0,maximum=100"`
	// Octave moves it by octaves.
	Octave int `json:"octave,omitempty" jsonschema:"minimum=-4,maximum=4"`
}

// Label implements Edit.
func (e AddLines) Label() string { return fmt.Sprintf("%d random lines", len(e.Lines)) }

func (e AddLines) apply(p *Project) (Edit, error) {
	of := p.Track(e.Track)
	if of == nil {
		return nil, fmt.Errorf("track %d: %w", e.Track, ErrUnknownTrack)
	}
	source := of.Pitches.clone()
	if source == nil {
		source = &PitchSource{Kind: TrackPitches, Track: of.ID}
	}
	source.Order, source.Octaves = RandomNote, 1
	tuning := p.Key.Tuning.Ready()
	narrowest := max(theory.Octave, tuning.Span())
	register, at := of.Register, len(p.Tracks)
	var inverses []Edit
	for i, line := range e.Lines {
		if line.Rate.Ticks() == 0 {
			return nil, &FieldError{fmt.Sprintf("lines[%d].rate", i), fmt.Sprintf("%.40q", string(line.Rate)), "a note value"}
		}
		if err := firstOf([]error{
			checkRange(fmt.Sprintf("lines[%d].odds", i), line.Odds, 0, 100), checkRange(fmt.Sprintf("lines[%d].octave", i), line.Octave, -4, 4),
		}); err != nil {
			return nil, err
		}
		track := newTrack(p.unusedID(), fmt.Sprintf("Line %s %d %%", line.Rate, line.Odds), NewPart("Part 1"))
		track.Channel, track.Pitches, track.Transpose.Semitones = p.unusedChannels(1), source.clone(), 12*line.Octave
		track.Register = theory.Register{ // so that it is not folded back
			Lowest:  min(max(0, register.Lowest+12*line.Octave), theory.HighestNote+1-narrowest),
			Highest: min(theory.HighestNote, register.Highest+12*line.Octave),
		}
		track.Register.Highest = max(track.Register.Highest, track.Register.Lowest+narrowest-1)
		gate, probability, pitch := newLane(Gate.Spec()), newLane(Probability.Spec()), newLane(Pitch.Spec())
		gate.Rate, gate.Steps = line.Rate, slices.Repeat([]int{On}, MaxSteps)
		probability.Linked, probability.Steps = true, slices.Repeat([]int{line.Odds}, MaxSteps)
		pitch.Linked, pitch.Steps = true, make([]int, MaxSteps)
		lanes := &track.Patterns[0].Parts[0].Lanes
		lanes.Gate, lanes.Probability, lanes.Pitch = gate, probability, pitch
		inverse, err := InsertTrack{At: at + i, Track: track}.apply(p)
		if err != nil {
			return nil, err
		}
		inverses = append(inverses, inverse)
	}
	slices.Reverse(inverses)
	return all(e.Label(), inverses...), nil
}
