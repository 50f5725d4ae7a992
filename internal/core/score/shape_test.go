package score_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Every shape goes over each step of a loop exactly once, however long the loop is.
func TestShapesTakeEachStepOnce(t *testing.T) {
	for _, shape := range score.Shapes() {
		for length := 1; length <= score.MaxSteps; length++ {
			path := shape.Path(length)
			require.Len(t, path, length, shape.Name)
			slices.Sort(path)
			for step := range path {
				require.Equal(t, step, path[step], shape.Name)
			}
		}
	}
}

// The shapes of nine steps, laid out in rows as 0 1 2, 3 4 5, 6 7 8, by hand.
func TestShapesOfNineSteps(t *testing.T) {
	want := map[string][]int{
		"columns":                     {0, 3, 6, 1, 4, 7, 2, 5, 8},
		"rows to and fro":             {0, 1, 2, 5, 4, 3, 6, 7, 8},
		"diagonals":                   {0, 1, 3, 2, 4, 6, 5, 7, 8},
		"spiral in":                   {0, 1, 2, 5, 8, 7, 6, 3, 4},
		"spiral out":                  {4, 3, 6, 7, 8, 5, 2, 1, 0},
		"corners first":               {0, 2, 8, 6, 4, 1, 5, 7, 3},
		"every second, then the rest": {0, 2, 4, 6, 8, 1, 3, 5, 7},
		"knight's moves":              {0, 5, 6, 1, 8, 3, 2, 7, 4}, // no knight reaches the middle of three by three
	}
	require.Len(t, score.Shapes(), len(want))
	for _, shape := range score.Shapes() {
		require.Equal(t, want[shape.Name], shape.Path(9), shape.Name)
	}
	knight := score.Shapes()[7].Path(64)
	for i := 1; i < len(knight); i++ {
		rows, columns := knight[i]/8-knight[i-1]/8, knight[i]%8-knight[i-1]%8
		require.Equal(t, 5, rows*rows+columns*columns, "a knight's tour of a chessboard, known to exist")
	}
}

// A shape is taken for the length that the lane has then, and undone like any edit.
func TestALaneTakesAShape(t *testing.T) {
	before := testkit.Buoy()
	after, undo, err := score.Apply(before, score.SetLane{LaneAddress: at(score.Pitch), Length: ptr(9), Shape: ptr("columns")})
	require.NoError(t, err)
	pitch := after.Tracks[0].Parts()[0].Lanes.Pitch
	require.Equal(t, score.Path, pitch.Order)
	require.Equal(t, []int{0, 3, 6, 1, 4, 7, 2, 5, 8}, pitch.Path)
	require.Equal(t, before, apply(t, after, undo))
}
