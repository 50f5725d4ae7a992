package cv

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// note is a note that begins.
type note struct {
	id midi.NoteID
	at int64
	// pitch is a MIDI note, with cents as its fraction.
	pitch    float64
	key      uint8
	velocity int
	slides   bool // into it, from the note before
}

// turn is a value of a controller, from 0 to 1, from a moment on; takes is how long a smooth one takes.
type turn struct {
	at, takes int64
	share     float64
}

// source is what channels need to know of a track.
type source struct {
	kit bool
	// mods are what its mod lanes send, in any of its patterns, and after them the curves of modulators that it sends.
	mods [score.MaxMods + score.MaxTrackSends][]score.Mod
	// keys are those of the parts of a kit, in any of its patterns, by their ids.
	keys map[int][]uint8
}

func sourceOf(p *score.Project, t *score.Track) source {
	s := source{kit: t.Kind == score.Kit, keys: map[int][]uint8{}}
	for i, send := range p.SendsOf(t.ID) {
		s.mods[score.MaxMods+i] = []score.Mod{send}
	}
	for i := range t.Patterns {
		for j := range t.Patterns[i].Parts {
			part := &t.Patterns[i].Parts[j]
			s.keys[part.ID] = append(s.keys[part.ID], uint8(part.Note))
			for lane, mod := range part.Mods {
				if !slices.Contains(s.mods[lane], mod) {
					s.mods[lane] = append(s.mods[lane], mod)
				}
			}
		}
	}
	return s
}

// strikes reports whether a note of the track is of a part; one that is of no kit has no others.
func (s source) strikes(part int, key uint8) bool {
	return !s.kit || slices.Contains(s.keys[part], key)
}

// ModShares gives, of each mod lane of a track of a project, or curve that it sends, that a message of the track is of, the lane, from 1, and curves behind all
// lanes; and which share of its range the message says.
func ModShares(p *score.Project, t *score.Track, m midi.Message, give func(lane int, share float64)) {
	for i, mods := range sourceOf(p, t).mods {
		if share, is := shareOf(m, mods); is {
			give(i+1, share)
		}
	}
}

// shareOf returns which share of the range of a mod a message says, and whether it is of one of some.
func shareOf(m midi.Message, mods []score.Mod) (share float64, is bool) {
	for _, mod := range mods {
		number := m.Key == uint8(mod.Number)
		switch {
		case mod.Target == score.ControlTarget && m.Kind == midi.ControlChange && number, mod.Target == score.PressureTarget && m.Kind == midi.Pressure:
			return float64(m.Value) / 127, true
		case mod.Target == score.Control14Target && m.Kind == midi.WideControl && number:
			return float64(m.Value) / 16383, true
		case mod.Target == score.BendTarget && m.Kind == midi.Bend:
			return float64(m.Value) / 16384, true // 8192 is the middle
		}
	}
	return 0, false
}
