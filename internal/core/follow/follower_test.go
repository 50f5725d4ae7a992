package follow_test

import (
	"fmt"
	"math"
	"math/rand"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/follow"
	"jettyfog/internal/core/score"
)

// machine is another machine: stretches of one tempo each, from times on, in beats a minute.
type machine []struct {
	from float64 // seconds
	bpm  float64
}

// timeOf returns when it is at a position in quarter notes, in seconds.
func (m machine) timeOf(quarters float64) float64 {
	for i, stretch := range m {
		length := math.Inf(1)
		if i+1 < len(m) {
			length = (m[i+1].from - stretch.from) * stretch.bpm / 60
		}
		if quarters <= length {
			return stretch.from + quarters*60/stretch.bpm
		}
		quarters -= length
	}
	panic("no machine stops")
}

// simulation is a machine whose pulses come late by up to the jitter, or not at all, and playing that is steered by them as it is computed
// 40 ms ahead.
type simulation struct {
	machine    machine
	perQuarter int
	jitter     float64 // ms
	missing    func(seconds float64) bool
	seconds    float64
	seed       int64
}

// tick is one of 24 a quarter note: when it plays, in seconds, and how much later that is than the machine's, in milliseconds, against the middle
// of the jitter.
type tick struct{ at, late float64 }

const quarter = float64(score.TicksPerQuarter)

// rate is how many ticks a nanosecond has.
func rate(tempo score.Tempo) float64 { return tempo.TicksPerMilli() / 1e6 }

// run returns the ticks that are played, and how many tempos they had.
func (s simulation) run() (played []tick, tempos int) {
	random := rand.New(rand.NewSource(s.seed))
	var pulses []int64
	for i := 0; ; i++ {
		at := s.machine.timeOf(float64(i) / float64(s.perQuarter))
		if at > s.seconds {
			break
		}
		if late := random.Float64() * s.jitter * 1e6; s.missing == nil || !s.missing(at) {
			pulses = append(pulses, int64(at*1e9+late))
		}
	}
	slices.Sort(pulses)
	f := follow.New(s.perQuarter)
	tempo, position, at := score.Tempo(100_000), 0.0, pulses[0]
	for now := pulses[0]; now < int64(s.seconds*1e9); now += 10e6 {
		for len(pulses) > 0 && pulses[0] <= now {
			f.Pulse(pulses[0])
			pulses = pulses[1:]
		}
		for at < now+40e6 {
			sixteenth := math.Round(position / float64(follow.Sixteenth))
			if line, known := f.Line(); known {
				if next, changes := follow.Steer(line, position, at, tempo, math.Mod(sixteenth, 4) == 0); changes {
					tempo, tempos = next, tempos+1
				}
			}
			for range 6 {
				quarters := position / quarter
				played = append(played, tick{float64(at) / 1e9, float64(at)/1e6 - s.machine.timeOf(quarters)*1e3 - s.jitter/2})
				at += int64(quarter / 24 / rate(tempo))
				position += quarter / 24
			}
		}
	}
	return played, tempos
}

// percentile returns how far the ticks of a time are off at most, but for some of them.
func percentile(played []tick, from, to, part float64) float64 {
	var off []float64
	for _, t := range played {
		if t.at >= from && t.at < to {
			off = append(off, math.Abs(t.late))
		}
	}
	slices.Sort(off)
	return off[min(len(off)-1, int(part*float64(len(off))))]
}

// steady is a machine that keeps its tempo.
func steady(bpm float64) machine { return machine{{0, bpm}} }

// Pulses that jitter by 3 ms come out with less than 0.5 ms after two bars (connect.md), at 24 pulses a quarter note. The other values are what was measured.
func TestJitterIsTakenOut(t *testing.T) {
	for _, of := range []struct{ jitter, p50, p99 float64 }{{0, 0.001, 0.001}, {1, 0.06, 0.2}, {3, 0.15, 0.5}, {5, 0.25, 0.8}} {
		t.Run(fmt.Sprintf("%g ms", of.jitter), func(t *testing.T) {
			var all []tick
			for seed := range int64(8) {
				played, tempos := simulation{machine: steady(120), perQuarter: 24, jitter: of.jitter, seconds: 60, seed: seed}.run()
				require.Less(t, tempos, 150, "about one a beat at most")
				all = append(all, played...)
			}
			p50, p99 := percentile(all, 4, 60, 0.5), percentile(all, 4, 60, 0.99)
			t.Logf("out: p50 %.3f ms, p99 %.3f ms", p50, p99)
			require.Less(t, p50, of.p50)
			require.Less(t, p99, of.p99)
		})
	}
}

// A tempo that jumps from 60 to 120 is played within a beat, and within two to half a millisecond; one that becomes faster evenly is followed
// within a sixteenth of a beat.
func TestTemposThatChange(t *testing.T) {
	for _, jitter := range []float64{0, 3} {
		played, _ := simulation{machine: machine{{0, 60}, {20, 120}}, perQuarter: 24, jitter: jitter, seconds: 40, seed: 1}.run()
		t.Logf("jitter %g ms: %.1f ms off in the beat of the jump, %.2f ms after it", jitter, percentile(played, 20, 20.5, 1), percentile(played, 20.5, 21, 1))
		require.Less(t, percentile(played, 20.5, 21, 1), 5.0)
		require.Less(t, percentile(played, 21, 22, 1), 0.6)
	}
	ramp := machine{{0, 60}}
	for i := range 81 {
		ramp = append(ramp, struct{ from, bpm float64 }{10 + float64(i)/10, 60 + float64(i)*60/80})
	}
	played, _ := simulation{machine: ramp, perQuarter: 24, jitter: 3, seconds: 40, seed: 1}.run()
	t.Logf("from 60 to 120 in 8 s: %.1f ms off at most", percentile(played, 10, 19, 1))
	require.Less(t, percentile(played, 10, 19, 1), 30.0)
	require.Less(t, percentile(played, 21, 40, 0.99), 0.7)
}

// Pulses that are missing for less than half a second change nothing; after a longer silence playing is where the machine is.
func TestPulsesThatAreMissing(t *testing.T) {
	for _, until := range []float64{10.1, 10.4, 12} {
		played, _ := simulation{machine: steady(120), perQuarter: 24, jitter: 1, seconds: 30, seed: 1, missing: func(at float64) bool { return at > 10 && at < until }}.run()
		require.Less(t, percentile(played, 9, until, 1), 0.5)
		require.Less(t, percentile(played, until+1, 30, 1), 0.5)
		require.Less(t, percentile(played, until, until+1, 1), 8.0)
	}
}

// Pulses that are held up, as by a machine that is busy, and come together then, are those that were due: playing goes on as it was, however long
// that was. Of more than half a second only the last says where the other machine is.
func TestPulsesThatAreHeldUp(t *testing.T) {
	const period = 20_833_333
	for _, jitter := range []int64{0, 3_000_000} {
		for _, held := range []int{1, 2, 3, 5, 9, 20, 24, 30, 49} {
			random := rand.New(rand.NewSource(int64(held)))
			f := follow.New(24)
			until, long := int64(0), false
			for n := range int64(2000) {
				switch n % 100 {
				case 50: // until between two pulses
					until = (n+int64(held))*period - 2*period/5
					long = until-(n-1)*period > 500_000_000
				case 0:
					until, long = (n+2)*period, false
				}
				f.Pulse(max(until, n*period+int64(random.Float64()*float64(jitter+1))))
				line, known := f.Line()
				if n < 200 {
					continue
				}
				require.True(t, known)
				if long && n*period < until {
					continue
				}
				off := line.TimeOf(float64(n)*quarter/24) - float64(n*period) - float64(jitter)/2
				require.InDelta(t, 0, off/1e6, 0.6, "pulse %d, %d held up", n, held)
			}
		}
	}
}

// Of pulses that are held up for long some can be lost on the way: then the time says where the other machine is. One that began, and goes on so
// much later that its tempo is not known yet, has that of what comes then.
func TestAClockThatComesBack(t *testing.T) {
	const period = 20_833_333
	f := follow.New(24)
	for n := range int64(200) {
		f.Pulse(n * period)
	}
	for range 45 { // of 50
		f.Pulse(250*period - period/5)
	}
	for n := int64(250); n < 300; n++ {
		f.Pulse(n * period)
		index, _, _ := f.Last()
		require.Equal(t, n, index)
	}
	f.Pulse(350 * period)
	f.Restart()
	f.Pulse(400 * period)
	f.Pulse(400*period + period/10)
	index, _, _ := f.Last()
	require.EqualValues(t, 1, index)

	f = follow.New(24)
	f.Pulse(0)
	for n := range int64(30) {
		f.Pulse(4_000_000_000 + n*period)
		if line, known := f.Line(); n > 0 {
			require.True(t, known)
			require.InDelta(t, 120_000, int(line.Tempo()), 10, "pulse %d", n)
		}
	}
}

// Of a slower clock a jump is taken up within four pulses.
func TestSlowClocks(t *testing.T) {
	for _, per := range []int{1, 2, 4} {
		played, _ := simulation{machine: machine{{0, 120}, {30, 90}}, perQuarter: per, jitter: 1, seconds: 60, seed: 1}.run()
		require.Less(t, percentile(played, 10, 30, 0.99), 0.6, "%d a quarter note", per)
		four := 30 + 4*60/90.0/float64(per)
		require.Less(t, percentile(played, four+60/90.0, 60, 1), 4.0, "%d a quarter note", per)
	}
}

// Whatever comes: no tick goes back, tempos are within their bounds and within half and double the line's, and nothing fails.
func TestWhateverComes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := follow.New(rapid.IntRange(1, 48).Draw(t, "pulses a quarter note"))
		at, position, tempo := int64(0), 0.0, score.Tempo(120_000)
		for range rapid.IntRange(1, 200).Draw(t, "count") {
			gap := rapid.SampledFrom([]int64{0, 1, 1000, 900_000, 20_833_333, 20_000_000, 41_666_666, 500_000_000, 3_000_000_000, 60_000_000_000}).Draw(t, "gap")
			at += gap
			switch rapid.IntRange(0, 20).Draw(t, "act") {
			case 0:
				f.Restart()
			case 1:
				at -= min(at, 5_000_000) // as of a page whose clock is off
			}
			f.Pulse(at)
			line, known := f.Line()
			if !known {
				continue
			}
			require.False(t, math.IsNaN(line.Position) || math.IsInf(line.Position, 0))
			require.Greater(t, line.Rate, 0.0)
			next, changes := follow.Steer(line, position, at, tempo, true)
			require.GreaterOrEqual(t, next, score.MinTempo)
			require.LessOrEqual(t, next, score.MaxTempo)
			if changes && line.Tempo() > score.MinTempo && line.Tempo() < score.MaxTempo {
				require.InDelta(t, 0, math.Log2(float64(next)/float64(line.Tempo())), 1.001)
			}
			tempo = next
			position += rate(tempo) * float64(gap)
		}
	})
}

// A clock is lost after three pulses that are missing, and half a second at least.
func TestLost(t *testing.T) {
	const ms = 1_000_000
	f := follow.New(24)
	require.False(t, f.Lost(1e12), "none has come")
	for n := range int64(10) {
		f.Pulse(n * 20 * ms)
	}
	last := int64(180 * ms)
	require.False(t, f.Lost(last+499*ms))
	require.True(t, f.Lost(last+500*ms))
	f = follow.New(1)
	for n := range int64(10) {
		f.Pulse(n * 600 * ms)
	}
	last = 9 * 600 * ms
	require.False(t, f.Lost(last+2000*ms))
	require.True(t, f.Lost(last+2150*ms))
}
