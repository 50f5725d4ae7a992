package schema_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/schema"
)

// bound is a place in a document where the schema bounds a value.
type bound struct {
	field string          // by definition and property
	set   func(value any) // puts a value there
	wrong []any           // values just beyond
}

// bounds are found by going through a schema and a document that satisfies it, side by side.
type bounds struct {
	definitions map[string]any
	found       []bound
}

func (b *bounds) walk(field string, node, value any, set func(any)) {
	of := node.(map[string]any)
	if ref, is := of["$ref"].(string); is {
		name := strings.TrimPrefix(ref, "#/$defs/")
		b.walk(name, b.definitions[name], value, set)
		return
	}
	var wrong []any
	if least, is := of["minimum"].(float64); is {
		wrong = append(wrong, least-1)
	}
	if most, is := of["maximum"].(float64); is {
		wrong = append(wrong, most+1)
	}
	if most, is := of["maxLength"].(float64); is {
		wrong = append(wrong, strings.Repeat("x", int(most)+1))
	}
	if list, is := value.([]any); is && len(list) > 0 {
		if most, is := of["maxItems"].(float64); is {
			wrong = append(wrong, slices.Repeat(list[:1], int(most)+1))
		}
		if least, is := of["minItems"].(float64); is {
			wrong = append(wrong, list[:int(least)-1])
		}
		b.walk(field+"[]", of["items"], list[0], func(v any) { list[0] = v })
	}
	if len(wrong) > 0 {
		b.found = append(b.found, bound{field, set, wrong})
	}
	object, is := value.(map[string]any)
	if !is {
		return
	}
	properties, _ := of["properties"].(map[string]any)
	for name, property := range properties {
		b.walk(field+"."+name, property, object[name], func(v any) { object[name] = v })
	}
	if each, is := of["additionalProperties"].(map[string]any); is {
		for name, inner := range object {
			b.walk(field+"{}", each, inner, func(v any) { object[name] = v })
		}
	}
}

// Whatever the schema bounds, the program refuses just beyond: each number below its least and above its most, each
// list and text that is too long.
func TestEveryFieldIsBounded(t *testing.T) {
	text, err := schema.ProjectFile()
	require.NoError(t, err)
	var document map[string]any
	require.NoError(t, json.Unmarshal(text, &document))
	definitions := document["$defs"].(map[string]any)
	projects := rapid.Custom(func(t *rapid.T) *score.Project { return testkit.Project(t) })
	tried := map[string]bool{}
	for seed := range 60 {
		data, err := score.Encode(projects.Example(seed))
		require.NoError(t, err)
		var value any
		require.NoError(t, json.Unmarshal(data, &value))
		original := string(data)
		b := bounds{definitions: definitions}
		b.walk("File", document, value, nil)
		for _, place := range b.found {
			if tried[place.field] {
				continue
			}
			tried[place.field] = true
			for _, wrong := range place.wrong {
				require.NoError(t, json.Unmarshal([]byte(original), &value))
				again := bounds{definitions: definitions}
				again.walk("File", document, value, nil)
				at := slices.IndexFunc(again.found, func(other bound) bool { return other.field == place.field })
				again.found[at].set(wrong)
				bad, err := json.Marshal(value)
				require.NoError(t, err)
				_, err = score.Decode(bad)
				require.Error(t, err, "%s of %.40v", place.field, fmt.Sprint(wrong))
			}
		}
	}
	require.Greater(t, len(tried), 100, "%v", tried)
}
