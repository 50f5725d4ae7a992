package testkit

import (
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// Edit draws an edit that p accepts.
func Edit(t *rapid.T, p *score.Project) score.Edit {
	trackID := rapid.SampledFrom(p.Tracks).Draw(t, "track").ID
	spec := rapid.SampledFrom(score.LaneSpecs()).Draw(t, "lane")
	kinds := []func() score.Edit{
		func() score.Edit { return SetSteps(t, trackID, spec) },
		func() score.Edit {
			linked := spec.Name != score.Gate && rapid.Bool().Draw(t, "linked")
			order := rapid.SampledFrom(score.Orders()).Draw(t, "order")
			rate := rapid.SampledFrom(score.NoteValues()).Draw(t, "rate")
			length := laneLength(t)
			return score.SetLane{
				Track: trackID, Lane: spec.Name, Linked: maybe(t, linked),
				Length: maybe(t, length), Rate: maybe(t, rate), Order: maybe(t, order),
			}
		},
		func() score.Edit {
			register := register(t)
			return score.SetTrack{
				Track: trackID, Name: maybe(t, "Renamed"), Channel: maybe(t, rapid.IntRange(1, 16).Draw(t, "channel")),
				Mute: maybe(t, rapid.Bool().Draw(t, "mute")), Register: maybe(t, register),
			}
		},
		func() score.Edit {
			tempo := score.Tempo(rapid.IntRange(10_000, 400_000).Draw(t, "tempo"))
			key := Key(t)
			return score.SetProject{
				Name: maybe(t, "Renamed"), Tempo: maybe(t, tempo),
				Meter: maybe(t, score.Meter{Beats: 7, Unit: 8}), Key: maybe(t, key),
			}
		},
		func() score.Edit { return score.ChangeLuck{Number: luck(t)} },
		func() score.Edit {
			if len(p.Luck.Former) == 0 {
				return score.ChangeLuck{Number: luck(t)}
			}
			return score.BackLuck{}
		},
		func() score.Edit { return score.Replace{Project: *Project(t)} },
	}
	return rapid.SampledFrom(kinds).Draw(t, "kind")()
}

// SetSteps draws a stroke of painting, in which a step may come twice.
func SetSteps(t *rapid.T, track int, spec score.LaneSpec) score.SetSteps {
	edit := score.SetSteps{Track: track, Lane: spec.Name}
	for range rapid.IntRange(1, 6).Draw(t, "strokes") {
		edit.Steps = append(edit.Steps, score.StepValue{
			Step:  rapid.IntRange(0, score.MaxSteps-1).Draw(t, "step"),
			Value: rapid.IntRange(spec.Least, spec.Most).Draw(t, "value"),
		})
	}
	return edit
}

func maybe[T any](t *rapid.T, value T) *T {
	if rapid.Bool().Draw(t, "given") {
		return &value
	}
	return nil
}
