package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/output"
)

// clocked is a port that counts beats by the time that it is told.
type clocked struct {
	*listener
	until score.Tick
	beats []output.Beat
	at    []int64
	told  int
}

func (c *clocked) Time(t output.Timeline) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.told++
	for _, beat := range t.Beats(c.until, t.Until) {
		begins, ends := t.Bar(beat.Tick)
		if beat.Tick < begins || beat.Tick >= ends || (beat.Beat == 0) != (beat.Tick == begins) {
			panic("the beat is not in its bar")
		}
		c.beats, c.at = append(c.beats, beat), append(c.at, t.Started+t.Tempo.Nanos(beat.Tick))
	}
	c.until = max(c.until, t.Until)
}

// A timed port is told of each beat of the song once, in time, also where a range is looped and meters change in it, and it is told again and again
// also while nothing sounds.
func TestTimeIsTold(t *testing.T) {
	p := testkit.Buoy()
	p.MeterChanges = []score.MeterChange{{Bar: 2, Meter: score.Meter{Beats: 3, Unit: 8}}}
	require.NoError(t, p.Validate())
	onStage(t, p, func(t *testing.T, s *rig) {
		bars := p.Bars()
		require.NoError(t, s.SetLoop(Range{From: bars.Start(1), To: bars.Start(3)}))
		port := &clocked{listener: &listener{now: s.Now}}
		s.Connect(port)
		s.Play()
		pass(20 * time.Second)
		s.Stop()
		port.mu.Lock()
		defer port.mu.Unlock()
		var want []output.Beat
		beat := func(bar int64, beats int) {
			for n := range beats {
				want = append(want, output.Beat{Bar: bar, Beat: n})
			}
		}
		beat(0, 4)
		for len(want) < len(port.beats) {
			beat(1, 4)
			beat(2, 3)
		}
		require.Greater(t, len(port.beats), 30)
		for i, got := range port.beats {
			require.Equal(t, []int64{want[i].Bar, int64(want[i].Beat)}, []int64{got.Bar, int64(got.Beat)}, "beat %d", i)
			if i > 0 {
				lasts := score.TicksPerQuarter
				if want[i-1].Bar == 2 {
					lasts /= 2
				}
				require.Equal(t, lasts, got.Tick-port.beats[i-1].Tick)
				require.Greater(t, port.at[i], port.at[i-1])
			}
		}
		require.Greater(t, port.told, 1000, "each 10 ms or so")
	})
}
