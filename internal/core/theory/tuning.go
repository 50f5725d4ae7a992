package theory

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Cents is a distance between pitches in millionths of a cent; a cent is the 1200th part of an octave of
// ratio 2/1. A distance that is a ratio is rounded to the nearest.
type Cents int64

// Distances in cents.
const (
	Cent     Cents = 1_000_000
	Semitone       = 100 * Cent
)

// Bounds of a tuning.
const (
	MaxTuningNotes = 1024
	maxPitchLength = 60
)

// Tuning says how the notes of a period sound. Notes are counted from the first, 0, which is 1/1.
type Tuning struct {
	// Name describes the tuning.
	Name string `json:"name" jsonschema:"maxLength=60"`
	// Pitches are those of the notes above the first, the last one the period, each as in a Scala scale
	// file: a ratio like "3/2" or "2", or cents with a point like "701.955". 1 to MaxTuningNotes.
	Pitches []string `json:"pitches" jsonschema:"minItems=1,maxItems=1024"`
	// Keyboard says which keys play which notes; without it each key plays the next note, and MIDI note 60 is
	// the first one and sounds as middle C.
	Keyboard *Keyboard `json:"keyboard,omitempty"`
}

// EqualTemperament returns twelve equal steps of an octave, the tuning of keys that have no other.
func EqualTemperament() *Tuning {
	tuning := &Tuning{Name: "12-tone equal temperament"}
	for i := range Octave {
		tuning.Pitches = append(tuning.Pitches, fmt.Sprintf("%d.", 100*(i+1)))
	}
	return tuning
}

// Clone returns a copy that shares nothing with t.
func (t *Tuning) Clone() *Tuning {
	if t == nil {
		return nil
	}
	clone := *t
	clone.Pitches = append([]string(nil), t.Pitches...)
	if t.Keyboard != nil {
		keyboard := *t.Keyboard
		keyboard.Keys = append([]int(nil), t.Keyboard.Keys...)
		clone.Keyboard = &keyboard
	}
	return &clone
}

// ParsePitch reads a pitch of a Scala scale file. The error is a sentence without its full stop.
func ParsePitch(text string) (Cents, error) {
	refuse := func() (Cents, error) {
		return 0, fmt.Errorf("%.20q is not a pitch: it must be a ratio like 3/2 or cents with a point like 701.955", text)
	}
	if len(text) > maxPitchLength {
		return refuse()
	}
	if strings.Contains(text, ".") {
		cents, err := strconv.ParseFloat(text, 64)
		if err != nil || math.Abs(cents) > 1e6 {
			return refuse()
		}
		return Cents(math.Round(cents * float64(Cent))), nil
	}
	upper, lower, hasLower := strings.Cut(text, "/")
	if !hasLower {
		lower = "1"
	}
	numerator, errA := strconv.ParseUint(upper, 10, 62)
	denominator, errB := strconv.ParseUint(lower, 10, 62)
	if errA != nil || errB != nil || numerator == 0 || denominator == 0 {
		return refuse()
	}
	return ratioCents(float64(numerator) / float64(denominator)), nil
}

func ratioCents(ratio float64) Cents {
	return Cents(math.Round(1200 * math.Log2(ratio) * float64(Cent)))
}

// Pitches are a tuning made ready to be looked up; see Tuning.Ready.
type Pitches struct {
	above  []Cents // of each note above the first
	period Cents
	first  Cents // the first note above MIDI note 0 of equal temperament
	keys   Keyboard
}

// Ready looks all pitches up. The tuning must be valid; nil is equal temperament.
func (t *Tuning) Ready() Pitches {
	if t == nil {
		t = EqualTemperament()
	}
	keyboard := DefaultKeyboard()
	if t.Keyboard != nil {
		keyboard = *t.Keyboard
	}
	ready := Pitches{above: []Cents{0}, keys: keyboard}
	for _, pitch := range t.Pitches {
		cents, err := ParsePitch(pitch)
		if err != nil {
			panic("theory: an invalid tuning: " + err.Error())
		}
		ready.above = append(ready.above, cents)
	}
	ready.period = ready.above[len(t.Pitches)]
	ready.above = ready.above[:len(t.Pitches)]
	ready.first = MiddleC * Semitone
	if t.Keyboard != nil {
		const a4 = 69 * Semitone // at 440 Hz
		reference, _ := keyboard.note(keyboard.Reference)
		ready.first = a4 + ratioCents(float64(keyboard.MicroHertz)/440e6) - ready.aboveFirst(reference)
	}
	return ready
}

// Notes returns how many notes a period has.
func (p *Pitches) Notes() int { return len(p.above) }

// Period returns how far apart two notes are that are the same but for the period.
func (p *Pitches) Period() Cents { return p.period }

// Middle returns the number that Spelling gives to the first note: the key that plays it where each key plays
// the next note.
func (p *Pitches) Middle() int { return p.keys.Middle }

// Sounding returns the pitch of a note above MIDI note 0 of equal temperament, for a note as Spelling numbers
// it.
func (p *Pitches) Sounding(note int) Cents { return p.first + p.aboveFirst(note-p.keys.Middle) }

// Nearest returns the MIDI note of equal temperament that is nearest to a note. It can lie outside 0…127.
func (p *Pitches) Nearest(note int) int {
	sounding := p.Sounding(note) + Semitone/2
	return int((sounding - Cents(floorMod(int(sounding), int(Semitone)))) / Semitone)
}

// Key returns the key that plays a note, or the next lower note that a key plays. It can lie outside 0…127.
func (p *Pitches) Key(note int) int { return p.keys.key(note - p.keys.Middle) }

// Span returns how many keys a period takes.
func (p *Pitches) Span() int {
	if len(p.keys.Keys) == 0 {
		return p.Notes()
	}
	return len(p.keys.Keys)
}

func (p *Pitches) aboveFirst(note int) Cents {
	notes := len(p.above)
	place := floorMod(note, notes)
	return Cents((note-place)/notes)*p.period + p.above[place]
}
