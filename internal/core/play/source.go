package play

import (
	"container/heap"

	"jettyfog/internal/core/score"
)

// source is something that plays: the walker of a part, or the looper of a track. What it has done so far is a plain
// value, so that it can go on from anywhere.
type source interface {
	// due returns when it has something to do next; never is never.
	due() score.Tick
	// play does what is due, and appends the notes of it to dst, some of which can start earlier or later.
	play(dst []Note) []Note
	// rank returns its place among all sources that are due at one moment.
	rank() int
	// jumps reports whether it can be brought to a far moment at once, and jump brings it so close to one that none of
	// its earlier notes starts there or later. It must be fresh.
	jumps() bool
	jump(tick score.Tick)

	key() partKey
	save() any
	restore(state any)
}

// partKey names what a source plays by the ids of its track and its part; the part of a looper is ofLoop.
type partKey struct{ track, part int }

const ofLoop = -1

// coupledWalkers are walkers that hear others or are heard by others, a heap by the next step.
type coupledWalkers []*walker

// Len implements heap.Interface.
func (c coupledWalkers) Len() int { return len(c) }

// Less implements heap.Interface: of two that are due at one moment that goes first whose track has its turn first.
func (c coupledWalkers) Less(i, j int) bool {
	return c[i].next < c[j].next || c[i].next == c[j].next && c[i].order < c[j].order
}

// Swap implements heap.Interface.
func (c coupledWalkers) Swap(i, j int) { c[i], c[j] = c[j], c[i] }

// Push implements heap.Interface.
func (c *coupledWalkers) Push(w any) { *c = append(*c, w.(*walker)) }

// Pop implements heap.Interface. Nothing is ever taken out.
func (c *coupledWalkers) Pop() any { panic("play: coupled walkers stay") }

// arrange restores the heap after any of the walkers have moved.
func (c coupledWalkers) arrange() { heap.Init(&c) }

// moved restores the heap after the first has gone on.
func (c coupledWalkers) moved() { heap.Fix(&c, 0) }
