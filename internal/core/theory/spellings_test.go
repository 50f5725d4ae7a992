package theory_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/theory"
)

// Common practice: the octave of a note is that of its letter, from C to B, and 60 is C4.
func TestSpellingsOfNotes(t *testing.T) {
	for note, want := range map[int][]string{
		60: {"B#3", "C4"}, 61: {"C#4", "DB4"}, 59: {"B3", "CB4"}, 62: {"D4"}, 64: {"E4", "FB4"}, 0: {"B#-2", "C-1"}, 127: {"G9"},
	} {
		require.Equal(t, want, theory.NoteSpellings(note), note)
	}
	seen := map[string]bool{}
	for note := range theory.HighestNote + 1 {
		for _, spelling := range theory.NoteSpellings(note) {
			require.False(t, seen[spelling], spelling)
			seen[spelling] = true
		}
	}
}
