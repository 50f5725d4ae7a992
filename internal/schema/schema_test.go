package schema_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/schema"
)

func compile(t *testing.T, text []byte) *jsonschema.Schema {
	t.Helper()
	document, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	require.NoError(t, err)
	compiler := jsonschema.NewCompiler()
	require.NoError(t, compiler.AddResource("file.json", document))
	compiled, err := compiler.Compile("file.json")
	require.NoError(t, err)
	return compiled
}

func validate(t require.TestingT, s *jsonschema.Schema, data []byte) error {
	instance, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
	require.NoError(t, err)
	return s.Validate(instance)
}

// Every project that the program writes satisfies the published schema, by an independent validator.
func TestEveryProjectSatisfiesTheSchema(t *testing.T) {
	text, err := schema.ProjectFile()
	require.NoError(t, err)
	compiled := compile(t, text)
	rapid.Check(t, func(t *rapid.T) {
		data, err := score.Encode(testkit.Project(t))
		require.NoError(t, err)
		require.NoError(t, validate(t, compiled, data))
	})
}

// What the schema refuses, the program refuses too.
func TestTheSchemaAndTheProgramRefuseTheSame(t *testing.T) {
	text, err := schema.ProjectFile()
	require.NoError(t, err)
	compiled := compile(t, text)
	good, err := score.Encode(testkit.Buoy())
	require.NoError(t, err)
	for _, c := range []struct{ old, new string }{
		{`"version":1`, `"version":2`},
		{`"tempo":96000`, `"tempo":9999`},
		{`"tempo":96000`, `"tempo":"96"`},
		{`"beats":4`, `"beats":17`},
		{`"unit":4`, `"unit":3`},
		{`"root":2`, `"root":1024`},
		{`"dorian"`, `"foggy"`},
		{`"number":48213`, `"number":1000000`},
		{`"channel":1`, `"channel":17`},
		{`"length":11`, `"length":65`},
		{`"rate":"1/8"`, `"rate":"1/5"`},
		{`"order":"backward"`, `"order":"sideways"`},
		{`"steps":[0,`, `"steps":[`},
		{`"kind":"melodic"`, `"kind":"choir"`},
		{`"moves":"clock"`, `"moves":"tide"`},
		{`"spacing":"even"`, `"spacing":"odd"`},
		{`"name":"Night opening"`, `"name":""`},
		{`"mute":false`, `"mute":false,"fog":1`},
	} {
		bad := []byte(strings.Replace(string(good), c.old, c.new, 1))
		require.NotEqual(t, good, bad, c.old)
		require.Error(t, validate(t, compiled, bad), c.new)
		_, err := score.Decode(bad)
		require.Error(t, err, c.new)
	}
}

func TestTheWireSchemaIsASchema(t *testing.T) {
	text, err := schema.Wire()
	require.NoError(t, err)
	compile(t, text)
	var document struct {
		Defs map[string]any `json:"$defs"`
	}
	require.NoError(t, json.Unmarshal(text, &document))
	for _, name := range []string{"Message", "ProjectState", "Status", "EditRequest", "Chart", "Lists"} {
		require.Contains(t, document.Defs, name)
	}
}
