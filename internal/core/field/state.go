package field

import (
	"math"
	"slices"

	"jettyfog/internal/core/score"
)

// Never is when something is due that is not.
const Never = score.Tick(math.MaxInt64)

// State is where everything on a field is. Its travellers are in the order of the field's.
type State struct {
	Travellers []Traveller
	Waves      []Wave
	// Judged is how often the odds of each rule were drawn, and Unstarted how many waves did not start because there were too many.
	Judged    [score.MaxFieldRules]int64
	Unstarted int64
}

// Traveller is where a traveller is.
type Traveller struct {
	ID          int
	Column, Row int
	Direction   score.Direction
	// Rate is how long it stays in a cell, and Due when it moves next; Never once it has ended, and where it waits.
	Rate, Due score.Tick
	// Started says that it has started, and Ended that it is gone until the field begins anew.
	Started, Ended bool
	// Moves is how many moves it has made since the luck began, by which its draws are numbered.
	Moves int64
	// UntilWave is after how many steps the next wave starts from it.
	UntilWave int
}

// Wave is a wave that lives.
type Wave struct {
	// Traveller is the place of the one from which it comes, by itself or by repeaters.
	Traveller   int
	Column, Row int
	Ring        int
	Generation  int
	Rate, Due   score.Tick
}

// Here reports whether a traveller is on the field.
func (t *Traveller) Here() bool { return t.Started && t.Due != Never }

// Due returns when something moves next, or Never.
func (s *State) Due() score.Tick {
	due := Never
	for i := range s.Travellers {
		due = min(due, s.Travellers[i].Due)
	}
	for i := range s.Waves {
		due = min(due, s.Waves[i].Due)
	}
	return due
}

// Clone returns a copy that shares nothing with s.
func (s *State) Clone() *State {
	clone := *s
	clone.Travellers, clone.Waves = slices.Clone(s.Travellers), slices.Clone(s.Waves)
	return &clone
}

// same reports whether two states play the same from moments of theirs on, as far as no chance decides.
func same(a *State, now score.Tick, b *State, then score.Tick) bool {
	since := func(due, now score.Tick) score.Tick {
		if due == Never {
			return Never
		}
		return due - now
	}
	if !slices.EqualFunc(a.Waves, b.Waves, func(a, b Wave) bool {
		a.Due, b.Due = a.Due-now, b.Due-then
		return a == b
	}) {
		return false
	}
	return slices.EqualFunc(a.Travellers, b.Travellers, func(a, b Traveller) bool {
		a.Due, b.Due, a.Moves, b.Moves = since(a.Due, now), since(b.Due, then), 0, 0
		return a == b
	})
}
