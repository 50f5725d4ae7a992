package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// addSong has patterns lead to others, and draws scenes and a song of short sections; often there are none.
func addSong(t *rapid.T, p *score.Project) {
	for i := range p.Tracks {
		track := &p.Tracks[i]
		for j := range track.Patterns {
			if rapid.IntRange(0, 5).Draw(t, "leads") == 5 {
				track.Patterns[j].After = Chain(t, track)
			}
		}
	}
	if rapid.Bool().Draw(t, "no song") {
		return
	}
	for id := range rapid.IntRange(0, 2).Draw(t, "scenes") {
		p.Scenes = append(p.Scenes, Scene(t, p, id+1))
	}
	for id := range rapid.IntRange(0, 3).Draw(t, "sections") {
		p.Song = append(p.Song, Section(t, id+1))
	}
}

// ofSong draws an edit of scenes, of the song, or of where a pattern leads.
func ofSong(t *rapid.T, p *score.Project, track score.Track) score.Edit {
	pattern := rapid.SampledFrom(track.Patterns).Draw(t, "chained").ID
	edits := []score.Edit{
		score.SetPattern{Track: track.ID, Pattern: pattern, After: Chain(t, &track)}, score.SetPattern{Track: track.ID, Pattern: pattern, Ends: true},
		score.SetScene{Scene: Scene(t, p, rapid.IntRange(0, 3).Draw(t, "scene id"))}, score.SetSection{Section: Section(t, rapid.IntRange(0, 3).Draw(t, "section id"))},
	}
	if len(p.Scenes) > 0 {
		edits = append(edits, score.RemoveScene{Scene: p.Scenes[0].ID})
	}
	if n := len(p.Song); n > 0 {
		edits = append(edits, score.RemoveSection{Section: p.Song[n-1].ID}, score.SetSection{At: given(0), Section: p.Song[n-1]})
	}
	return rapid.SampledFrom(edits).Draw(t, "of the song")
}

// Chain draws where a pattern of a track leads.
func Chain(t *rapid.T, track *score.Track) *score.Chain {
	chain := &score.Chain{Passes: rapid.SampledFrom([]int{1, 1, 2, 3, 64}).Draw(t, "passes"), To: rapid.SampledFrom(score.ChainTargets()).Draw(t, "leads to")}
	switch chain.To {
	case score.ToPattern:
		chain.Pattern = rapid.SampledFrom([]int{0, 1, 2, 255}).Draw(t, "leads to pattern")
	case score.ToDrawn:
		chain.Weights = []score.PatternWeight{{Pattern: 255, Weight: 1}}
		for _, pattern := range track.Patterns {
			chain.Weights = append(chain.Weights, score.PatternWeight{Pattern: pattern.ID, Weight: rapid.IntRange(0, 3).Draw(t, "weight")})
		}
	}
	return chain
}

// Scene draws a scene; some of its values are of what the project does not have.
func Scene(t *rapid.T, p *score.Project, id int) score.Scene {
	scene := score.Scene{ID: id, Name: "Ebb", Values: []score.SceneValue{}}
	for range rapid.IntRange(0, 4).Draw(t, "values") {
		change := Change(t, p)
		if rapid.IntRange(0, 9).Draw(t, "gone") == 9 {
			change.Control.Track = 77
		}
		scene.Values = append(scene.Values, score.SceneValue{Control: score.ControlAddress(change.Control), Value: change.Value})
	}
	return scene
}

// Section draws a section, which may name a scene that there is not.
func Section(t *rapid.T, id int) score.Section {
	section := score.Section{
		ID: id, Name: "Flood", Scene: rapid.IntRange(0, 3).Draw(t, "scene"), Bars: rapid.SampledFrom([]int{1, 1, 2, 3}).Draw(t, "bars"),
		Repeats: rapid.SampledFrom([]int{1, 1, 2, 0}).Draw(t, "repeats"), TakesOver: rapid.Bool().Draw(t, "takes over"),
	}
	if rapid.IntRange(0, 3).Draw(t, "own luck") == 0 {
		section.Luck = given(luck(t))
	}
	if rapid.IntRange(0, 3).Draw(t, "own tempo") == 0 {
		section.Tempo = given(tempo(t))
	}
	if rapid.IntRange(0, 3).Draw(t, "own meter") == 0 {
		section.Meter = given(meter(t))
	}
	if rapid.IntRange(0, 3).Draw(t, "own key") == 0 {
		section.Key = given(Key(t))
	}
	return section
}

// Unsung returns a project without scenes, without a song, and whose patterns lead nowhere.
func Unsung(p *score.Project) *score.Project {
	p = p.Clone()
	p.Scenes, p.Song = nil, nil
	for i := range p.Tracks {
		for j := range p.Tracks[i].Patterns {
			p.Tracks[i].Patterns[j].After = nil
		}
	}
	return p
}

// switches are one of each message, of which some are of what is not there.
var switches = []score.Switch{
	{Message: score.NoteSwitch, Channel: 10, Number: 36, Control: score.ControlAddress{Name: "scene"}, Value: 1, When: "bar"},
	{Message: score.ControlSwitch, Number: 64, Control: score.ControlAddress{Name: "mute", Track: 1}, Value: 1, When: "now"},
	{Message: score.ControlSwitch, Inverted: true, Press: score.LongPress, Number: 67, Control: score.ControlAddress{Name: "keep"}, Do: score.DoKeep, Value: 4, When: "now"},
	{Message: score.NoteSwitch, Press: score.DoublePress, Way: score.Latching, Number: 37, Control: score.ControlAddress{Name: "fill"}, Value: 1, When: "beat"},
	{Message: score.KeySwitch, Key: "F8", Control: score.ControlAddress{Name: "one"}, Do: score.DoOne, When: "now"},
	{Message: score.ProgramSwitch, Channel: 16, Number: 127, Control: score.ControlAddress{Name: "pattern", Track: 999}, Value: 3, When: "pattern"},
}
