package play

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Change is what a track tells its instruments beside its notes: the value of a mod lane, or of portamento.
type Change struct {
	Tick score.Tick
	// Track is the id of the track whose change it is; Part that of the part, Pattern that of the pattern of which this is.
	Track         uint32
	Part, Pattern uint8
	// Kind is ControlChange, WideControl, Bend, Pressure or Program.
	Kind midi.Kind
	// Number is the controller of a ControlChange or WideControl.
	Number uint8
	// Value is 0 to 127; of a WideControl and a Bend 0 to 16383.
	Value uint16
}

func (w *walker) change(tick score.Tick, kind midi.Kind, number uint8, value int) Change {
	return Change{
		Tick: tick, Track: uint32(w.track.ID), Part: uint8(w.part.ID), Pattern: uint8(w.track.Playing),
		Kind: kind, Number: number, Value: uint16(value),
	}
}

// pendingChange is a change that has not been handed over, and its place among those of its tick and kind.
type pendingChange struct {
	Change
	order int
}

// The order of a change is that of its part, then that of its slot: that of slides, then those of mods.
const (
	slotBits = 4
	partBits = 5 + 4 // MaxTracks tracks of MaxParts parts
)

// queue keeps a change until it is handed over.
func (w *walker) queue(m Change, slot int) {
	m.Tick = max(0, m.Tick)
	if w.track.Loop == nil { // which plays in place of the pattern
		*w.changes = append(*w.changes, pendingChange{m, w.order<<slotBits | slot})
	}
}

// Standing appends to dst what mod lanes and slides of all parts that are not silent have sent by now, as sent now, in
// the order of parts: what an instrument needs to know that has not heard all of it.
func (f *Performer) Standing(dst []Change) []Change {
	f.silence(f.played)
	f.each(func(w *walker) {
		if f.silent[w.order] || w.track.Loop != nil { // which plays in its place
			return
		}
		off := w.change(f.played, midi.ControlChange, midi.PortamentoSwitch, 0)
		for slot := range 1 << slotBits {
			if slot > len(w.mods) && slot < w.sendSlot(0) || slot >= w.sendSlot(len(w.sendings)) {
				continue
			}
			sent := f.lastSent[w.order<<slotBits|slot]
			if slot == 0 && sent.Track == 0 {
				sent = off
			}
			if sent.Tick = f.played; sent.Track > 0 {
				dst = append(dst, sent)
			}
		}
	})
	return dst
}
