package entry

import (
	"errors"
	"slices"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// Played are notes that a person has played together while the project plays.
type Played struct {
	Notes []Struck
	// Start is when it was struck, Length how long it was held.
	Start, Length score.Tick
}

// Timed returns the edits that enter what was played into a part, or by their keys into the parts of a kit, the
// step at which the part stood, and when that began; ok is false where it has no step near. There are no edits where
// all is there already. The error is that of Step.
func Timed(p *score.Project, at score.PartAddress, n Played, strength int) (edits []score.EditJSON, step int, began score.Tick, ok bool, err error) {
	place, began, ok := Where(p, at, n, strength)
	if !ok {
		return nil, 0, 0, false, nil
	}
	enter := func(place Place, notes []Struck) error {
		edit, err := Step(p, place, notes)
		if all, is := edit.(score.All); is {
			edits = append(edits, all.Edits...)
		}
		if errors.Is(err, ErrSame) {
			return nil
		}
		return err
	}
	track := p.Track(at.Track)
	if track.Kind == score.Melodic {
		err = enter(place, n.Notes)
		return edits, place.Step, began, true, err
	}
	// Each part of a kit stands where its own loop has it.
	for i := range track.Parts() {
		own := at
		own.Part = track.Parts()[i].ID
		for _, struck := range n.Notes {
			if track.Parts()[i].Note != struck.Key {
				continue
			}
			if where, _, ok := Where(p, own, n, strength); ok {
				err = errors.Join(err, enter(where, []Struck{struck}))
			}
		}
	}
	return edits, place.Step, began, true, err
}

// Where returns the place of a part at which played notes belong: the step that is nearest to its start, off
// which it stays by what a strength of quantisation, 0 to 100 percent, leaves. Its length is kept, by whole steps
// where it is longer than one. began is when the step begins; ok is false where the part has no step near it.
func Where(p *score.Project, at score.PartAddress, n Played, strength int) (place Place, began score.Tick, ok bool) {
	track := p.Track(at.Track)
	if track == nil {
		return place, 0, false
	}
	index := slices.IndexFunc(track.Parts(), func(part score.Part) bool { return part.ID == at.Part })
	if index < 0 {
		return place, 0, false
	}
	part := &track.Parts()[index]
	step := part.Lanes.Gate.Rate.Ticks() * score.Tick(track.Speed.M) / score.Tick(track.Speed.N)
	from := max(0, n.Start-2*step)
	outlook := play.Look(p, at.Track, from, n.Start+2*step)[index]
	nearest := play.Move{Tick: -1}
	for _, move := range outlook.Moves[score.Gate] {
		if off := move.Tick - n.Start; nearest.Tick < 0 || max(off, -off) < max(nearest.Tick-n.Start, n.Start-nearest.Tick) {
			nearest = move
		}
	}
	if nearest.Tick < 0 {
		return place, 0, false
	}
	at.Pattern = track.Playing
	place = Place{At: at, Step: nearest.Step, Lanes: map[score.LaneName]int{}}
	for name, moves := range outlook.Moves {
		for _, move := range moves {
			if move.Tick <= nearest.Tick {
				place.Lanes[name] = move.Step
			}
		}
	}
	most := score.Tick(score.Nudge.Spec().Most)
	off := (n.Start - nearest.Tick) * 100 / step * score.Tick(100-strength) / 100
	place.Nudge = int(min(most, max(-most, off)))
	place.Length = lengthOf(n.Length, step)
	return place, nearest.Tick, true
}

// Cleared returns the edit that silences the steps of a part which began in (from, to), for what is played over
// them to take their place; nil if there are none that sound.
func Cleared(p *score.Project, at score.PartAddress, from, to score.Tick) score.Edit {
	track := p.Track(at.Track)
	if track == nil || to <= from {
		return nil
	}
	index := slices.IndexFunc(track.Parts(), func(part score.Part) bool { return part.ID == at.Part })
	if index < 0 {
		return nil
	}
	at.Pattern = track.Playing
	part := &track.Parts()[index]
	var steps []score.StepValue
	for _, move := range play.Look(p, at.Track, from, to)[index].Moves[score.Gate] {
		if move.Tick > from && move.Tick < to && part.Lanes.Gate.Steps[move.Step] != score.Off {
			steps = append(steps, score.StepValue{Step: move.Step, Value: score.Off})
		}
	}
	if len(steps) == 0 {
		return nil
	}
	return score.SetSteps{
		LaneAddress: score.LaneAddress{PartAddress: at, Lane: score.Gate}, Steps: steps[max(0, len(steps)-score.MaxSteps):],
	}
}

// lengthOf returns the value of the length lane for a note of a length in steps of a duration.
func lengthOf(length, step score.Tick) int {
	if percent := (100*length + step/2) / step; percent <= score.WholeStep {
		return int(max(1, percent))
	}
	steps := (length + step/2) / step
	return score.WholeStep + int(min(score.MaxSteps, max(2, steps))) - 1
}
