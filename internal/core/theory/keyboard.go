package theory

import (
	"fmt"
	"slices"
)

// Unmapped in a Keyboard's Keys is a key that plays nothing.
const Unmapped = -1

// Keyboard says which keys play which notes of a tuning, as a Scala keyboard mapping file does.
type Keyboard struct {
	// First and Last bound the keys that a device is to tune; here they are only kept.
	First int `json:"first" jsonschema:"minimum=0,maximum=127"`
	Last  int `json:"last" jsonschema:"minimum=0,maximum=127"`
	// Middle is the MIDI note at which the list of keys begins.
	Middle int `json:"middle" jsonschema:"minimum=0,maximum=127"`
	// Reference is the MIDI note whose frequency is given.
	Reference int `json:"reference" jsonschema:"minimum=0,maximum=127"`
	// MicroHertz is that frequency in millionths of a hertz.
	MicroHertz int64 `json:"microHertz" jsonschema:"minimum=1000000,maximum=20000000000"`
	// Octave is the note at which the list of keys begins anew.
	Octave int `json:"octave" jsonschema:"minimum=0,maximum=1024"`
	// Keys holds the note of each key from Middle on, or Unmapped. Without any each key plays the next note.
	Keys []int `json:"keys,omitempty" jsonschema:"maxItems=128"`
}

// DefaultKeyboard returns the mapping in which each key plays the next note, from middle C at the frequency
// that it has in equal temperament with A4 at 440 Hz.
func DefaultKeyboard() Keyboard {
	return Keyboard{
		First: LowestNote, Last: HighestNote, Middle: MiddleC, Reference: MiddleC, MicroHertz: 261_625_565, Octave: Octave,
	}
}

// note returns the note that a key plays, counted from the first note of the tuning; ok is false for one that
// plays nothing.
func (k Keyboard) note(key int) (note int, ok bool) {
	away := key - k.Middle
	if len(k.Keys) == 0 {
		return away, true
	}
	place := floorMod(away, len(k.Keys))
	if k.Keys[place] == Unmapped {
		return 0, false
	}
	return k.Keys[place] + (away-place)/len(k.Keys)*k.Octave, true
}

// key returns the key that plays a note, or the next lower note that a key plays.
func (k Keyboard) key(note int) int {
	if len(k.Keys) == 0 {
		return k.Middle + note
	}
	within := floorMod(note, k.Octave)
	start := k.Middle + (note-within)/k.Octave*len(k.Keys)
	best, at := Unmapped, 0
	for place, plays := range k.Keys {
		if plays <= within && plays > best {
			best, at = plays, place
		}
	}
	return start + at
}

// Validate returns nil for a usable mapping, else a sentence without its full stop.
func (k Keyboard) Validate() error {
	for _, note := range []int{k.First, k.Last, k.Middle, k.Reference} {
		if note < LowestNote || note > HighestNote {
			return fmt.Errorf("the key %d does not exist; keys are 0 to 127", note)
		}
	}
	switch {
	case k.MicroHertz < 1_000_000 || k.MicroHertz > 20_000_000_000:
		return fmt.Errorf("the reference frequency is %g Hz; it must be 1 to 20000", float64(k.MicroHertz)/1e6)
	case len(k.Keys) > HighestNote+1:
		return fmt.Errorf("the mapping lists %d keys; it must be at most 128", len(k.Keys))
	case len(k.Keys) == 0:
		return nil
	case k.Octave < 1 || k.Octave > MaxTuningNotes:
		return fmt.Errorf("the formal octave is note %d; it must be 1 to %d", k.Octave, MaxTuningNotes)
	case !slices.Contains(k.Keys, 0):
		return fmt.Errorf("no key plays note 0, the first of the tuning")
	}
	for _, note := range k.Keys {
		if note != Unmapped && (note < 0 || note >= k.Octave) {
			return fmt.Errorf("a key plays note %d; it must be 0 to %d, below the formal octave", note, k.Octave-1)
		}
	}
	if _, ok := k.note(k.Reference); !ok {
		return fmt.Errorf("the reference key %d plays nothing", k.Reference)
	}
	return nil
}
