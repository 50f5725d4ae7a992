package play_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/period"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// alone draws a project of one track in which everything is left to chance that can be, and nothing is counted that a
// hold does not hold: passes of conditions, other tracks, what comes in.
func alone(t *rapid.T) *score.Project {
	p := testkit.Project(t)
	p.Tracks, p.TempoChanges, p.Key.Tuning = p.Tracks[:1], nil, nil
	p.Key = theory.Key{Root: p.Key.Root % 12, Scale: theory.Chromatic}
	p.Meter, p.MeterChanges = score.Meter{Beats: 4, Unit: 4}, nil
	testkit.MakeAudible(p)
	p.Modulators = nil // what goes by arithmetic goes on
	testkit.WithoutMapsInTime(p)
	track := &p.Tracks[0]
	track.Tuned, track.Source, track.Playing = nil, score.Source{Kind: score.OwnClock, Odds: 100}, 0
	track.Patterns = track.Patterns[:1]
	track.Delay, track.Hold, track.Realign = 0, 0, 0
	// What a note can be moved by is less than what requireHeld leaves out.
	p.Swing, track.Swing, track.Shifts = score.Straight, 0, nil
	track.Speed = score.Ratio{N: rapid.IntRange(1, 3).Draw(t, "n"), M: rapid.IntRange(1, 3).Draw(t, "m")}
	for i := range track.Parts() {
		part := &track.Parts()[i]
		part.Lanes.Gate.Rate = "1/16"
		testkit.WithoutNudges(part)
		if part.Field != nil {
			for j := range part.Field.Travellers {
				part.Field.Travellers[j].Rate = rapid.SampledFrom([]score.NoteValue{"1/8", "1/16t", "1/32"}).Draw(t, "rate of a traveller")
			}
			for j := range part.Field.Rules {
				part.Field.Rules[j].Rate = "1/16"
			}
		}
		for j := range part.Durations {
			part.Durations[j].Value = rapid.SampledFrom([]score.NoteValue{"1/8", "1/16t", "1/32"}).Draw(t, "duration")
		}
		for step, detail := range part.Details {
			terms, _, _ := detail.Condition.Terms()
			if slices.ContainsFunc(terms, func(term score.Term) bool {
				return term.Kind == score.PassTerm || term.Track > 0 && term.Track != track.ID
			}) {
				detail.Condition = score.Always
			}
			part.Details[step] = detail
		}
	}
	if err := p.Validate(); err != nil {
		t.Fatalf("%v", err)
	}
	return p
}

// requireHeld checks that the notes of some passes are those of the first, but for a margin at their ends, by which
// notes can be moved.
func requireHeld(t *rapid.T, p *score.Project, first, length, margin score.Tick) {
	pass := func(k score.Tick) (notes []play.Note) {
		from := first + k*length
		for _, n := range play.Render(p, from+margin, from+length-margin, nil) {
			n.Start, n.End = n.Start-from, n.End-from
			notes = append(notes, n)
		}
		return notes
	}
	want := pass(0)
	for k := range score.Tick(3) {
		require.Equal(t, want, pass(k+1), "pass %d", k+2)
	}
}

// unstretch leaves no step that lasts for longer than the margin at the ends of what is compared: it would sound on
// into what is held, or sound as long as what is held ties it.
func unstretch(track *score.Track) {
	for i := range track.Parts() {
		for step, detail := range track.Parts()[i].Details {
			detail.Stretch, detail.Lengths = 0, ""
			track.Parts()[i].Details[step] = detail
		}
	}
}

// Whatever is left to chance, with a realign that fits into the bars that are held every pass of them is the first
// again, and that is what is said.
func TestAHoldAndARealignRepeatEverything(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := alone(t)
		track := &p.Tracks[0]
		track.Realign = rapid.IntRange(1, 3).Draw(t, "realign")
		track.Hold = track.Realign * rapid.IntRange(1, 3).Draw(t, "times")
		track.HoldFrom = rapid.IntRange(0, 9).Draw(t, "from")
		if track.HoldFrom%track.Realign > 0 {
			unstretch(track)
		}
		bar := p.Meter.Bar()
		period, err := period.Repeats(p, track)
		if track.Pitches == nil { // which can be those of others
			require.NoError(t, err)
			require.Equal(t, score.Tick(track.Hold)*bar, period)
		}
		requireHeld(t, p, score.Tick(track.HoldFrom)*bar, score.Tick(track.Hold)*bar, 2*score.TicksPerQuarter)
	})
}

// Without a realign too, from any bar on, where loops that move by arithmetic fit into a bar: lanes that go at random
// or move by hits come back to where they were, what has evolved is as it was, and what sounded last as well.
func TestAHoldBringsBackWhatChanceMoves(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := alone(t)
		track := &p.Tracks[0]
		track.Hold, track.HoldFrom = rapid.IntRange(2, 4).Draw(t, "hold"), rapid.IntRange(0, 5).Draw(t, "from")
		track.Speed = score.Ratio{N: 1, M: 1}
		for i := range track.Parts() {
			part := &track.Parts()[i]
			part.Held = nil
			for step, detail := range part.Details {
				detail.Skip, detail.Stretch = false, 0
				part.Details[step] = detail
			}
			for _, spec := range score.LaneSpecs() {
				if lane := part.Lanes.Lane(spec.Name); part.Lanes.Has(spec.Name) {
					lane.First, lane.Length, lane.Rate, lane.Path = 0, 1<<rapid.IntRange(0, 4).Draw(t, "length"), "1/16", nil
					if lane.Order == score.ThereAndBack {
						lane.Order = score.TurnTwice
						lane.Length = min(8, lane.Length)
					} else if lane.Order == score.TurnTwice {
						lane.Length = min(8, lane.Length)
					}
				}
			}
		}
		bar := p.Meter.Bar()
		requireHeld(t, p, score.Tick(track.HoldFrom)*bar, score.Tick(track.Hold)*bar, score.TicksPerQuarter)
	})
}

// Before its first bar a hold changes nothing, and in its first pass nothing either: the accident that was heard is the
// one that comes again.
func TestAHoldChangesNothingBeforeItRepeats(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := alone(t)
		track := &p.Tracks[0]
		for i := range track.Parts() { // a note that slides lasts until the next, which can be one that is held
			track.Parts()[i].Lanes.Set(score.Slide, nil)
		}
		unstretch(track)
		from, length := rapid.IntRange(0, 5).Draw(t, "from"), rapid.IntRange(1, 3).Draw(t, "hold")
		to := score.Tick(from+length)*p.Meter.Bar() - 2*score.TicksPerQuarter
		render := func() []play.Note {
			notes := play.Render(p, 0, to, nil)
			for i := range notes { // what is tied to a note can be what is held
				notes[i].End = min(notes[i].End, to)
			}
			return notes
		}
		free := render()
		track.Hold, track.HoldFrom = length, from
		require.Equal(t, free, render())
	})
}

// Which of the notes that come in a track goes on by is held too, however early they are known.
func TestAHoldHoldsWhichNotesATrackGoesOnBy(t *testing.T) {
	p := testkit.Buoy()
	p.Tracks = p.Tracks[:1]
	track, bar := &p.Tracks[0], p.Meter.Bar()
	track.Source = score.Source{Kind: score.InputNotes, Highest: 127, Odds: 50}
	track.Hold, track.HoldFrom = 2, 1
	require.NoError(t, p.Validate())
	var past play.Past
	for tick := score.Tick(0); tick < 9*bar; tick += bar / 16 {
		past.Inputs = append(past.Inputs, midi.Message{Tick: tick, Kind: midi.NoteOn, Key: 60, Velocity: 100})
	}
	heard := map[score.Tick][]score.Tick{}
	moved := func(_, _ int, lane score.LaneName, move play.Move) {
		if lane == score.Gate && move.Tick >= bar {
			pass := (move.Tick - bar) / (2 * bar)
			heard[pass] = append(heard[pass], (move.Tick-bar)%(2*bar))
		}
	}
	play.NewPerformerAt(p, 0, play.Past{Inputs: past.Inputs, Watch: moved}).Advance(9*bar, nil)
	require.Greater(t, len(heard[0]), 8)
	require.Less(t, len(heard[0]), 24)
	for pass := range score.Tick(4) {
		require.Equal(t, heard[0], heard[pass], "pass %d", pass+1)
	}
}

// A tie knows which steps come next where a hold brings some back: where all steps are on or tied and last whole, a
// note begins just where the one before ends.
func TestTiesOverAHoldLastUntilTheNextNote(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Buoy()
		p.Luck.Number = rapid.IntRange(0, score.MaxLuck).Draw(t, "luck")
		track := &p.Tracks[0]
		track.Hold, track.HoldFrom = rapid.IntRange(1, 2).Draw(t, "hold"), rapid.IntRange(0, 1).Draw(t, "from")
		part := &track.Parts()[0]
		gate, length := part.Lanes.Lane(score.Gate).Clone(), part.Lanes.Lane(score.Length).Clone()
		part.Lanes, part.Details = score.Lanes{Gate: gate, Length: length}, nil
		for step := range score.MaxSteps {
			gate.Steps[step], length.Steps[step] = rapid.SampledFrom([]int{int(score.On), int(score.Tie)}).Draw(t, "gate"), 100
		}
		gate.Steps[0], gate.Length, gate.Rate, length.Amount = int(score.On), rapid.IntRange(2, 6).Draw(t, "length"), "1/16", 100
		gate.Order = rapid.SampledFrom([]score.Order{score.Random, score.Shuffle, score.Drift, score.Forward}).Draw(t, "order")
		gate.Drift = score.DriftOdds{Forward: 40, Back: 40}
		if err := p.Validate(); err != nil {
			t.Fatalf("%v", err)
		}
		notes := play.Render(p, 0, 6*p.Meter.Bar(), nil)
		for i := 1; i < len(notes); i++ {
			require.Equal(t, notes[i].Start, notes[i-1].End, "note %d", i)
		}
	})
}

// gateMoves returns when each part's gate goes on in passes of what is held, from their beginnings.
func gateMoves(p *score.Project, passes score.Tick) map[score.Tick][]string {
	track, bar := &p.Tracks[0], p.Meter.Bar()
	from, every := score.Tick(track.HoldFrom)*bar, score.Tick(track.Hold)*bar
	moves := map[score.Tick][]string{}
	watch := func(_, part int, lane score.LaneName, move play.Move) {
		if pass := (move.Tick - from) / every; lane == score.Gate && move.Tick >= from && pass < passes {
			moves[pass] = append(moves[pass], fmt.Sprintf("part %d, step %d at %d", part, move.Step, (move.Tick-from)%every))
		}
	}
	play.NewPerformerAt(p, 0, play.Past{Watch: watch}).Advance(from+passes*every, nil)
	return moves
}

// Where chance decides how long steps last, by drawn lengths or by a way through steps of different lengths, a hold
// brings back when the steps come as well: one that falls on its beginning does not come if none did the first time.
func TestAHoldBringsBackWhenStepsCome(t *testing.T) {
	for _, order := range []score.Order{score.Forward, score.Random, score.Shuffle, score.Drift} {
		for luck := range 40 {
			p := testkit.Buoy()
			p.Luck.Number = luck
			track, part := &p.Tracks[0], &p.Tracks[0].Parts()[0]
			track.Hold, track.HoldFrom = 2, 1
			gate := part.Lanes.Gate
			gate.Order, gate.Length, gate.Steps = order, 4, slices.Repeat([]int{score.On}, score.MaxSteps)
			gate.Drift = score.DriftOdds{Forward: 50, Back: 30}
			part.Details = map[int]score.StepDetail{0: {Skip: true}, 2: {Stretch: 3}}
			if order == score.Forward {
				part.Durations = []score.Duration{{Value: "1/16", Weight: 1}, {Value: "1/8", Weight: 1}}
			}
			moves := gateMoves(p, 3)
			require.NotEmpty(t, moves[0])
			require.Equal(t, moves[0], moves[1], "%s, luck %d", order, luck)
			require.Equal(t, moves[0], moves[2], "%s, luck %d", order, luck)
		}
	}
}

// Parts of a kit that listen to what their track has sounded last hear the same in each pass, whichever of them goes on
// first where it begins.
func TestAHoldBringsBackWhatPartsHear(t *testing.T) {
	for luck := range 40 {
		p := testkit.Demo()
		p.Luck.Number, p.Tracks = luck, p.Tracks[2:3]
		track := &p.Tracks[0]
		track.Hold, track.HoldFrom = 1, 1
		for i := range track.Parts() {
			part := &track.Parts()[i]
			id, note := part.ID, part.Note
			*part = score.NewPart("Hatch")
			part.ID, part.Note = id, note
			part.Lanes.Gate.Steps = slices.Repeat([]int{score.On}, score.MaxSteps)
			part.Lanes.Probability.Steps = slices.Repeat([]int{50}, score.MaxSteps)
			if i != 1 {
				part.Details = map[int]score.StepDetail{0: {Condition: score.Condition(fmt.Sprintf("track %d sounded", track.ID))}}
			}
		}
		require.NoError(t, p.Validate())
		bar := p.Meter.Bar()
		var want []play.Note
		for pass := range score.Tick(4) {
			from := (1 + pass) * bar
			notes := play.Render(p, from, from+bar, nil)
			for i := range notes {
				notes[i].Start, notes[i].End = notes[i].Start-from, notes[i].End-from
			}
			if pass == 0 {
				want = notes
			}
			require.Equal(t, want, notes, "luck %d, pass %d", luck, pass+1)
		}
	}
}
