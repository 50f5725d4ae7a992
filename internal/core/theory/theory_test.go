package theory

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Common practice: degrees of familiar keys as MIDI note numbers.
func TestNote(t *testing.T) {
	for _, c := range []struct {
		key    Key
		degree int
		want   int
	}{
		{Key{Root: 0, Scale: "major"}, 0, 60},
		{Key{Root: 0, Scale: "major"}, 7, 72},
		{Key{Root: 0, Scale: "major"}, -1, 59},
		{Key{Root: 0, Scale: "major"}, -7, 48},
		{Key{Root: 2, Scale: "dorian"}, 4, 69}, // A4 = 440 Hz
		{Key{Root: 2, Scale: "dorian"}, 6, 72},
		{Key{Root: 9, Scale: "minor pentatonic"}, 5, 81},
		{Key{Root: 9, Scale: "minor pentatonic"}, -1, 67},
		{Key{Root: 11, Scale: "chromatic"}, 13, 84},
	} {
		require.Equal(t, c.want, c.key.Note(c.degree), "%v degree %d", c.key, c.degree)
	}
}

// Degrees ascend, stay in the scale, and an octave is as many degrees as the scale has notes.
func TestNoteProperties(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		key := Key{Root: rapid.IntRange(0, 11).Draw(t, "root"), Scale: rapid.SampledFrom(ScaleNames()).Draw(t, "scale")}
		degree := rapid.IntRange(-60, 60).Draw(t, "degree")
		scale, ok := ScaleByName(key.Scale)
		require.True(t, ok)
		note := key.Note(degree)
		require.Greater(t, key.Note(degree+1), note)
		require.Equal(t, note+Octave, key.Note(degree+len(scale.Semitones)))
		require.Contains(t, scale.Semitones, ((note-key.Root)%Octave+Octave)%Octave)
	})
}

func TestFoldMovesByTheFewestOctaves(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lowest := rapid.IntRange(0, 116).Draw(t, "lowest")
		register := Register{lowest, rapid.IntRange(lowest+11, 127).Draw(t, "highest")}
		note := rapid.IntRange(-200, 300).Draw(t, "note")
		folded := register.Fold(note)
		require.GreaterOrEqual(t, folded, register.Lowest)
		require.LessOrEqual(t, folded, register.Highest)
		require.Zero(t, (folded-note)%Octave)
		if folded < note {
			require.Greater(t, folded+Octave, register.Highest)
		}
		if folded > note {
			require.Less(t, folded-Octave, register.Lowest)
		}
	})
}

// Key signatures from the circle of fifths; common practice.
func TestSignature(t *testing.T) {
	for _, c := range []struct {
		key    Key
		sharps int
		minor  bool
	}{
		{Key{Root: 0, Scale: "major"}, 0, false}, {Key{Root: 7, Scale: "major"}, 1, false}, {Key{Root: 2, Scale: "major"}, 2, false},
		{Key{Root: 6, Scale: "major"}, 6, false}, {Key{Root: 5, Scale: "major"}, -1, false}, {Key{Root: 1, Scale: "major"}, -5, false},
		{Key{Root: 9, Scale: "minor"}, 0, true}, {Key{Root: 2, Scale: "minor"}, -1, true}, {Key{Root: 4, Scale: "harmonic minor"}, 1, true},
		{Key{Root: 8, Scale: "melodic minor"}, 5, true}, {Key{Root: 10, Scale: "minor"}, -5, true},
	} {
		sharps, minor, ok := c.key.Signature()
		require.True(t, ok)
		require.Equal(t, c.sharps, sharps, "%v", c.key)
		require.Equal(t, c.minor, minor, "%v", c.key)
	}
	_, _, ok := Key{Root: 2, Scale: "dorian"}.Signature()
	require.False(t, ok, "a mode has no signature of the major and minor system")
}

// Spellings as printed in any book of scales; common practice.
func TestDegreeNames(t *testing.T) {
	for _, c := range []struct {
		key  Key
		want []string
	}{
		{Key{Root: 2, Scale: "dorian"}, []string{"D", "E", "F", "G", "A", "B", "C"}},
		{Key{Root: 0, Scale: "minor"}, []string{"C", "D", "E♭", "F", "G", "A♭", "B♭"}},
		{Key{Root: 6, Scale: "major"}, []string{"F♯", "G♯", "A♯", "B", "C♯", "D♯", "E♯"}},
		{Key{Root: 4, Scale: "harmonic minor"}, []string{"E", "F♯", "G", "A", "B", "C", "D♯"}},
		{Key{Root: 9, Scale: "minor pentatonic"}, []string{"A", "C", "D", "E", "G"}},
		{Key{Root: 10, Scale: "whole tone"}, []string{"B♭", "C", "D", "E", "G♭", "A♭"}},
	} {
		require.Equal(t, c.want, c.key.DegreeNames(), "%v", c.key)
	}
	require.Equal(t, "A4", Key{Root: 2, Scale: "dorian"}.DegreeName(4))
	require.Equal(t, "C5", Key{Root: 2, Scale: "dorian"}.DegreeName(6))
	require.Equal(t, "C4", Key{Root: 2, Scale: "dorian"}.DegreeName(-1))
}

// MIDI 1.0 and equal temperament: note 69 is 440 Hz, an octave doubles the frequency, and middle C
// is 261.626 Hz (a value printed in any table of equal temperament).
func TestMiddleCIsWhereMIDIPutsIt(t *testing.T) {
	frequency := func(note int) float64 { return 440 * math.Exp2(float64(note-69)/Octave) }
	require.InDelta(t, 261.626, frequency(Key{Root: 0, Scale: "major"}.Note(0)), 0.001)
}

// A key that allows only some of its notes plays the nearest of those; ties go down.
func TestAllow(t *testing.T) {
	s := Key{Scale: "major", Allowed: []int{0, 4}}.Spelling()
	for degree, want := range map[int]int{0: 0, 1: 0, 2: 0, 3: 4, 4: 4, 5: 4, 6: 7, 7: 7, -1: 0, -2: -3, -3: -3} {
		require.Equal(t, want, s.Allow(degree), "degree %d", degree)
	}
	require.Equal(t, 5, Key{Scale: "major"}.Spelling().Allow(5))
}

// Quantising a note of the scale keeps it; a foreign one goes to a neighbour in the wanted direction.
func TestQuantise(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		key := Key{Root: rapid.IntRange(0, 11).Draw(t, "root"), Scale: rapid.SampledFrom(ScaleNames()).Draw(t, "scale")}
		s := key.Spelling()
		note := rapid.IntRange(0, 127).Draw(t, "note")
		down, up, nearest := s.Quantise(note, Down), s.Quantise(note, Up), s.Quantise(note, Nearest)
		require.LessOrEqual(t, s.Note(down), note)
		require.GreaterOrEqual(t, s.Note(up), note)
		require.LessOrEqual(t, up-down, 1)
		if note-s.Note(down) <= s.Note(up)-note {
			require.Equal(t, down, nearest, "ties go down")
		} else {
			require.Equal(t, up, nearest)
		}
		degree := rapid.IntRange(-20, 20).Draw(t, "degree")
		require.Equal(t, degree, s.Quantise(s.Note(degree), Nearest))
	})
}

func TestACustomScaleListsItsNotes(t *testing.T) {
	key := Key{Root: 2, Scale: Custom, Notes: []int{0, 1, 6}}
	require.Equal(t, []int{62, 63, 68, 74}, []int{key.Note(0), key.Note(1), key.Note(2), key.Note(3)})
	require.Equal(t, []string{"D", "D♯", "G♯"}, key.DegreeNames())
	_, _, ok := key.Signature()
	require.False(t, ok)
}
