package field_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"
	"pgregory.net/rapid"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// One that turns back on n cells repeats after 2(n−1) moves, one that goes through after n, one that ends never moves again.
func TestPeriods(t *testing.T) {
	for n := 2; n <= 16; n++ {
		of := traveller(1, 0, 0, 2)
		lead, period, err := field.Period(grid(n, 1, of))
		require.NoError(t, err)
		require.Equal(t, [2]score.Tick{0, score.Tick(n) * eighth}, [2]score.Tick{lead, period})
		of.At = score.TurnBack
		_, period, err = field.Period(grid(n, 1, of))
		require.NoError(t, err)
		require.Equal(t, score.Tick(2*(n-1))*eighth, period)
	}
	of := traveller(1, 0, 0, 2)
	of.At = score.EndThere
	lead, period, err := field.Period(grid(4, 1, of))
	require.NoError(t, err)
	require.Equal(t, [2]score.Tick{4 * eighth, 0}, [2]score.Tick{lead, period}, "it ends with its fifth moment")
	of.StartsAfter, of.At = 3, score.GoThrough
	lead, period, err = field.Period(grid(4, 1, of))
	require.NoError(t, err)
	require.Equal(t, [2]score.Tick{3 * eighth, 4 * eighth}, [2]score.Tick{lead, period}, "from where it has started")
	_, period, err = field.Period(grid(4, 1))
	require.NoError(t, err)
	require.Zero(t, period)
}

// Two on crossing lines of n and m cells, which have no common divisor, meet every n·m moves.
func TestTwoThatCross(t *testing.T) {
	for _, size := range [][2]int{{3, 4}, {5, 7}, {8, 9}, {15, 16}} {
		n, m := size[0], size[1]
		f := grid(n, m, traveller(1, 0, 0, 2), traveller(2, 0, 0, 4))
		f.Rules = []score.MeetingRule{{A: 1, B: 2, When: score.InOneCell, Do: score.DoClockTick, Track: 1, Odds: 100}}
		machine := field.New(f, chance.Address{})
		s := machine.Begin()
		var met []int
		for move := range 2*n*m + 1 {
			if _, clocks := machine.Move(s, nil); len(clocks) > 0 {
				met = append(met, move)
			}
		}
		require.Equal(t, []int{0, n * m, 2 * n * m}, met)
		_, period, err := field.Period(f)
		require.NoError(t, err)
		require.Equal(t, score.Tick(n*m)*eighth, period)
	}
}

// The period that is found is true for whatever field: what sounds comes again after it, from where the field begins to repeat.
func TestPeriodsAreTrue(t *testing.T) {
	found := 0
	rapid.Check(t, func(t *rapid.T) {
		f := testkit.Field(t)
		lead, period, err := field.Period(f)
		if err != nil {
			require.Equal(t, field.HasChance(f), err == field.ErrChance)
			return
		}
		found++
		m := field.New(f, chance.Address{Luck: rapid.Uint64().Draw(t, "luck")})
		s := m.Begin()
		sounds := map[score.Tick][]string{}
		end := lead + 3*period
		for s.Due() <= end {
			now := s.Due()
			list, _ := m.Move(s, nil)
			for _, sound := range list {
				sounds[now] = append(sounds[now], fmt.Sprint(sound.Traveller, sound.Column, sound.Row, sound.Degree))
			}
		}
		if period == 0 {
			require.Equal(t, field.Never, s.Due())
			return
		}
		for at, list := range sounds {
			if at >= lead && at+period < end {
				require.Equal(t, list, sounds[at+period], "at %d", at)
			}
		}
	})
	require.Greater(t, found, 5)
}

// forks returns a line of cells on which a traveller goes to and fro by chance from the first, and ends in the last.
func forks(n int) *score.Field {
	of := score.NewTraveller(1, 0, 0)
	of.Motion = score.ArrowsMotion
	f := grid(n+1, 1, of)
	for column := range n {
		f.Cell(column, 0).Arrows = []score.Arrow{{To: 2, Weight: 50}}
		if column > 0 {
			f.Cell(column, 0).Arrows = append(f.Cell(column, 0).Arrows, score.Arrow{To: 6, Weight: 50})
		}
	}
	return f
}

// A random walk on a line with a wall at its beginning needs n² moves on average to come to its end (Feller, An Introduction to Probability Theory, vol. 1,
// chapter XIV). Four deviations of the mean.
func TestARandomWalkArrives(t *testing.T) {
	for _, n := range []int{2, 5, 10} {
		f := forks(n)
		var moves []float64
		for luck := range uint64(3000) {
			m := field.New(f, chance.Address{Luck: luck, Track: 3})
			s := m.Begin()
			for s.Travellers[0].Column < n {
				_, _ = m.Move(s, nil)
			}
			moves = append(moves, float64(s.Travellers[0].Moves-1))
		}
		mean, deviation := stat.MeanStdDev(moves, nil)
		require.InDelta(t, n*n, mean, 4*deviation/math.Sqrt(float64(len(moves))), "%d cells", n)
	}
}

// A fork leads as often as its weights say, whatever the odds of others: chi-square at 1 in 10,000.
func TestForksFollowTheirWeights(t *testing.T) {
	of := score.NewTraveller(9, 1, 1)
	of.Motion = score.ArrowsMotion
	f := grid(3, 3, of)
	weights := map[score.Direction]int{0: 10, 2: 30, 4: 60, 5: 0}
	for to := range score.Direction(8) {
		if weight, there := weights[to]; there {
			f.Cell(1, 1).Arrows = append(f.Cell(1, 1).Arrows, score.Arrow{To: to, Weight: weight})
			columns, rows := to.Step()
			f.Cell(1+columns, 1+rows).Arrows = []score.Arrow{{To: to.Turned(4), Weight: 5}}
		}
	}
	m := field.New(f, chance.Address{Luck: 48213, Track: 2})
	s := m.Begin()
	counts := map[score.Direction]float64{}
	const draws = 20_000
	for range 2*draws + 1 {
		_, _ = m.Move(s, nil)
		if t := s.Travellers[0]; t.Moves%2 == 0 {
			counts[t.Direction]++
		}
	}
	require.Zero(t, counts[5])
	square := 0.0
	for to, weight := range weights {
		if expected := float64(weight) / 100 * draws; weight > 0 {
			square += (counts[to] - expected) * (counts[to] - expected) / expected
		}
	}
	require.Less(t, square, distuv.ChiSquared{K: 2}.Quantile(0.9999))
	for i := range f.Cell(1, 1).Arrows {
		f.Cell(1, 1).Arrows[i].Weight = 0
	}
	require.Len(t, degrees(f, 3)[1], 0, "forks of no weight lead nowhere")
}

// What another field takes over: those that are there stay where they are, others begin, and those that have no place wait until they have.
func TestAFieldTakesOver(t *testing.T) {
	f := grid(4, 1, traveller(1, 0, 0, 2), traveller(2, 3, 0, 2))
	m := field.New(f, chance.Address{})
	s := m.Begin()
	for range 3 {
		_, _ = m.Move(s, nil)
	}
	smaller := grid(2, 1, traveller(2, 3, 0, 2), traveller(1, 0, 0, 6), traveller(5, 1, 0, 2))
	smaller.Travellers[0].Rate = "1/4"
	other := field.New(smaller, chance.Address{})
	now := other.Continue(m, s, 3*eighth)
	require.Equal(t, []score.Tick{2 * eighth, eighth}, []score.Tick{now.Travellers[0].Rate, now.Travellers[1].Rate})
	require.Equal(t, []int{1, 2, 1}, []int{now.Travellers[0].Column, now.Travellers[1].Column, now.Travellers[2].Column})
	require.Equal(t, field.Never, now.Travellers[1].Due, "outside it waits")
	require.Equal(t, 3*eighth, now.Travellers[2].Due, "a new one begins")
	again := m.Continue(other, now, 5*eighth)
	require.Equal(t, 5*eighth, again.Travellers[0].Due)
	require.Equal(t, 2, again.Travellers[0].Column)
	require.Equal(t, int64(3), again.Travellers[0].Moves)
}
