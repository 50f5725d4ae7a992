package score

import (
	"fmt"
	"slices"
	"strings"
)

// node is a track or a modulator, by its id.
type node struct {
	modulator bool
	id        int
}

// drives returns what each track and each modulator has an effect on: a track on those that follow it, have their pitches from it, or whose conditions
// are about it, if those count, and on modulators that it drives; a modulator on its copies, on tracks that it moves or sends by, and on those whose clock it is. What a
// modulator moves of the project moves all tracks.
func (p *Project) drives(conditions bool) map[node][]node {
	drives := map[node][]node{}
	add := func(from, to node) { drives[from] = append(drives[from], to) }
	for i := range p.Tracks {
		track := &p.Tracks[i]
		self := node{id: track.ID}
		switch {
		case track.Source.FollowsTrack():
			add(node{id: track.Source.Track}, self)
		case track.Source.Kind == CurveClock:
			add(node{true, track.Source.Modulator}, self)
		}
		if source := track.Pitches.FollowsTrack(); source > 0 {
			add(node{id: source}, self)
		}
		for _, pattern := range track.Patterns {
			if !conditions {
				break
			}
			for k := range pattern.Parts {
				for _, detail := range pattern.Parts[k].Details {
					for _, heard := range detail.Condition.Tracks() {
						add(node{id: heard}, self)
					}
				}
			}
		}
	}
	for i := range p.Modulators {
		m := &p.Modulators[i]
		self := node{true, m.ID}
		switch {
		case m.Shape == CopyShape:
			add(node{true, m.Copies}, self)
		case m.Shape.DrivenByTrack():
			add(node{id: m.Track}, self)
		}
		for _, move := range m.Moves {
			for k := range p.Tracks {
				if id := p.Tracks[k].ID; move.Control.Track == 0 || move.Control.Track == id {
					add(self, node{id: id})
				}
			}
		}
	}
	return drives
}

// validateGraph refuses a modulator that would reach itself, and a track whose pitches would be from itself, and names the circle.
func (p *Project) validateGraph() error {
	follows := func(t Track) bool { return t.Pitches.FollowsTrack() > 0 }
	if len(p.Modulators) == 0 && !slices.ContainsFunc(p.Tracks, follows) {
		return nil
	}
	refuse := func(field string, from node, drives map[node][]node) error {
		circle := circleFrom(from, drives)
		if circle == nil {
			return nil
		}
		var names []string
		for _, n := range circle {
			names = append(names, p.nameOf(n))
		}
		return &FieldError{field, "a circle (" + strings.Join(names, " → ") + ")", "something that does not reach itself"}
	}
	drives := p.drives(true)
	for i := range p.Modulators {
		if err := refuse(fmt.Sprintf("modulators[%d]", i), node{true, p.Modulators[i].ID}, drives); err != nil {
			return err
		}
	}
	drives = p.drives(false) // tracks whose conditions are about each other just take turns
	for i := range p.Tracks {
		if !follows(p.Tracks[i]) {
			continue
		}
		if err := refuse(fmt.Sprintf("tracks[%d].pitches", i), node{id: p.Tracks[i].ID}, drives); err != nil {
			return err
		}
	}
	return nil
}

// circleFrom returns the shortest way from a node back to itself, with both ends; nil if there is none.
func circleFrom(from node, drives map[node][]node) []node {
	came, next := map[node]node{}, []node{from}
	for len(next) > 0 {
		at := next[0]
		next = next[1:]
		for _, to := range drives[at] {
			if to == from {
				circle := []node{from}
				for n := at; n != from; n = came[n] {
					circle = append(circle, n)
				}
				circle = append(circle, from)
				slices.Reverse(circle)
				return circle
			}
			if _, been := came[to]; !been {
				came[to] = at
				next = append(next, to)
			}
		}
	}
	return nil
}

func (p *Project) nameOf(n node) string {
	if n.modulator {
		if m := p.Modulator(n.id); m != nil {
			return m.Name
		}
		return fmt.Sprintf("modulator %d", n.id)
	}
	if track := p.Track(n.id); track != nil {
		return track.Name
	}
	return fmt.Sprintf("track %d", n.id)
}
