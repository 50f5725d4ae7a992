package wave

import (
	"math/bits"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// Free is a modulator that follows from the time alone, and where it is random from the luck.
type Free struct {
	of      *score.Modulator // whose curve it is
	between score.Interpolation
	phase   int
	stretch score.Ratio
	period  score.Tick // of a pass, before it is stretched; 0 where it goes by Hertz
	bars    score.Bars
	nanos   func(score.Tick) int64
	luck    uint64
	section int64 // the bar with which the section began that plays
}

// New returns a free modulator of a project, or a copy of one; ok is false where something drives it, or what it copies is gone. Nanos tells when
// a tick comes, in nanoseconds, at the project's own tempo.
func New(p *score.Project, m *score.Modulator, nanos func(score.Tick) int64) (f *Free, ok bool) {
	of := p.Original(m)
	if of == nil || of.Shape.Driven() {
		return nil, false
	}
	f = &Free{
		of: of, between: of.Between, phase: of.Phase, stretch: score.Ratio{N: 1, M: 1}, bars: p.Bars(), nanos: nanos,
		luck: uint64(p.Luck.Number), section: int64(p.SectionBar),
	}
	for copied := m; copied != of; copied = p.Modulator(copied.Copies) {
		f.stretch = score.Ratio{N: f.stretch.N * copied.Stretch.N, M: f.stretch.M * copied.Stretch.M}
	}
	if m != of {
		f.between, f.phase = m.Between, m.Phase
	}
	if of.Hertz == 0 {
		f.period = score.Tick(of.Times) * of.Value.Ticks()
	}
	return f, true
}

// Random reports whether chance decides where it goes.
func (f *Free) Random() bool { return f.of.Shape == score.RandomShape }

// At returns where it is at a tick, −One to One.
func (f *Free) At(tick score.Tick) int {
	start, round := f.start(tick)
	pass, x := f.passed(start, tick)
	y := 0
	switch {
	case f.of.Once && pass > 0 && f.Random():
		y = f.drawn(round, 0)
	case f.of.Once && pass > 0:
		y = f.level(One - 1)
	case f.Random():
		y = f.skewed(f.drawn(round, pass))
		if f.between != score.StepsBetween {
			y = between(f.between, y, f.skewed(f.drawn(round, pass+1)), x)
		}
	default:
		y = f.level(x)
	}
	if f.of.FadeIn > 0 {
		full := f.bars.Start(f.bars.At(start) + int64(f.of.FadeIn))
		if tick < full {
			y = rounded(y*int(int64(tick-start)*One/int64(full-start)), One)
		}
	}
	return y
}

// start returns when it was begun last, and which time that was.
func (f *Free) start(tick score.Tick) (start score.Tick, round int64) {
	from := int64(0)
	if section := f.section; f.of.RestartSections && f.bars.Start(section) <= tick {
		from = section
	}
	bar := f.bars.At(tick)
	if every := int64(f.of.Restart); every > 0 {
		from += (bar - from) / every * every
	}
	return f.bars.Start(from), from
}

// passed returns how many whole passes lie between two ticks, by the phase, and which share of the next, 0 to One − 1.
func (f *Free) passed(start, tick score.Tick) (passes int64, share int) {
	// Both are counted in units of which a pass has per.
	var high, low uint64
	per := uint64(f.period)
	if f.period > 0 {
		high, low = bits.Mul64(uint64(tick-start), uint64(f.stretch.M))
	} else {
		const thousandthsOfNanos = 1_000_000_000_000
		per = thousandthsOfNanos
		high, low = bits.Mul64(uint64(f.nanos(tick)-f.nanos(start)), uint64(f.of.Hertz)*uint64(f.stretch.M))
	}
	per *= uint64(f.stretch.N)
	var carry uint64
	low, carry = bits.Add64(low, per/1000*uint64(f.phase)+per%1000*uint64(f.phase)/1000, 0)
	whole, rest := bits.Div64((high+carry)%per, low, per)
	high, low = bits.Mul64(rest, One)
	part, _ := bits.Div64(high, low, per)
	return int64(whole), int(part)
}

// drawn returns the random level of a pass, −One to One, by its luck.
func (f *Free) drawn(round, pass int64) int {
	address := chance.Address{Luck: f.luck, Purpose: chance.Modulate, Sub: uint8(f.of.ID), N: uint64(round)<<32 + uint64(pass)}
	return chance.Below(address, 2*One+1) - One
}
