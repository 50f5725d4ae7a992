package score_test

import (
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// patched applies differences to a document as a page does.
func patched(t require.TestingT, document any, differences []score.Difference) any {
	data, err := json.Marshal(differences)
	require.NoError(t, err)
	var list []struct {
		Op    string
		Path  []any
		Value any
	}
	require.NoError(t, json.Unmarshal(data, &list))
	var put func(at any, path []any, op string, value any) any
	put = func(at any, path []any, op string, value any) any {
		if len(path) == 0 {
			return value
		}
		switch at := at.(type) {
		case map[string]any:
			if key := path[0].(string); op == "remove" && len(path) == 1 {
				delete(at, key)
			} else {
				at[key] = put(at[key], path[1:], op, value)
			}
			return at
		case []any:
			i := int(path[0].(float64))
			switch {
			case len(path) > 1 || op == "replace":
				at[i] = put(at[i], path[1:], op, value)
				return at
			case op == "add":
				return slices.Insert(at, i, value)
			}
			return slices.Delete(at, i, i+1)
		}
		require.Fail(t, "no place", "%v in %v", path, at)
		return nil
	}
	for _, d := range list {
		document = put(document, d.Path, d.Op, d.Value)
	}
	return document
}

func generic(t require.TestingT, p *score.Project) (document any) {
	data, err := json.Marshal(p)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(data, &document))
	return document
}

// What leads from a project to the one after an edit does so, and back.
func TestDifferencesLeadFromAProjectToAnother(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		before := testkit.Project(t)
		after, _, err := score.Apply(before, testkit.Edit(t, before))
		require.NoError(t, err)
		require.Equal(t, generic(t, after), patched(t, generic(t, before), score.Differences(before, after)))
		require.Equal(t, generic(t, before), patched(t, generic(t, after), score.Differences(after, before)))
		require.Empty(t, score.Differences(after, after.Clone()))
	})
}

// The change of one step is told by one lane's steps.
func TestDifferencesAreSmall(t *testing.T) {
	before := testkit.Buoy()
	after := apply(t, before, score.SetSteps{
		LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Velocity}, Steps: []score.StepValue{{Step: 3, Value: 99}},
	})
	found := score.Differences(before, after)
	require.Len(t, found, 1)
	require.Equal(t, []any{"tracks", 0, "patterns", 0, "parts", 0, "lanes", "velocity", "steps"}, found[0].Path)
	data, err := json.Marshal(found)
	require.NoError(t, err)
	require.Less(t, len(data), 500)
}
