package score_test

import (
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// A screen finds in the table all that it has to know of a lane.
func TestLanesAreWhollyDescribed(t *testing.T) {
	numbers := map[uint8]bool{}
	for _, spec := range score.LaneSpecs() {
		require.NotEmpty(t, spec.Label, spec.Name)
		require.NotEmpty(t, spec.Help, spec.Name)
		require.NotEmpty(t, spec.Movers, spec.Name)
		require.GreaterOrEqual(t, spec.RollMost, spec.Least, spec.Name)
		require.LessOrEqual(t, spec.RollMost, spec.Most, spec.Name)
		require.False(t, numbers[spec.Number()], spec.Name)
		numbers[spec.Number()] = true
		if spec.Reads == score.AsWords {
			require.Len(t, spec.Words, spec.Most-spec.Least+1, spec.Name)
		}
		require.Contains(t, []score.Reading{score.AsNumber, score.AsSigned, score.AsPercent, score.AsDegree, score.AsLength, score.AsWords}, spec.Reads)
		require.Contains(t, listed("Reads"), string(spec.Reads), "of which the page's types are made")
		require.Contains(t, listed("Marks"), string(spec.Marks))
		var lanes score.Lanes
		lane := lanes.Lane(spec.Name)
		require.Equal(t, spec.Default, lane.Steps[0], spec.Name)
		lanes.Set(spec.Name, lane.Clone())
		require.True(t, lanes.Has(spec.Name), spec.Name)
	}
	require.False(t, (&score.Lanes{}).Has("loudness"))
	require.Nil(t, (&score.Lanes{}).Lane("loudness"))
}

// listed returns the values that the schema allows a field of the specs.
func listed(field string) (values []string) {
	found, _ := reflect.TypeFor[score.LaneSpec]().FieldByName(field)
	for _, tag := range strings.Split(found.Tag.Get("jsonschema"), ",") {
		values = append(values, strings.TrimPrefix(tag, "enum="))
	}
	return values
}

func TestValuesInForce(t *testing.T) {
	require.Nil(t, score.Velocity.Spec().InForce(100))
	require.Nil(t, score.Length.Spec().InForce(50), "the amount of lengths scales time")
	velocities := score.Velocity.Spec().InForce(150)
	require.Len(t, velocities, 127)
	require.Equal(t, []float64{2, 53, 127}, []float64{velocities[0], velocities[35-1], velocities[126]})
	require.Equal(t, 1.0, score.Velocity.Spec().InForce(0)[126])
	probabilities := score.Probability.Spec().InForce(50)
	require.Equal(t, []float64{0, 16.5, 50}, []float64{probabilities[0], probabilities[33], probabilities[100]})
}
