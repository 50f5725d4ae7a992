package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// Performer plays a project from its beginning on, in stretches of any size. The notes of all stretches
// together are the same however time is cut up. The project must be valid and must not be changed.
type Performer struct {
	walkers  []*walker        // a heap by the next step
	sounded  []bool           // of each track, whether its last step that was on sounded
	pending  []pending        // notes that start later than the last stretch
	controls []pendingControl // of mod lanes and slides, not yet handed over
	ahead    score.Tick
	played   score.Tick
	scratch  []Note
}

type pending struct {
	Note
	order int
}

// chunk is how much is walked at once, so that notes that wait to be sorted stay few.
const chunk = 4 * score.TicksPerQuarter

// NewPerformer returns a performer at tick 0.
func NewPerformer(p *score.Project) *Performer {
	f := &Performer{sounded: make([]bool, len(p.Tracks))}
	longest := 1
	for track := range p.Tracks {
		for part := range p.Tracks[track].Parts() {
			w := newWalker(p, track, part)
			f.walkers = append(f.walkers, w)
			f.ahead = max(f.ahead, w.ahead())
			longest = max(longest, chainLength(p, w.track))
		}
	}
	// A note that comes early lets the tracks that follow it come early too.
	f.ahead *= score.Tick(longest)
	f.arrange()
	return f
}

// NewPerformerAt returns a performer whose first stretch begins at a tick.
func NewPerformerAt(p *score.Project, tick score.Tick) *Performer {
	return NewWatchedPerformerAt(p, tick, nil)
}

// Watch is called for every move of every lane that has a loop of its own, and of the gate lanes. Moves
// can be told earlier than their notes.
type Watch func(track, part int, lane score.LaneName, move Move)

// NewWatchedPerformerAt returns a performer whose first stretch begins at a tick. It tells the moves on the
// way there too, or the last of them.
func NewWatchedPerformerAt(p *score.Project, tick score.Tick, watch Watch) *Performer {
	f := NewPerformer(p)
	if watch != nil {
		f.watch(watch)
	}
	f.skipTo(tick)
	f.scratch = f.Advance(tick, f.scratch[:0])[:0]
	f.Controls(nil)
	return f
}

func (f *Performer) watch(watch Watch) {
	for _, w := range f.walkers {
		w.watch = func(lane score.LaneName, move Move) { watch(w.track.ID, w.index, lane, move) }
	}
}

// Advance appends to dst the notes that start before the tick to and after all those it gave before,
// ordered by start, then by the order of the tracks and parts.
func (f *Performer) Advance(to score.Tick, dst []Note) []Note {
	for f.played < to {
		f.played = min(to, f.played+chunk)
		f.walkTo(f.played+f.ahead, nil)
		dst = f.take(f.played, dst)
	}
	f.watchTo(to)
	for _, w := range f.walkers {
		for _, v := range w.mods {
			w.glide(v.control, to)
		}
		if !w.track.Mute {
			f.controls = append(f.controls, w.controls...)
		}
		w.controls = w.controls[:0]
	}
	return dst
}

// Controls appends to dst the messages of mod lanes and slides that go with the notes of all stretches so
// far and were not handed over yet, ordered by tick and kind.
func (f *Performer) Controls(dst []Message) []Message {
	slices.SortStableFunc(f.controls, func(a, b pendingControl) int {
		return cmp.Or(cmp.Compare(a.Tick, b.Tick), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.order, b.order))
	})
	ready := 0
	for ready < len(f.controls) && f.controls[ready].Tick < f.played {
		dst = append(dst, f.controls[ready].Message)
		ready++
	}
	f.controls = slices.Delete(f.controls, 0, ready)
	return dst
}

// walkTo does all steps before a tick.
func (f *Performer) walkTo(to score.Tick, decided func(*walker, decision)) {
	for len(f.walkers) > 0 && f.walkers[0].next < to {
		w := f.walkers[0]
		notes, d, was := w.walk(f.sounded, f.scratch[:0])
		f.scratch = notes
		if was {
			f.sounded[w.order] = d.sounds
			if decided != nil {
				decided(w, d)
			}
		}
		if !w.track.Mute {
			for _, n := range notes {
				f.pending = append(f.pending, pending{n, w.order<<8 | w.index})
			}
		}
		f.sink()
		if len(notes) > 0 && f.follow(w.track.ID, notes) {
			f.arrange()
		}
	}
}

// follow lets the tracks that follow a track hear its notes, and reports whether there are any.
func (f *Performer) follow(track int, notes []Note) (any bool) {
	for _, follower := range f.walkers {
		if follower.follows() && follower.track.Source.Track == track {
			any = true
			for _, n := range notes {
				follower.hear(n)
			}
		}
	}
	return any
}

// arrange orders the heap anew; a sorted list is a heap.
func (f *Performer) arrange() {
	slices.SortFunc(f.walkers, func(a, b *walker) int {
		switch {
		case a.before(b):
			return -1
		case b.before(a):
			return 1
		}
		return 0
	})
}

// watchTo tells the moves of lanes that come between two gate steps.
func (f *Performer) watchTo(to score.Tick) {
	for _, w := range f.walkers {
		if w.watch != nil || len(w.mods) > 0 {
			w.seekTo(min(to, w.next))
		}
	}
}

// take hands over the pending notes that start before a tick.
func (f *Performer) take(to score.Tick, dst []Note) []Note {
	slices.SortStableFunc(f.pending, func(a, b pending) int {
		return cmp.Or(cmp.Compare(a.Start, b.Start), cmp.Compare(a.order, b.order))
	})
	ready := 0
	for ready < len(f.pending) && f.pending[ready].Start < to {
		dst = append(dst, f.pending[ready].Note)
		ready++
	}
	f.pending = slices.Delete(f.pending, 0, ready)
	return dst
}

// sink restores the heap after the first walker has gone on.
func (f *Performer) sink() {
	for i := 0; ; {
		least := i
		for child := 2*i + 1; child <= 2*i+2 && child < len(f.walkers); child++ {
			if f.walkers[child].before(f.walkers[least]) {
				least = child
			}
		}
		if least == i {
			return
		}
		f.walkers[i], f.walkers[least] = f.walkers[least], f.walkers[i]
		i = least
	}
}

// before orders walkers by their next step; of two at one moment the first track's goes first.
func (w *walker) before(other *walker) bool {
	if w.next != other.next {
		return w.next < other.next
	}
	return cmp.Or(cmp.Compare(w.order, other.order), cmp.Compare(w.index, other.index)) < 0
}
