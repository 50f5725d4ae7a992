package testkit

import (
	"strings"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// Edit draws an edit that p accepts, and after which it can be played live: one after which no modulator reaches itself.
func Edit(t *rapid.T, p *score.Project) score.Edit {
	if len(p.Modulators) == 0 {
		return edit(t, p)
	}
	return rapid.Custom(func(t *rapid.T) score.Edit { return edit(t, p) }).Filter(func(e score.Edit) bool {
		_, _, err := score.Apply(p, e)
		return err == nil || !strings.Contains(err.Error(), "a circle")
	}).Draw(t, "edit")
}

func edit(t *rapid.T, p *score.Project) score.Edit {
	drawnTrack := rapid.SampledFrom(p.Tracks).Draw(t, "track")
	spec := rapid.SampledFrom(score.LaneSpecs()).Draw(t, "lane")
	kinds := []func() score.Edit{
		func() score.Edit { return SetSteps(t, drawnTrack, spec) },
		func() score.Edit { return setLane(t, drawnTrack, spec) },
		func() score.Edit { return setTrack(t, p, drawnTrack) },
		func() score.Edit { return setProject(t) },
		func() score.Edit {
			return score.SetPart{
				PartAddress: partAddress(t, drawnTrack), Name: maybe(t, "Renamed"),
				Note: maybe(t, rapid.IntRange(0, 127).Draw(t, "note")), Mute: maybe(t, true), Fill: given(40), Ratchet: maybe(t, shape(t)),
				Voicing: maybe(t, voicing(t)), Held: maybe(t, append(score.HeldSteps{}, held(t)...)), Mods: maybe(t, append([]score.Mod{}, mods(t, true)...)),
				LengthUnit: maybe(t, score.NoteValue("1/8")), Durations: maybe(t, []score.Duration{{Value: "1/4.", Weight: 1}}),
			}
		},
		func() score.Edit {
			return score.SetDetail{
				PartAddress: partAddress(t, drawnTrack),
				Step:        rapid.IntRange(0, score.MaxSteps-1).Draw(t, "step"), Detail: Detail(t, idsOf(p)),
			}
		},
		func() score.Edit { return ofOwn(t, drawnTrack, spec) },
		func() score.Edit {
			edit := reshape(t, drawnTrack, spec)
			if _, _, err := score.Apply(p, edit); err != nil { // notes of a step can be moved out of their range
				return score.ChangeLuck{Number: luck(t)}
			}
			return edit
		},
		func() score.Edit {
			at := partAddress(t, drawnTrack)
			return score.RestorePart{PartAddress: at, Value: part(t, at.Part, idsOf(p), true)}
		},
		func() score.Edit { return score.ChangeLuck{Number: luck(t)} },
		func() score.Edit {
			if len(p.Luck.Former) == 0 {
				return score.ChangeLuck{Number: luck(t)}
			}
			return score.BackLuck{}
		},
		func() score.Edit { return score.Replace{Project: *Project(t)} },
		func() score.Edit { return ofTracks(t, p, drawnTrack) },
		func() score.Edit { return ofSong(t, p, drawnTrack) },
		func() score.Edit { return ofPatterns(t, drawnTrack) },
		func() score.Edit { return ofParts(t, drawnTrack) },
		func() score.Edit {
			return score.All{Name: "two things", Edits: []score.EditJSON{form(t, setProject(t)), form(t, ofPatterns(t, drawnTrack))}}
		},
	}
	drawn := rapid.SampledFrom(kinds).Draw(t, "kind")()
	if next, _, err := score.Apply(p, drawn); err == nil && score.CheckDensity(p, next) != nil {
		return score.ChangeLuck{Number: luck(t)}
	}
	return drawn
}

// ofOwn draws an edit of what a step has of its own, or of its notes.
func ofOwn(t *rapid.T, track score.Track, spec score.LaneSpec) score.Edit {
	step := rapid.SampledFrom([]int{0, 1, 2, 3, 7, score.MaxSteps - 1}).Draw(t, "own step")
	if spec.Name == score.Gate {
		spec = score.Pitch.Spec()
	}
	toggle := score.ToggleNote{PartAddress: partAddress(t, track), Step: step, Degree: rapid.SampledFrom([]int{0, 2, -28, 28}).Draw(t, "toggled")}
	pitch := track.Pattern(toggle.Pattern).Part(toggle.Part).Lanes.Pitch
	if rapid.Bool().Draw(t, "toggle") && len(pitch.Own[step].Notes) < score.MaxStepNotes && pitch.Steps[step] != toggle.Degree {
		return toggle
	}
	return score.SetOwn{LaneAddress: laneAddress(t, track, spec), Step: step, Own: Own(t, spec)}
}

// ofTracks draws an edit that adds, removes or moves a track.
func ofTracks(t *rapid.T, p *score.Project, track score.Track) score.Edit {
	edits := []score.Edit{score.MoveTrack{Track: track.ID, To: rapid.IntRange(0, len(p.Tracks)-1).Draw(t, "to")}}
	if len(p.Tracks) > 1 {
		edits = append(edits, score.RemoveTrack{Track: track.ID})
	}
	if at := rapid.IntRange(0, len(p.Tracks)).Draw(t, "at"); len(p.Tracks) < score.MaxTracks {
		edits = append(edits,
			score.AddTrack{At: at, Kind: rapid.SampledFrom(score.Kinds()).Draw(t, "kind")})
		edits = append(edits, score.AddLines{Track: track.ID, Lines: []score.RandomLine{{Rate: "1/8t", Odds: rapid.IntRange(0, 100).Draw(t, "line's odds"), Octave: 1}}})
		if !track.Retunes() { // there may be no channels left for it
			edits = append(edits, score.AddTrack{At: at, Copy: track.ID})
		}
	}
	return rapid.SampledFrom(edits).Draw(t, "of tracks")
}

// ofPatterns draws an edit that adds, removes, moves or names a pattern.
func ofPatterns(t *rapid.T, track score.Track) score.Edit {
	at, to := rapid.SampledFrom(track.Patterns).Draw(t, "pattern").ID, rapid.IntRange(0, len(track.Patterns)-1)
	edits := []score.Edit{
		score.MovePattern{Track: track.ID, Pattern: at, To: to.Draw(t, "to")}, score.SetPattern{Track: track.ID, Pattern: at, Name: given("Renamed")},
		score.SetLoop{Track: track.ID, Loop: Loop(t)},
	}
	if len(track.Patterns) > 1 {
		edits = append(edits, score.RemovePattern{Track: track.ID, Pattern: at})
	}
	if len(track.Patterns) < score.MaxPatterns {
		edits = append(edits, score.CopyPattern{Track: track.ID, Pattern: at, Name: "Another", Plays: rapid.Bool().Draw(t, "plays")})
	}
	return rapid.SampledFrom(edits).Draw(t, "of patterns")
}

// ofParts draws an edit that adds, removes or moves a part.
func ofParts(t *rapid.T, track score.Track) score.Edit {
	at := partAddress(t, track)
	parts := len(track.Pattern(at.Pattern).Parts)
	edits := []score.Edit{score.MovePart{PartAddress: at, To: rapid.IntRange(0, parts-1).Draw(t, "to")}}
	if parts > 1 {
		edits = append(edits, score.RemovePart{PartAddress: at})
	}
	if track.Kind == score.FieldKind {
		cells, travellers, columns := FieldCells(t), Travellers(t), rapid.IntRange(1, 4).Draw(t, "columns")
		edits = append(edits, score.SetField{PartAddress: at, Cells: &cells}, score.SetField{PartAddress: at, Travellers: &travellers, Columns: &columns},
			score.KeepLayer{PartAddress: at, Kind: rapid.SampledFrom(score.LayerKinds()).Draw(t, "layer that is kept"), Name: "Kept"})
	}
	if track.Kind == score.Kit && parts < score.MaxParts {
		edits = append(edits, score.AddPart{PartAddress: at, Note: 42}, score.AddPart{PartAddress: at, Copy: true})
	}
	return rapid.SampledFrom(edits).Draw(t, "of parts")
}

// reshape draws a way of reshaping a lane that can be done with it.
func reshape(t *rapid.T, track score.Track, spec score.LaneSpec) score.Reshape {
	edit := score.Reshape{
		LaneAddress: laneAddress(t, track, spec), By: rapid.IntRange(-score.MaxSteps, score.MaxSteps).Draw(t, "by"),
		Do: rapid.SampledFrom([]score.Reshaping{score.Rotate, score.Reverse, score.Invert, score.Clear, score.Least, score.Most}).Draw(t, "do"),
	}
	if rapid.Bool().Draw(t, "some") {
		edit.Steps = subset(t, 0, 9, "steps")
	}
	loop := track.Pattern(edit.Pattern).Part(edit.Part).Lanes.Lane(spec.Name)
	also := []score.Reshaping{edit.Do}
	if spec.Name == score.Gate {
		also = append(also, score.Euclidean)
	}
	if !loop.Linked {
		also = append(also, score.Halve)
		if loop.First+2*loop.Length <= score.MaxSteps {
			also = append(also, score.Double)
		}
	}
	edit.Do = rapid.SampledFrom(also).Draw(t, "do")
	return edit
}

// form returns the JSON form of an edit.
func form(t *rapid.T, edit score.Edit) (form score.EditJSON) {
	data, err := score.EncodeEdit(edit)
	if err != nil || score.DecodeJSON(data, &form) != nil {
		t.Fatalf("the edit %T has no JSON form", edit)
	}
	return form
}

// SetSteps draws a stroke of painting, in which a step may come twice.
func SetSteps(t *rapid.T, track score.Track, spec score.LaneSpec) score.SetSteps {
	edit := score.SetSteps{LaneAddress: laneAddress(t, track, spec)}
	for range rapid.IntRange(1, 6).Draw(t, "strokes") {
		edit.Steps = append(edit.Steps, score.StepValue{
			Step:  rapid.IntRange(0, score.MaxSteps-1).Draw(t, "step"),
			Value: rapid.IntRange(spec.Least, spec.Most).Draw(t, "value"),
		})
	}
	return edit
}

func setLane(t *rapid.T, track score.Track, spec score.LaneSpec) score.SetLane {
	drawn := lane(t, spec)
	drawnPath := path(t)
	return score.SetLane{
		LaneAddress: laneAddress(t, track, spec),
		Linked:      maybe(t, drawn.Linked),
		First:       &drawn.First, Length: &drawn.Length,
		Rate: maybe(t, drawn.Rate), Order: maybe(t, drawn.Order), Drift: maybe(t, drawn.Drift),
		Path: maybe(t, drawnPath), Shape: maybe(t, rapid.SampledFrom(score.Shapes()).Draw(t, "shape").Name), Moves: maybe(t, drawn.Moves), Amount: maybe(t, drawn.Amount), Spread: drawn.Spread,
		Weights: tables(t, drawn.Weights), Evolve: drawn.Evolve, Locked: maybe(t, append([]int{}, subset(t, 0, 7, "locked")...)),
	}
}

func setTrack(t *rapid.T, p *score.Project, track score.Track) score.SetTrack {
	return score.SetTrack{
		Track: track.ID, Name: maybe(t, "Renamed"), Routes: someRoutes(t, p, track),
		Mute: maybe(t, rapid.Bool().Draw(t, "mute")), MuteCuts: given(true), ChaseWaits: given(true), Solo: maybe(t, true), OffAir: maybe(t, true), Voices: maybe(t, 2), Overlap: maybe(t, score.Tick(100)), Shifts: maybe(t, []score.NoteValue{"1/16"}),
		Source: maybe(t, sourceOf(t, track, p)),
		Tuned:  maybe(t, score.Tuned{By: score.InstrumentTuned}), Register: maybe(t, register(t)), Transpose: maybe(t, transpose(t)), Speed: maybe(t, ratio(t)),
		Swing: given(600), SwingOwnSteps: given(true), EntersAsPlayed: maybe(t, rapid.Bool().Draw(t, "enters as played")), Delay: maybe(t, score.Tick(-77)), Jitter: maybe(t, 3), Probability: maybe(t, rapid.SampledFrom([]int{0, -40, 25}).Draw(t, "track probability")), Luck: maybe(t, luck(t)),
		Hold: maybe(t, 2), Realign: maybe(t, 4), Playing: maybe(t, rapid.SampledFrom(track.Patterns).Draw(t, "playing").ID),
	}
}

// someRoutes draws other routes for a track, or none.
func someRoutes(t *rapid.T, p *score.Project, track score.Track) *[]score.Route {
	if rapid.Bool().Draw(t, "routes stay") {
		return nil
	}
	return routes(t, p.Outputs, track.Kind)
}

func idsOf(p *score.Project) (ids []int) {
	for i := range p.Tracks {
		ids = append(ids, p.Tracks[i].ID)
	}
	return ids
}

func setProject(t *rapid.T) score.SetProject {
	edit := score.SetProject{
		Name: maybe(t, "Renamed"), Tempo: maybe(t, tempo(t)), TempoChanges: maybe(t, []score.TempoChange{{Tick: 5, Tempo: 90_000}}),
		Meter: maybe(t, score.Meter{Beats: 7, Unit: 8, Groups: []int{2, 2, 3}}), MeterChanges: maybe(t, append([]score.MeterChange{}, meterChanges(t)...)), Key: maybe(t, Key(t)), Swing: given(604), SwingGrid: given(score.NoteValue("1/8")),
		Filling: maybe(t, rapid.Bool().Draw(t, "filling")), PatternsCut: maybe(t, rapid.Bool().Draw(t, "patterns cut")),
		SceneOn: maybe(t, rapid.IntRange(0, 2).Draw(t, "scene that is on")), Recipes: maybe(t, recipes), Switches: maybe(t, switches), Inputs: maybe(t, inputs), Macros: maybe(t, rapid.SampledFrom([][]score.Macro{macros, macros[1:], {}}).Draw(t, "macros")), Mappings: maybe(t, mappings), Modulators: maybe(t, []score.Modulator{{ID: 30, Name: "Drift", Shape: score.RandomShape, Amount: 50, Times: 1, Value: "1/8", Between: score.LineBetween, Moves: []score.ModulatorMove{{Control: score.ControlAddress{Name: "degrees", Track: 1}, Depth: 300}}}}), ClockIn: maybe(t, rapid.SampledFrom([]score.ClockIn{{}, {}, {Input: 7, From: score.NotePulse, PerQuarter: 4, Offset: -3}, {Input: 200, RunsOn: true}}).Draw(t, "clock")),
	}
	if edit.ClockIn != nil && edit.ClockIn.Input != 0 {
		edit.Inputs = &inputs
	}
	return edit
}

func partAddress(t *rapid.T, track score.Track) score.PartAddress {
	pattern := rapid.SampledFrom(track.Patterns).Draw(t, "pattern")
	return score.PartAddress{Track: track.ID, Pattern: pattern.ID, Part: rapid.SampledFrom(pattern.Parts).Draw(t, "part").ID}
}

func laneAddress(t *rapid.T, track score.Track, spec score.LaneSpec) score.LaneAddress {
	return score.LaneAddress{PartAddress: partAddress(t, track), Lane: spec.Name}
}

func maybe[T any](t *rapid.T, value T) *T {
	if rapid.Bool().Draw(t, "given") {
		return &value
	}
	return nil
}

func tables(t *rapid.T, weights []score.Weight) *[]score.Weight {
	if len(weights) == 0 {
		return nil
	}
	return maybe(t, weights)
}

// given returns a property that is always named, so that no edit is one of nothing.
func given[T any](value T) *T { return &value }

// sourceOf draws a clock that a track can have.
func sourceOf(t *rapid.T, track score.Track, p *score.Project) score.Source {
	if track.Kind == score.FieldKind {
		return track.Source
	}
	return source(t, track.ID, idsOf(p))
}
