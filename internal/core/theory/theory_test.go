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
		{Key{0, "major"}, 0, 60},
		{Key{0, "major"}, 7, 72},
		{Key{0, "major"}, -1, 59},
		{Key{0, "major"}, -7, 48},
		{Key{2, "dorian"}, 4, 69}, // A4 = 440 Hz
		{Key{2, "dorian"}, 6, 72},
		{Key{9, "minor pentatonic"}, 5, 81},
		{Key{9, "minor pentatonic"}, -1, 67},
		{Key{11, "chromatic"}, 13, 84},
	} {
		require.Equal(t, c.want, c.key.Note(c.degree), "%v degree %d", c.key, c.degree)
	}
}

// Degrees ascend, stay in the scale, and an octave is as many degrees as the scale has notes.
func TestNoteProperties(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		key := Key{rapid.IntRange(0, 11).Draw(t, "root"), rapid.SampledFrom(ScaleNames()).Draw(t, "scale")}
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
		{Key{0, "major"}, 0, false}, {Key{7, "major"}, 1, false}, {Key{2, "major"}, 2, false},
		{Key{6, "major"}, 6, false}, {Key{5, "major"}, -1, false}, {Key{1, "major"}, -5, false},
		{Key{9, "minor"}, 0, true}, {Key{2, "minor"}, -1, true}, {Key{4, "harmonic minor"}, 1, true},
		{Key{8, "melodic minor"}, 5, true}, {Key{10, "minor"}, -5, true},
	} {
		sharps, minor, ok := c.key.Signature()
		require.True(t, ok)
		require.Equal(t, c.sharps, sharps, "%v", c.key)
		require.Equal(t, c.minor, minor, "%v", c.key)
	}
	_, _, ok := Key{2, "dorian"}.Signature()
	require.False(t, ok, "a mode has no signature of the major and minor system")
}

// Spellings as printed in any book of scales; common practice.
func TestDegreeNames(t *testing.T) {
	for _, c := range []struct {
		key  Key
		want []string
	}{
		{Key{2, "dorian"}, []string{"D", "E", "F", "G", "A", "B", "C"}},
		{Key{0, "minor"}, []string{"C", "D", "E♭", "F", "G", "A♭", "B♭"}},
		{Key{6, "major"}, []string{"F♯", "G♯", "A♯", "B", "C♯", "D♯", "E♯"}},
		{Key{4, "harmonic minor"}, []string{"E", "F♯", "G", "A", "B", "C", "D♯"}},
		{Key{9, "minor pentatonic"}, []string{"A", "C", "D", "E", "G"}},
		{Key{10, "whole tone"}, []string{"B♭", "C", "D", "E", "G♭", "A♭"}},
	} {
		require.Equal(t, c.want, c.key.DegreeNames(), "%v", c.key)
	}
	require.Equal(t, "A4", Key{2, "dorian"}.DegreeName(4))
	require.Equal(t, "C5", Key{2, "dorian"}.DegreeName(6))
	require.Equal(t, "C4", Key{2, "dorian"}.DegreeName(-1))
}

// MIDI 1.0 and equal temperament: note 69 is 440 Hz, an octave doubles the frequency, and middle C
// is 261.626 Hz (a value printed in any table of equal temperament).
func TestMiddleCIsWhereMIDIPutsIt(t *testing.T) {
	frequency := func(note int) float64 { return 440 * math.Exp2(float64(note-69)/Octave) }
	require.InDelta(t, 261.626, frequency(Key{0, "major"}.Note(0)), 0.001)
}
