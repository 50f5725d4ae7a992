package take

import (
	"cmp"
	"fmt"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// LoopOf makes a loop of a length of what a track plays in a take that began at a moment of playing. Notes beyond
// that length come in the next pass of the loop. The error is a *score.FieldError where there is nothing to be
// looped, or more than a loop can hold.
func LoopOf(t *Take, track uint32, began, length score.Tick) (*score.Loop, error) {
	loop := &score.Loop{Start: began, Length: length, Notes: []score.LoopNote{}}
	for _, n := range t.Notes() {
		if n.Track == track {
			loop.Notes = append(loop.Notes, score.LoopNote{
				Start: n.Start % length, Length: min(n.End-n.Start, length), Key: int(n.Key), Velocity: int(n.Velocity), Detune: n.Detune,
			})
		}
	}
	slices.SortStableFunc(loop.Notes, func(a, b score.LoopNote) int { return cmp.Compare(a.Start, b.Start) })
	if len(loop.Notes) == 0 {
		return nil, &score.FieldError{Field: "the number of notes", Got: 0, Allowed: "1 at least, so that there is something to loop"}
	}
	if most := min(score.MaxLoopNotes, int(loop.Length/score.LoopDensity)); len(loop.Notes) > most {
		return nil, &score.FieldError{Field: "the number of notes", Got: len(loop.Notes), Allowed: fmt.Sprintf("at most %d in a loop of this length", most)}
	}
	return loop, nil
}

// LastNotes returns from where to where the last notes of a track are in a take: from the line of a grid before
// the first of them to the line after the beginning of the last. There are fewer if the track has played fewer;
// ok is false if it has played none.
func LastNotes(t *Take, track uint32, count int, grid score.Tick) (from, to score.Tick, ok bool) {
	var starts []score.Tick
	for _, n := range t.Notes() {
		if n.Track == track {
			starts = append(starts, n.Start)
		}
	}
	if len(starts) == 0 || count < 1 {
		return 0, 0, false
	}
	first, last := starts[max(0, len(starts)-count)], starts[len(starts)-1]
	return first / grid * grid, (last/grid + 1) * grid, true
}

// OfLoop returns a loop as a take of one track, so that it can be edited like one.
func OfLoop(p *score.Project, track *score.Track) *Take {
	t := Of(p, track.Name)
	t.Markers, t.Tracks = nil, []Track{TrackOf(track)}
	t.Tempo = play.TempoMap{{Tempo: p.Tempo}}
	t.End = track.Loop.Length
	notes := make([]midi.Note, 0, len(track.Loop.Notes))
	for _, n := range track.Loop.Notes {
		notes = append(notes, midi.Note{
			Start: n.Start, End: min(t.End, n.Start+n.Length), Track: uint32(track.ID), Channel: uint8(track.Channel - 1),
			Key: uint8(n.Key), Velocity: uint8(n.Velocity), Detune: n.Detune,
		})
	}
	t.setContents(notes, nil)
	return t
}
