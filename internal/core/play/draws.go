package play

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// Share is how likely a spread adds a number.
type Share struct {
	// Added is what is added to the written value.
	Added int `json:"added"`
	// Share is its probability; all shares add up to 1.
	Share float64 `json:"share"`
}

// Shares returns how likely each number is that a spread adds, ascending: the density of score.Spread, summed
// over the part of the range that lands on each number.
func Shares(s score.Spread) []Share {
	applies := float64(s.Chance) / 100
	g := gridOf(&s)
	share := map[int]float64{0: 1 - applies}
	least, most := 0, 0
	for slot := range g.slots {
		from, to := float64(slot)/float64(g.slots), float64(slot+1)/float64(g.slots)
		added := g.added(slot)
		share[added] += applies * (chance.LeanBelow(to, s.Lean) - chance.LeanBelow(from, s.Lean))
		least, most = min(least, added), max(most, added)
	}
	var shares []Share
	for added := least; added <= most; added++ {
		if likely, ok := share[added]; ok {
			shares = append(shares, Share{Added: added, Share: likely})
		}
	}
	return shares
}

// Draws returns what a lane's spread really added to each note of a part that begins in [from, to) and whose value it touches, in their
// order; a mod lane is read as if it were read with the notes. The part must exist.
func Draws(p *score.Project, track, part int, lane score.LaneName, from, to score.Tick) []int {
	heard := heardBy(p, track)
	drawn := []int{}
	f := NewPerformer(heard)
	f.skipTo(from)
	f.each(func(w *walker) {
		if w.track.ID != track || w.part.ID != part {
			return
		}
		address := w.chance
		v := newValue(&w.part.Lanes, lane.Spec(), address)
		stands := w.all[slices.IndexFunc(w.all, func(v *value) bool { return v.name == lane })]
		w.decided = func(d decision) {
			n, step := w.gate.DrawIndex, d.step
			if !stands.linked {
				step = stands.Step()
			}
			written, spread := stands.written(step, n), v.Lane().Spread
			if d.sounds && d.tick >= from && (spread == nil || spread.Touched(written)) {
				drawn = append(drawn, v.added(written, n))
			}
		}
	})
	f.walkAll(to)
	return drawn
}
