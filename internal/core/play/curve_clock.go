package play

import (
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/wave"
)

// curveClock is a modulator that is the clock of a track: the track goes on whenever the curve rises to a level, on the grid of glides.
type curveClock struct {
	is        bool
	modulator int // its place among those of the walker
	level     int
}

func (w *walker) takeCurveClock(c *common) {
	source := w.track.Source
	if source.Kind != score.CurveClock {
		return
	}
	if m := c.project.Modulator(source.Modulator); m != nil {
		w.clock = curveClock{true, w.modulatorOf(c, m), score.Rounded(source.Crossing*wave.One, 100)}
	}
}

// findCrossings has the track go on wherever its curve rises to the level before a tick.
func (w *walker) findCrossings(until score.Tick) {
	if !w.clock.is {
		return
	}
	for tick := onGrid(w.curves.seen); tick < until; tick += glideGrid {
		w.lookAtClock(tick)
	}
	w.curves.seen = max(w.curves.seen, until)
}

// lookAtClock has the track go on if its curve is at the level at a tick of the grid, and was not at the one before.
func (w *walker) lookAtClock(tick score.Tick) {
	above := w.curveAt(w.clock.modulator, tick) >= w.clock.level
	if above && !w.curves.above && tick > 0 {
		w.trigger(tick, tick)
	}
	w.curves.above, w.curves.seen = above, tick+1
}

// onGrid returns the first tick of the grid of glides that is not before another.
func onGrid(tick score.Tick) score.Tick { return (tick + glideGrid - 1) / glideGrid * glideGrid }
