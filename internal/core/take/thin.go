package take

import (
	"fmt"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Thin keeps the last message that each controller, bend or pressure was sent within each stretch of a grid, and
// of those only what changes something. At the end of every stretch an instrument stands where it stood before.
type Thin struct {
	// Tracks are ids; none stands for all.
	Tracks []uint32 `json:"tracks,omitempty" jsonschema:"maxItems=64"`
	// Grid is the length of a stretch.
	Grid score.NoteValue `json:"grid"`
}

// Label implements Edit.
func (e Thin) Label() string { return "thinning of controllers" }

func (e Thin) apply(t *Take) error {
	grid := e.Grid.Ticks()
	if grid == 0 {
		return &score.FieldError{Field: "grid", Got: fmt.Sprintf("%.20q", e.Grid), Allowed: "a note value"}
	}
	choice := Choice{Tracks: e.Tracks}
	type series struct {
		channel, number uint8
		kind            midi.Kind
	}
	// Bends that bring single notes in tune stay with their notes.
	tuned := map[escort]bool{}
	for _, n := range t.Notes() {
		if n.Detune != 0 {
			tuned[escort{n.Start, n.Channel}] = true
		}
	}
	last := map[series]midi.Message{} // the last message of each series that may be dropped, and is not decided yet
	sent := map[series]int{}          // the value that was kept last
	var kept []midi.Message
	decide := func(of series) {
		m, waiting := last[of]
		if !waiting {
			return
		}
		delete(last, of)
		if before, any := sent[of]; !any || before != int(m.Value) {
			kept, sent[of] = append(kept, m), int(m.Value)
		}
	}
	for _, m := range t.others() {
		thins := m.Kind == midi.ControlChange || m.Kind == midi.WideControl || m.Kind == midi.Pressure ||
			m.Kind == midi.Bend && !tuned[escort{m.Tick, m.Channel}]
		if !thins || !choice.includes(m.Track, m.Tick) {
			kept = append(kept, m)
			continue
		}
		of := series{m.Channel, m.Key, m.Kind}
		if before, waiting := last[of]; waiting && before.Tick/grid != m.Tick/grid {
			decide(of)
		}
		last[of] = m
	}
	for of := range last {
		decide(of)
	}
	t.setContents(t.Notes(), kept)
	return nil
}
