package theory_test

import (
	"encoding/json"
	"os/exec"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/theory"
)

// The reference is npm's tonal: what notes a kind of chord has, by their intervals, and which roots it finds in notes.
const listReferenceChords = `
import { Chord, Interval, Note } from "tonal";
const chords = {};
for (const name of process.argv.slice(2)) {
  const intervals = Chord.get("C" + name).intervals;
  const notes = intervals.map((interval) => Note.transpose("C", interval));
  const detected = notes.map((_, i) => [...notes.slice(i), ...notes.slice(0, i)]).map((turned) =>
    Chord.detect(turned).map((found) => Note.chroma(Chord.get(found.split("/")[0]).tonic)));
  const spelled = JSON.parse(process.argv[1]).map((root) => intervals.map((interval) => Note.transpose(root + "3", interval)).map((name) => ({ name, key: Note.midi(name) })));
  chords[name] = { spelled, semitones: intervals.map((i) => Interval.semitones(i) % 12), numbers: intervals.map((i) => Interval.num(i)), detected };
}
process.stdout.write(JSON.stringify(chords));`

// referenceNames gives the reference's name for chords that it knows under another one.
var referenceNames = map[string]string{"": "M", "m/maj7": "mMaj7", "add9": "Madd9", "m(add9)": "madd9"}

// Each kind of chord has the notes that the reference has and spells them so, a note's role is that of its interval there, and the root that is found in each inversion is one of those
// that the reference finds.
func TestChordsMatchTheReference(t *testing.T) {
	names := map[string]string{}
	roots, err := json.Marshal(theory.RootNames())
	require.NoError(t, err)
	ascii, pretty := strings.NewReplacer("♯", "#", "♭", "b"), strings.NewReplacer("#", "♯", "b", "♭")
	arguments := []string{"--input-type=module", "--eval", listReferenceChords, "--", ascii.Replace(string(roots))}
	for _, quality := range theory.Qualities() {
		name, other := referenceNames[quality.Name]
		if !other {
			name = quality.Name
		}
		names[quality.Name] = name
		arguments = append(arguments, name)
	}
	command := exec.Command("node", arguments...)
	command.Dir = "../../../web" // where npm has installed it
	out, err := command.Output()
	require.NoError(t, err)
	var reference map[string]struct {
		Semitones, Numbers []int
		Detected           [][]int
		Spelled            [][]struct {
			Name string
			Key  int
		}
	}
	require.NoError(t, json.Unmarshal(out, &reference))
	roles := map[int]theory.Role{1: theory.RootRole, 3: theory.ThirdRole, 5: theory.FifthRole, 7: theory.SeventhRole}
	for _, quality := range theory.Qualities() {
		want := reference[names[quality.Name]]
		require.ElementsMatch(t, want.Semitones, quality.Semitones, quality.Name)
		for root := 48; root < 60; root++ {
			var keys []int
			for _, semitone := range want.Semitones {
				keys = append(keys, root+semitone)
			}
			chord := theory.ChordOf(keys)
			require.True(t, chord.Known)
			require.Equal(t, root%12, chord.Root, quality.Name)
			for i, number := range want.Numbers {
				role, known := roles[number]
				if !known {
					role = theory.OtherRole
				}
				require.Equal(t, role, chord.RoleOf(keys[i]), "%s: %d", chord.Name(), keys[i])
			}
			for _, note := range want.Spelled[root%12] {
				if !strings.Contains(note.Name, "bb") && !strings.Contains(note.Name, "##") { // no double accidentals here
					require.Equal(t, pretty.Replace(note.Name), chord.NoteName(note.Key), chord.Name())
				}
			}
			for turned, found := range want.Detected {
				inverted := slices.Clone(keys)
				for i := range turned {
					inverted[i] += 24
				}
				if len(found) > 0 {
					require.Contains(t, found, (theory.ChordOf(inverted).Root-root+120)%12, "%s, inverted %d times", quality.Name, turned)
				}
			}
		}
	}
}

func TestNamesOfChords(t *testing.T) {
	for name, keys := range map[string][]int{
		"C": {60, 64, 67}, "C/E": {64, 67, 72}, "Am7": {57, 60, 64, 67}, "C6": {60, 64, 67, 69}, "Bdim": {59, 62, 65}, "F♯m7b5/C": {60, 66, 69, 76},
		"G5": {43, 50}, "C?": {60, 61, 62}, "D": {62, 66, 69, 74, 86},
	} {
		require.Equal(t, name, theory.ChordOf(keys).Name())
	}
}

// Of all ways in which each note goes to a voice of its own, whatever the octave, none moves less: tried one by one.
func TestVoicesMoveAsLittleAsTheyCan(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		keys := rapid.SliceOfNDistinct(rapid.IntRange(30, 90), 1, 4, rapid.ID[int])
		from, to := keys.Draw(t, "from"), keys.Draw(t, "to")
		slices.Sort(from)
		away := func(note, key int) int {
			up := ((note-key)%12 + 12) % 12
			return min(up, 12-up)
		}
		var least func(i int, used []bool, stay int) int
		least = func(i int, used []bool, stay int) int {
			if i == len(to) {
				return 0
			}
			best := 1 << 20
			for voice, key := range from {
				if !used[voice] {
					used[voice] = true
					best = min(best, away(to[i], key)+least(i+1, used, stay))
					used[voice] = false
				}
			}
			if stay > 0 {
				best = min(best, least(i+1, used, stay-1))
			}
			return best
		}
		want := least(0, make([]bool, len(from)), max(0, len(to)-len(from)))
		led := theory.Lead(from, to)
		classes := map[int]bool{}
		for _, key := range to {
			classes[key%12] = true
		}
		for _, key := range led {
			require.True(t, classes[key%12])
			require.True(t, key >= 0 && key <= 127)
		}
		if len(led) == len(from) && len(led) == len(to) { // else some stay, or come to one key
			moved := 0
			for i := range led {
				moved += max(led[i]-from[i], from[i]-led[i])
			}
			require.Equal(t, want, moved, "%v to %v is %v", from, to, led)
		}
	})
}

// The lowest note of an inversion is spelled by what it is in the chord. Common practice.
func TestSpelledBasses(t *testing.T) {
	for name, keys := range map[string][]int{
		"A7/C♯": {49, 52, 55, 57}, "E/G♯": {56, 59, 64}, "Dm/F": {53, 57, 62}, "B♭maj7/D": {50, 53, 57, 58}, "E♭/B♭": {58, 63, 67},
		"C7/B♭": {58, 60, 64, 67}, "F♯m/A": {57, 61, 66}, "A♭m/C♭": {59, 63, 68}, "Bdim/D": {50, 53, 59},
	} {
		require.Equal(t, name, theory.ChordOf(keys).Name())
	}
}

// A note that takes a double accidental is named as a root is, and those of a chord without a name by sharps; the letter decides the octave number.
func TestNotesOfChords(t *testing.T) {
	for want, keys := range map[string][]int{
		"G3 B♭3 D4 F4 A4": {55, 58, 62, 65, 69}, "A♭3 C♭4 E♭4": {56, 59, 63}, "E♭4 G♭4 A4 C5": {63, 66, 69, 72}, "C4 C♯4 D4": {60, 61, 62}, "B♭-1 D0 F0": {10, 14, 17},
	} {
		chord, names := theory.ChordOf(keys), []string{}
		for _, key := range keys {
			names = append(names, chord.NoteName(key))
		}
		require.Equal(t, want, strings.Join(names, " "))
	}
}
