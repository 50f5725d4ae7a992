package route_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// By hand: the pedal (CC 64, MIDI 1.0) holds what is released while it is down, on its channel; latched keys last until others are struck after all
// are up.
func TestHolding(t *testing.T) {
	c, e, g := route.HeldKey{Key: 60}, route.HeldKey{Key: 64}, route.HeldKey{Channel: 1, Key: 67}
	var h route.Holding
	require.Empty(t, h.On(c, score.NoHold))
	require.True(t, h.Off(c, score.NoHold))
	require.False(t, h.Off(c, score.NoHold), "it is up")

	require.Empty(t, h.Pedal(0, true, score.PedalHold))
	h.On(c, score.PedalHold)
	h.On(e, score.PedalHold)
	h.On(g, score.PedalHold)
	require.False(t, h.Off(c, score.PedalHold))
	require.True(t, h.Off(g, score.PedalHold), "the pedal of another channel")
	require.Equal(t, []route.HeldKey{c}, h.On(c, score.PedalHold), "struck again it begins anew")
	require.False(t, h.Off(c, score.PedalHold))
	require.Equal(t, []route.HeldKey{c}, h.Pedal(0, false, score.PedalHold), "the one that is down stays")
	require.True(t, h.Off(e, score.PedalHold))

	h.On(c, score.LatchHold)
	h.On(e, score.LatchHold)
	require.False(t, h.Off(c, score.LatchHold))
	require.Empty(t, h.On(g, score.LatchHold), "one is down still")
	require.False(t, h.Off(e, score.LatchHold))
	require.False(t, h.Off(g, score.LatchHold))
	require.ElementsMatch(t, []route.HeldKey{c, e, g}, h.On(c, score.LatchHold), "and itself, which begins anew")
	require.Equal(t, []route.HeldKey{c}, h.Release())
	require.Empty(t, h.Release())
}

// Whatever keys and pedals do: nothing ends that does not sound, and a release ends all that does.
func TestHoldingEndsWhatItBegan(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var h route.Holding
		sounds := map[route.HeldKey]bool{}
		end := func(keys []route.HeldKey) {
			for _, k := range keys {
				require.True(t, sounds[k], "%v does not sound", k)
				delete(sounds, k)
			}
		}
		for range rapid.IntRange(0, 60).Draw(t, "count") {
			k := route.HeldKey{Channel: uint8(rapid.IntRange(0, 1).Draw(t, "channel")), Key: uint8(rapid.IntRange(60, 62).Draw(t, "key"))}
			how := rapid.SampledFrom([]score.Holding{score.NoHold, score.PedalHold, score.LatchHold}).Draw(t, "how") // which an edit can change at any time
			switch rapid.IntRange(0, 3).Draw(t, "act") {
			case 0:
				end(h.On(k, how))
				sounds[k] = true
			case 1:
				if h.Off(k, how) {
					end([]route.HeldKey{k})
				}
			default:
				end(h.Pedal(k.Channel, rapid.Bool().Draw(t, "down"), how))
			}
		}
		end(h.Release())
		require.Empty(t, sounds)
	})
}
