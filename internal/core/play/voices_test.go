package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// chorded returns a project whose first of four steps strikes a triad.
func chorded(change func(track *score.Track, part *score.Part)) *score.Project {
	return testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		testkit.SetLane(&part.Lanes.Chord, score.Chord, func(l *score.Lane) { l.Steps[0] = 2 })
		change(track, part)
	})
}

// As many notes of a chord sound as the track has voices: the highest.
func TestAChordHasAsManyNotesAsThereAreVoices(t *testing.T) {
	keys := func(voices int) (keys []uint8) {
		for _, n := range play.Render(chorded(func(track *score.Track, _ *score.Part) { track.Voices = voices }), 0, sixteenth, nil) {
			keys = append(keys, n.Key)
		}
		return keys
	}
	all := keys(0)
	require.Len(t, all, 3)
	require.IsIncreasing(t, all)
	require.Equal(t, all[2:], keys(1))
	require.Equal(t, all[1:], keys(2))
	require.Equal(t, all, keys(3))
	p := chorded(func(track *score.Track, _ *score.Part) { track.Voices = 1 })
	require.Equal(t, int(all[2]), play.Look(p, 1, 0, sixteenth)[0].Forecasts[0].Hits[0].Notes[0].Key, "what is forecast is what sounds")
}

// A strum takes its share of the hit, in the time of the project: of a ratchet's hit, and of a track that is twice
// as fast, it is half as long. The notes that come late keep a 64th of the hit at least.
func TestAStrumIsAShareOfItsHit(t *testing.T) {
	starts := func(change func(track *score.Track, part *score.Part)) (starts []score.Tick) {
		for _, n := range play.Render(chorded(func(track *score.Track, part *score.Part) {
			part.Voicing.Strum = 40
			change(track, part)
		}), 0, sixteenth, nil) {
			starts = append(starts, n.Start)
		}
		return starts
	}
	const share = sixteenth * 40 / 100
	require.Equal(t, []score.Tick{0, share / 2, share}, starts(func(*score.Track, *score.Part) {}))
	require.Equal(t, []score.Tick{0, share / 4, share / 2}, starts(func(track *score.Track, _ *score.Part) { track.Speed = score.Ratio{N: 2, M: 1} })[:3])
	require.Equal(t, []score.Tick{0, share / 4, share / 2, sixteenth / 2, sixteenth/2 + share/4, sixteenth/2 + share/2},
		starts(func(_ *score.Track, part *score.Part) {
			testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 2 })
		}))
	short := play.Render(chorded(func(_ *score.Track, part *score.Part) {
		part.Voicing.Strum, part.Lanes.Length.Steps[0] = 100, 10
	}), 0, sixteenth+1, nil)
	require.Equal(t, []score.Tick{sixteenth / 10, sixteenth / 64, sixteenth / 64},
		[]score.Tick{short[0].End - short[0].Start, short[1].End - short[1].Start, short[2].End - short[2].Start})
}

// A chord makes a track that follows it go on once, strummed or not; each hit of a ratchet once more.
func TestAChordIsHeardOnceByItsFollowers(t *testing.T) {
	for _, kind := range []score.SourceKind{score.NoteStarts, score.NoteEnds} {
		for _, strum := range []int{0, 60} {
			p := chorded(func(_ *score.Track, part *score.Part) {
				part.Voicing.Strum, part.Lanes.Gate.Length = strum, 4
				testkit.SetLane(&part.Lanes.Ratchet, score.Ratchet, func(l *score.Lane) { l.Steps[0] = 2 })
			})
			follower := p.Tracks[0].Clone()
			follower.ID, follower.Source = 2, score.Source{Kind: kind, Track: 1, Odds: 100}
			lanes := &follower.Parts()[0].Lanes
			lanes.Chord, lanes.Ratchet = nil, nil
			for step := range lanes.Gate.Steps {
				lanes.Gate.Steps[step] = score.On
			}
			p.Tracks = append(p.Tracks, follower)
			hits := 0
			for _, n := range play.Render(p, 0, 8*sixteenth, nil) {
				if n.Track == 2 {
					hits++
				}
			}
			require.Equal(t, 4, hits, "%s, strum %d: two steps of two hits", kind, strum)
		}
	}
}
