package theory

import (
	"encoding/json"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/require"
)

// The reference is npm's tonal, a general music theory library: its scales by name, each with its chroma,
// a string of twelve digits that says which semitones above the root belong to it.
const listReferenceScales = `
import { ScaleType } from "tonal";
const scales = {};
for (const scale of ScaleType.all()) for (const name of [scale.name, ...scale.aliases]) scales[name] = scale.chroma;
process.stdout.write(JSON.stringify(scales));`

// sameScale gives the reference's name for scales that it knows under another one.
var sameScale = map[string]string{
	"melodic minor":    "melodic minor",
	"neapolitan":       "neopolitan",
	"neapolitan major": "neopolitan major",
	"blues":            "minor blues",
}

// Every scale that the reference has too has the same notes there.
func TestScalesMatchTheReference(t *testing.T) {
	command := exec.Command("node", "--input-type=module", "--eval", listReferenceScales)
	command.Dir = "../../../web" // where npm has installed it
	output, err := command.Output()
	require.NoError(t, err, "`make unit` installs the npm packages first")
	var reference map[string]string
	require.NoError(t, json.Unmarshal(output, &reference))
	require.Greater(t, len(reference), 80)

	compared := 0
	for _, scale := range scales {
		name := scale.Name
		if other, ok := sameScale[name]; ok {
			name = other
		}
		chroma, ok := reference[name]
		if !ok {
			t.Logf("the reference has no %q", scale.Name)
			continue
		}
		own := []byte("000000000000")
		for _, semitone := range scale.Semitones {
			own[semitone] = '1'
		}
		require.Equal(t, chroma, string(own), scale.Name)
		compared++
	}
	require.GreaterOrEqual(t, compared, 40)
}
