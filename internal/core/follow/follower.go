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
	// A pulse is off the line by so many times its uncertainty; so many one after the other are decided about, or two of a slow clock, which has
	// so many a quarter note at most.
	offTimes, decidedBy, slow = 6, 3, 4
	// together is below which part of the period pulses come together, and heldUp how many can at most. sameTempo is by which part of the period
	// a tempo is the same.
	together, heldUp = 0.25, 24
	sameTempo        = 0.25
	// lostAfter and lostPulses are how long a clock is silent before it is lost, in nanoseconds and in pulses: both.
	lostAfter, lostPulses = 500_000_000, 3
	// slowest is how long a quarter note lasts at most while that is not known, in nanoseconds.
	slowest = 3_000_000_000
)

// Follower makes a line of pulses as they come. Make one with New; it may not be used by two goroutines at once.
type Follower struct {
	perQuarter int
	window     []pulse // what the line is drawn through, oldest first
	off        []pulse // since then, which are off the line; the next ones tell why
	last       pulse
	any        bool
	period     float64 // of a pulse, in nanoseconds; 0 if that is not known
	known      bool    // the period is that of before, until enough pulses have come
	noise      float64 // how far pulses are from the line, in nanoseconds (root of the mean square)
	gone       *gone   // how it was when the clock was lost, while it comes back; nil once pulses come one by one
}

// gone is how a clock was that was lost, and how many pulses have come together since.
type gone struct {
	last   pulse
	window []pulse
	back   int64
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
	if f.Lost(at) {
		f.gone = &gone{last: f.last, window: f.window}
	}
	if f.gone != nil && (f.gone.back == 0 || float64(gap) < together*f.period) {
		f.comeBack(at)
		return
	}
	f.gone = nil
	f.last = pulse{f.last.index + 1, at}
	if f.isOff(f.last) {
		f.off = append(f.off, f.last)
		f.decide()
	} else {
		f.off, f.window = nil, append(f.window, f.last) // those that were off the line came late or early, and count for no more
		if first := f.changed(); first > 0 {
			f.begin(f.window[first:])
		}
	}
	if over := len(f.window) - f.most(); over > 0 {
		f.window = append([]pulse{}, f.window[over:]...)
	}
	f.measure()
}

// comeBack takes a pulse with which a clock is back that was lost, or one that comes together with that. The other machine has gone on meanwhile,
// as far as anybody knows. Where as many pulses come together as it has sent meanwhile, give or take one, they were held up, and it is as if
// nothing had been missing.
func (f *Follower) comeBack(at int64) {
	f.gone.back++
	f.off = nil
	if sent := f.periods(at - f.gone.last.at); f.gone.back < sent-1 || f.period == 0 {
		f.last = pulse{f.gone.last.index + sent, at}
		f.window = []pulse{f.last}
		return
	}
	f.last, f.window = pulse{f.gone.last.index + f.gone.back, at}, f.gone.window
}

// periods returns how many periods a time is, at least 1.
func (f *Follower) periods(time int64) int64 {
	if f.period == 0 {
		return 1
	}
	return max(1, int64(math.Round(float64(time)/f.period)))
}

// isOff reports whether a pulse is so far off the line that it is not of it.
func (f *Follower) isOff(p pulse) bool {
	if len(f.window) < minBefore {
		return false
	}
	line := fitOf(f.window)
	return math.Abs(line.residual(p)) > offTimes*f.noise*line.uncertainty([]pulse{p})
}

// decide says what pulses are that are off the line one after the other. Those that come all together were held up, and the next ones are back
// on it. Those that come as fast as before, but later by whole periods, are after others that are missing. All else is another tempo, or the
// same one from elsewhere.
func (f *Follower) decide() {
	if len(f.off) < decidedBy && (f.perQuarter > slow || len(f.off) < 2) {
		return
	}
	own, line := fitOf(f.off), fitOf(f.window)
	switch faster := own.period / f.period; {
	case faster < together && len(f.off) < heldUp:
		return
	case faster > 1-sameTempo && faster < 1+sameTempo:
		late := line.residual(f.last) / f.period
		if missing := math.Round(late); missing >= 1 && math.Abs(late-missing) < sameTempo {
			for i := range f.off {
				f.off[i].index += int64(missing)
			}
			f.last.index += int64(missing)
			f.window, f.off = append(f.window, f.off...), nil
			return
		}
	}
	f.begin(f.off)
}

// begin begins the line anew, with some pulses.
func (f *Follower) begin(pulses []pulse) {
	f.window, f.off = append([]pulse{}, pulses...), nil
	f.noise, f.known = max(f.noise, startNoise), false
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
	f.any, f.window, f.off, f.gone, f.known = false, nil, nil, nil, f.period > 0
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
