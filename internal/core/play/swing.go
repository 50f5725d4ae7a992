package play

import (
	"jettyfog/internal/core/score"
)

// swing is a bend of time: of each pair of grid steps the first takes so much, in thousandths of a percent.
type swing int64

const (
	straight  swing = 50_000
	mostSwing swing = 75_000
)

// swung returns the swing of a step whose swing lane says how much of what is in force it takes, in percent.
func (w *walker) swung(percent int) swing {
	return min(mostSwing, straight+swing((w.swing-score.Straight)*percent))
}

// bend bends a moment in a pair of steps that begins at a whole tick.
func (s swing) bend(at exact, pair, step score.Tick) exact {
	from := int64(at.whole-pair)*at.den + at.num
	if first := int64(step) * at.den; from >= first {
		return fraction(first*int64(s)+(from-first)*int64(2*straight-s), at.den*int64(straight)).after(pair)
	}
	return fraction(from*int64(s), at.den*int64(straight)).after(pair)
}

// placing is where a step's moments are heard: swung, nudged, and shifted by delay and chance.
type placing struct {
	w     *walker
	swing swing
	nudge int64      // in hundredths of a tick of the walker's own time
	later score.Tick // in ticks of the project
}

// at returns when a moment of the walker's own time is heard, counted from where the lanes are aligned.
func (p *placing) at(local exact, aligned score.Tick) exact {
	w := p.w
	if w.straight && p.swing == straight { // most steps, for which divisions by numbers that are known are enough
		at := local.after(aligned + p.later)
		den := at.den
		if den == 1 {
			den = 100
		}
		switch {
		case p.nudge == 0:
			return at
		case den%100 == 0:
			by := fraction(p.nudge, 100)
			return at.plus(exact{by.whole, by.num * (den / 100), den})
		}
	}
	at := local
	if p.swing != straight && w.grid == 0 {
		at = p.swing.bend(at, at.whole-at.whole%(2*w.gate.Rate), w.gate.Rate)
	}
	at = w.realOf(at, aligned)
	if p.swing != straight && w.grid > 0 {
		at = w.bendGrid(p.swing, at)
	}
	if p.nudge != 0 {
		n, m := int64(w.speed.N), int64(w.speed.M)
		if w.straight {
			n, m = 1, 1
		}
		den := at.den // a multiple of n
		if den%(100*n) != 0 {
			den *= 100
		}
		at = at.plus(fraction(p.nudge*m*(den/(100*n)), den))
	}
	return at.after(p.later)
}

// bendGrid bends a moment of the project on its swing grid. Pairs are counted from the bar line; what is left of a bar
// after the last of them is straight.
func (w *walker) bendGrid(s swing, at exact) exact {
	bar := w.bars.At(at.whole)
	begins, ends := w.bars.Start(bar), w.bars.Start(bar+1)
	pair := at.whole - (at.whole-begins)%(2*w.grid)
	if pair+2*w.grid > ends {
		return at
	}
	return s.bend(at, pair, w.grid)
}

// swingLate is the most by which swing delays anything, in ticks of the project.
func (w *walker) swingLate() score.Tick {
	if w.grid > 0 {
		return w.grid / 2
	}
	return w.span(w.gate.Rate / 2)
}
