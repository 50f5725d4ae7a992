package theory

// MiddleC is the MIDI note number of C4.
const MiddleC = 60

// LowestNote and HighestNote bound the MIDI note numbers.
const (
	LowestNote  = 0
	HighestNote = 127
)

// Key is a root and a scale.
type Key struct {
	// Root is the pitch class of the root: 0 is C, 11 is B.
	Root int `json:"root" jsonschema:"minimum=0,maximum=11"`
	// Scale is the scale's name, one of ScaleNames.
	Scale string `json:"scale"`
}

// Note returns the note number of a degree: root + 12·floor(d/n) + scale[d mod n] for a scale of n
// notes. It can lie outside 0…127; Register.Fold brings it in. An unknown scale counts as chromatic;
// validation refuses it long before.
func (k Key) Note(degree int) int {
	return k.Spelling().Note(degree)
}

// Spelling is a Key made ready to spell many degrees.
type Spelling struct {
	base      int
	semitones []int
}

// Spelling looks the scale up once.
func (k Key) Spelling() Spelling {
	s, ok := ScaleByName(k.Scale)
	if !ok {
		s, _ = ScaleByName("chromatic")
	}
	return Spelling{base: MiddleC + k.Root, semitones: s.Semitones}
}

// Note returns the note number of a degree, as Key.Note does.
func (s Spelling) Note(degree int) int {
	n := len(s.semitones)
	octave, place := degree/n, degree%n
	if place < 0 {
		octave, place = octave-1, place+n
	}
	return s.base + Octave*octave + s.semitones[place]
}

// Notes returns how many notes the scale has in an octave.
func (s Spelling) Notes() int { return len(s.semitones) }

// Signature returns the key signature of the major and minor system: sharps above 0, flats below,
// and whether the key is minor. ok is false where no such signature is in use, as for the modes.
// Each fifth upwards from C major or A minor adds a sharp; signatures run from 5 flats to 6 sharps.
func (k Key) Signature() (sharps int, minor, ok bool) {
	s, found := ScaleByName(k.Scale)
	if !found || s.Tonality == Modal {
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
