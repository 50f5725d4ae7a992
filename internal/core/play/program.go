package play

import "jettyfog/internal/core/score"

// programOf returns what chooses a track's program; ok is false if it chooses none.
func programOf(t *score.Track, tick score.Tick) (m Message, ok bool) {
	return Message{
		Tick: tick, Track: uint32(t.ID), Kind: Program, Channel: uint8(t.Channel - 1), Key: uint8(max(0, t.Program-1)), Value: uint16(t.Bank),
	}, t.Program > 0
}

// choosePrograms has the instruments choose their programs when playing begins, also those of tracks that are
// muted, so that unmuting finds them chosen.
func (f *Performer) choosePrograms(p *score.Project) {
	for place := range p.Tracks {
		if m, ok := programOf(&p.Tracks[place], 0); ok {
			f.controls = append(f.controls, pendingControl{m, place * score.MaxParts << slotBits})
		}
		f.tracks = append(f.tracks, &p.Tracks[place])
	}
}

// lastPrograms leaves of several programs for one channel, as of tracks that share it or of a mod lane, the last.
func lastPrograms(messages []Message) []Message {
	last := map[uint8]int{}
	for i, m := range messages {
		if m.Kind == Program {
			last[m.Channel] = i
		}
	}
	kept := messages[:0]
	for i, m := range messages {
		if m.Kind != Program || last[m.Channel] == i {
			kept = append(kept, m)
		}
	}
	return kept
}
