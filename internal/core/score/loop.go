package score

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/theory"
)

// Bounds of a loop.
const (
	MinLoop      = whole / 64
	MaxLoopNotes = 1024
	// LoopDensity is how many ticks of a loop there are at least for each of its notes, so that no project
	// plays more than can be played.
	LoopDensity = 60
)

// Loop is what a track has played, to be played again and again.
type Loop struct {
	// Start is a moment at which the loop begins; it also does so every Length before and after.
	Start Tick `json:"start" jsonschema:"minimum=0"`
	// Length is that of a 64th to that of 256 bars of 4/4.
	Length Tick `json:"length" jsonschema:"minimum=1260,maximum=20643840"`
	// Notes are ordered by start; there are LoopDensity ticks for each at least.
	Notes []LoopNote `json:"notes,omitempty" jsonschema:"maxItems=1024"`
}

// LoopNote is a note of a loop, as it sounds: nothing is added to it.
type LoopNote struct {
	// Start counts from the loop's beginning, and is within the loop; Length is at most that of the loop.
	Start  Tick `json:"start" jsonschema:"minimum=0"`
	Length Tick `json:"length" jsonschema:"minimum=1"`
	// Key is the MIDI note number.
	Key      int `json:"key" jsonschema:"minimum=0,maximum=127"`
	Velocity int `json:"velocity" jsonschema:"minimum=1,maximum=127"`
	// Detune is how far above the pitch of its key it is to sound.
	Detune theory.Cents `json:"detune,omitempty"`
}

// Clone returns a copy that shares nothing with l.
func (l *Loop) Clone() *Loop {
	if l == nil {
		return nil
	}
	clone := *l
	clone.Notes = slices.Clone(l.Notes)
	return &clone
}

func (l *Loop) validate(field string) error {
	if l == nil {
		return nil
	}
	checks := []error{
		checkRange(field+".start", int(l.Start), 0, int(LastTick)),
		checkRange("the number of "+field+".notes", len(l.Notes), 0, min(MaxLoopNotes, int(l.Length)/LoopDensity)),
	}
	least := 0
	for i, n := range l.Notes {
		at := fmt.Sprintf("%s.notes[%d]", field, i)
		checks = append(checks,
			checkRange(at+".start", int(n.Start), least, int(l.Length)-1),
			checkRange(at+".length", int(n.Length), 1, int(l.Length)),
			checkRange(at+".detune", int(n.Detune), -int(theory.Octave*theory.Semitone), int(theory.Octave*theory.Semitone)))
		least = int(n.Start)
	}
	return firstOf(checks)
}

// SetLoop has a track play a loop in place of its patterns, or without one lets go of it.
type SetLoop struct {
	Track int   `json:"track"`
	Loop  *Loop `json:"loop,omitempty"`
}

// Label implements Edit.
func (e SetLoop) Label() string {
	if e.Loop == nil {
		return "end of a loop"
	}
	return "loop"
}

func (e SetLoop) apply(p *Project) (Edit, error) {
	track := p.Track(e.Track)
	if track == nil {
		return nil, fmt.Errorf("track %d: %w", e.Track, ErrUnknownTrack)
	}
	inverse := SetLoop{Track: e.Track, Loop: track.Loop}
	track.Loop = e.Loop.Clone()
	return inverse, nil
}
