package take

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// struckWithin is how far apart notes may begin that are struck together: a 32nd note.
const struckWithin = score.TicksPerQuarter / 8

// Chords finds the chords of a take: the keys that sound together where notes begin, at most 8 of them, if they have three pitch classes or more. Each chord is there once; they
// are sorted by how low they are. Channel 10, where General MIDI has percussion, is left out.
func (t *Take) Chords() (chords [][]int) {
	down := map[midi.NoteID]bool{}
	begun, open := score.Tick(0), false
	find := func() {
		if open = false; len(down) == 0 {
			return
		}
		var keys []int
		classes := map[uint8]bool{}
		for id := range down {
			keys = append(keys, int(id.Key))
			classes[id.Key%12] = true
		}
		slices.Sort(keys)
		keys = slices.Compact(keys)
		keys = keys[:min(len(keys), score.MaxChordNotes)]
		if len(classes) >= 3 && !slices.ContainsFunc(chords, func(other []int) bool { return slices.Equal(other, keys) }) {
			chords = append(chords, keys)
		}
	}
	for _, m := range t.Messages {
		if m.Channel == percussion || m.Kind != midi.NoteOn && m.Kind != midi.NoteOff {
			continue
		}
		if open && (m.Kind == midi.NoteOff || m.Tick > begun+struckWithin) {
			find()
		}
		if m.Kind == midi.NoteOff {
			delete(down, m.NoteID())
			continue
		}
		if down[m.NoteID()] = true; !open {
			begun, open = m.Tick, true
		}
	}
	if open {
		find()
	}
	slices.SortFunc(chords, slices.Compare[[]int])
	return chords
}

// percussion is the channel of General MIDI's percussion, from 0.
const percussion = 9
