package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

const eighth = score.TicksPerQuarter / 2

// ofField returns a project of one field track of a row of four cells with the degrees 0 to 3 of C major, over which a traveller goes in eighths; all lanes are even.
func ofField(t require.TestingT, change func(p *score.Project, track *score.Track, f *score.Field)) *score.Project {
	p := testkit.Buoy()
	p.Key, p.Swing = theory.Key{Scale: "major"}, score.Straight
	track := score.TrackOf(p, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{score.NewFieldPart()}})
	track.ID, track.Register = 1, theory.Register{Lowest: 0, Highest: 127}
	part := &track.Patterns[0].Parts[0]
	for i := range part.Lanes.Velocity.Steps {
		part.Lanes.Velocity.Steps[i], part.Lanes.Length.Steps[i] = 80, 50
	}
	part.Field = &score.Field{Columns: 4, Rows: 1, Travellers: []score.Traveller{score.NewTraveller(1, 0, 0)}}
	for column := range 4 {
		part.Field.Cells = append(part.Field.Cells, score.Cell{Column: column, Note: true, Degree: column})
	}
	p.Tracks = []score.Track{track}
	if change != nil {
		change(p, &p.Tracks[0], part.Field)
	}
	require.NoError(t, p.Validate())
	return p
}

// heardOf returns when each note of a track starts, in eighths, and its key.
func heardOf(notes []play.Note, track uint32) (at []int, keys []int) {
	for _, n := range notes {
		if n.Track == track {
			at, keys = append(at, int(n.Start/eighth)), append(keys, int(n.Key))
		}
	}
	return at, keys
}

// A field plays the notes of its cells, at the speed of the track, swung on the grid, and begins anew with a realignment. By hand.
func TestAFieldPlays(t *testing.T) {
	at, keys := heardOf(play.Render(ofField(t, nil), 0, 6*eighth, nil), 1)
	require.Equal(t, []int{0, 1, 2, 3, 4, 5}, at)
	require.Equal(t, []int{60, 62, 64, 65, 60, 62}, keys)
	at, _ = heardOf(play.Render(ofField(t, func(_ *score.Project, track *score.Track, _ *score.Field) { track.Speed = score.Ratio{N: 1, M: 3} }), 0, 12*eighth, nil), 1)
	require.Equal(t, []int{0, 3, 6, 9}, at)
	_, keys = heardOf(play.Render(ofField(t, func(p *score.Project, track *score.Track, _ *score.Field) {
		p.Meter, track.Realign = score.Meter{Beats: 3, Unit: 4}, 1
	}), 0, 8*eighth, nil), 1)
	require.Equal(t, []int{60, 62, 64, 65, 60, 62, 60, 62}, keys, "six eighths are a bar")
	swung := play.Render(ofField(t, func(p *score.Project, _ *score.Track, _ *score.Field) { p.Swing, p.SwingGrid = 667, "1/8" }), 0, 2*eighth, nil)
	require.InDelta(t, int64(2*eighth*667/1000), int64(swung[1].Start), 2)
}

// What cells and travellers have of their own takes the place of the lanes' values, and scales them; a note of one voice ends with the next move.
func TestCellsOfTheirOwn(t *testing.T) {
	p := ofField(t, func(_ *score.Project, track *score.Track, f *score.Field) {
		f.Cells[0] = score.Cell{Note: true, Octave: 1, Velocity: 100, Length: 100, Ratchet: 2}
		f.Cells[1].Probability = 1
		f.Cells[2].Length = score.WholeStep + 3
		f.Travellers[0].Velocity, f.Travellers[0].Octave = 50, -1
	})
	notes := play.Render(p, 0, 4*eighth, nil)
	require.Equal(t, []uint8{60, 60, 52, 53}, []uint8{notes[0].Key, notes[1].Key, notes[2].Key, notes[3].Key}, "the second cell sounds once in a hundred times")
	require.Equal(t, []score.Tick{0, eighth / 2, 2 * eighth, 3 * eighth}, []score.Tick{notes[0].Start, notes[1].Start, notes[2].Start, notes[3].Start})
	require.Equal(t, []uint8{50, 50, 40, 40}, []uint8{notes[0].Velocity, notes[1].Velocity, notes[2].Velocity, notes[3].Velocity})
	require.Equal(t, 6*eighth, notes[2].End, "four steps long")
	p.Tracks[0].Patterns[0].Parts[0].Field.Travellers[0].OneVoice = true
	require.Equal(t, 3*eighth, play.Render(p, 0, 4*eighth, nil)[2].End)
	p.Tracks[0].Patterns[0].Parts[0].Field.Travellers[0].Length = 50
	require.Equal(t, 3*eighth+eighth/4, play.Render(p, 0, 4*eighth, nil)[3].End)
}

// A lane that moves by steps goes on with each cell that sounds, and the pitch lane is added to the cells'.
func TestLanesOfAField(t *testing.T) {
	p := ofField(t, func(_ *score.Project, track *score.Track, f *score.Field) {
		f.Cells[1].Note = false
		lanes := &track.Patterns[0].Parts[0].Lanes
		lanes.Velocity.Length = 2
		lanes.Velocity.Steps[0], lanes.Velocity.Steps[1] = 30, 90
		lanes.Pitch.Linked, lanes.Pitch.Moves, lanes.Pitch.Length, lanes.Pitch.Steps[0], lanes.Pitch.Steps[1], lanes.Pitch.Steps[2] = false, score.ByStep, 3, 0, 7, 0
	})
	notes := play.Render(p, 0, 5*eighth, nil)
	var velocities, keys []int
	for _, n := range notes {
		velocities, keys = append(velocities, int(n.Velocity)), append(keys, int(n.Key))
	}
	require.Equal(t, []int{30, 90, 30, 90}, velocities)
	require.Equal(t, []int{60, 76, 65, 60}, keys)
}

// Hold puts everything back as it was: the walk of the first bars comes again, whatever chance decided since.
func TestAHeldField(t *testing.T) {
	p := ofField(t, func(_ *score.Project, track *score.Track, f *score.Field) {
		f.Travellers[0].Motion = score.ArrowsMotion
		for i := range f.Cells {
			f.Cells[i].Arrows = []score.Arrow{{To: 2, Weight: 50}, {To: 6, Weight: 50}}
		}
		track.Hold, track.HoldFrom = 2, 1
	})
	whole := 4 * score.TicksPerQuarter
	_, first := heardOf(play.Render(p, whole, 3*whole, nil), 1)
	_, again := heardOf(play.Render(p, 3*whole, 5*whole, nil), 1)
	_, before := heardOf(play.Render(p, 0, 2*whole, nil), 1)
	require.Equal(t, first, again)
	require.NotEqual(t, first, before)
	p.Tracks[0].Hold = 0
	_, free := heardOf(play.Render(p, 3*whole, 5*whole, nil), 1)
	require.NotEqual(t, first, free)
}

// A rule moves another track on whose clock are the rules of the field, and no other.
func TestRulesAreAClock(t *testing.T) {
	p := ofField(t, func(p *score.Project, _ *score.Track, f *score.Field) {
		second := score.NewTraveller(2, 3, 0)
		second.Direction = 6
		f.Travellers = append(f.Travellers, second)
		f.Rules = []score.MeetingRule{{A: 1, B: 2, When: score.InOneCell, Do: score.DoClockTick, Track: 2, Odds: 100}, {A: 1, B: 2, When: score.LeftOf, Do: score.DoClockTick, Track: 3, Odds: 100}}
		for id := 2; id <= 3; id++ {
			follower := testkit.Buoy().Tracks[0]
			follower.ID = id
			follower.Source = score.Source{Kind: score.FieldRules, Track: 1, Odds: 100}
			lanes := &follower.Patterns[0].Parts[0].Lanes
			for i := range lanes.Gate.Steps {
				lanes.Gate.Steps[i], lanes.Probability.Steps[i] = score.On, 100
			}
			p.Tracks = append(p.Tracks, follower)
		}
	})
	notes := play.Render(p, 0, 8*eighth, nil)
	at, _ := heardOf(notes, 2)
	require.Equal(t, []int{2, 4}, at[:2], "0 3, 1 2, 2 1, 3 0: they change places at the third moment, and come through the edges to each other's start at the fifth")
	at, _ = heardOf(notes, 3)
	require.NotEmpty(t, at)
	require.Equal(t, []int{0, 1}, at[:2])
}

// A layer that is recalled while a field plays counts from the next move on: travellers go on from where they are, over other notes, along other arrows, by other rules; let go
// of, the field has again what is written. By hand.
func TestALayerIsRecalled(t *testing.T) {
	p := ofField(t, func(p *score.Project, _ *score.Track, f *score.Field) {
		fast := score.NewTraveller(1, 0, 0)
		fast.Direction, fast.Rate = 6, "1/16"
		p.FieldLayers = []score.FieldLayer{
			{ID: 1, Name: "Flood", Kind: score.ValuesLayer, Cells: []score.Cell{{Note: true, Degree: 7}, {Column: 2, Note: true, Degree: 9}}},
			{ID: 2, Name: "Wall", Kind: score.ArrowsLayer, Cells: []score.Cell{{Column: 3, Wall: true}}},
			{ID: 3, Name: "Fast", Kind: score.TravellersLayer, Travellers: []score.Traveller{fast, score.NewTraveller(2, 3, 0)}},
		}
	})
	heard := func(kind score.LayerKind, layer int, from, until score.Tick) (at []float64, keys []int) {
		control := stage.Control{Name: stage.LayerControl(kind), Track: 1}
		f := play.NewPerformer(p)
		f.Act(actOf(p, stage.Stage{}.With(control, layer), control, 1, 0, from*eighth))
		if until > 0 {
			f.Act(actOf(p, stage.Stage{}, control, 2, 0, until*eighth))
		}
		for _, n := range f.Advance(8*eighth, nil) {
			at, keys = append(at, float64(n.Start)/float64(eighth)), append(keys, int(n.Key))
		}
		return at, keys
	}
	at, keys := heard(score.ValuesLayer, 1, 2, 0)
	require.Equal(t, []float64{0, 1, 2, 4, 6}, at)
	require.Equal(t, []int{60, 62, 76, 72, 76}, keys)
	_, keys = heard(score.ValuesLayer, 1, 2, 4)
	require.Equal(t, []int{60, 62, 76, 60, 62, 64, 65}, keys, "what is written again from the fifth eighth on")
	at, keys = heard(score.ArrowsLayer, 2, 2, 0)
	require.Equal(t, []float64{0, 1, 2, 3, 4, 5, 6, 7}, at)
	require.Equal(t, []int{60, 62, 64, 60, 62, 64, 60, 62}, keys, "through the wall to the other side")
	at, keys = heard(score.TravellersLayer, 3, 2, 0)
	require.Equal(t, []float64{0, 1, 2, 2, 2.5, 3, 3, 3.5, 4, 4, 4.5, 5, 5, 5.5, 6, 6, 6.5, 7, 7, 7.5}, at, "the first goes on as it went, at its new rate, and the second begins")
	require.Equal(t, []int{60, 62, 64, 65, 65, 60, 60, 62, 64, 62, 65, 60, 64, 62, 64, 65, 65, 60, 60, 62}, keys)
	_, keys = heard(score.ValuesLayer, 9, 2, 0)
	require.Equal(t, []int{60, 62, 64, 65, 60, 62, 64, 65}, keys, "a layer that is not there changes nothing")
}

// A cell's own value of a mod lane goes out with its note in place of the lane's, whatever moves the lane; the next cell without one has the lane's, where that moves by cells. A mod
// that the part does not have is not sent. By hand.
func TestACellHasModsOfItsOwn(t *testing.T) {
	sent := func(moves score.Mover) (ticks []score.Tick, values []uint16) {
		p := ofField(t, func(_ *score.Project, track *score.Track, f *score.Field) {
			part := &track.Patterns[0].Parts[0]
			part.Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Most: 127}}
			testkit.SetLane(&part.Lanes.Mod1, score.Mod1, func(l *score.Lane) {
				l.Linked, l.Moves, l.Length, l.Rate = false, moves, 2, "1/4"
				copy(l.Steps, []int{10, 20})
			})
			f.Cells[1].Mods = []score.CellMod{{Mod: 3, Value: 5}, {Mod: 1, Value: 99}}
		})
		for _, c := range changes(p, 4*eighth) {
			ticks, values = append(ticks, c.Tick/eighth), append(values, c.Value)
		}
		return ticks, values
	}
	ticks, values := sent(score.ByStep)
	require.Equal(t, []score.Tick{0, 1, 2, 3}, ticks)
	require.Equal(t, []uint16{10, 99, 10, 20}, values, "the lane goes on below it")
	ticks, values = sent(score.ByClock)
	require.Equal(t, []score.Tick{0, 1, 2}, ticks)
	require.Equal(t, []uint16{10, 99, 20}, values)
}

// An edit of a field's notes replays nothing, as what moves does not hear them; one of its ways does.
func TestNotesOfAFieldReplayNothing(t *testing.T) {
	p := ofField(t, nil)
	edited := func(change func(f *score.Field)) []int {
		after := p.Clone()
		change(after.Tracks[0].Parts()[0].Field)
		ids, _ := play.Replayed(p, after)
		return ids
	}
	require.Empty(t, edited(func(f *score.Field) {
		f.Cells[2].Degree, f.Cells[2].Octave, f.Cells[2].Velocity, f.Cells[2].Length = 5, 1, 9, 20
	}))
	require.Empty(t, edited(func(f *score.Field) { f.RowNotes, f.ColumnNotes = []int{5}, []int{6} }))
	require.Empty(t, edited(func(f *score.Field) { f.Recalled.Values = 3 }))
	require.Equal(t, []int{1}, edited(func(f *score.Field) { f.Cells[2].Wall = true }))
	require.Equal(t, []int{1}, edited(func(f *score.Field) { f.Cells[2].Note = false }))
	require.Equal(t, []int{1}, edited(func(f *score.Field) { f.Cells[2].Probability = 50 }))
}
