package play_test

import (
	"runtime"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// A day of music that is rendered in windows takes no more memory than its first hour did: nothing is
// remembered of what has passed. Every kind of chance is at work, and tracks follow each other.
func TestADayTakesNoMoreMemoryThanAnHour(t *testing.T) {
	p := busyProject()
	p.Tracks = p.Tracks[:4]
	for i := range p.Tracks {
		track := &p.Tracks[i]
		track.Jitter, track.Voices, track.Overlap = 20, i, 500
		part := &track.Parts()[0]
		part.Lanes.Velocity.Spread = &score.Spread{Chance: 70, Depth: 100, Lowest: -30, Highest: 30, Grain: 3}
		part.Lanes.Pitch.Evolve = &score.Evolve{Every: 4, Percent: 20, Lowest: -7, Highest: 7}
		part.Lanes.Gate.Order, part.Lanes.Pitch.Order, part.Lanes.Velocity.Order = score.Shuffle, score.Random, score.Drift
		part.Durations = []score.Duration{{Value: "1/16", Weight: 3}, {Value: "1/8t", Weight: 1}, {Value: "1/8.", Rest: true, Weight: 1}}
	}
	p.Tracks[1].Realign, p.Tracks[2].Hold = 7, 3
	p.Tracks[3].Source = score.Source{Kind: score.NoteEnds, Track: 1, Odds: 50, Delay: 900}
	require.NoError(t, p.Validate())

	const hour = 96 * 60 * score.TicksPerQuarter // at 96 beats a minute
	player := route.NewPlayer(p, 0, play.Past{})
	var messages []midi.Message
	events, at := 0, score.Tick(0)
	heapAfter := func(end score.Tick) uint64 {
		for at < end {
			at = min(end, at+score.TicksPerQuarter)
			messages = player.Advance(at, messages[:0])
			events += len(messages)
		}
		runtime.GC()
		var stats runtime.MemStats
		runtime.ReadMemStats(&stats)
		return stats.HeapAlloc
	}
	first := heapAfter(hour)
	day := heapAfter(24 * hour)
	t.Logf("%d events; %d bytes after an hour, %d after a day", events, first, day)
	require.Less(t, day, first+256<<10)
	require.Greater(t, events, 1_000_000)
}
