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
	follower := p.Tracks[0].Clone()
	follower.ID, follower.Source = 2, score.Source{Kind: score.NoteStarts, Track: 1, Odds: 100}
	p.Tracks = append(p.Tracks, follower)
	require.Equal(t, 2*(288+48)+96*6*3+96, score.EventsPerSecond(p), "it goes on at each of 96 strikes a second")
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
		require.LessOrEqual(t, events, 2*estimate*seconds+2000)
	})
}
