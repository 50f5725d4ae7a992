package play

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// slideOverlap is what part of a step, in the project's time, a note that slides lasts into the next one.
const slideOverlap = 8

// slideInto switches portamento for a note that starts at a tick: on if the note before it slides.
func (w *walker) slideInto(tick score.Tick) {
	if w.sliding == w.portamento {
		return
	}
	w.portamento = w.sliding
	if w.sliding {
		w.queue(w.change(tick, midi.ControlChange, midi.PortamentoTime, w.part.SlideTime), 0)
	}
	w.queue(w.portamentoChange(tick), 0)
}

// slideEnd returns until when a note lasts that slides: into the next step that is on, if there is one.
func (w *walker) slideEnd(now *striking) score.Tick {
	aligned, next, ok := w.nextOn(now.duration)
	if !ok {
		return 0
	}
	overlap := now.placing
	overlap.nudge = int64(now.duration) * 100 / slideOverlap
	return overlap.at(exactly(next), aligned).whole
}

func (w *walker) portamentoChange(tick score.Tick) Change {
	value := 0
	if w.portamento {
		value = 127
	}
	return w.change(tick, midi.ControlChange, midi.PortamentoSwitch, value)
}
