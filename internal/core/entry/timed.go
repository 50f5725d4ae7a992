package entry

import (
	"errors"
	"slices"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// Played are notes that a person has played together while the project plays. How late each was struck counts from Start on.
type Played struct {
	Notes []Struck
	Start score.Tick
}

// length returns how long the note sounds that was held longest.
func (n Played) length() (longest score.Tick) {
	for _, struck := range n.Notes {
		longest = max(longest, struck.Length)
	}
	return longest
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
		err = enter(place, timed(p, place, began, n, strength))
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
			alone := Played{Notes: []Struck{struck}, Start: n.Start + struck.Late}
			if where, _, ok := Where(p, own, alone, strength); ok {
				err = errors.Join(err, enter(where, []Struck{{Key: struck.Key, Velocity: struck.Velocity}}))
			}
		}
	}
	return edits, place.Step, began, true, err
}

// timed returns played notes with what is left of their times beside what the lanes at a place say: nothing of one note but to a strength of 0, at which all
// is kept to the tick.
func timed(p *score.Project, place Place, began score.Tick, n Played, strength int) []Struck {
	notes := slices.Clone(n.Notes)
	usual, known := sounding(p, place, began, n)
	for i := range notes {
		note := &notes[i]
		switch {
		case strength > 0:
			note.Late = note.Late * score.Tick(100-strength) / 100
			if track := p.Track(place.At.Track); lengthOf(note.Length, stepOf(track, place.At)) == place.Length {
				note.Length = 0
			}
		case known:
			note.Late += n.Start - usual.Start
			if note.Length = max(1, note.Length); note.Length == usual.End-usual.Start {
				note.Length = 0
			}
		}
		note.Late = min(score.MaxNoteNudge, max(-score.MaxNoteNudge, note.Late))
	}
	return notes
}

// sounding returns when the first of played notes would sound by the lanes at a place alone, without what chance moves; known is false where it would not
// sound, as before the beginning.
func sounding(p *score.Project, place Place, began score.Tick, n Played) (usual play.HitNote, known bool) {
	first := n.Notes[:1]
	edit, err := Step(p, place, []Struck{{Key: first[0].Key, Velocity: first[0].Velocity}})
	if err == nil {
		p, _, err = score.Apply(p, edit)
	}
	if err != nil && !errors.Is(err, ErrSame) {
		return usual, false
	}
	p = p.Clone()
	track := p.Track(place.At.Track)
	track.Jitter, track.Shifts = 0, nil
	part := track.Pattern(place.At.Pattern).Part(place.At.Part)
	for _, name := range []score.LaneName{score.Nudge, score.Swing, score.Length} {
		if part.Lanes.Has(name) {
			lane := part.Lanes.Lane(name)
			lane.Spread, lane.Weights, lane.Evolve, lane.Own = nil, nil, nil, nil
		}
	}
	index := slices.IndexFunc(track.Parts(), func(other score.Part) bool { return other.ID == part.ID })
	for _, forecast := range play.Look(p, track.ID, max(0, began-1), began+1)[index].Forecasts {
		if forecast.Tick == began {
			return forecast.Hits[0].Notes[0], true
		}
	}
	return usual, false
}

// stepOf returns how long a step of a part is, in ticks of the project.
func stepOf(track *score.Track, at score.PartAddress) score.Tick {
	rate := track.Pattern(at.Pattern).Part(at.Part).Lanes.Gate.Rate.Ticks()
	return rate * score.Tick(track.Speed.M) / score.Tick(track.Speed.N)
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
	at.Pattern = track.Playing
	step := stepOf(track, at)
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
	place.Length = lengthOf(n.length(), step)
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
