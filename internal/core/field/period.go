package field

import (
	"errors"
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// MaxPeriodMoves bounds how many moments are looked at to find how a field repeats.
const MaxPeriodMoves = 1 << 14

// Why a field does not repeat, or is not known to.
var (
	ErrChance = errors.New("chance decides on the field")
	ErrLong   = errors.New("the field does not repeat soon enough to tell")
)

// Period returns after how long a field repeats, from a moment on, both in ticks of its own time; a period of 0 is one in which nothing moves any more. It is
// found by Brent's algorithm (1980) on the states of the field. The error wraps ErrChance or ErrLong.
func Period(f *score.Field) (lead, period score.Tick, err error) {
	if HasChance(f) {
		return 0, 0, ErrChance
	}
	m := New(f, chance.Address{})
	next := func(s *State) { _, _ = m.Move(s, nil) }
	slow, fast := m.Begin(), m.Begin()
	power, moves := 1, 1
	if fast.Due() == Never {
		return 0, 0, nil
	}
	next(fast)
	for total := 0; ; total++ {
		switch {
		case fast.Due() == Never:
			return last(m), 0, nil
		case same(slow, slow.Due(), fast, fast.Due()):
			period = fast.Due() - slow.Due()
			lead, err = leadOf(m, moves)
			return lead, period, err
		case total == MaxPeriodMoves:
			return 0, 0, ErrLong
		case moves == power:
			slow, power, moves = fast.Clone(), 2*power, 0
		}
		next(fast)
		moves++
	}
}

// leadOf returns when a field that repeats after so many moments begins to: with the first moment from which on what sounds comes again.
func leadOf(m *Machine, moves int) (score.Tick, error) {
	slow, fast := m.Begin(), m.Begin()
	heard := make([]heardMoment, moves) // round and round, the last moments of slow
	for range moves {
		_, _ = m.Move(fast, nil)
	}
	for n := range 2 * MaxPeriodMoves {
		if same(slow, slow.Due(), fast, fast.Due()) {
			// The last moments before it can sound alike all the same: before it starts a traveller stands otherwise than where it comes to its start again.
			lead := slow.Due()
			for back := n - 1; back >= max(0, n-moves) && heard[back%moves].repeats; back-- {
				lead = heard[back%moves].at
			}
			return lead, nil
		}
		at, then := slow.Due(), fast.Due()
		first, _ := m.Move(slow, nil)
		again, _ := m.Move(fast, nil)
		repeats := slices.Equal(first, again) && slow.Due()-at == fast.Due()-then
		heard[n%moves] = heardMoment{at, repeats}
	}
	return 0, ErrLong
}

// heardMoment is when a moment was, and whether the one a period later sounds alike and is as far from the next.
type heardMoment struct {
	at      score.Tick
	repeats bool
}

// last returns when the last move of a field comes that ends.
func last(m *Machine) (at score.Tick) {
	for s := m.Begin(); s.Due() != Never; _, _ = m.Move(s, nil) {
		at = s.Due()
	}
	return at
}

// HasChance reports whether chance can decide where something goes on a field, or whether a cell sounds by odds of its own.
func HasChance(f *score.Field) bool {
	m, follows := New(f, chance.Address{}), false
	for i := range f.Travellers {
		follows = follows || f.Travellers[i].Motion == score.ArrowsMotion
	}
	for i := range f.Rules {
		if odds := f.Rules[i].Odds; odds > 0 && odds < 100 {
			return true
		}
	}
	for i := range f.Cells {
		c := &f.Cells[i]
		switch {
		case !f.Inside(c.Column, c.Row):
		case c.Note && c.Probability > 0 && c.Probability < 100,
			follows && len(m.Ways(c.Column, c.Row)) > 1,
			c.Jump == score.RandomLetter && len(m.letters[c.Letter]) > 2:
			return true
		}
	}
	return false
}
