package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// five is five equal steps of an octave, each between two keys of a piano.
func five() *theory.Tuning {
	return &theory.Tuning{Name: "five", Pitches: []string{"240.", "480.", "720.", "960.", "2/1"}}
}

// Another tuning is heard at once: the demo's melodic tracks bend, on channels of their own, beside the kit's.
func TestATuningBendsMelodicTracks(t *testing.T) {
	p := testkit.Demo()
	retuned, undo, err := score.Apply(p, score.Retune(p, five()))
	require.NoError(t, err)
	require.Equal(t, &score.Tuned{By: score.BendTuned, Channels: 6, Range: 2}, retuned.Tracks[0].Tuned)
	require.Equal(t, &score.Tuned{By: score.BendTuned, Channels: 6, Range: 2}, retuned.Tracks[1].Tuned)
	require.Nil(t, retuned.Tracks[2].Tuned)
	require.Equal(t, []int{1, 11, 10}, []int{retuned.Tracks[0].Channel, retuned.Tracks[1].Channel, retuned.Tracks[2].Channel})

	again, _, err := score.Apply(retuned, score.Retune(retuned, nil))
	require.NoError(t, err)
	require.Nil(t, again.Tracks[0].Tuned)
	before, _, err := score.Apply(retuned, undo)
	require.NoError(t, err)
	require.Equal(t, p, before)
}

// Whatever tracks there are: the result is valid, so no two share a channel that is bent; as long as channels are left
// each melodic track that can bend does; and what tunes itself already, and where kits are, stays.
func TestATuningFindsChannels(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Modulators { // of which one that bends a track is looked at by hand
			p.Modulators[i].Sends = nil
		}
		p.Key.Tuning = nil
		p.Key = theory.Key{Scale: "major"}
		require.NoError(t, p.Validate())
		retuned, _, err := score.Apply(p, score.Retune(p, five()))
		require.NoError(t, err)
		used := map[int]bool{10: true}
		for i := range retuned.Tracks {
			was, now := &p.Tracks[i], &retuned.Tracks[i]
			if was.Kind == score.Kit || was.Retunes() {
				require.Equal(t, was, now)
			}
			last := now.Channel
			if now.Tuned != nil && now.Tuned.By == score.BendTuned {
				last += now.Tuned.Channels - 1
			}
			for channel := now.Channel; channel <= last; channel++ {
				used[channel] = true
			}
		}
		for i := range retuned.Tracks {
			if now := &retuned.Tracks[i]; now.Kind == score.Melodic && !now.Retunes() && !bends(now) {
				require.Len(t, used, 16, "a channel is free")
			}
		}
	})
}

func bends(t *score.Track) bool {
	for _, pattern := range t.Patterns {
		for _, part := range pattern.Parts {
			for _, mod := range part.Mods {
				if mod.Target == score.BendTarget {
					return true
				}
			}
		}
	}
	return false
}
