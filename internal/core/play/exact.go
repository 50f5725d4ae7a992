package play

import "jettyfog/internal/core/score"

// exact is a moment, or a span, of whole ticks and a fraction of one: whole + num/den, with 0 ≤ num < den. A part's own
// time is counted in fractions, so that what its speed, its ratchets and its swing make of a step is exact to the tick
// in the project's time. All denominators are products of the few that arise here (see placing), so that nothing
// overflows.
type exact struct {
	whole    score.Tick
	num, den int64
}

// fraction returns num/den ticks; den must be positive.
func fraction(num, den int64) exact {
	whole := num / den
	if num%den < 0 {
		whole--
	}
	return exact{score.Tick(whole), num - whole*den, den}
}

// exactly returns a number of whole ticks.
func exactly(t score.Tick) exact { return exact{whole: t, den: 1} }

// after returns the moment so many whole ticks later.
func (e exact) after(t score.Tick) exact {
	e.whole += t
	return e
}

// over returns the same with a denominator that is a multiple of its own.
func (e exact) over(den int64) exact {
	if e.num != 0 {
		e.num *= den / e.den
	}
	e.den = den
	return e
}

// minus returns the span from another moment to this one. One of the two denominators is a multiple of the other.
func (e exact) minus(other exact) exact {
	if e.den == 1 && other.den == 1 {
		return exactly(e.whole - other.whole)
	}
	den := max(e.den, other.den)
	e, other = e.over(den), other.over(den)
	span := exact{e.whole - other.whole, e.num - other.num, den}
	if span.num < 0 {
		span.whole, span.num = span.whole-1, span.num+den
	}
	return span
}

// times returns num/den of it.
func (e exact) times(num, den int64) exact {
	return fraction((int64(e.whole)*e.den+e.num)*num, e.den*den)
}

// plus returns the moment later by a span whose denominator is a multiple of its own.
func (e exact) plus(span exact) exact {
	e = e.over(span.den)
	if e.whole, e.num = e.whole+span.whole, e.num+span.num; e.num >= e.den {
		e.whole, e.num = e.whole+1, e.num-e.den
	}
	return e
}

// less reports whether it is before another of the same denominator.
func (e exact) less(other exact) bool {
	return e.whole < other.whole || e.whole == other.whole && e.num < other.num
}

// real converts a moment of the walker's own time, counted from where the lanes are aligned, to the project's.
func (w *walker) realOf(local exact, aligned score.Tick) exact {
	if w.straight {
		return local.after(aligned)
	}
	n, m := int64(w.speed.N), int64(w.speed.M)
	whole, rest := int64(local.whole)/n, int64(local.whole)%n
	return fraction((rest*local.den+local.num)*m, n*local.den).after(aligned + score.Tick(whole*m))
}
