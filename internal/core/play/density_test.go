package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// What is estimated is what is played, where nothing is left to chance: counted by hand.
func TestTheEstimateOfDensityByHand(t *testing.T) {
	p := testkit.Buoy()
	p.Tempo = 120_000
	part := &p.Tracks[0].Parts()[0]
	set := func(lane score.LaneName, value int) {
		changed := part.Lanes.Lane(lane).Clone()
		for step := range changed.Steps {
			changed.Steps[step] = value
		}
		part.Lanes.Set(lane, changed)
	}
	set(score.Gate, score.On)
	require.Equal(t, 16, score.EventsPerSecond(p), "8 sixteenths a second, an on and an off for each")
	part.Details = map[int]score.StepDetail{0: {Stretch: 3, Lengths: "111"}, 1: {Stretch: 3}}
	require.Equal(t, 2*8*(14+3+1)/20, score.EventsPerSecond(p), "in 20 step lengths one step is struck on each of its three, another once in three")
	part.Details = map[int]score.StepDetail{0: {Skip: true}}
	require.Equal(t, 16, score.EventsPerSecond(p), "a skipped step takes no time")
	part.Details = nil
	set(score.Ratchet, 4)
	require.Equal(t, 64, score.EventsPerSecond(p))
	set(score.Chord, 2)
	require.Equal(t, 192, score.EventsPerSecond(p), "triads")
	part.Lanes.Ratchet.Linked, part.Lanes.Ratchet.Length = false, 2
	part.Lanes.Ratchet.Steps[1] = 2
	require.Equal(t, 144, score.EventsPerSecond(p), "a loop of its own counts by its mean")
	p.Tracks[0].Speed = score.Ratio{N: 2, M: 1}
	require.Equal(t, 288, score.EventsPerSecond(p))
	part.Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Most: 127, Glide: 100}}
	require.Equal(t, 288+48, score.EventsPerSecond(p), "24 a quarter note, while it glides")
	p.TempoChanges = []score.TempoChange{{Tick: 5, Tempo: 240_000}}
	require.Equal(t, 2*(288+48), score.EventsPerSecond(p), "the fastest tempo counts")
	p.Modulators = []score.Modulator{{ID: 1, Shape: score.SineShape, Sends: []score.ModulatorSend{{Track: 1, Mod: part.Mods[0]}, {Track: 7}}}}
	require.Equal(t, 2*(288+48+48), score.EventsPerSecond(p), "as often where a modulator is sent")
	p.Modulators = nil
	follower := p.Tracks[0].Clone()
	follower.ID, follower.Source = 2, score.Source{Kind: score.NoteStarts, Track: 1, Odds: 100}
	p.Tracks = append(p.Tracks, follower)
	require.Equal(t, 2*(288+48)+96*6*3+96, score.EventsPerSecond(p), "it goes on at each of 96 strikes a second")
}

// Fields: counted by hand.
func TestTheEstimateOfDensityOfFields(t *testing.T) {
	p := testkit.Buoy()
	p.Tempo = 120_000
	f := &score.Field{Columns: 8, Rows: 4, Cells: []score.Cell{{Note: true}, {Column: 1, Note: true}, {Column: 2, Repeater: true}, {Column: 9, Note: true}}}
	p.Tracks[0].Kind, p.Tracks[0].Parts()[0].Field = score.FieldKind, f
	gate := p.Tracks[0].Parts()[0].Lanes.Gate
	for step := range gate.Steps {
		gate.Steps[step] = score.On
	}
	f.Travellers = []score.Traveller{{ID: 1, Motion: score.StraightMotion, Rate: "1/16"}, {ID: 2, Motion: score.ArrowsMotion, Rate: "1/8"}}
	require.Equal(t, 2*(8+4), score.EventsPerSecond(p), "as often as they move")
	f.Cells[0].Ratchet = 3
	require.Equal(t, 2*12*(3+1+1)/3, score.EventsPerSecond(p), "hits of the cells' own")
	f.Cells[0].Ratchet = 0
	f.Rules = []score.MeetingRule{{A: 1, B: 2, Do: score.DoSound, Odds: 50}}
	require.Equal(t, 2*(8+4+4), score.EventsPerSecond(p), "it sounds too when the other one moves")
	f.Rules = []score.MeetingRule{{A: 2, B: 1, Do: score.DoRate, Rate: "1/16", Odds: 50}}
	require.Equal(t, 2*(8+8), score.EventsPerSecond(p), "the faster rate counts")
	f.Rules, f.Travellers = nil, []score.Traveller{{ID: 1, Motion: score.WaveMotion, Rate: "1/16", Every: 4}}
	require.Equal(t, 2*2*8*2, score.EventsPerSecond(p), "2 waves a second, and 7 of each by the repeater, reach 2 notes")
	f.Cells[1].Repeater, f.Travellers[0].Every = true, 1
	require.Equal(t, 2*64*8/4*2, score.EventsPerSecond(p), "64 waves widen 8 times a second, over 4 rings with 2 notes")
}

// Chords that are struck all at once: counted by hand.
func TestTheEstimateOfDensityOfChords(t *testing.T) {
	p := testkit.Buoy()
	p.Tempo = 120_000
	gate := p.Tracks[0].Parts()[0].Lanes.Gate
	for step := range gate.Steps {
		gate.Steps[step] = score.On
	}
	p.ChordMaps = []score.ChordMap{{ID: 1, Name: "Tide", Chords: []score.MapChord{{Keys: []int{60, 64, 67}}, {Keys: []int{60, 64, 67, 70, 74}}}}}
	p.Tracks[0].Pitches = &score.PitchSource{Kind: score.MapPitches, Map: 1}
	require.Equal(t, 5*16, score.EventsPerSecond(p), "the largest chord of the map")
	p.Tracks[0].Pitches.Order = score.Up
	require.Equal(t, 16, score.EventsPerSecond(p), "one note at a time")
	p.Tracks[0].Pitches = &score.PitchSource{Kind: score.HeldPitches, Highest: 127, Order: score.AllAtOnce, Octaves: 2}
	require.Equal(t, 8*16, score.EventsPerSecond(p), "held chords are taken to have four notes, here over two octaves")
}

// No project plays much more than is estimated, whatever it is.
func TestTheEstimateOfDensityHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		const seconds = 20
		to := play.TempoMapOf(p).TickAt(seconds * 1e9)
		performer := play.NewPerformer(p)
		events := 2*len(performer.Advance(to, nil)) + len(performer.Changes(nil))
		estimate := score.EventsPerSecond(p)
		t.Logf("%d events, %d estimated", events, estimate*seconds)
		require.LessOrEqual(t, events, 2*estimate*seconds+500)
	})
}
