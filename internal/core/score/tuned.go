package score

import (
	"fmt"

	"jettyfog/internal/core/theory"
)

// Tuned says how a track gets its notes in tune.
type Tuned struct {
	By TunedBy `json:"by" jsonschema:"enum=instrument,enum=bend,enum=messages"`
	// Channels is how many channels BendTuned takes, from the track's own up: as many notes can be in tune at
	// a time.
	Channels int `json:"channels,omitempty" jsonschema:"minimum=0,maximum=16"`
	// Range is how far BendTuned has the instrument bend, in semitones either way.
	Range int `json:"range,omitempty" jsonschema:"minimum=0,maximum=96"`
}

// TunedBy is the way in which notes get in tune.
type TunedBy string

// The ways.
const (
	InstrumentTuned TunedBy = "instrument" // it is sent keys of its keyboard mapping
	BendTuned       TunedBy = "bend"
	MessageTuned    TunedBy = "messages" // single notes of the MIDI Tuning Standard
)

// tunedBys is in the order in which to offer them.
var tunedBys = options[TunedBy]{
	{InstrumentTuned, "instrument", "The instrument has the tuning, and is sent plain notes."},
	{BendTuned, "pitch bend", "Each note has a channel of its own, on which it is bent."},
	{MessageTuned, "tuning messages", "Notes are retuned by messages of the MIDI Tuning Standard."},
}

// TunedBys lists the ways in the order in which to offer them.
func TunedBys() []TunedBy { return tunedBys.values() }

// TunedByOptions lists the ways as options.
func TunedByOptions() []Option { return tunedBys.list() }

// Retunes reports whether the track tunes its notes itself.
func (t *Track) Retunes() bool { return t.Tuned != nil && t.Tuned.By != InstrumentTuned }

// swapTuned is swap for a property that can be missing, which an edit has as InstrumentTuned.
func swapTuned(field **Tuned, value *Tuned) *Tuned {
	if value == nil {
		return nil
	}
	before := &Tuned{By: InstrumentTuned}
	if *field != nil {
		before = *field
	}
	*field = nil
	if *value != (Tuned{By: InstrumentTuned}) {
		tuned := *value
		*field = &tuned
	}
	return before
}

// validateTuned checks what tuning asks of tracks: room for every note, and channels of their own.
func (p *Project) validateTuned() error {
	pitches := p.Key.Tuning.Ready()
	for i := range p.Tracks {
		t := &p.Tracks[i]
		field := fmt.Sprintf("tracks[%d]", i)
		if err := t.validateTuned(field); err != nil {
			return err
		}
		span := t.narrowest(&pitches)
		if p.Key.Tuning != nil && t.Register.Highest-t.Register.Lowest+1 < span {
			return &FieldError{
				field + ".register", fmt.Sprintf("%d to %d", t.Register.Lowest, t.Register.Highest),
				fmt.Sprintf("at least %d notes wide, to have room for every note of the tuning", span),
			}
		}
		for j := range p.Tracks {
			if other := &p.Tracks[j]; i != j && t.Retunes() && t.shares(other) {
				return &FieldError{
					fmt.Sprintf("tracks[%d].channel", j), other.Channel,
					fmt.Sprintf("outside of the channels on which “%s” tunes its notes", t.Name),
				}
			}
		}
	}
	return nil
}

// narrowest returns how many keys the register of a track has at least, to have room for every note of a tuning.
func (t *Track) narrowest(tuning *theory.Pitches) int {
	if t.Retunes() {
		return int((tuning.Period() + theory.Semitone - 1) / theory.Semitone)
	}
	return tuning.Span()
}

func (t *Track) validateTuned(field string) error {
	if t.Tuned == nil {
		return nil
	}
	if err := checkListed(field+".tuned.by", t.Tuned.By, TunedBys()); err != nil {
		return err
	}
	if t.Kind == Kit && t.Retunes() {
		return &FieldError{field + ".tuned.by", string(t.Tuned.By), "instrument, because the notes of a kit are keys"}
	}
	if t.Tuned.By != BendTuned {
		return firstOf([]error{
			checkRange(field+".tuned.channels", t.Tuned.Channels, 0, 0), checkRange(field+".tuned.range", t.Tuned.Range, 0, 0),
		})
	}
	if t.bends() {
		return &FieldError{field + ".tuned.by", string(t.Tuned.By), "another way, because a mod lane bends the track already"}
	}
	return firstOf([]error{
		checkRange(field+".tuned.channels", t.Tuned.Channels, 1, 17-t.Channel), checkRange(field+".tuned.range", t.Tuned.Range, 1, 96),
	})
}

// lastChannel returns the last of the channels that a track takes.
func (t *Track) lastChannel() int {
	if t.Tuned != nil && t.Tuned.By == BendTuned {
		return t.Channel + t.Tuned.Channels - 1
	}
	return t.Channel
}

// shares reports whether two tracks have a channel in common.
func (t *Track) shares(other *Track) bool {
	return t.Channel <= other.lastChannel() && other.Channel <= t.lastChannel()
}
