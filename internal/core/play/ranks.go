package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// ranked returns a project with its tracks in the order in which they take their turns at one tick: each after those
// that it hears, else by id, wherever they stand in the list. Of tracks that hear each other the lowest id is first.
func ranked(p *score.Project) *score.Project {
	left := make([]*score.Track, len(p.Tracks))
	for i := range p.Tracks {
		left[i] = &p.Tracks[i]
	}
	slices.SortFunc(left, func(a, b *score.Track) int { return cmp.Compare(a.ID, b.ID) })
	in := *p
	in.Tracks = make([]score.Track, 0, len(left))
	for len(left) > 0 {
		next := max(0, slices.IndexFunc(left, func(t *score.Track) bool {
			return !slices.ContainsFunc(left, func(other *score.Track) bool { return other != t && hears(t, other.ID) })
		}))
		in.Tracks = append(in.Tracks, *left[next])
		left = slices.Delete(left, next, next+1)
	}
	return &in
}

// hears reports whether what a track plays depends at once on another, or on itself.
func hears(t *score.Track, id int) bool {
	if t.Source.FollowsTrack() && t.Source.Track == id {
		return true
	}
	for i := range t.Parts() {
		for _, detail := range t.Parts()[i].Details {
			if detail.Condition.About(id) {
				return true
			}
		}
	}
	return false
}

// mutual returns the tracks that hear the first one, at once or by way of others, among those that it hears.
func mutual(p *score.Project, from int) map[int]bool {
	reach := func(id int) map[int]bool {
		reached := map[int]bool{}
		var follow func(id int)
		follow = func(id int) {
			for i := range p.Tracks {
				if other := p.Tracks[i].ID; hears(p.Track(id), other) && !reached[other] {
					reached[other] = true
					follow(other)
				}
			}
		}
		follow(id)
		return reached
	}
	both := map[int]bool{}
	for id := range reach(from) {
		both[id] = reach(id)[from]
	}
	return both
}
