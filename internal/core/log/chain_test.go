package log_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

// fourPatterns returns a project of one track of four patterns, of ids 0 to 3 and of four sixteenths each, which play degree
// 0, 1, 2 and 3 alone.
func fourPatterns(chains ...*score.Chain) *score.Project {
	p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		for step := range score.MaxSteps {
			part.Lanes.Gate.Steps[step], part.Lanes.Probability.Steps[step] = score.On, 100
		}
		part.Lanes.Pitch.Linked = true
		for id := 1; id < 4; id++ {
			next := track.Clone().Patterns[0]
			next.ID = id
			for step := range score.MaxSteps {
				next.Parts[0].Lanes.Pitch.Steps[step] = id
			}
			track.Patterns = append(track.Patterns, next)
		}
		for i, chain := range chains {
			track.Patterns[i].After = chain
		}
	})
	return p
}

// visited returns which pattern plays in each quarter of a log; -1 is silence.
func visited(l *log.Log, quarters int) []int {
	patterns := make([]int, quarters)
	for i := range patterns {
		patterns[i] = -1
	}
	for _, m := range l.Play(score.Tick(quarters) * quarter) {
		if m.Kind == midi.NoteOn {
			patterns[m.Tick/quarter] = map[uint8]int{60: 0, 62: 1, 64: 2, 65: 3}[m.Key]
		}
	}
	return patterns
}

// Where chains lead, by hand: pattern by pattern for each quarter, which is a pass.
func TestWhereChainsLead(t *testing.T) {
	next := func(passes int) *score.Chain { return &score.Chain{Passes: passes, To: score.ToNext} }
	to := func(passes, pattern int) *score.Chain {
		return &score.Chain{Passes: passes, To: score.ToPattern, Pattern: pattern}
	}
	for name, c := range map[string]struct {
		chains []*score.Chain
		want   []int
	}{
		"round":         {[]*score.Chain{next(2), next(1), next(3), next(1)}, []int{0, 0, 1, 2, 2, 2, 3, 0, 0, 1}},
		"to one":        {[]*score.Chain{to(1, 3), nil, nil, to(2, 1)}, []int{0, 3, 3, 1, 1, 1}},
		"to itself":     {[]*score.Chain{to(2, 0)}, []int{0, 0, 0, 0, 0}},
		"to one gone":   {[]*score.Chain{to(1, 9), next(1)}, []int{0, 0, 0}},
		"silence":       {[]*score.Chain{next(1), {Passes: 2, To: score.ToSilence}}, []int{0, 1, 1, -1, -1, -1}},
		"drawn of one":  {[]*score.Chain{{Passes: 1, To: score.ToDrawn, Weights: []score.PatternWeight{{Pattern: 9, Weight: 5}, {Pattern: 2, Weight: 1}, {Pattern: 1}}}}, []int{0, 2, 2}},
		"drawn of gone": {[]*score.Chain{{Passes: 1, To: score.ToDrawn, Weights: []score.PatternWeight{{Pattern: 9, Weight: 5}}}}, []int{0, 0, 0}},
	} {
		p := fourPatterns(c.chains...)
		require.NoError(t, p.Validate())
		require.Equal(t, c.want, visited(&log.Log{Project: p}, len(c.want)), name)
	}
	p := fourPatterns(&score.Chain{Passes: 1, To: score.ToDrawn, Weights: []score.PatternWeight{{Pattern: 1}}})
	require.ErrorContains(t, p.Validate(), "tracks[0].patterns[0].after.weights is a list whose weights sum to 0; it must be one with a weight above 0")
}

// A hand can go anywhere, and passes count from there; what the chain leads to takes the place of what the hand has done.
func TestAHandGoesIntoAChain(t *testing.T) {
	to := func(passes, pattern int) *score.Chain {
		return &score.Chain{Passes: passes, To: score.ToPattern, Pattern: pattern}
	}
	p := fourPatterns(to(4, 1), nil, to(2, 0), nil)
	two := 2
	act := log.Entry{Tick: 2 * quarter, Action: &log.Action{Control: stage.Control{Name: "pattern", Track: 1}, Value: &two, At: 2 * quarter}}
	require.Equal(t, []int{0, 0, 2, 2, 0, 0, 0, 0, 1, 1}, visited(&log.Log{Project: p, Entries: []log.Entry{act}}, 10))
	after := p.Clone()
	after.Tracks[0].Patterns[0].After = to(1, 3)
	require.Equal(t, []int{0, 0, 3, 3}, visited(&log.Log{Project: p, Entries: []log.Entry{{Tick: 3 * quarter / 2, Project: after}}}, 4), "an edit counts at the end of the pass")
}

// A pattern that leads to itself plays as many passes again before it leads anywhere.
func TestAPatternThatLeadsToItself(t *testing.T) {
	drawn := &score.Chain{Passes: 3, To: score.ToDrawn, Weights: []score.PatternWeight{{Pattern: 0, Weight: 1}, {Pattern: 1, Weight: 1}}}
	patterns := visited(&log.Log{Project: fourPatterns(drawn, &score.Chain{Passes: 1, To: score.ToPattern})}, 200)
	run, runs := 0, map[int]int{}
	for _, pattern := range patterns {
		if pattern == 0 {
			run++
		} else {
			require.Zero(t, run%3)
			runs[run]++
			run = 0
		}
	}
	require.Greater(t, len(runs), 2, "of one, two and three times as many")
}

// Patterns are visited as often as the stationary distribution of the matrix of weights says, which gonum solves; and each leads to
// the others as often as its weights say. Looked at every 16th pass they depend on each other no more, so chi-square holds.
func TestChainsVisitAsOftenAsTheyShould(t *testing.T) {
	weights := [4][4]int{{0, 3, 1, 0}, {2, 2, 0, 4}, {1, 0, 0, 1}, {5, 1, 3, 1}}
	var chains []*score.Chain
	for _, row := range weights {
		chain := &score.Chain{Passes: 1, To: score.ToDrawn}
		for pattern, weight := range row {
			chain.Weights = append(chain.Weights, score.PatternWeight{Pattern: pattern, Weight: weight})
		}
		chains = append(chains, chain)
	}
	stationary := stationaryOf(weights)
	const passes, apart = 8000, 16
	patterns := visited(&log.Log{Project: fourPatterns(chains...)}, passes)
	var counts [4]float64
	var led [4][4]float64
	for i, pattern := range patterns {
		if i%apart == apart-1 {
			counts[pattern]++
		}
		if i > 0 {
			led[patterns[i-1]][pattern]++
		}
	}
	const alpha = 0.001 / 5 // of the five tests
	require.Less(t, chiSquare(counts[:], stationary), distuv.ChiSquared{K: 3}.Quantile(1-alpha))
	for from, row := range weights {
		sum, expected, got := 0, []float64(nil), []float64(nil)
		for _, weight := range row {
			sum += weight
		}
		for to, weight := range row {
			if weight == 0 {
				require.Zero(t, led[from][to])
				continue
			}
			expected, got = append(expected, float64(weight)/float64(sum)), append(got, led[from][to])
		}
		require.Less(t, chiSquare(got, expected), distuv.ChiSquared{K: float64(len(got) - 1)}.Quantile(1-alpha), "from %d", from)
	}
}

// stationaryOf solves πP = π with Σπ = 1.
func stationaryOf(weights [4][4]int) []float64 {
	a, b := mat.NewDense(5, 4, nil), mat.NewVecDense(5, []float64{0, 0, 0, 0, 1})
	for from, row := range weights {
		sum := 0
		for _, weight := range row {
			sum += weight
		}
		for to, weight := range row {
			a.Set(to, from, float64(weight)/float64(sum))
		}
		a.Set(from, from, a.At(from, from)-1)
		a.Set(4, from, 1)
	}
	var pi mat.VecDense
	if err := pi.SolveVec(a, b); err != nil {
		panic(err)
	}
	return pi.RawVector().Data
}

func chiSquare(counts, shares []float64) (sum float64) {
	total := 0.0
	for _, count := range counts {
		total += count
	}
	for i, share := range shares {
		sum += (counts[i] - share*total) * (counts[i] - share*total) / (share * total)
	}
	return sum
}
