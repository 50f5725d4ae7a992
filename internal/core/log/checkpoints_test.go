package log_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// What a track is going to do, and has done in the last bars, is the same by checkpoints as if all was played from the
// beginning, over edits, actions, inputs and jumps.
func TestCheckpointsForecastTheSame(t *testing.T) {
	forecasts, sooner := 0, 0
	rapid.Check(t, func(t *rapid.T) {
		l := drawn(t)
		players := []*log.Player{log.NewPlayer(*l, nil), log.NewPlayer(*l, nil)}
		players[0].KeepCheckpoints()
		for _, p := range players {
			for _, entry := range l.Entries {
				for p.Run() < entry.Tick {
					p.Advance(min(entry.Tick, p.Run()+score.TicksPerQuarter))
				}
				p.Do(entry)
			}
			for end := p.Run() + 8*score.TicksPerQuarter; p.Run() < end; {
				p.Advance(p.Run() + score.TicksPerQuarter)
			}
		}
		by, from := players[0], max(0, players[0].Song()+score.Tick(rapid.IntRange(-6, 4).Draw(t, "quarters"))*score.TicksPerQuarter)
		hearsInput := slices.ContainsFunc(by.Written().Tracks, func(track score.Track) bool {
			return track.Source.Kind != score.OwnClock && !track.Source.FollowsTrack() || track.Pitches.HearsKeys()
		}) || slices.ContainsFunc(by.Written().Modulators, func(m score.Modulator) bool { return m.Shape == score.ControlShape })
		if hearsInput {
			return // what came in is known of checkpoints alone
		}
		for _, track := range by.Written().Tracks {
			want := players[1].Course(by.Written(), track.ID, from).Look(track.ID, from, from+4*score.TicksPerQuarter)
			course := by.Course(by.Written(), track.ID, from)
			if course.Later != nil {
				sooner++
			}
			got := course.Look(track.ID, from, from+4*score.TicksPerQuarter)
			require.Len(t, got, len(want))
			for i := range want {
				require.Equal(t, want[i].Forecasts, got[i].Forecasts, "track %d", track.ID)
				part := by.Playing().Track(track.ID).Parts()[i]
				for lane, moves := range want[i].Moves {
					if !part.Lanes.Has(lane) || part.Lanes.Lane(lane).Linked && lane != score.Gate {
						continue // it moved in the pattern before
					}
					require.Equal(t, moves, got[i].Moves[lane], "%s of track %d", lane, track.ID)
				}
				forecasts += len(want[i].Forecasts)
			}
		}
	})
	require.Greater(t, forecasts, 20)
	require.Greater(t, sooner, 5)
}

// What an outlook was asked of is told to the end, although a track that it is about is removed meanwhile, or another project comes in.
func TestAnOutlookOutlivesWhatComes(t *testing.T) {
	p, bar := testkit.Demo(), testkit.Demo().Bars().Start(1)
	last := p.Tracks[len(p.Tracks)-1].ID
	without := *p
	without.Tracks = p.Tracks[:len(p.Tracks)-1]
	for _, comes := range []log.Entry{{Project: &without}, {Jump: &log.Jump{Project: &without}}} {
		player := log.NewPlayer(log.Log{Project: p}, nil)
		player.Advance(2 * bar)
		outlook := player.Outlook(nil)
		want := outlook(last, bar).Look(last, bar, 3*bar)
		require.NotEmpty(t, want[0].Forecasts)
		comes.Tick = player.Run()
		player.Do(comes)
		require.Nil(t, player.Written().Track(last))
		require.Equal(t, want, outlook(last, bar).Look(last, bar, 3*bar))
	}
}
