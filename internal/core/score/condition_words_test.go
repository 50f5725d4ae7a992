package score_test

import (
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

func TestConditionsInWords(t *testing.T) {
	p := testkit.Buoy()
	p.Song = []score.Section{{ID: 1, Name: "Rising tide", Bars: 1, Repeats: 1}}
	p.Scenes = []score.Scene{{ID: 2, Name: "Slack water"}}
	for _, c := range []struct {
		condition   score.Condition
		words, mark string
	}{
		{"", "always", ""},
		{"pass 3 of 4", "on the 3rd of every 4 passes", "3 of 4"},
		{"not pass 1 to 2 of 4", "not on the 1st to the 2nd of every 4 passes", "¬1–2 of 4"},
		{"pass 11 to 11", "on the 11th pass", "11"},
		{"not pass 2 to 21", "not on passes 2 to 21", "¬2–21"},
		{"pass from 22 and not filling", "from the 22nd pass on, and not while filling", "if …"},
		{"pass from 113", "from the 113th pass on", "113+"},
		{"not filling", "not while filling", "¬fill"},
		{"sounded", "if its last step on sounded", "if ●"},
		{"not sounded", "if its last step on was silent", "if ○"},
		{"track 1 sounded or filling", "if Bell buoy sounded last, or while filling", "if …"},
		{"not track 1 sounded", "if Bell buoy was silent last", "if T"},
		{"track 1 under 3 notes", "if Bell buoy had fewer than 3 notes in the last bar", "if T"},
		{"not track 1 under 3 notes", "if Bell buoy had 3 notes or more in the last bar", "if T"},
		{"section 1 on", "while the section Rising tide is on", "song"},
		{"not scene 2 on", "not while the scene Slack water is on", "¬song"},
		{"section 9 on", "while a section that is gone is on", "song"},
		{"scene 9 on", "while a scene that is gone is on", "song"},
		{"track 7 over 0 notes", "if a track had more than 0 notes in the last bar", "if T"},
		{"not track 7 over 1 notes", "if a track had at most 1 note in the last bar", "if T"},
	} {
		require.Equal(t, c.words, c.condition.Words(p), c.condition)
		require.Equal(t, c.mark, c.condition.Mark(), c.condition)
	}
}

// Every form of the table is a condition with its usual numbers, and with the least and the most of each.
func TestFormsOfTermsAreConditions(t *testing.T) {
	for _, spec := range score.TermSpecs() {
		require.Equal(t, strings.Count(spec.Form, "#"), len(spec.Numbers), spec.Form)
		for _, numbers := range [][]int{spec.Usual, bound(spec, func(n score.TermNumber) int { return n.Min }), bound(spec, func(n score.TermNumber) int { return n.Max })} {
			term := strings.Replace(spec.Form, "@", "1", 1)
			for _, n := range numbers {
				term = strings.Replace(term, "#", strconv.Itoa(n), 1)
			}
			_, _, ok := score.Condition(term).Terms()
			require.True(t, ok, term)
		}
	}
}

func bound(spec score.TermSpec, of func(score.TermNumber) int) (numbers []int) {
	for _, n := range spec.Numbers {
		numbers = append(numbers, of(n))
	}
	return numbers
}
