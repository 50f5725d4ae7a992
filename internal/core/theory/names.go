package theory

import (
	"fmt"
	"slices"
	"strconv"
)

// letters and naturals name the white keys.
var (
	letters  = "CDEFGAB"
	naturals = []int{0, 2, 4, 5, 7, 9, 11}
	sharps   = []string{"C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B"}
	flats    = []string{"C", "D♭", "D", "E♭", "E", "F", "G♭", "G", "A♭", "A", "B♭", "B"}
)

// RootNames lists the twelve roots by pitch class, as keys are usually written.
func RootNames() []string {
	return []string{"C", "D♭", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B"}
}

// DegreeNames spells the notes of one octave of the key, without octave numbers. A scale of seven
// notes uses each letter once where that needs no double accidental; other scales use sharps or flats
// as the root's own name does. Common practice. Notes of a tuning of other than twelve notes are named by
// their numbers.
func (k Key) DegreeNames() []string {
	spelling := k.Spelling()
	if k.Period() != Octave {
		names := make([]string, spelling.Notes())
		for i := range names {
			names[i] = strconv.Itoa(floorMod(k.Root+spelling.semitones[i], k.Period()))
		}
		return names
	}
	root := RootNames()[k.Root]
	names := make([]string, spelling.Notes())
	usesFlats := len(root) > 1 && root[1:] == "♭" || k.Root == 5
	for i := range names {
		note := spelling.Note(i)
		names[i] = sharps[note%Octave]
		if usesFlats {
			names[i] = flats[note%Octave]
		}
	}
	if len(names) != len(letters) {
		return names
	}
	first := letterIndex(root[0])
	byLetter := make([]string, len(names))
	for i := range names {
		name, ok := lettered((first+i)%len(letters), spelling.Note(i))
		if !ok {
			return names
		}
		byLetter[i] = name
	}
	return byLetter
}

// lettered names a note by a letter, by its place, and one accidental or none; ok is false where that takes more.
func lettered(place, note int) (name string, ok bool) {
	accidental := floorMod(note-naturals[place]+6, Octave) - 6
	if accidental < -1 || accidental > 1 {
		return "", false
	}
	return letters[place:place+1] + []string{"♭", "", "♯"}[accidental+1], true
}

// DegreeName spells one degree with its octave number: C4 is middle C. The octave number changes
// between B and C. In a tuning of other than twelve notes it follows a point and changes at note 0.
func (k Key) DegreeName(degree int) string {
	spelling := k.Spelling()
	n := spelling.Notes()
	place := (degree%n + n) % n
	name := k.DegreeNames()[place]
	if period := k.Period(); period != Octave {
		within := floorMod(spelling.Note(degree)-spelling.base+k.Root, period)
		octave := (spelling.Note(degree) - spelling.base + k.Root - within) / period
		return name + "·" + strconv.Itoa(octave+MiddleC/Octave-1)
	}
	return numbered(name, spelling.Note(degree))
}

// numbered adds the octave number of a MIDI note to its name. The letter decides it: C♭ above B3 is C♭4.
func numbered(name string, note int) string {
	accidental := floorMod(note-naturals[letterIndex(name[0])]+6, Octave) - 6
	natural := note - accidental
	return name + strconv.Itoa((natural-floorMod(natural, Octave))/Octave-1)
}

func letterIndex(letter byte) int {
	for i := range letters {
		if letters[i] == letter {
			return i
		}
	}
	panic("theory: " + string(letter) + " is not the letter of a note")
}

// NoteName names a MIDI note as C♯4; 60 is C4 (common practice).
func NoteName(note int) string { return sharps[note%Octave] + strconv.Itoa(note/Octave-1) }

// NoteSpellings lists the ways to type a MIDI note, in capitals and with # and B for the accidentals: C#4 and DB4 for 61. A
// natural with an accidental has the octave of its letter, so CB4 is the note below C4 (common practice).
func NoteSpellings(note int) (spellings []string) {
	for i, natural := range naturals {
		for by, accidental := range []string{"B", "", "#"} {
			if from := note - natural - (by - 1); from%Octave == 0 {
				spellings = append(spellings, fmt.Sprintf("%c%s%d", letters[i], accidental, from/Octave-1))
			}
		}
	}
	slices.Sort(spellings)
	return spellings
}
