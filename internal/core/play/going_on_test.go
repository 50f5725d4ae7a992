package play_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// inOneBar returns a random project in which all that moves by arithmetic comes round in a bar of 4/4: with chance that goes
// on, a bar that is played once more is the bar after it.
func inOneBar(t *rapid.T) *score.Project {
	p := testkit.Project(t)
	testkit.MakeEqual(p)
	p.Meter, p.MeterChanges, p.TempoChanges = score.Meter{Beats: 4, Unit: 4}, nil, nil
	for i := range p.ChordMaps {
		p.ChordMaps[i].Strum = 0 // the whole of a strum comes only with the next step
	}
	for i := range p.Tracks {
		track := &p.Tracks[i]
		track.Hold, track.Realign, track.Speed, track.Delay, track.Jitter, track.Shifts = 0, 0, score.Ratio{N: 1, M: 1}, 0, 0, nil
		if track.Source.Delay = 0; track.Source.Kind == score.NoteEnds {
			track.Source.Kind = score.NoteStarts
		}
		for _, pattern := range track.Patterns {
			for part := range pattern.Parts {
				comeRound(t, &pattern.Parts[part])
				if field := pattern.Parts[part].Field; field != nil {
					pattern.Parts[part].Details = nil
					for cell := range field.Cells {
						field.Cells[cell].Ratchet = 0
					}
				}
				if track.Source.Kind != score.OwnClock || track.Kind == score.FieldKind { // hits of steps within the last would reach beyond the bar
					pattern.Parts[part].Lanes.Ratchet = nil
				}
			}
		}
	}
	require.NoError(t, p.Validate())
	return p
}

// comeRound has all that moves by arithmetic in a part come round in a bar, and its notes start within their steps.
func comeRound(t *rapid.T, part *score.Part) {
	part.Lanes.Nudge, part.Held, part.Voicing.Strum = nil, nil, 0
	testkit.WithoutNudges(part)
	for _, name := range score.LaneNames() {
		if !part.Lanes.Has(name) {
			continue
		}
		lane := *part.Lanes.Lane(name)
		lane.Rate = "1/16"
		lane.First, lane.Length = min(lane.First, 48), rapid.SampledFrom([]int{1, 2, 4, 8, 16}).Draw(t, "length in a bar")
		if lane.Order == score.ThereAndBack || lane.Order == score.TurnTwice || lane.Order == score.Path {
			lane.Order, lane.Path = score.Backward, nil
		}
		part.Lanes.Set(name, &lane)
	}
	gate := part.Lanes.Gate
	byChance := gate.Order == score.Random || gate.Order == score.Drift || gate.Order == score.Shuffle
	if byChance || len(part.Durations) > 0 { // hits of long steps would reach beyond the bar
		part.Lanes.Ratchet = nil
	}
	for step, detail := range part.Details {
		if detail.Lengths = ""; !byChance {
			detail.Skip, detail.Stretch = false, 0
		}
		if step == gate.First { // where all steps were stretched alike, as many as do not fill a bar would move what goes by steps
			detail.Stretch = 0
		}
		if strings.Contains(string(detail.Condition), "pass") { // passes are counted by arithmetic
			detail.Condition = ""
		}
		part.Details[step] = detail
	}
}

// starting returns the notes that start in a bar from a tick on, as if it began at another.
func starting(notes []play.Note, from, at score.Tick) (in []play.Note) {
	for _, n := range notes {
		if n.Start >= from && n.Start < from+bar {
			n.Start, n.End = n.Start+at-from, n.End+at-from
			in = append(in, n)
		}
	}
	return in
}

const bar = 4 * score.TicksPerQuarter

// Chance that goes on over a seam goes on as in a song that goes straight on: a bar that is played over and over is, with the
// same draws, the bars after it. Wherever the state was saved from which the seam is computed.
func TestChanceGoesOn(t *testing.T) {
	heard := 0
	rapid.Check(t, func(t *rapid.T) {
		p := inOneBar(t)
		p.Modulators = nil // which go by the tick of the song
		testkit.WithoutMapsInTime(p)
		from := rapid.SampledFrom([]score.Tick{0, bar, 5 * bar}).Draw(t, "from")
		straight := play.NewPerformer(p).Advance(from+4*bar, nil)
		f := play.NewPerformerAt(p, from, play.Past{})
		for pass := range score.Tick(4) {
			want := starting(straight, from+pass*bar, from)
			state := f.Save()
			got := f.Advance(from+score.Tick(rapid.IntRange(0, int(bar)).Draw(t, "cut")), nil)
			if rapid.Bool().Draw(t, "later") {
				if now := f.Save(); now.Walked(p.Tracks[0].ID) <= from+bar {
					state = now
				}
			}
			got = f.Advance(from+bar, got)
			require.Equal(t, append([]play.Note{}, want...), append([]play.Note{}, got...), "pass %d", pass)
			heard += len(got)
			going := play.GoingAt(p, state, nil, nil, from+bar)
			f = play.NewPerformerAt(p, from, play.Past{Exactly: true})
			f.GoOn(going)
		}
	})
	require.Greater(t, heard, 50)
}
