package route

import (
	"slices"

	"jettyfog/internal/core/score"
)

// Holding says how long notes of keys last that are passed on, by whether a pedal is down or they are latched. Keys are told by the channel, from
// 0, and the number of the note. The zero value holds nothing.
type Holding struct {
	down  []HeldKey // keys that are down
	lasts []HeldKey // whose notes last, though the keys are up
	pedal [16]bool
}

// HeldKey is a key of a channel.
type HeldKey struct{ Channel, Key uint8 }

// On says that a key is struck, and returns those whose notes end before its own begins.
func (h *Holding) On(k HeldKey, how score.Holding) (ends []HeldKey) {
	if how == score.LatchHold && len(h.down) == 0 {
		ends, h.lasts = h.lasts, nil
	}
	if slices.Contains(h.lasts, k) || slices.Contains(h.down, k) { // its note begins anew
		ends = append(ends, k)
	}
	h.drop(k)
	h.down = append(h.down, k)
	return ends
}

// Off says that a key is released, and reports whether its note ends.
func (h *Holding) Off(k HeldKey, how score.Holding) (ends bool) {
	if !slices.Contains(h.down, k) {
		return false
	}
	h.drop(k)
	if how == score.LatchHold || how == score.PedalHold && h.pedal[k.Channel] {
		h.lasts = append(h.lasts, k)
		return false
	}
	return true
}

// Pedal says that the pedal of a channel goes down or up, and returns the keys whose notes end.
func (h *Holding) Pedal(channel uint8, down bool, how score.Holding) (ends []HeldKey) {
	h.pedal[channel] = down
	if down || how == score.LatchHold {
		return nil
	}
	h.lasts = slices.DeleteFunc(h.lasts, func(k HeldKey) bool {
		if k.Channel == channel {
			ends = append(ends, k)
		}
		return k.Channel == channel
	})
	return ends
}

// Release has all keys and pedals be up, as where an input is gone, and returns the keys whose notes end.
func (h *Holding) Release() (ends []HeldKey) {
	ends = append(h.down, h.lasts...)
	*h = Holding{}
	return ends
}

func (h *Holding) drop(k HeldKey) {
	is := func(other HeldKey) bool { return other == k }
	h.down, h.lasts = slices.DeleteFunc(h.down, is), slices.DeleteFunc(h.lasts, is)
}
