package score_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

func TestConditionsAreSentences(t *testing.T) {
	for _, c := range []struct {
		condition score.Condition
		want      []score.Term
		or        bool
	}{
		{"", nil, false},
		{"pass 3 of 4", []score.Term{{First: 3, Last: 3, Of: 4}}, false},
		{"not pass 1 to 3 of 64", []score.Term{{Not: true, First: 1, Last: 3, Of: 64}}, false},
		{"pass 1 to 9999", []score.Term{{First: 1, Last: 9999}}, false},
		{"pass from 5 and not filling", []score.Term{{First: 5}, {Kind: score.FillingTerm, Not: true}}, false},
		{"sounded or track 12 sounded or track 2147483647 over 0 notes", []score.Term{
			{Kind: score.SoundedTerm}, {Kind: score.TrackSoundedTerm, Track: 12}, {Kind: score.OverNotesTerm, Track: 2147483647},
		}, true},
		{"section 3 on or not scene 1000000 on", []score.Term{{Kind: score.SectionTerm, ID: 3}, {Kind: score.SceneTerm, ID: 1_000_000, Not: true}}, true},
		{"track 1 under 999 notes", []score.Term{{Kind: score.UnderNotesTerm, Track: 1, Notes: 999}}, false},
	} {
		terms, or, ok := c.condition.Terms()
		require.True(t, ok, c.condition)
		require.Equal(t, c.want, terms, c.condition)
		require.Equal(t, c.or, or, c.condition)
	}
	for _, wrong := range []score.Condition{
		"always", "pass", "pass 0 of 4", "pass 5 of 4", "pass 1 of 65", "pass 3 to 2", "pass 1 to 10000", "pass 1 to 5 of 4", "pass 0 to 1 of 4", "pass from 0",
		"pass 03 of 4", "pass +3 of 4", "track 0 sounded", "track 1", "track 1 over 1000 notes", "track 1 over -1 notes", "not", "not not filling", "section 0 on", "section on", "scene 1", "scene 1000001 on",
		"filling and", " filling", "filling  and sounded", "filling and sounded or sounded", "filling and filling and filling and filling",
	} {
		_, _, ok := wrong.Terms()
		require.False(t, ok, wrong)
	}
}

// Conditions of before are read as sentences that say the same.
func TestOldConditionsAreRead(t *testing.T) {
	for old, want := range map[string]score.Condition{
		"": "", "first": "pass 1 to 1", "not first": "pass from 2", "fill": "filling", "after sound": "sounded", "after silence": "not sounded",
		"3:4": "pass 3 of 4", "track 2": "track 2 sounded", "x:4": "x:4",
	} {
		var detail score.StepDetail
		require.NoError(t, score.DecodeJSON([]byte(`{"condition":"`+old+`"}`), &detail))
		require.Equal(t, want, detail.Condition)
		var plain score.StepDetail
		require.NoError(t, json.Unmarshal([]byte(`{"condition":"`+old+`"}`), &plain))
		require.Equal(t, want, plain.Condition)
	}
}

// A track that goes takes the terms about it with it; the others stay, and undo brings all back.
func TestARemovedTrackLeavesTheOtherTerms(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Demo()
		drawn := testkit.Condition(t, []int{1, 2, 3})
		p.Tracks[0].Parts()[0].Details = map[int]score.StepDetail{2: {Condition: drawn}}
		next, undo, err := score.Apply(p, score.RemoveTrack{Track: 2})
		require.NoError(t, err)
		left := next.Tracks[0].Parts()[0].Details[2].Condition
		require.False(t, left.About(2))
		before, or, _ := drawn.Terms()
		after, orNow, ok := left.Terms()
		require.True(t, ok)
		var want []score.Term
		for _, term := range before {
			if term.Track != 2 {
				want = append(want, term)
			}
		}
		require.Equal(t, want, after)
		require.True(t, or == orNow || len(after) < 2)
		require.Equal(t, strings.Contains(string(drawn), "track 2 "), drawn.About(2))
		back, _, err := score.Apply(next, undo)
		require.NoError(t, err)
		require.Equal(t, p, back)
	})
}

// What becomes of each length of a stretched step, and how a word said it before.
func TestTheLengthsOfAStretchedStep(t *testing.T) {
	for _, c := range []struct {
		json    string
		lengths string
		want    []int
	}{
		{`{}`, "", []int{1}},
		{`{"stretch":3}`, "", []int{1, 0, 0}},
		{`{"stretch":3,"strike":"once"}`, "", []int{1, 0, 0}},
		{`{"stretch":3,"strike":"each"}`, "111", []int{1, 1, 1}},
		{`{"stretch":4,"strike":"sustain"}`, "1222", []int{1, 2, 2, 2}},
		{`{"strike":"each"}`, "", []int{1}},
		{`{"stretch":6,"lengths":"012021"}`, "012021", []int{0, 1, 2, 0, 0, 1}},
	} {
		var detail score.StepDetail
		require.NoError(t, score.DecodeJSON([]byte(c.json), &detail), c.json)
		require.Equal(t, c.lengths, detail.Lengths, c.json)
		require.Equal(t, c.want, detail.Struck(), c.json)
	}
	for json, want := range map[string]string{
		`{"stretch":2,"strike":"x"}`: "it must be once, each or sustain", `{"stretch":2,"more":1}`: "unknown field",
	} {
		var detail score.StepDetail
		require.ErrorContains(t, score.DecodeJSON([]byte(json), &detail), want)
	}
	for _, wrong := range []score.StepDetail{
		{Stretch: 17}, {Stretch: -1}, {Stretch: 3, Lengths: "11"}, {Stretch: 2, Lengths: "00"}, {Stretch: 2, Lengths: "21"}, {Stretch: 2, Lengths: "13"}, {Lengths: "1"},
	} {
		_, _, err := score.Apply(testkit.Demo(), score.SetDetail{PartAddress: score.PartAddress{Track: 1}, Detail: wrong})
		require.ErrorContains(t, err, "it must be", "%+v", wrong)
	}
}
