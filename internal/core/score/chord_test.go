package score_test

import (
	"encoding/json"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// The reference is npm's tonal, a general music theory library: the semitones of a chord by its name.
const listReferenceChords = `
import { Chord, Interval } from "tonal";
const names = JSON.parse(process.argv[1]);
const chords = {};
for (const name of names) chords[name] = Chord.getChord(name).intervals.map(Interval.semitones);
process.stdout.write(JSON.stringify(chords));`

// Every chord of a fixed quality has the same notes in the reference.
func TestChordsMatchTheReference(t *testing.T) {
	own := map[string][]int{}
	var names []string
	for _, chord := range score.Chords() {
		if len(chord.Semitones) > 0 {
			own[chord.Name] = chord.Semitones
			names = append(names, chord.Name)
		}
	}
	asked, err := json.Marshal(names)
	require.NoError(t, err)
	command := exec.Command("node", "--input-type=module", "--eval", listReferenceChords, string(asked))
	command.Dir = "../../../web" // where npm has installed it
	output, err := command.Output()
	require.NoError(t, err, "`make unit` installs the npm packages first")
	var reference map[string][]int
	require.NoError(t, json.Unmarshal(output, &reference))
	require.GreaterOrEqual(t, len(own), 20)
	require.Equal(t, reference, own)
}

// The maps that ship are valid, and each is unlike the others.
func TestReadyChordMaps(t *testing.T) {
	maps := score.ReadyChordMaps()
	require.Len(t, maps, 12)
	p := testkit.Buoy()
	for i := range maps {
		maps[i].ID = i + 1
		for _, other := range maps[:i] {
			require.NotEqual(t, other.Chords, maps[i].Chords)
		}
	}
	p.ChordMaps = maps
	require.NoError(t, p.Validate())
}
