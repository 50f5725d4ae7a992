package follow

import (
	"math"

	"jettyfog/internal/core/score"
)

const (
	// windowQuarters is over how many quarter notes a line is drawn at most, maxWindow over how many pulses.
	windowQuarters, maxWindow = 8, 192
	// minWindow is over how many pulses it is drawn at least, where they are slow.
	minWindow = 4
	// lostAfter and lostPulses are how long a clock is silent before it is lost, in nanoseconds and in pulses: both.
	lostAfter, lostPulses = 500_000_000, 3
	// slowest is how long a quarter note lasts at most while that is not known, in nanoseconds.
	slowest = 3_000_000_000
)

// Follower makes a line of pulses as they come. Make one with New; it may not be used by two goroutines at once.
type Follower struct {
	perQuarter int
	window     []pulse // what the line is drawn through, oldest first
	uncertain  *pulse  // came so late that pulses before it may be missing; the next one tells
	last       pulse
	any        bool
	period     float64 // of a pulse, in nanoseconds; 0 if that is not known
	known      bool    // the period is that of before, until enough pulses have come
	noise      float64 // how far pulses are from the line, in nanoseconds (root of the mean square)
}

type pulse struct{ index, at int64 }

// New returns a follower of a clock of 1 to 48 pulses a quarter note, of which none have come.
func New(perQuarter int) *Follower { return &Follower{perQuarter: perQuarter, noise: startNoise} }

// Pulse says that a pulse came at a time, which is not before that of the last one.
func (f *Follower) Pulse(at int64) {
	if !f.any {
		f.any, f.last = true, pulse{0, at}
		f.window = append(f.window, f.last)
		return
	}
	gap := max(0, at-f.last.at)
	at = f.last.at + gap
	switch {
	case f.uncertain != nil:
		f.decide(gap)
	case f.Lost(at): // the other machine has gone on meanwhile, as far as anybody knows
		f.last = pulse{f.last.index + f.missed(gap), at}
		f.window = []pulse{f.last}
		return
	case len(f.window) >= minWindow && f.missed(gap) > 1:
		f.last = pulse{f.last.index + 1, at}
		p := f.last
		p.index = f.missed(gap)
		f.uncertain = &p
		return
	}
	f.last = pulse{f.last.index + 1, at}
	f.window = append(f.window, f.last)
	if first := f.changed(); first > 0 {
		f.window = append([]pulse{}, f.window[first:]...)
		f.noise, f.known = max(f.noise, startNoise), false
	}
	if over := len(f.window) - f.most(); over > 0 {
		f.window = append([]pulse{}, f.window[over:]...)
	}
	f.measure()
}

// missed returns how many periods a time is, at least 1.
func (f *Follower) missed(gap int64) int64 {
	if f.period == 0 {
		return 1
	}
	return max(1, int64(math.Round(float64(gap)/f.period)))
}

// decide says what a late pulse was, now that the next one has come after a gap: one after others that are missing if the gap is as they
// were before, or the first one of a slower tempo.
func (f *Follower) decide(gap int64) {
	late := *f.uncertain
	f.uncertain = nil
	if f.missed(gap) < late.index {
		f.last.index += late.index - 1
		f.window = append(f.window, f.last)
		return
	}
	f.window, f.known = []pulse{f.last}, false
}

func (f *Follower) most() int { return max(minWindow, min(maxWindow, windowQuarters*f.perQuarter)) }

// measure takes the period and the noise from the window.
func (f *Follower) measure() {
	if len(f.window) < 2 {
		return
	}
	if len(f.window) >= 2*minWindow {
		f.known = false
	}
	fit := fitOf(f.window)
	if fit.period > 0 && !f.known {
		f.period = fit.period
	}
	if len(f.window) >= enough {
		f.noise = math.Max(minNoise, math.Min(f.period/4, fit.deviation(f.window)))
	}
}

// Restart has the next pulse, whenever it comes, be number 0, as the first of a song is. The tempo stays as far as it is known.
func (f *Follower) Restart() {
	f.any, f.window, f.uncertain, f.known = false, nil, nil, f.period > 0
}

// Last returns the number of the last pulse and when it came; any is false if none has.
func (f *Follower) Last() (index, at int64, any bool) { return f.last.index, f.last.at, f.any }

// Lost reports whether a clock that came is silent at a time: three pulses and at least half a second.
func (f *Follower) Lost(now int64) bool {
	silent, period := now-f.last.at, f.period
	if period == 0 {
		period = slowest / float64(f.perQuarter)
	}
	return f.any && silent >= lostAfter && float64(silent) > (lostPulses+0.5)*period
}

// Line returns where the other machine is at which time; known is false while that cannot be said.
func (f *Follower) Line() (line Line, known bool) {
	if f.period == 0 || len(f.window) == 0 {
		return Line{}, false
	}
	ticks := float64(score.TicksPerQuarter) / float64(f.perQuarter)
	if len(f.window) == 1 {
		only := f.window[0]
		return Line{At: only.at, Position: float64(only.index) * ticks, Rate: ticks / f.period}, true
	}
	fit := fitOf(f.window)
	fit.period = f.period
	newest := f.window[len(f.window)-1]
	return Line{At: newest.at, Position: (float64(newest.index) + fit.residual(newest)/f.period) * ticks, Rate: ticks / f.period}, true
}
