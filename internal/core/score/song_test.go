package score_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// edited applies an edit, and requires that its inverse leads back.
func edited(t *testing.T, p *score.Project, edit score.Edit) *score.Project {
	t.Helper()
	next, inverse, err := score.Apply(p, edit)
	require.NoError(t, err)
	require.NotEmpty(t, edit.Label())
	back, again, err := score.Apply(next, inverse)
	require.NoError(t, err)
	require.Equal(t, p, back)
	redone, _, err := score.Apply(back, again)
	require.NoError(t, err)
	require.Equal(t, next, redone)
	return next
}

func placeAt(place int) *int { return &place }

// Scenes and sections are added, changed, moved and taken away; their ids stay, and a new one gets one above all others.
func TestScenesAndSectionsAreEdited(t *testing.T) {
	p := testkit.Buoy()
	for _, name := range []string{"Ebb", "Flood", "Slack"} {
		p = edited(t, p, score.SetScene{Scene: score.Scene{Name: name, Values: []score.SceneValue{}}})
		p = edited(t, p, score.SetSection{Section: score.Section{Name: name, Bars: 4, Repeats: 1}})
	}
	named := func(p *score.Project) (names string) {
		for i := range p.Song {
			names += fmt.Sprintf("%s%d ", p.Song[i].Name, p.Song[i].ID)
		}
		for i := range p.Scenes {
			names += fmt.Sprintf("%s%d ", p.Scenes[i].Name, p.Scenes[i].ID)
		}
		return names
	}
	require.Equal(t, "Ebb1 Flood2 Slack3 Ebb1 Flood2 Slack3 ", named(p))
	p = edited(t, p, score.SetSection{At: placeAt(0), Section: p.Song[2]})
	p = edited(t, p, score.SetScene{At: placeAt(2), Scene: p.Scenes[0]})
	require.Equal(t, "Slack3 Ebb1 Flood2 Flood2 Slack3 Ebb1 ", named(p))
	changed := p.Song[1]
	changed.Name, changed.Scene = "Neap", 2
	p = edited(t, p, score.SetSection{Section: changed})
	p = edited(t, p, score.RemoveScene{Scene: 2})
	p = edited(t, p, score.RemoveSection{Section: 3})
	require.Equal(t, "Neap1 Flood2 Slack3 Ebb1 ", named(p))
	require.Equal(t, 2, p.Song[0].Scene, "it waits for its scene to come back")
	p = edited(t, p, score.SetSection{Section: score.Section{Name: "Spring", Bars: 1, Repeats: 1}})
	require.Equal(t, 3, p.Song[2].ID)
	p = edited(t, p, score.RemoveSection{Section: 1})
	p = edited(t, p, score.RemoveSection{Section: 2})
	p = edited(t, p, score.RemoveSection{Section: 3})
	require.Nil(t, p.Song)

	p = testkit.Buoy()
	p = edited(t, p, score.SetPattern{Track: 1, After: &score.Chain{Passes: 2, To: score.ToNext}})
	p = edited(t, p, score.SetPattern{Track: 1, After: &score.Chain{Passes: 3, To: score.ToSilence}})
	p = edited(t, p, score.SetPattern{Track: 1, Ends: true})
	require.Nil(t, p.Tracks[0].Patterns[0].After)
}

// What cannot be is refused with one sentence that says what, and nothing is changed.
func TestWhichSectionsAreRefused(t *testing.T) {
	p := score.Demo()
	section := func(change func(*score.Section)) score.Edit {
		s := score.Section{ID: 1, Name: "Ebb", Bars: 4, Repeats: 1}
		change(&s)
		return score.SetSection{Section: s}
	}
	for want, edit := range map[string]score.Edit{
		"song[0].bars is 0; it must be 1 to 4096":                     section(func(s *score.Section) { s.Bars = 0 }),
		"song[0].repeats is 65; it must be 0 to 64":                   section(func(s *score.Section) { s.Repeats = 65 }),
		"song[0].tempo is 5 bpm; it must be 10 to 400 bpm":            section(func(s *score.Section) { s.Tempo = tempo(5_000) }),
		"song[0].meter.beats is 17; it must be 1 to 16":               section(func(s *score.Section) { s.Meter = &score.Meter{Beats: 17, Unit: 4} }),
		`song[0].name is ""`:                                          section(func(s *score.Section) { s.Name = "" }),
		"section 99: there is no such section":                        score.RemoveSection{Section: 99},
		"scene 99: there is no such scene":                            score.RemoveScene{Scene: 99},
		"at is 9; it must be 0 to 6":                                  score.SetSection{At: placeAt(9), Section: p.Song[0]},
		`scenes[7].values[0].control.lane is "tide"`:                  score.SetScene{Scene: score.Scene{Name: "Ebb", Values: []score.SceneValue{{Control: score.ControlAddress{Name: "length", Track: 1, Lane: "tide"}}}}},
		"a list whose weights sum to 0; it must be one with":          score.SetPattern{Track: 1, After: &score.Chain{Passes: 1, To: score.ToDrawn}},
		"patterns[0].after.passes is 0; it must be 1 to 64":           score.SetPattern{Track: 1, After: &score.Chain{To: score.ToNext}},
		`tracks[0].patterns[0].after.to is "home"; it must be one of`: score.SetPattern{Track: 1, After: &score.Chain{Passes: 1, To: "home"}},
	} {
		_, _, err := score.Apply(p, edit)
		require.ErrorContains(t, err, want)
	}
	require.Equal(t, score.Demo(), p)
}

func tempo(t score.Tempo) *score.Tempo { return &t }

// The length of the demo's song by hand: 4 + 8 + 8 + 4 + 8 bars, one pass of 4 of the section that waits, and 4.
func TestHowLongASongIs(t *testing.T) {
	p := score.Demo()
	require.Equal(t, int64(40), p.SongBars())
	require.Len(t, p.Song, 7)
	waits := p.Placed(1, 0, true)
	require.Len(t, waits, 6, "what follows a section that waits is not known")
	require.Equal(t, score.Placed{Section: 6, Bar: 32}, waits[5])
	require.Equal(t, score.Placed{Section: 7, Bar: 36, Bars: 4}, p.Placed(1, 0, false)[6])
	require.Equal(t, []score.Placed{{Section: 7, Bar: 10, Bars: 4}}, p.Placed(7, 10, true))
	require.Empty(t, p.Placed(99, 0, true))
	require.Equal(t, 1, p.Released().Song[5].Repeats)
	require.Zero(t, p.Song[5].Repeats)
}
