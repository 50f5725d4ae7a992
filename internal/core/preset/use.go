package preset

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/bounds"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

var presetBounds = bounds.For[Preset]()

// EditFor returns the edit that has a project use the preset at a place: a lane in the place of the part's lane of that name; a part in that of the part, whose id
// stays; a pattern or a kit behind the pattern that is written, playing, where the track is of its kind, else on a track of its own; a scale on the root of the project;
// weights in the lane of the place, kept within its bounds; a way of rolling among those of the project; a layer among those of the project, in the field of the place. The error is a *score.FieldError, or wraps
// score.ErrUnknownTrack or score.ErrUnknownPart.
func (kept Preset) EditFor(p *score.Project, at score.LaneAddress) (score.Edit, error) {
	part, err := p.Part(at.PartAddress)
	if err != nil {
		return nil, err
	}
	switch kept.Kind {
	case LaneKind:
		return kept.laneEdit(part, at.PartAddress)
	case PartKind:
		return score.RestorePart{PartAddress: at.PartAddress, Value: *kept.Part}, nil
	case PatternKind, KitKind:
		return kept.patternEdit(p, at), nil
	case ScaleKind:
		return score.SetProject{Key: kept.key(p.Key)}, nil
	case TuningKind:
		return score.Retune(p, kept.Tuning.Clone()), nil
	case WeightsKind:
		if at.Lane == score.Gate {
			return nil, &score.FieldError{Field: "lane", Got: at.Lane, Allowed: "another than the gate lane, which takes no weights: select one"}
		}
		lines := kept.lines(at.Lane.Spec())
		return score.SetLane{LaneAddress: at, Weights: &lines}, nil
	case RollKind:
		recipes := append(slices.Clone(p.Recipes), *kept.Roll)
		return score.SetProject{Recipes: &recipes}, nil
	case ValuesKind, ArrowsKind, TravellersKind, RulesKind:
		if part.Field == nil {
			return nil, &score.FieldError{Field: "track", Got: "without a field", Allowed: "a field track, which " + string(kept.Kind) + " are for: select one"}
		}
		insert, id := p.NewLayer(*kept.Layer)
		recall := score.RecallLayer{PartAddress: at.PartAddress, Kind: kept.Layer.Kind, Layer: id}
		return score.All{Name: kept.label(), Edits: []score.EditJSON{score.FormOf(insert), score.FormOf(recall)}}, nil
	}
	return nil, &score.FieldError{Field: "kind", Got: fmt.Sprintf("%.20q", string(kept.Kind)), Allowed: fmt.Sprintf("one of %v", Kinds())}
}

func (kept Preset) laneEdit(part *score.Part, at score.PartAddress) (score.Edit, error) {
	name, value := kept.Lane.Name, kept.Lane.Value
	if name.Spec().Name == "" {
		return nil, &score.FieldError{Field: "lane.name", Got: fmt.Sprintf("%.20q", string(name)), Allowed: "the name of a lane"}
	}
	edit := score.RestoreLane{LaneAddress: score.LaneAddress{PartAddress: at, Lane: name}, Value: &value}
	index := name.Spec().Mod - 1
	if kept.Lane.Mod == nil || index < 0 {
		return edit, nil
	}
	mods := slices.Clone(part.Mods)
	for len(mods) <= index {
		mods = append(mods, *kept.Lane.Mod)
	}
	mods[index] = *kept.Lane.Mod
	return score.All{Name: kept.label(), Edits: []score.EditJSON{score.FormOf(edit), score.FormOf(score.SetPart{PartAddress: at, Mods: &mods})}}, nil
}

func (kept Preset) label() string { return fmt.Sprintf("preset, %s", kept.Kind) }

func (kept Preset) patternEdit(p *score.Project, at score.LaneAddress) score.Edit {
	track := p.Track(at.Track)
	kind := score.Melodic
	switch {
	case kept.Kind == KitKind:
		kind = score.Kit
	case kept.Pattern.Parts[0].Field != nil:
		kind = score.FieldKind
	}
	if track.Kind == kind && len(track.Patterns) < score.MaxPatterns {
		behind := slices.IndexFunc(track.Patterns, func(pattern score.Pattern) bool { return pattern.ID == at.Pattern })
		return score.InsertPattern{Track: at.Track, At: behind + 1, Pattern: *kept.Pattern, Plays: true}
	}
	own := score.TrackOf(p, kind, kept.Name, *kept.Pattern)
	return score.InsertTrack{At: len(p.Tracks), Track: own}
}

// key returns the key of a project in the scale, which keeps its root, and its tuning where the scale is one of it.
func (kept Preset) key(before theory.Key) *theory.Key {
	key := before.Clone()
	key.Scale, key.Notes, key.Allowed = kept.Scale.Scale, slices.Clone(kept.Scale.Notes), slices.Clone(kept.Scale.Allowed)
	return &key
}

// lines returns the weights within the bounds of a lane.
func (kept Preset) lines(spec score.LaneSpec) []score.Weight {
	lines := slices.Clone(kept.Weights.Lines)
	for i := range lines {
		lines[i].Lowest = min(spec.Most, max(spec.Least, lines[i].Lowest))
		lines[i].Highest = min(spec.Most, max(spec.Least, lines[i].Highest))
		lines[i].Rest = lines[i].Rest && spec.Rests
	}
	return lines
}

// HeardPreset is how a preset sounds.
type HeardPreset struct {
	// Track is the id of the track that sounds, and Kit says that it is a kit.
	Track int  `json:"track"`
	Kit   bool `json:"kit"`
	// Notes are in ticks from the beginning of the first of Bars bars.
	Notes []play.HitNote `json:"notes"`
	End   score.Tick     `json:"end"`
}

// heardBars is for how many bars a preset is heard.
const heardBars = 4

// Hear returns how the track of a place sounds, alone, over its first bars if the project used the preset; a way of rolling rolls its lane for that. The error is that of
// EditFor, or a *score.FieldError where the preset does not go with the project.
func (kept Preset) Hear(p *score.Project, at score.LaneAddress) (HeardPreset, error) {
	edit, err := kept.EditFor(p, at)
	if err != nil {
		return HeardPreset{}, err
	}
	if kept.Kind == RollKind {
		roll := play.Roll{
			LaneAddress: score.LaneAddress{PartAddress: at.PartAddress, Lane: kept.Roll.Lane}, Luck: uint64(p.Luck.Number),
			Lowest: kept.Roll.Lowest, Highest: kept.Roll.Highest, Density: kept.Roll.Density, Lean: kept.Roll.Lean,
		}
		if rolled, any := roll.Edit(p); any {
			edit = rolled
		}
	}
	next, _, err := score.Apply(p, edit)
	if err != nil {
		return HeardPreset{}, err
	}
	heard := next.Track(at.Track)
	if len(next.Tracks) > len(p.Tracks) {
		heard = &next.Tracks[len(next.Tracks)-1]
	}
	only := *next
	only.Tracks = []score.Track{heard.Clone()}
	own := &only.Tracks[0]
	own.Mute, own.Solo, own.OffAir, own.Source = false, false, false, score.Source{Kind: score.OwnClock, Odds: 100}
	for i := range own.Patterns {
		own.Patterns[i] = own.Patterns[i].WithoutTracks()
	}
	sounding := HeardPreset{Track: own.ID, Kit: own.Kind == score.Kit, Notes: []play.HitNote{}, End: heardBars * only.Meter.Bar()}
	for _, n := range play.Render(&only, 0, sounding.End, nil) {
		sounding.Notes = append(sounding.Notes, play.HitNote{
			Start: n.Start, End: n.End, Key: int(n.Key), Detune: float64(n.Detune) / float64(theory.Cent), Velocity: int(n.Velocity),
		})
	}
	return sounding, nil
}
