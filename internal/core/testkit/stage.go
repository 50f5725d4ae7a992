package testkit

import (
	"strings"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Change draws a live change that a project can have.
func Change(t *rapid.T, p *score.Project) stage.Change {
	return rapid.Custom(func(t *rapid.T) stage.Change {
		spec := rapid.SampledFrom(stage.Specs()).Draw(t, "control")
		field := strings.HasPrefix(spec.Name, stage.LayerControl(""))
		if change, is := recalled(t, p); field && is {
			return change
		}
		if field || spec.OfSong || spec.Of == stage.OfMacro && len(p.Macros) == 0 || spec.Of == stage.OfModulator && len(p.Modulators) == 0 {
			spec = *stage.SpecOf(rapid.SampledFrom([]string{"tempo", "push"}).Draw(t, "of a hand"), stage.OfProject)
		}
		track := rapid.SampledFrom(p.Tracks).Draw(t, "track")
		pattern := rapid.SampledFrom(track.Patterns).Draw(t, "pattern")
		if rapid.IntRange(0, 3).Draw(t, "playing") > 0 {
			pattern = *track.Pattern(track.Playing)
		}
		part := rapid.SampledFrom(pattern.Parts).Draw(t, "part")
		c := stage.Control{Name: spec.Name}
		switch spec.Of {
		case stage.OfProject:
		case stage.OfMacro:
			c.ID = rapid.SampledFrom(p.Macros).Draw(t, "macro").ID
		case stage.OfModulator:
			c.ID = rapid.SampledFrom(p.Modulators).Draw(t, "modulator").ID
		default:
			c.Track = track.ID
		}
		if spec.Of == stage.OfPart || spec.Of == stage.OfLane {
			c.Pattern, c.Part = pattern.ID, part.ID
		}
		if spec.Of == stage.OfLane {
			c.Lane = rapid.SampledFrom(score.LaneNames()).Draw(t, "lane")
		}
		value := rapid.IntRange(spec.Min, spec.Max).Draw(t, "value")
		if spec.Name == stage.Section && len(p.Song) > 0 {
			value = rapid.IntRange(0, len(p.Song)).Draw(t, "section")
		}
		if spec.Name == "pattern" {
			value = rapid.SampledFrom(track.Patterns).Draw(t, "to").ID
		}
		return stage.Change{Control: c, Value: value}
	}).Filter(func(change stage.Change) bool { return change.Control.Check(p, change.Value) == nil }).Draw(t, "live change")
}
