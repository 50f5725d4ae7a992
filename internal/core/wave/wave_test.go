package wave_test

import (
	"crypto/sha256"
	"encoding/binary"
	"encoding/hex"
	"fmt"
	"math"
	"math/big"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/wave"
)

func free(t require.TestingT, m score.Modulator, others ...score.Modulator) *wave.Free {
	p := testkit.Buoy()
	m.ID, m.Name, m.Amount = 1, "Tide", 100
	p.Modulators = append([]score.Modulator{m}, others...)
	if m.Times == 0 && m.Hertz == 0 {
		p.Modulators[0].Times, p.Modulators[0].Value = 3, "1/4"
	}
	require.NoError(t, p.Validate())
	f, ok := wave.New(p, &p.Modulators[0], play.TempoMapOf(p).Nanos)
	require.True(t, ok)
	return f
}

// exactly is a rational of one whole over another.
func exactly(a, b int64) *big.Rat { return big.NewRat(a, b) }

// floor returns the whole below 2^16 times a rational.
func floor(r *big.Rat) int64 {
	scaled := new(big.Rat).Mul(r, exactly(wave.One, 1))
	return new(big.Int).Div(scaled.Num(), scaled.Denom()).Int64()
}

// The shapes are those of their formulas at 10,000 ticks: those of straight lines to the unit, worked out with rationals (math/big), the sine within two of
// 65,536 units of math.Sin.
func TestShapesFollowTheirFormulas(t *testing.T) {
	const period = 3 * int64(score.TicksPerQuarter)
	for _, phase := range []int{0, 250, 999} {
		for shape, formula := range map[score.WaveShape]func(x int64) int64{
			score.TriangleShape: func(x int64) int64 {
				switch {
				case x < wave.One/4:
					return 4 * x
				case x < 3*wave.One/4:
					return 2*wave.One - 4*x
				}
				return 4*x - 4*wave.One
			},
			score.RampShape: func(x int64) int64 { return 2*x - wave.One },
			score.PulseShape: func(x int64) int64 {
				if x < wave.One/2 {
					return wave.One
				}
				return -wave.One
			},
		} {
			f := free(t, score.Modulator{Shape: shape, Phase: phase})
			for i := range int64(10_000) {
				tick := i * 1009
				turns := new(big.Rat).Add(exactly(tick, period), exactly(period*int64(phase)/1000, period))
				whole := new(big.Int).Div(turns.Num(), turns.Denom())
				x := floor(new(big.Rat).Sub(turns, new(big.Rat).SetInt(whole)))
				require.Equal(t, formula(x), int64(f.At(score.Tick(tick))), "%s at %d", shape, tick)
			}
		}
	}
	f := free(t, score.Modulator{Shape: score.SineShape})
	for i := range int64(10_000) {
		tick := i * 1009
		require.InDelta(t, wave.One*math.Sin(2*math.Pi*float64(floor(exactly(tick%period, period)))/wave.One), f.At(score.Tick(tick)), 2)
	}
}

// All shapes with all that bends them, at 10,000 ticks, are the same integers on every machine: the digest is of amd64, and make arm64 compares it there.
func TestWavesAreTheSameOnEveryMachine(t *testing.T) {
	digest := sha256.New()
	for _, shape := range score.WaveShapes()[:6] {
		for _, hertz := range []int{0, 1234} {
			f := free(t, score.Modulator{
				Shape: shape, Hertz: hertz, Times: 5, Value: "1/8t", Phase: 137, Symmetry: -21, Skew: 63, FadeIn: 3, Restart: 7, Points: []int{-100, 37, 99, 0, -3},
				Between: score.SmoothBetween,
			})
			for i := range 10_000 {
				require.NoError(t, binary.Write(digest, binary.BigEndian, int32(f.At(score.Tick(i*1009)))))
			}
		}
	}
	require.Equal(t, "82ec72eea5ea9eafc297e167c850b5dcb9487500a2672a702a1fd2f1584a5ed6", hex.EncodeToString(digest.Sum(nil)))
}

// At so many Hertz a pass lasts its part of a second, at any tempo, after hours too.
func TestHertzCountSeconds(t *testing.T) {
	f := free(t, score.Modulator{Shape: score.RampShape, Hertz: 2500})
	tempo := play.TempoMapOf(testkit.Buoy())
	for _, tick := range []score.Tick{0, 1, 5000, 20160, 1_000_003, 5_000_000_000} {
		turns := exactly(tempo.Nanos(tick), 400_000_000)
		whole := new(big.Int).Div(turns.Num(), turns.Denom())
		x := floor(new(big.Rat).Sub(turns, new(big.Rat).SetInt(whole)))
		require.Equal(t, 2*x-wave.One, int64(f.At(tick)), tick)
	}
}

// Whatever the settings, a wave stays between −1 and 1; its levels are where symmetry and skew put them.
func TestWavesStayInBounds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := score.Modulator{
			Shape:    rapid.SampledFrom(score.WaveShapes()[:6]).Draw(t, "shape"),
			Phase:    rapid.IntRange(0, 999).Draw(t, "phase"),
			Symmetry: rapid.IntRange(-49, 49).Draw(t, "symmetry"),
			Skew:     rapid.IntRange(-100, 100).Draw(t, "skew"),
			FadeIn:   rapid.SampledFrom([]int{0, 0, 1, 64}).Draw(t, "fade in"),
			Once:     rapid.Bool().Draw(t, "once"), Restart: rapid.SampledFrom([]int{0, 1, 7}).Draw(t, "restart"),
			Points:  rapid.SliceOfN(rapid.IntRange(-100, 100), 2, 64).Draw(t, "points"),
			Between: rapid.SampledFrom([]score.Interpolation{score.StepsBetween, score.LineBetween, score.SmoothBetween}).Draw(t, "between"),
			Hertz:   rapid.SampledFrom([]int{0, 1, 20_000}).Draw(t, "hertz"),
		}
		f := free(t, m)
		for range 50 {
			tick := score.Tick(rapid.Int64Range(0, int64(score.LastTick)).Draw(t, "tick"))
			y := f.At(tick)
			require.LessOrEqual(t, y, wave.One)
			require.GreaterOrEqual(t, y, -wave.One)
			require.Equal(t, y, f.At(tick))
		}
	})
}

func TestWhatBendsAWave(t *testing.T) {
	const quarter = score.TicksPerQuarter
	at := func(m score.Modulator, tick score.Tick) float64 { return float64(free(t, m).At(tick)) / wave.One }
	for name, c := range map[string]struct {
		m    score.Modulator
		tick score.Tick
		want float64
	}{
		"a pulse of a fifth is high":        {score.Modulator{Shape: score.PulseShape, Symmetry: -30}, 3*quarter/5 - 10, 1},
		"and then low":                      {score.Modulator{Shape: score.PulseShape, Symmetry: -30}, 3*quarter/5 + 10, -1},
		"a triangle that leans back":        {score.Modulator{Shape: score.TriangleShape, Symmetry: 25}, 3 * quarter * 3 / 8, 1},
		"skew lifts the middle":             {score.Modulator{Shape: score.RampShape, Skew: 100}, 3 * quarter / 2, 0.5},
		"or lowers it":                      {score.Modulator{Shape: score.RampShape, Skew: -100}, 3 * quarter / 2, -0.5},
		"a drawn one in steps":              {score.Modulator{Shape: score.DrawnShape, Points: []int{0, 50, -100}}, 2*quarter - 1, 0.5},
		"in lines":                          {score.Modulator{Shape: score.DrawnShape, Points: []int{0, 50, -100}, Between: score.LineBetween}, quarter + quarter/2, -0.25},
		"which lead back to its first":      {score.Modulator{Shape: score.DrawnShape, Points: []int{0, 50, -100}, Between: score.LineBetween}, 2*quarter + quarter/2, -0.5},
		"slow at both ends":                 {score.Modulator{Shape: score.DrawnShape, Points: []int{0, 100}, Between: score.SmoothBetween}, 3 * quarter / 8, 0.15625},
		"fading in over two bars":           {score.Modulator{Shape: score.PulseShape, FadeIn: 2, Times: 8, Value: "1/1"}, 2 * quarter, 0.25},
		"once, and then its end":            {score.Modulator{Shape: score.RampShape, Once: true}, 30 * quarter, 1},
		"begun anew with each bar":          {score.Modulator{Shape: score.RampShape, Restart: 1}, 8 * quarter, -1},
		"and not, it is two thirds further": {score.Modulator{Shape: score.RampShape}, 8 * quarter, 1.0 / 3},
	} {
		t.Run(name, func(t *testing.T) { require.InDelta(t, c.want, at(c.m, c.tick), 1e-3) })
	}
}

// A copy has the curve of another, random ones too, in its own time; a copy of a copy stretches on.
func TestCopiesReadOneCurve(t *testing.T) {
	p := testkit.Buoy()
	p.Modulators = []score.Modulator{
		{ID: 1, Name: "Tide", Shape: score.RandomShape, Amount: 100, Times: 1, Value: "1/8", Between: score.LineBetween},
		{ID: 2, Name: "Ebb", Shape: score.CopyShape, Amount: 100, Copies: 1, Stretch: &score.Ratio{N: 3, M: 2}, Between: score.LineBetween},
		{ID: 3, Name: "Slack", Shape: score.CopyShape, Amount: 100, Copies: 2, Stretch: &score.Ratio{N: 2, M: 1}, Between: score.LineBetween},
		{ID: 4, Name: "Lost", Shape: score.CopyShape, Amount: 100, Copies: 99, Stretch: &score.Ratio{N: 2, M: 1}},
	}
	require.NoError(t, p.Validate())
	var all []*wave.Free
	for i := range 3 {
		f, ok := wave.New(p, &p.Modulators[i], nil)
		require.True(t, ok)
		all = append(all, f)
	}
	differ := false
	for tick := score.Tick(0); tick < 40_000; tick += 600 {
		require.Equal(t, all[0].At(2*tick), all[1].At(3*tick), tick)
		require.Equal(t, all[0].At(tick), all[2].At(3*tick), tick)
		differ = differ || all[0].At(tick) != all[1].At(tick)
	}
	require.True(t, differ)
	_, ok := wave.New(p, &p.Modulators[3], nil)
	require.False(t, ok, "what it copies is gone")
}

// Random levels are even over their range, and different for each modulator, each pass and each time it begins.
func TestRandomLevels(t *testing.T) {
	levels := func(m score.Modulator) (all []float64) {
		f := free(t, m)
		for pass := range 4000 {
			all = append(all, float64(f.At(score.Tick(pass)*score.NoteValue("1/16").Ticks()))/wave.One)
		}
		return all
	}
	plain := levels(score.Modulator{Shape: score.RandomShape, Times: 1, Value: "1/16"})
	require.InDelta(t, 0, stat.Mean(plain, nil), 4/math.Sqrt(3*4000))
	require.InDelta(t, 1.0/3, stat.Variance(plain, nil), 0.03)
	require.InDelta(t, 0, stat.Correlation(plain[1:], plain[:3999], nil), 0.07)
	restarted := levels(score.Modulator{Shape: score.RandomShape, Times: 1, Value: "1/16", Restart: 1})
	require.NotEqual(t, restarted[:16], restarted[16:32], "chance goes on")
	require.Equal(t, plain[:16], restarted[:16])
}

func TestCurves(t *testing.T) {
	for _, c := range score.Curves() {
		last := -1
		for x := range 257 {
			y := wave.Bend(c, x*wave.One/256)
			require.Greater(t, y, last-1, c)
			last = y
		}
		require.Equal(t, 0, wave.Bend(c, -5), c)
		require.Equal(t, wave.One, wave.Bend(c, 2*wave.One), c)
		s := float64(1) / 4
		want := map[score.Curve]float64{score.Linear: s, score.SlowStart: s * s, score.FastStart: 1 - (1-s)*(1-s), score.SCurve: 3*s*s - 2*s*s*s}[c]
		require.InDelta(t, want, float64(wave.Bend(c, wave.One/4))/wave.One, 1e-4, fmt.Sprint(c))
	}
}
