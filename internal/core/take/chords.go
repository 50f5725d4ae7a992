package take

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// struckWithin is how far apart notes may begin that are struck together: a 32nd note.
const struckWithin = score.TicksPerQuarter / 8

// TimedChord is keys that sound together, ascending, from a tick on.
type TimedChord struct {
	Tick score.Tick
	Keys []int
}

// Progression finds the chords of a take as they come: the keys that sound together where notes begin, at most 8 of them, if they have three pitch classes or more,
// where they are others than before. Channel 10, where General MIDI has percussion, is left out.
func (t *Take) Progression() (chords []TimedChord) {
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
		if len(classes) >= 3 && (len(chords) == 0 || !slices.Equal(chords[len(chords)-1].Keys, keys)) {
			chords = append(chords, TimedChord{begun, keys})
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
	return chords
}

// Chords returns the chords of a take's progression, each once, sorted by how low they are.
func (t *Take) Chords() (chords [][]int) {
	for _, chord := range t.Progression() {
		chords = append(chords, chord.Keys)
	}
	slices.SortFunc(chords, slices.Compare[[]int])
	return slices.CompactFunc(chords, slices.Equal[[]int])
}

// ChordMap returns the chords of a take's progression as a map that runs in time as they do, to the quarter note: silent until the first, the last to the
// take's end. It says how many chords more there are than a map can have.
func (t *Take) ChordMap(name string) (m score.ChordMap, more int) {
	m.Name, m.Chords = name, []score.MapChord{}
	chords := t.Progression()
	beat := func(tick score.Tick) int { return int((tick + score.TicksPerQuarter/2) / score.TicksPerQuarter) }
	if len(chords) > 0 && beat(chords[0].Tick) > 0 {
		m.Chords = append(m.Chords, score.MapChord{Keys: []int{}, Beats: min(beat(chords[0].Tick), maxBeats)})
	}
	for i, chord := range chords {
		if len(m.Chords) == score.MaxChordSlots {
			return m, len(chords) - i
		}
		until := t.End
		if i+1 < len(chords) {
			until = chords[i+1].Tick
		}
		beats := beat(until) - beat(chord.Tick)
		if beats < 1 { // it gives way to the next
			continue
		}
		m.Chords = append(m.Chords, score.MapChord{Keys: chord.Keys, Beats: min(beats, maxBeats)})
	}
	return m, 0
}

// maxBeats bounds how long a chord of a map lasts.
const maxBeats = 64

// percussion is the channel of General MIDI's percussion, from 0.
const percussion = 9
