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

// Shares returns how likely each number is that a spread adds to a value, ascending: the density of score.Spread, summed
// over the part of the range that lands on each number. Only with limits it depends on the value.
func Shares(s score.Spread, value int) []Share {
	applies := float64(s.Chance) / 100
	g := gridOf(&s, value)
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

// Draws returns what a spread really added to each note of a part that begins in [from, to) and whose value it touches, in their order: the spread
// that is in force at a step of a lane, its own or the lane's. With limits only notes of the step's value count, since what is added depends on it. A mod
// lane is read as if it were read with the notes. The part must exist. shares are how likely each number is.
func Draws(p *score.Project, track, part int, lane score.LaneName, step int, from, to score.Tick) (shares []Share, drawn []int) {
	heard := heardBy(p, track)
	drawn = []int{}
	f := NewPerformer(heard)
	f.skipTo(from)
	f.each(func(w *walker) {
		if w.track.ID != track || w.part.ID != part {
			return
		}
		v := w.all[slices.IndexFunc(w.all, func(v *value) bool { return v.name == lane })]
		spread, scaled := v.spread(step), func(written int) int { return score.Rounded(written*v.scale, 100) }
		value := scaled(v.steps[step])
		if spread == nil {
			return
		}
		shares = Shares(*spread, value)
		w.decided = func(d decision) {
			at, n := v.stepAt(d.step), w.gate.DrawIndex
			written := v.written(at, n, 0)
			if d.sounds && d.tick >= from && v.spread(at) == spread && spread.Touched(written) && (!spread.Limits || scaled(written) == value) {
				drawn = append(drawn, v.added(at, written, n, 0))
			}
		}
	})
	f.walkAll(to)
	return shares, drawn
}
