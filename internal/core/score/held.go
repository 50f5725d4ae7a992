package score

import (
	"encoding/json"
	"fmt"
)

// HeldSteps are steps of a gate lane, from 0, ascending, which it goes over in its order in place of its loop; none leave it its loop.
type HeldSteps []int

// UnmarshalJSON reads steps, also a range of them, which was all that there was before.
func (h *HeldSteps) UnmarshalJSON(data []byte) error {
	var old struct{ First, Length int }
	if json.Unmarshal(data, &old) == nil {
		*h = nil
		for i := range min(old.Length, MaxSteps) {
			*h = append(*h, old.First+i)
		}
		return nil
	}
	return json.Unmarshal(data, (*[]int)(h))
}

func (h HeldSteps) validate(field string) error {
	least := 0
	for i, step := range h {
		if err := checkRange(fmt.Sprintf("%s[%d]", field, i), step, least, MaxSteps-1); err != nil {
			return err
		}
		least = step + 1
	}
	return nil
}

// GateLane returns the gate lane of the part, with the steps that it goes over.
func (part *Part) GateLane() *Lane {
	gate := part.Lanes.Lane(Gate)
	if len(part.Held) == 0 {
		return gate
	}
	held := *gate
	held.First, held.Length, held.held = 0, len(part.Held), part.Held
	return &held
}

// Loop returns the lane whose loop decides where the named lane stands: for a linked lane the gate lane, with the steps that it
// goes over.
func (part *Part) Loop(name LaneName) *Lane {
	if lane := part.Lanes.Lane(name); name != Gate && !lane.Linked {
		return lane
	}
	return part.GateLane()
}
