package chance

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"
)

// What a listener hears follows from these numbers. Never edit them to make the test pass: that
// would change the music of every stored project.
func TestDrawIsFrozen(t *testing.T) {
	require.Equal(t, []uint32{0x6627e8d5, 0x40ab8c92, 0xc541de40, 0x23d2e190}, []uint32{
		Draw(Address{}),
		Draw(Address{Luck: 48213, Track: 1, Purpose: Sound}),
		Draw(Address{Luck: 48213, Track: 1, Purpose: Sound, N: 1}),
		Draw(Address{Luck: 1 << 40, Track: 9, Part: 3, Lane: 7, Purpose: Sound, N: 1 << 40}),
	})
}

func TestEveryFieldOfAnAddressMatters(t *testing.T) {
	base := Address{Luck: 3, Track: 3, Part: 3, Lane: 3, Purpose: 3, N: 3}
	changed := map[string]Address{}
	for name, change := range map[string]func(*Address){
		"luck":      func(a *Address) { a.Luck++ },
		"high luck": func(a *Address) { a.Luck += 1 << 32 },
		"track":     func(a *Address) { a.Track++ },
		"part":      func(a *Address) { a.Part++ },
		"lane":      func(a *Address) { a.Lane++ },
		"purpose":   func(a *Address) { a.Purpose++ },
		"sub":       func(a *Address) { a.Sub++ },
		"n":         func(a *Address) { a.N++ },
		"high n":    func(a *Address) { a.N += 1 << 32 },
	} {
		a := base
		change(&a)
		changed[name] = a
	}
	for name, a := range changed {
		require.NotEqual(t, Draw(base), Draw(a), name)
	}
}

// The list of uses has every purpose once, in the order of their numbers.
func TestEveryPurposeIsListed(t *testing.T) {
	for i, use := range Uses() {
		require.Equal(t, Purpose(i+1), use.Purpose)
		require.NotEmpty(t, use.Decides+use.Lane+use.N)
	}
	require.Len(t, Uses(), int(RollField))
}

func TestHappensAtItsEnds(t *testing.T) {
	for n := range uint64(1000) {
		require.False(t, Happens(Address{N: n}, 0))
		require.False(t, Happens(Address{N: n}, -5))
		require.True(t, Happens(Address{N: n}, 100))
		require.True(t, Happens(Address{N: n}, 130))
	}
}

// 100,000 draws for each percentage, chi-square with one degree of freedom. Alpha is 0.001 for the
// whole family of 7 tests x 3 lucks; the lucks are fixed, so the test gives one answer for ever.
func TestHappensAsOftenAsItSays(t *testing.T) {
	const draws, alpha = 100_000, 0.001
	limit := distuv.ChiSquared{K: 1}.Quantile(1 - alpha/21)
	for _, luck := range []uint64{1, 48213, 999_999} {
		for _, percent := range []int{1, 10, 25, 50, 75, 90, 99} {
			t.Run(fmt.Sprintf("luck %d, %d percent", luck, percent), func(t *testing.T) {
				happened := 0
				for n := range uint64(draws) {
					if Happens(Address{Luck: luck, Track: 1, Purpose: Sound, N: n}, percent) {
						happened++
					}
				}
				expected := draws * float64(percent) / 100
				off := float64(happened) - expected
				chiSquare := off*off/expected + off*off/(draws-expected)
				require.Less(t, chiSquare, limit)
			})
		}
	}
}

// Neighbours in time and in space must not follow each other: the four outcomes of two fair coins
// at neighbouring addresses are equally frequent (chi-square, 3 degrees of freedom, alpha 0.001).
func TestNeighboursAreIndependent(t *testing.T) {
	const draws = 100_000
	limit := distuv.ChiSquared{K: 3}.Quantile(0.999)
	neighbours := map[string]func(*Address){
		"next move":  func(a *Address) { a.N++ },
		"next track": func(a *Address) { a.Track++ },
		"next luck":  func(a *Address) { a.Luck++ },
	}
	for name, move := range neighbours {
		t.Run(name, func(t *testing.T) {
			var counts [4]float64
			for n := range uint64(draws) {
				here := Address{Luck: 5, Track: 1, Purpose: Sound, N: n * 2}
				there := here
				move(&there)
				outcome := 0
				if Happens(here, 50) {
					outcome++
				}
				if Happens(there, 50) {
					outcome += 2
				}
				counts[outcome]++
			}
			chiSquare := 0.0
			for _, count := range counts {
				chiSquare += (count - draws/4) * (count - draws/4) / (draws / 4)
			}
			require.Less(t, chiSquare, limit)
		})
	}
}

func BenchmarkDraw(b *testing.B) {
	var sum uint32
	for n := range uint64(b.N) {
		sum += Draw(Address{Luck: 1, Track: 1, N: n})
	}
	sink = sum
}

var sink uint32
