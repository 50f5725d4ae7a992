package cv

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
)

// held is a note from and to moments.
type held struct {
	note
	to int64
}

// played returns a note of a pitch, in milliseconds.
func played(from, to int64, pitch float64) held {
	return held{note{id: midi.NoteID{Key: uint8(pitch)}, at: from * milli, pitch: pitch, key: uint8(pitch), velocity: 100}, to * milli}
}

// voicesOf has voices play notes, and returns the spans of each.
func voicesOf(notes []held, count int, lowestFree bool) [][]span {
	v, spans := newVoices(count, lowestFree), make([][]span, count)
	var moments []int64
	for _, n := range notes {
		moments = append(moments, n.at, n.to)
	}
	slices.Sort(moments)
	for _, at := range slices.Compact(moments) {
		var ends []midi.NoteID
		var begins []note
		for _, n := range notes {
			if n.to == at {
				ends = append(ends, n.id)
			}
			if n.at == at {
				begins = append(begins, n.note)
			}
		}
		v.play(ends, begins, at)
		for i, now := range v.spans {
			if last := len(spans[i]) - 1; last >= 0 && spans[i][last].sounds() {
				spans[i][last].to = min(now.to, at)
				if now.from != at && now.sounds() {
					spans[i][last].to = forever
				}
			}
			if now.from == at {
				spans[i] = append(spans[i], now)
			}
		}
	}
	return spans
}

// sounded returns spans in milliseconds: from, to, pitch, and whether tied.
func sounded(spans []span) (all [][4]int64) {
	for _, s := range spans {
		tied := int64(0)
		if s.tied {
			tied = 1
		}
		all = append(all, [4]int64{s.from / milli, s.to / milli, int64(s.pitch), tied})
	}
	return all
}

// One voice plays the note that was struck last, and returns to one that is still held. By hand.
func TestOneVoice(t *testing.T) {
	slid := played(150, 300, 67)
	slid.slides = true
	for name, c := range map[string]struct {
		notes []held
		want  [][4]int64
	}{
		"one after the other": {[]held{played(0, 100, 60), played(100, 200, 62)}, [][4]int64{{0, 100, 60, 0}, {100, 200, 62, 0}}},
		"returns":             {[]held{played(0, 400, 60), played(100, 200, 64)}, [][4]int64{{0, 100, 60, 0}, {100, 200, 64, 0}, {200, 400, 60, 1}}},
		"returns twice":       {[]held{played(0, 400, 60), played(100, 300, 64), played(150, 200, 67)}, [][4]int64{{0, 100, 60, 0}, {100, 150, 64, 0}, {150, 200, 67, 0}, {200, 300, 64, 1}, {300, 400, 60, 1}}},
		"the first ends":      {[]held{played(0, 200, 60), played(100, 300, 64)}, [][4]int64{{0, 100, 60, 0}, {100, 300, 64, 0}}},
		"slides":              {[]held{played(0, 200, 60), slid}, [][4]int64{{0, 150, 60, 0}, {150, 300, 67, 1}}},
		"slides after a rest": {[]held{played(0, 100, 60), slid}, [][4]int64{{0, 100, 60, 0}, {150, 300, 67, 0}}},
		"together":            {[]held{played(0, 100, 60), played(0, 100, 64)}, [][4]int64{{0, 100, 64, 0}}},
		"nothing":             {nil, nil},
	} {
		require.Equal(t, c.want, sounded(voicesOf(c.notes, 1, false)[0]), name)
	}
}

// Several voices take turns, or the first that is free is taken; where none is free the next in turn ends, or the one struck first.
func TestSeveralVoices(t *testing.T) {
	notes := []held{played(0, 100, 60), played(100, 500, 62), played(200, 500, 64), played(300, 400, 65)}
	for _, c := range []struct {
		lowestFree bool
		want       [2][][4]int64
	}{
		{false, [2][][4]int64{{{0, 100, 60, 0}, {200, 500, 64, 0}}, {{100, 300, 62, 0}, {300, 400, 65, 0}}}},
		{true, [2][][4]int64{{{0, 100, 60, 0}, {100, 300, 62, 0}, {300, 400, 65, 0}}, {{200, 500, 64, 0}}}},
	} {
		voices := voicesOf(notes, 2, c.lowestFree)
		require.Equal(t, c.want, [2][][4]int64{sounded(voices[0]), sounded(voices[1])}, "lowest free: %v", c.lowestFree)
	}
	require.Empty(t, voicesOf(notes, 0, false))
}
