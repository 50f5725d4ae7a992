package live

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// When says from which moment an action counts.
type When string

// The moments: at once, or with the next one of its kind. The end of a pattern is that of the track's own whole pass of its
// gate, in a kit of the longest; for what has none it is the next bar.
const (
	Now        When = "now"
	NextStep   When = "step"
	NextBeat   When = "beat"
	NextBar    When = "bar"
	NextBars   When = "bars"
	PatternEnd When = "pattern"
)

// Moments lists them in the order in which to offer them.
func Moments() []When { return []When{Now, NextStep, NextBeat, NextBar, NextBars, PatternEnd} }

// moment returns the tick of run time at which an action is to count that is done now.
func (t *Transport) moment(c stage.Control, when When, bars int) score.Tick {
	lines, song, run := t.bars(), t.player.Song(), t.player.Run()
	bar := lines.At(song)
	after := func(tick score.Tick) score.Tick { return run + tick - song }
	switch when {
	case NextStep:
		if at, found := t.player.NextStep(c); found {
			return after(at)
		}
		const grid = score.TicksPerQuarter / 4
		return after((song + grid - 1) / grid * grid)
	case NextBeat:
		meter, begins := lines.Meter(bar), lines.Start(bar)
		for _, beat := range meter.GroupStarts() {
			if at := begins + score.Tick(beat)*meter.Beat(); at >= song && at < lines.Start(bar+1) {
				return after(at)
			}
		}
	case NextBars:
		every := int64(bars)
		for bar++; bar%every != 0; {
			bar++
		}
		if lines.Start(lines.At(song)) == song && lines.At(song)%every == 0 {
			return after(song)
		}
		return after(lines.Start(bar))
	case PatternEnd:
		if at, found := t.player.PassEnd(c); found {
			return after(at)
		}
	case Now: // what silences counts for what has been handed over, too
		if c.Silences() {
			return t.unheard(t.Now())
		}
		return run
	}
	return after(lines.Ceil(song))
}

// checkMoment refuses a moment that is none.
func checkMoment(when When, bars int) error {
	if !slices.Contains(Moments(), when) {
		return &score.FieldError{Field: "when", Got: fmt.Sprintf("%.20q", when), Allowed: fmt.Sprint(Moments())}
	}
	if when == NextBars && (bars < 1 || bars > score.MaxBars) {
		return &score.FieldError{Field: "bars", Got: bars, Allowed: fmt.Sprintf("1 to %d", score.MaxBars)}
	}
	return nil
}
