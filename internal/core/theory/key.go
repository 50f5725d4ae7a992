package theory

import "slices"

// MiddleC is the MIDI note number of C4.
const MiddleC = 60

// LowestNote and HighestNote bound the MIDI note numbers.
const (
	LowestNote  = 0
	HighestNote = 127
)

// Key is a root, a scale, and which of its notes are allowed.
type Key struct {
	// Root is the pitch class of the root: 0 is C, 11 is B. In a tuning it is a note of the tuning.
	Root int `json:"root" jsonschema:"minimum=0,maximum=1023"`
	// Scale is the scale's name, one of ScaleNames, or Custom. In a tuning of other than twelve notes it is
	// Chromatic, which is all of them, or Custom.
	Scale string `json:"scale"`
	// Notes are the semitones, or notes of the tuning, above the root of a Custom scale, ascending from 0.
	Notes []int `json:"notes,omitempty" jsonschema:"maxItems=1024"`
	// Allowed are the places in the scale, from 0, that may sound, ascending; empty allows all. A degree
	// that is not allowed sounds as the nearest that is, the lower of two that are equally near.
	Allowed []int `json:"allowed,omitempty" jsonschema:"maxItems=1024"`
	// Tuning says how the notes sound; without it they are those of equal temperament.
	Tuning *Tuning `json:"tuning,omitempty"`
}

// Period returns how many notes there are in an octave of the key's tuning, or in whatever period it has.
func (k Key) Period() int {
	if k.Tuning == nil {
		return Octave
	}
	return len(k.Tuning.Pitches)
}

// InTuning returns the key in another tuning; nil is equal temperament. The scale stays where both have as many
// notes in a period, else it is Chromatic with all notes allowed, and the root is counted within the period.
func (k Key) InTuning(tuning *Tuning) Key {
	retuned := k.Clone()
	retuned.Tuning = tuning.Clone()
	if period := retuned.Period(); period != k.Period() {
		retuned.Root, retuned.Scale, retuned.Notes, retuned.Allowed = k.Root%period, Chromatic, nil, nil
	}
	return retuned
}

// Clone returns a copy that shares nothing with k.
func (k Key) Clone() Key {
	k.Notes, k.Allowed, k.Tuning = slices.Clone(k.Notes), slices.Clone(k.Allowed), k.Tuning.Clone()
	return k
}

// Note returns the note number of a degree: root + P·floor(d/n) + scale[d mod n] for a scale of n
// notes, where P is 12 or the number of notes of the tuning. It can lie outside 0…127; Register.Fold brings
// it in. In a tuning note numbers count its notes, and that of the first is Keyboard.Middle. An unknown scale
// counts as chromatic; validation refuses it long before.
func (k Key) Note(degree int) int {
	return k.Spelling().Note(degree)
}

// Spelling is a Key made ready to spell many degrees.
type Spelling struct {
	base      int
	period    int
	semitones []int
	// nearest holds, for each place in the scale, how far the nearest allowed degree is.
	nearest []int
}

// Spelling looks the scale up once.
func (k Key) Spelling() Spelling {
	spelling := Spelling{base: MiddleC + k.Root, period: k.Period(), semitones: k.Notes}
	if k.Tuning != nil && k.Tuning.Keyboard != nil {
		spelling.base = k.Tuning.Keyboard.Middle + k.Root
	}
	if k.Scale != Custom {
		s, ok := ScaleByName(k.Scale)
		if spelling.semitones = s.Semitones; !ok || k.Scale == Chromatic {
			spelling.semitones = make([]int, spelling.period)
			for i := range spelling.semitones {
				spelling.semitones[i] = i
			}
		}
	}
	if len(k.Allowed) > 0 {
		spelling.nearest = ToAllowed(len(spelling.semitones), k.Allowed)
	}
	return spelling
}

// ToAllowed returns, for each degree of a scale of so many notes, how far the nearest of those is that are allowed, the lower of two. It is nil where
// the scale has none of them.
func ToAllowed(notes int, allowed []int) []int {
	if !slices.ContainsFunc(allowed, func(degree int) bool { return degree >= 0 && degree < notes }) {
		return nil
	}
	nearest := make([]int, notes)
	for place := range nearest {
		for away := 0; ; away++ {
			if slices.Contains(allowed, floorMod(place-away, notes)) {
				nearest[place] = -away
				break
			}
			if slices.Contains(allowed, (place+away)%notes) {
				nearest[place] = away
				break
			}
		}
	}
	return nearest
}

// Allow returns the allowed degree that is nearest to a degree.
func (s Spelling) Allow(degree int) int {
	if s.nearest == nil {
		return degree
	}
	return degree + s.nearest[floorMod(degree, len(s.semitones))]
}

// Note returns the note number of a degree, as Key.Note does.
func (s Spelling) Note(degree int) int {
	n := len(s.semitones)
	octave, place := degree/n, degree%n
	if place < 0 {
		octave, place = octave-1, place+n
	}
	return s.base + s.period*octave + s.semitones[place]
}

// Notes returns how many notes the scale has in an octave.
func (s Spelling) Notes() int { return len(s.semitones) }

// Period returns how far apart the note numbers of a degree and the one an octave above are.
func (s Spelling) Period() int { return s.period }

func floorMod(a, b int) int { return (a%b + b) % b }

// KeyOfSignature returns the major or minor key of a signature of so many sharps, flats below 0.
func KeyOfSignature(sharps int, minor bool) Key {
	// Seven fifths are one semitone more than four octaves, so a signature of s sharps is that of 7·s semitones.
	key := Key{Root: floorMod(7*sharps, Octave), Scale: "major"}
	if minor {
		key = Key{Root: floorMod(7*sharps-3, Octave), Scale: "minor"}
	}
	return key
}

// Signature returns the key signature of the major and minor system: sharps above 0, flats below,
// and whether the key is minor. ok is false where no such signature is in use, as for the modes.
// Each fifth upwards from C major or A minor adds a sharp; signatures run from 5 flats to 6 sharps.
func (k Key) Signature() (sharps int, minor, ok bool) {
	s, found := ScaleByName(k.Scale)
	if !found || s.Tonality == Modal || k.Period() != Octave {
		return 0, false, false
	}
	minor = s.Tonality == Minor
	relativeMajor := k.Root
	if minor {
		relativeMajor += 3
	}
	// Seven semitones are a fifth and 7·7 = 49 = 1 mod 12, so multiplying by 7 counts fifths.
	sharps = relativeMajor * 7 % Octave
	if sharps > 6 {
		sharps -= Octave
	}
	return sharps, minor, true
}
