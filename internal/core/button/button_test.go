package button_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/button"
)

const ms = 1_000_000

// press is a press of a way that has begun, or ended.
func began(p button.Press) button.Event { return button.Event{Press: p} }
func ended(p button.Press) button.Event { return button.Event{Press: p, Released: true} }

// By hand: what is told of presses, by what is listened for.
func TestWaysOfPressing(t *testing.T) {
	var usual button.Button
	require.Equal(t, []button.Event{began(button.Usual)}, usual.Down(0), "at once, where nothing else is listened for")
	require.Empty(t, usual.Down(1), "it is down already")
	require.Equal(t, []button.Event{ended(button.Usual)}, usual.Up(900*ms))
	require.Empty(t, usual.Up(901*ms))

	long := button.Button{Long: true}
	require.Empty(t, long.Down(0))
	require.Empty(t, long.Due(499*ms))
	require.Equal(t, []button.Event{began(button.Long)}, long.Due(500*ms))
	require.Empty(t, long.Due(600*ms))
	require.Equal(t, []button.Event{ended(button.Long)}, long.Up(800*ms))
	require.Empty(t, long.Down(1000*ms))
	require.Equal(t, []button.Event{began(button.Usual), ended(button.Usual)}, long.Up(1200*ms), "released before, it was a usual press")

	double := button.Button{Double: true}
	require.Empty(t, double.Down(0))
	require.Empty(t, double.Up(100*ms))
	require.Equal(t, []button.Event{began(button.Double)}, double.Down(299*ms))
	require.Equal(t, []button.Event{ended(button.Double)}, double.Up(1000*ms))
	require.Empty(t, double.Down(2000*ms))
	require.Empty(t, double.Up(2050*ms))
	require.Equal(t, []button.Event{began(button.Usual), ended(button.Usual)}, double.Due(2300*ms), "no second press came")
	require.Empty(t, double.Down(3000*ms))
	require.Equal(t, []button.Event{began(button.Usual)}, double.Due(3300*ms), "it is too late for a second one, though it is down")
	require.Equal(t, []button.Event{ended(button.Usual)}, double.Up(5000*ms))
	require.Empty(t, double.Down(6000*ms))
	require.Empty(t, double.Up(6010*ms))
	require.Equal(t, []button.Event{began(button.Usual), ended(button.Usual)}, double.Down(6300*ms), "a press after that begins anew")

	all := button.Button{Long: true, Double: true}
	require.Empty(t, all.Down(0))
	require.Empty(t, all.Due(400*ms))
	require.Equal(t, []button.Event{began(button.Long)}, all.Up(500 * ms)[:1], "by time alone, even if nobody looked in between")
}

// Whatever is done: each press that has begun ends before another one begins, and once it is up and all is due nothing lasts.
func TestPressesTakeTurns(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := button.Button{Long: rapid.Bool().Draw(t, "long"), Double: rapid.Bool().Draw(t, "double")}
		var lasts *button.Press
		presses, downs := 0, 0
		take := func(events []button.Event) {
			for _, e := range events {
				if e.Released {
					require.NotNil(t, lasts)
					require.Equal(t, *lasts, e.Press)
					lasts = nil
					continue
				}
				require.Nil(t, lasts)
				require.True(t, e.Press == button.Usual || e.Press == button.Long && b.Long || e.Press == button.Double && b.Double)
				press := e.Press
				lasts = &press
				presses++
			}
		}
		now := int64(0)
		for range rapid.IntRange(0, 40).Draw(t, "count") {
			now += rapid.SampledFrom([]int64{0, 1, 50 * ms, 299 * ms, 300 * ms, 499 * ms, 500 * ms, 2000 * ms}).Draw(t, "after")
			switch rapid.IntRange(0, 2).Draw(t, "act") {
			case 0:
				if !b.IsDown() {
					downs++
				}
				take(b.Down(now))
			case 1:
				take(b.Up(now))
			default:
				take(b.Due(now))
			}
		}
		take(b.Up(now))
		take(b.Due(now + 2000*ms))
		require.Nil(t, lasts)
		require.LessOrEqual(t, presses, downs)
		if !b.Double {
			require.Equal(t, downs, presses)
		}
	})
}
