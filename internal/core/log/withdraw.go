package log

import (
	"maps"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// withdrawable is for how long before the present tick note-ons can be withdrawn that were handed over.
const withdrawable = 8 * score.TicksPerQuarter

// withdraw returns the note-ons from a tick of run time on that were handed over, of tracks and of parts that are silent now
// and were not. What ends them is not handed over any more.
func (p *Player) withdraw(before *score.Project, from score.Tick) (noteOns []midi.Message) {
	was, is := soundingOf(before), soundingOf(p.playing)
	down := map[midi.NoteID]bool{}
	for _, m := range p.recent {
		switch id := m.NoteID(); {
		case m.Kind == midi.NoteOn && m.Tick >= from && was.of(m) && !is.of(m):
			noteOns, down[id] = append(noteOns, m), true
		case m.Kind == midi.NoteOff:
			delete(down, id)
		}
	}
	p.recent = Withdrawn(p.recent, noteOns)
	if p.withdrawn == nil {
		p.withdrawn = map[midi.NoteID]bool{}
	}
	maps.Copy(p.withdrawn, down)
	return noteOns
}

// Withdrawn returns messages without note-ons that were withdrawn, and without what ends them.
func Withdrawn(messages, noteOns []midi.Message) []midi.Message {
	for _, on := range noteOns {
		begun := false
		messages = slices.DeleteFunc(messages, func(m midi.Message) bool {
			switch {
			case m == on:
				begun = true
				return true
			case begun && m.Kind == midi.NoteOff && m.NoteID() == on.NoteID():
				begun = false
				return true
			}
			return false
		})
	}
	return messages
}

// sounding says which tracks are heard, and of kits by which keys. Parts of a kit on one key are not told apart.
type sounding map[uint32]*[128]bool

func soundingOf(p *score.Project) sounding {
	s := sounding{}
	for i := range p.Tracks {
		track, keys := &p.Tracks[i], new([128]bool)
		s[uint32(track.ID)] = keys
		for key := range keys {
			keys[key] = !p.Silent(track, &score.Part{})
		}
		if track.Loop != nil { // which plays in place of the parts
			continue
		}
		for _, muted := range []bool{true, false} { // a key that one part of several plays is heard
			for j := range track.Parts() {
				if part := &track.Parts()[j]; part.Mute == muted && track.Kind == score.Kit {
					keys[part.Note] = !p.Silent(track, part)
				} else if muted && part.Mute {
					*keys = [128]bool{}
				}
			}
		}
	}
	return s
}

func (s sounding) of(m midi.Message) bool { return s[m.Track] != nil && s[m.Track][m.Key] }
