package smf

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// pairNotes returns messages, ordered by tick, in which each note-on has its note-off, a tick later at least. The
// specification leaves open what overlaps on one key of a track: a note-off ends the note that began first (common
// practice). Where a track has more note-ons of a key than note-offs, each note-on ends the note before it instead.
func pairNotes(messages []midi.Message) []midi.Message {
	p := pairs{down: map[midi.NoteID][]midi.Message{}, restruck: map[midi.NoteID]bool{}}
	balance := map[midi.NoteID]int{}
	for _, m := range messages {
		switch m.Kind {
		case midi.NoteOn:
			balance[m.NoteID()]++
		case midi.NoteOff:
			balance[m.NoteID()]--
		}
	}
	for key, more := range balance {
		p.restruck[key] = more > 0
	}
	for len(messages) > 0 {
		count := 1
		for count < len(messages) && messages[count].Tick == messages[0].Tick {
			count++
		}
		p.together(messages[:count])
		messages = messages[count:]
	}
	slices.SortStableFunc(p.done, func(a, b midi.Message) int { return cmp.Compare(a.Tick, b.Tick) })
	return p.done
}

// pairs are the notes that are down on each key of a track, the oldest first, and the messages so far. Keys are named
// by their first note.
type pairs struct {
	down     map[midi.NoteID][]midi.Message
	restruck map[midi.NoteID]bool // keys on which a note-on ends the note before it
	done     []midi.Message
}

// together takes the messages of one tick. Notes that began before end first.
func (p *pairs) together(messages []midi.Message) {
	var later []midi.Message
	for _, m := range messages {
		down := p.down[m.NoteID()]
		if m.Kind == midi.NoteOff && len(down) > 0 && down[0].Tick < m.Tick {
			p.letGo(m)
		} else {
			later = append(later, m)
		}
	}
	for _, m := range later {
		switch key := m.NoteID(); m.Kind {
		case midi.NoteOn:
			if p.restruck[key] {
				m.Tick = p.letGo(m)
			}
			for slices.ContainsFunc(p.down[key], func(other midi.Message) bool { return other.Value == m.Value }) {
				m.Value++
			}
			p.down[key] = append(p.down[key], m)
		case midi.NoteOff:
			p.letGo(m)
			continue
		}
		p.done = append(p.done, m)
	}
}

// letGo ends the oldest note of a message's key, if there is one, and returns from when on the key is free.
func (p *pairs) letGo(m midi.Message) score.Tick {
	key := m.NoteID()
	if len(p.down[key]) == 0 {
		return m.Tick
	}
	oldest := p.down[key][0]
	p.down[key] = p.down[key][1:]
	free := max(m.Tick, oldest.Tick+1)
	p.done = append(p.done, oldest.NoteID().Off(free))
	return free
}
