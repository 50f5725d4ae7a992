package play

import (
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/wave"
)

// curveClock is a modulator that is the clock of a track: the track goes on whenever the curve rises to a level, on the grid of glides. One that
// something drives is no clock.
type curveClock struct {
	curve *wave.Free
	level int
}

// curveClockState is how far the curve was looked at.
type curveClockState struct {
	seen  score.Tick // all before this tick
	above bool       // whether it was at the level or above there
}

func (w *walker) takeCurveClock(c *common) {
	source := w.track.Source
	if source.Kind != score.CurveClock {
		return
	}
	if m := c.project.Modulator(source.Modulator); m != nil {
		w.clock.curve, _ = wave.New(c.project, m, c.tempo.Nanos)
		w.clock.level = score.Rounded(source.Crossing*wave.One, 100)
	}
}

// findCrossings has the track go on wherever its curve rises to the level before a tick.
func (w *walker) findCrossings(until score.Tick) {
	if w.clock.curve == nil {
		return
	}
	for tick := (w.curve.seen + glideGrid - 1) / glideGrid * glideGrid; tick < until; tick += glideGrid {
		at := tick
		if w.clock.curve.Random() {
			at = w.hold.first(tick)
		}
		above := w.clock.curve.At(at) >= w.clock.level
		if above && !w.curve.above && tick > 0 {
			w.trigger(tick, tick)
		}
		w.curve.above = above
	}
	w.curve.seen = max(w.curve.seen, until)
}
