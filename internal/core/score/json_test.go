package score_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

func TestAProjectSurvivesItsFile(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		require.NoError(t, p.Validate())
		data, err := score.Encode(p)
		require.NoError(t, err)
		decoded, err := score.Decode(data)
		require.NoError(t, err)
		require.Equal(t, p, decoded)
	})
}

func TestBadFilesAreRefusedWithASentence(t *testing.T) {
	good, err := score.Encode(testkit.Buoy())
	require.NoError(t, err)
	for _, c := range []struct{ name, old, new, want string }{
		{"not JSON", string(good), "MThd", "this is not valid JSON: invalid character 'M'"},
		{"empty", string(good), "", "this is not valid JSON: it ends too early"},
		{"cut short", "]}}}]}]}]}}", "", "this is not valid JSON: it ends too early"},
		{"foreign", "jettyfog project", "something", `its format is "something"`},
		{"of the future", `"version":1`, `"version":2`, "has version 2; this program reads version 1"},
		{"unknown field", `"tempo":`, `"fog":1,"tempo":`, `unknown field "fog"`},
		{"other capitals", `"tempo":`, `"Tempo":`, `unknown field "Tempo"`},
		{"a field twice", `"tempo":96000`, `"tempo":96000,"tempo":97000`, `the field "project.tempo" comes twice`},
		{"a field twice in a list", `"kind":"melodic"`, `"kind":"melodic","kind":"kit"`, `the field "project.tracks[0].kind" comes twice`},
		{"a number that is too large", `"tempo":96000`, `"tempo":1e400`, "project.tempo holds a JSON number 1e400; it must be a whole number"},
		{"wrong type", `"tempo":96000`, `"tempo":"fast"`, "project.tempo holds a JSON string"},
		{"a fraction", `"tempo":96000`, `"tempo":96000.5`, "project.tempo holds a JSON number 96000.5"},
		{"too few steps", `"steps":[1,0,`, `"steps":[`, "the number of tracks[0].patterns[0].parts[0].lanes.gate.steps is 62"},
		{"two documents", "\n", "{}", "invalid character '{' after top-level value"},
	} {
		t.Run(c.name, func(t *testing.T) {
			bad := strings.Replace(string(good), c.old, c.new, 1)
			require.NotEqual(t, string(good), bad)
			_, err := score.Decode([]byte(bad))
			require.ErrorContains(t, err, c.want)
		})
	}
}

// What projects of before had otherwise is converted and said, in a file and in an edit that brings a part of before;
// asking for it anew is refused.
func TestProjectsOfBefore(t *testing.T) {
	p := testkit.Buoy()
	lane := p.Tracks[0].Patterns[0].Parts[0].Lanes.Probability
	lane.Linked, lane.Moves = false, score.ByHit
	data, err := score.Encode(p)
	require.NoError(t, err)
	now, remarks, err := score.DecodeOld(data)
	require.NoError(t, err)
	require.Equal(t, []string{"a probability lane that moved by hits moves by steps now, because probability decides whether there is a hit"}, remarks)
	require.Equal(t, score.ByStep, now.Tracks[0].Patterns[0].Parts[0].Lanes.Probability.Moves)
	data, err = score.Encode(now)
	require.NoError(t, err)
	_, remarks, err = score.DecodeOld(data)
	require.NoError(t, err)
	require.Empty(t, remarks)

	restored, _, err := score.Apply(testkit.Buoy(), score.Replace{Project: *p})
	require.NoError(t, err)
	require.Equal(t, score.ByStep, restored.Tracks[0].Patterns[0].Parts[0].Lanes.Probability.Moves)
	hit := score.ByHit
	_, _, err = score.Apply(testkit.Buoy(), score.SetLane{LaneAddress: score.LaneAddress{PartAddress: score.PartAddress{Track: 1}, Lane: score.Probability}, Moves: &hit})
	require.ErrorContains(t, err, "probability.moves is \"hit\"; it must be one of clock, step")
}

// Swing was counted in whole percents and bent pairs of each track's own steps: such files sound as they did.
func TestOldSwingIsThatOfEachTracksOwnSteps(t *testing.T) {
	file, err := score.Encode(testkit.Demo())
	require.NoError(t, err)
	old := bytes.Replace(file, []byte(`"swing":500,"swingGrid":"1/16"`), []byte(`"swing":58`), 1)
	old = bytes.Replace(old, []byte(`"swing":0`), []byte(`"swing":66`), 1)
	old = bytes.Replace(old, []byte(`"swing":0`), []byte(`"swing":50`), 1)
	p, remarks, err := score.DecodeOld(old)
	require.NoError(t, err)
	require.Equal(t, []string{"its tracks swing by their own steps, as they did; each can swing on the grid of the project instead"}, remarks)
	require.Equal(t, 580, p.Swing)
	require.Equal(t, score.NoteValue("1/16"), p.SwingGrid)
	require.Equal(t, []int{660, 500, 0}, []int{p.Tracks[0].Swing, p.Tracks[1].Swing, p.Tracks[2].Swing})
	require.Equal(t, []bool{true, false, true}, []bool{p.Tracks[0].SwingOwnSteps, p.Tracks[1].SwingOwnSteps, p.Tracks[2].SwingOwnSteps})

	straight := bytes.Replace(file, []byte(`"swing":500,"swingGrid":"1/16"`), []byte(`"swing":50`), 1)
	p, remarks, err = score.DecodeOld(straight)
	require.NoError(t, err)
	require.Empty(t, remarks)
	require.Equal(t, testkit.Demo(), p)
}

func TestAnEditMustHoldOneChange(t *testing.T) {
	for _, c := range []struct{ data, want string }{
		{`{}`, "exactly one change, not 0"},
		{`{"backLuck":{},"changeLuck":{"number":1}}`, "exactly one change, not 2"},
		{`{"paintItBlack":{}}`, `unknown field "paintItBlack"`},
		{`{"changeLuck":{"number":"seven"}}`, "changeLuck.number holds a JSON string"},
		{`[]`, "the document holds a JSON array"},
		{``, "ends too early"},
		{`{"backLuck":{}} {}`, "after top-level value"},
	} {
		_, err := score.DecodeEdit([]byte(c.data))
		require.ErrorContains(t, err, c.want, c.data)
	}
}

func FuzzDecode(f *testing.F) {
	for _, p := range []*score.Project{testkit.Buoy(), score.Blank()} {
		data, err := score.Encode(p)
		require.NoError(f, err)
		f.Add(data)
	}
	f.Add([]byte(`{"format":"jettyfog project","version":1}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := score.Decode(data)
		if err != nil {
			return
		}
		again, err := score.Encode(p)
		require.NoError(t, err)
		twice, err := score.Decode(again)
		require.NoError(t, err)
		require.Equal(t, p.Clone(), twice.Clone())
	})
}

// Written again after each edit, faster, a project is the same file.
func TestAnEncoderWritesTheSameFiles(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var encoder score.Encoder
		p := testkit.Project(t)
		for range rapid.IntRange(1, 5).Draw(t, "edits") {
			want, err := score.Encode(p)
			require.NoError(t, err)
			got, err := encoder.Encode(p)
			require.NoError(t, err)
			require.JSONEq(t, string(want), string(got.File()))
			p, _, err = score.Apply(p, testkit.Edit(t, p))
			require.NoError(t, err)
		}
	})
}

// An edit shares the tracks that it does not change, and leaves the project before it as it was.
func TestEditsShareWhatTheyDoNotChange(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		before := p.Clone()
		edit := testkit.Edit(t, p)
		after, inverse, err := score.Apply(p, edit)
		require.NoError(t, err)
		require.Equal(t, before, p)
		_, _, err = score.Apply(after, inverse)
		require.NoError(t, err)
		require.Equal(t, before, p)
	})
	p := apply(t, testkit.Buoy(), score.AddTrack{At: 1, Kind: score.Melodic})
	after := apply(t, p, score.SetTrack{Track: 2, Mute: ptr(true)})
	require.Same(t, &p.Tracks[0].Patterns[0], &after.Tracks[0].Patterns[0])
	require.NotSame(t, &p.Tracks[1].Patterns[0], &after.Tracks[1].Patterns[0])
}

// A project is known again by its digest, in whatever order and with whatever spaces its JSON was written.
func TestDigest(t *testing.T) {
	p := testkit.Demo()
	digest, err := score.Digest(p)
	require.NoError(t, err)
	var loose map[string]any
	data, err := json.MarshalIndent(p, "", "  ")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(data, &loose))
	ordered, err := json.Marshal(loose) // by names
	require.NoError(t, err)
	var again score.Project
	require.NoError(t, json.Unmarshal(ordered, &again))
	other, err := score.Digest(&again)
	require.NoError(t, err)
	require.Equal(t, digest, other)
	again.Tracks[0].Parts()[0].Lanes.Gate.Steps[63]++
	other, err = score.Digest(&again)
	require.NoError(t, err)
	require.NotEqual(t, digest, other)
}

// A file of before has a range of held steps.
func TestHeldRangesOfBefore(t *testing.T) {
	for form, want := range map[string]score.HeldSteps{
		`{"first":3,"length":2}`: {3, 4}, `{"first":0,"length":0}`: nil, `{"first":63,"length":1}`: {63}, `[1,5]`: {1, 5},
	} {
		var held score.HeldSteps
		require.NoError(t, json.Unmarshal([]byte(form), &held))
		require.Equal(t, want, held, form)
	}
	require.Error(t, json.Unmarshal([]byte(`"all"`), new(score.HeldSteps)))
}
