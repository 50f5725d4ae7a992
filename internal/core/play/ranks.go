package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// hearing tells by the ids of tracks which others each hears at once: the one whose notes it follows, and those that
// conditions are about, of any of its patterns, so that it does not matter which of them plays.
type hearing map[int][]int

func hearingOf(p *score.Project) hearing {
	h := hearing{}
	for i := range p.Tracks {
		track := &p.Tracks[i]
		if track.Source.FollowsTrack() {
			h[track.ID] = append(h[track.ID], track.Source.Track)
		}
		for j := range track.Patterns {
			for k := range track.Patterns[j].Parts {
				for _, detail := range track.Patterns[j].Parts[k].Details {
					h[track.ID] = append(h[track.ID], detail.Condition.Tracks()...)
				}
			}
		}
		if source := track.Pitches.FollowsTrack(); source > 0 {
			h[track.ID] = append(h[track.ID], source)
		}
		h[track.ID] = append(h[track.ID], driversOf(p, track.ID)...)
		slices.Sort(h[track.ID])
		h[track.ID] = slices.Compact(h[track.ID])
	}
	return h
}

// driversOf returns the tracks that drive modulators which move a track, are sent by it, or are its clock.
func driversOf(p *score.Project, track int) (drivers []int) {
	for i := range p.Modulators {
		m := &p.Modulators[i]
		moves := slices.ContainsFunc(m.Moves, func(move score.ModulatorMove) bool {
			return move.Control.Track == 0 || move.Control.Track == track
		})
		moves = moves || slices.ContainsFunc(m.Sends, func(send score.ModulatorSend) bool { return send.Track == track })
		if t := p.Track(track); t.Source.Kind == score.CurveClock && t.Source.Modulator == m.ID {
			moves = true
		}
		if original := p.Original(m); moves && original != nil && original.Shape.DrivenByTrack() && p.Track(original.Track) != nil {
			drivers = append(drivers, original.Track)
		}
	}
	return drivers
}

// reach returns the tracks that a track hears, directly or through others.
func (h hearing) reach(from int) map[int]bool {
	reached := map[int]bool{}
	var follow func(id int)
	follow = func(id int) {
		for _, other := range h[id] {
			if !reached[other] {
				reached[other] = true
				follow(other)
			}
		}
	}
	follow(from)
	return reached
}

// mutual reports whether two tracks hear each other.
func (h hearing) mutual(one, other int) bool {
	return one == other || h.reach(one)[other] && h.reach(other)[one]
}

// Coupled returns a number for each track, by id, that is the same for tracks that hear each other, directly or through
// others, whichever of their patterns play.
func Coupled(p *score.Project) map[int]int { return hearingOf(p).coupled(p) }

func (h hearing) coupled(p *score.Project) map[int]int {
	groups := make(map[int]int, len(p.Tracks))
	for i := range p.Tracks {
		groups[p.Tracks[i].ID] = p.Tracks[i].ID
	}
	for id, heard := range h {
		for _, other := range heard {
			from, to := max(groups[id], groups[other]), min(groups[id], groups[other])
			for track, group := range groups {
				if group == from {
					groups[track] = to
				}
			}
		}
	}
	return groups
}

// order returns the ids of the tracks in the order in which they take their turns at one tick: each after those that it
// hears, else by id, wherever they stand in the list. Of tracks that hear each other the lowest id is first.
func (h hearing) order(p *score.Project) []int {
	var left []int
	for i := range p.Tracks {
		left = append(left, p.Tracks[i].ID)
	}
	slices.Sort(left)
	var order []int
	for len(left) > 0 {
		next := max(0, slices.IndexFunc(left, func(id int) bool {
			return !slices.ContainsFunc(h[id], func(other int) bool { return other != id && slices.Contains(left, other) })
		}))
		order = append(order, left[next])
		left = slices.Delete(left, next, next+1)
	}
	return order
}

// inOrder returns a project with its tracks in the order of their ids in a list.
func inOrder(p *score.Project, ids []int) *score.Project {
	in := *p
	in.Tracks = slices.Clone(p.Tracks)
	slices.SortFunc(in.Tracks, func(a, b score.Track) int {
		return cmp.Compare(slices.Index(ids, a.ID), slices.Index(ids, b.ID))
	})
	return &in
}
