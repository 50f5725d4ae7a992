package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Ticks and bars, by hand: two bars of 4/4, one of 7/8, then 3/4.
func TestBarsByHand(t *testing.T) {
	const quarter = score.TicksPerQuarter
	p := testkit.Buoy()
	p.MeterChanges = []score.MeterChange{{Bar: 2, Meter: score.Meter{Beats: 7, Unit: 8, Groups: []int{2, 2, 3}}}, {Bar: 3, Meter: score.Meter{Beats: 3, Unit: 4}}}
	require.NoError(t, p.Validate())
	bars := p.Bars()
	starts := []score.Tick{0, 4 * quarter, 8 * quarter, 8*quarter + 7*quarter/2, 8*quarter + 7*quarter/2 + 3*quarter}
	for bar, start := range starts {
		require.Equal(t, start, bars.Start(int64(bar)))
		require.Equal(t, int64(bar), bars.At(start))
		require.Equal(t, int64(bar)-1, bars.At(start-1))
		require.Equal(t, start, bars.Floor(start))
		require.Equal(t, start, bars.Ceil(start))
		require.Equal(t, start, bars.Ceil(start-1))
	}
	require.Equal(t, "2+2+3/8", bars.Meter(2).String())
	require.Equal(t, []int{0, 2, 4}, bars.Meter(2).GroupStarts())
	require.Equal(t, []int{0, 1, 2}, bars.Last().GroupStarts())
	require.Equal(t, "3/4", bars.Last().String())
	require.Equal(t, []score.BarSpan{
		{Bar: 0, Tick: 0, Length: 4 * quarter, Beat: quarter, Groups: []int{}, Meter: p.Meter},
		{Bar: 2, Tick: 8 * quarter, Length: 7 * quarter / 2, Beat: quarter / 2, Groups: []int{0, 2, 4}, Meter: p.MeterChanges[0].Meter},
		{Bar: 3, Tick: starts[3], Length: 3 * quarter, Beat: quarter, Groups: []int{}, Meter: p.MeterChanges[1].Meter},
	}, bars.Spans())
}

// A change in the middle of a bar ends it there.
func TestAChangeEndsTheBarBefore(t *testing.T) {
	const quarter = score.TicksPerQuarter
	bars := score.NewBars(score.Meter{Beats: 4, Unit: 4}).Change(5*quarter, score.Meter{Beats: 3, Unit: 4})
	require.Equal(t, []score.Tick{4 * quarter, 5 * quarter, 8 * quarter}, []score.Tick{bars.Start(1), bars.Start(2), bars.Start(3)})
	require.Equal(t, int64(1), bars.At(5*quarter-1))
}

// Whatever the meters, each tick is in the bar that begins by it and ends after it.
func TestEveryTickIsInOneBar(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		bars := testkit.Project(t).Bars()
		tick := score.Tick(rapid.IntRange(-100_000, 40_000_000).Draw(t, "tick"))
		bar := bars.At(tick)
		require.LessOrEqual(t, bars.Start(bar), tick)
		require.Greater(t, bars.Start(bar+1), tick)
		if bar >= 0 {
			require.Equal(t, bars.Meter(bar).Bar(), bars.Start(bar+1)-bars.Start(bar))
		}
	})
}

func TestWhichMetersAreRefused(t *testing.T) {
	for want, change := range map[string]func(*score.Project){
		"the sum of meter.groups is 5; it must be 4, the number of beats": func(p *score.Project) { p.Meter.Groups = []int{2, 3} },
		"meter.groups[0] is 0; it must be 1 to 4":                         func(p *score.Project) { p.Meter.Groups = []int{0, 4} },
		"meterChanges[1].bar is 3; it must be 4 to 1000000": func(p *score.Project) {
			p.MeterChanges = []score.MeterChange{{Bar: 3, Meter: p.Meter}, {Bar: 3, Meter: p.Meter}}
		},
		"meterChanges[0].bar is 0; it must be 1 to 1000000": func(p *score.Project) { p.MeterChanges = []score.MeterChange{{Meter: p.Meter}} },
		"meterChanges[0].meter.unit is \"3\"; it must be one of 2, 4, 8, 16": func(p *score.Project) {
			p.MeterChanges = []score.MeterChange{{Bar: 1, Meter: score.Meter{Beats: 4, Unit: 3}}}
		},
	} {
		p := testkit.Buoy()
		change(p)
		require.EqualError(t, p.Validate(), want)
	}
}

// Made of a list, bars are those that are made by one change after the other.
func TestBarsOfAList(t *testing.T) {
	list := []score.MeterFrom{{Meter: score.Meter{Beats: 4, Unit: 4}}, {Tick: 100_000, Meter: score.Meter{Beats: 3, Unit: 4}}, {Tick: 300_001, Meter: score.Meter{Beats: 7, Unit: 8}}}
	want := score.NewBars(list[0].Meter)
	for _, change := range list[1:] {
		want = want.Change(change.Tick, change.Meter)
	}
	require.Equal(t, want, score.BarsOf(list))
}
