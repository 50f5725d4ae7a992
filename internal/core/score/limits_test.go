package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Limits that lie between two fields.
func TestLimitsBetweenFields(t *testing.T) {
	bent := func(track, channel, channels int) score.SetTrack {
		return score.SetTrack{Track: track, Channel: &channel, Tuned: &score.Tuned{By: score.BendTuned, Channels: channels, Range: 2}}
	}
	on := func(track, channel int) score.SetTrack { return score.SetTrack{Track: track, Channel: &channel} }
	held := func(steps ...int) score.SetPart {
		return score.SetPart{PartAddress: score.PartAddress{Track: 1}, Held: (*score.HeldSteps)(&steps)}
	}
	tempos := func(ticks ...score.Tick) score.SetProject {
		changes := []score.TempoChange{}
		for _, tick := range ticks {
			changes = append(changes, score.TempoChange{Tick: tick, Tempo: 90_000})
		}
		return score.SetProject{TempoChanges: &changes}
	}
	for _, c := range []struct {
		name  string
		edits []score.Edit
		fails string // empty is allowed
	}{
		{"bends up to channel 16", []score.Edit{bent(1, 12, 5)}, ""},
		{"bends up to channel 17", []score.Edit{bent(1, 12, 6)}, "tuned.channels is 6; it must be 1 to 5"},
		{"a track before those that are bent", []score.Edit{bent(1, 4, 3), on(2, 3)}, ""},
		{"a track on the first that is bent", []score.Edit{bent(1, 4, 3), on(2, 4)}, "outside of the channels"},
		{"a track on the last that is bent", []score.Edit{bent(1, 4, 3), on(2, 6)}, "outside of the channels"},
		{"a track after those that are bent", []score.Edit{bent(1, 4, 3), on(2, 7)}, ""},
		{"bends that reach a track", []score.Edit{on(2, 6), bent(1, 4, 3)}, "outside of the channels"},
		{"bends that reach others' bends", []score.Edit{bent(1, 4, 3), bent(2, 6, 2)}, "outside of the channels"},
		{"a loop of the first and the last step", []score.Edit{held(0, 63)}, ""},
		{"a loop of a step beyond the last", []score.Edit{held(60, 64)}, "held[1] is 64; it must be 61 to 63"},
		{"a loop of a step before the first", []score.Edit{held(-1, 4)}, "held[0] is -1"},
		{"a loop with a step twice", []score.Edit{held(4, 4)}, "held[1] is 4; it must be 5 to 63"},
		{"tempos a tick apart", []score.Edit{tempos(1, 2)}, ""},
		{"two tempos at one tick", []score.Edit{tempos(2, 2)}, "tempoChanges[1].tick is 2"},
		{"a tempo at the beginning", []score.Edit{tempos(0)}, "tempoChanges[0].tick is 0"},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := testkit.Demo()
			var err error
			for _, edit := range c.edits {
				var next *score.Project
				if next, _, err = score.Apply(p, edit); err == nil {
					p = next
				}
			}
			if c.fails == "" {
				require.NoError(t, err)
				return
			}
			require.ErrorContains(t, err, c.fails)
		})
	}
}

// Of former lucks the oldest goes where there are too many.
func TestTheOldestLuckIsForgotten(t *testing.T) {
	p := score.Blank()
	p.Luck = score.Luck{Number: 5000}
	for i := range score.MaxFormerLuck {
		p.Luck.Former = append(p.Luck.Former, i)
	}
	p = apply(t, p, score.ChangeLuck{Number: 7})
	require.Len(t, p.Luck.Former, score.MaxFormerLuck)
	require.Equal(t, 1, p.Luck.Former[0])
	require.Equal(t, 5000, p.Luck.Former[score.MaxFormerLuck-1])
	require.Equal(t, 5000, apply(t, p, score.BackLuck{}).Luck.Number)
}

// A new melodic track keeps away from the channel where instruments have drums (common practice).
func TestNewMelodicTracksLeaveTheDrumsAlone(t *testing.T) {
	p := score.Blank()
	for range 20 {
		p = apply(t, p, score.AddTrack{At: len(p.Tracks), Kind: score.Melodic})
		require.NotEqual(t, 10, p.Tracks[len(p.Tracks)-1].Channel)
	}
}
