package play

import (
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/wave"
)

// sending is a modulator whose curve a track sends, on the grid of glides. The first part of the track sends for all.
type sending struct {
	modulator int // its place among those of the walker
	index     int // of the sending in it
	score.Mod
	amount int
}

// curvesState is how far the curves have come that are sent, or are the clock.
type curvesState struct {
	seen  score.Tick // the clock was looked at at all ticks of the grid before this one
	above bool       // whether it was at its level or above there
	to    score.Tick // all before this tick is sent
	last  [score.MaxTrackSends]sentCurve
}

// sentCurve is what was sent last of a curve.
type sentCurve struct {
	id, index uint8
	known     bool
	value     int32
}

// takeSendings finds the modulators that the track sends.
func (w *walker) takeSendings(c *common) {
	if w.partIndex > 0 {
		return
	}
	for i := range c.project.Modulators {
		m := &c.project.Modulators[i]
		for index, send := range m.Sends {
			if send.Track == w.track.ID && len(w.sendings) < score.MaxTrackSends {
				w.curves.last[len(w.sendings)].id, w.curves.last[len(w.sendings)].index = uint8(m.ID), uint8(index)
				w.sendings = append(w.sendings, sending{w.modulatorOf(c, m), index, send.Mod, m.Amount})
			}
		}
	}
}

// valueAt returns what a sending sends at a tick: its middle, and half its range times amount and wave; of a curve that something drives, and
// that is never below 0, its least, and its range times amount and wave.
func (w *walker) valueAt(s *sending, tick score.Tick) int {
	y := w.curveAt(s.modulator, tick)
	if w.driven(s.modulator) {
		return s.Least + score.Rounded((s.Most-s.Least)*s.amount*y, 100*wave.One)
	}
	return s.Least + score.Rounded((s.Most-s.Least)*(100*wave.One+s.amount*y), 200*wave.One)
}

// sendCurves sends what curves pass before a tick.
func (w *walker) sendCurves(until score.Tick) {
	if len(w.sendings) == 0 {
		return
	}
	for tick := onGrid(w.curves.to); tick < until; tick += glideGrid {
		w.sendCurvesAt(tick)
	}
	w.curves.to = max(w.curves.to, until)
}

// sendCurvesAt sends where the curves are at a tick of the grid.
func (w *walker) sendCurvesAt(tick score.Tick) {
	for i := range w.sendings {
		w.sendCurve(i, tick, tick)
	}
	w.curves.to = tick + 1
}

// sendCurve sends at a tick where a curve is at another, if that is something new.
func (w *walker) sendCurve(i int, tick, of score.Tick) {
	s, last := &w.sendings[i], &w.curves.last[i]
	value := w.valueAt(s, of)
	if last.known && int(last.value) == value {
		return
	}
	last.known, last.value = true, int32(value)
	w.queue(w.message(&control{mod: s.Mod, controlState: controlState{sent: value}}, tick), w.sendSlot(i))
}

// sendSlot is the slot of a sending, after those of the slides and of all mods.
func (w *walker) sendSlot(i int) int { return 1 + score.MaxMods + i }

// sendFrom has the walker go on sending at a tick to which it has jumped.
func (w *walker) sendFrom(tick score.Tick) {
	w.curves.to = tick
	for i := range w.sendings {
		w.sendCurve(i, tick, max(0, tick-1)/glideGrid*glideGrid)
	}
}

// restoreCurves takes over how far the curves have come in another state of the track.
func (w *walker) restoreCurves(was curvesState) {
	w.curves.seen, w.curves.above, w.curves.to = was.seen, was.above, was.to
	for i := range w.sendings {
		own := &w.curves.last[i]
		at := slices.IndexFunc(was.last[:], func(s sentCurve) bool { return s.id == own.id && s.index == own.index })
		if at >= 0 {
			*own = was.last[at]
		}
	}
}
