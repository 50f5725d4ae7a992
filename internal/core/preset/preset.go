package preset

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Kind is what a preset is of.
type Kind string

// The kinds.
const (
	LaneKind    Kind = "lane"    // a lane with its loop, its values and its chance
	PartKind    Kind = "part"    // all lanes of a part
	PatternKind Kind = "pattern" // a pattern of a melodic track
	KitKind     Kind = "kit"     // a pattern of a kit, with its parts
	ScaleKind   Kind = "scale"   // a scale and which of its notes are allowed
	TuningKind  Kind = "tuning"
	WeightsKind Kind = "weights" // a table of weights
	RollKind    Kind = "roll"    // a way of rolling

	ValuesKind     Kind = "values"     // the values of a field
	ArrowsKind     Kind = "arrows"     // its arrows
	TravellersKind Kind = "travellers" // its travellers
	RulesKind      Kind = "rules"      // the rules of their meetings
)

// Kinds lists the kinds in the order in which to offer them.
func Kinds() (kinds []Kind) {
	for _, spec := range KindSpecs() {
		kinds = append(kinds, spec.Value)
	}
	return kinds
}

// Preset is something that was kept: of the fields beyond Words the one of its kind is given.
type Preset struct {
	Kind Kind   `json:"kind" jsonschema:"enum=lane,enum=part,enum=pattern,enum=kit,enum=scale,enum=tuning,enum=weights,enum=roll,enum=values,enum=arrows,enum=travellers,enum=rules"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Words say what it is good for.
	Words string `json:"words,omitempty" jsonschema:"maxLength=200"`

	Lane    *Lane          `json:"lane,omitempty"`
	Part    *score.Part    `json:"part,omitempty"`
	Pattern *score.Pattern `json:"pattern,omitempty"`
	Scale   *Scale         `json:"scale,omitempty"`
	Tuning  *theory.Tuning `json:"tuning,omitempty"`
	Weights *Weights       `json:"weights,omitempty"`
	Roll    *score.Recipe  `json:"roll,omitempty"`
	// Layer is what fields are given: its kind is that of the preset.
	Layer *score.FieldLayer `json:"layer,omitempty"`
}

// Lane is a lane of a name, and of a mod lane where it goes.
type Lane struct {
	Name  score.LaneName `json:"name"`
	Value score.Lane     `json:"value"`
	Mod   *score.Mod     `json:"mod,omitempty"`
}

// Scale is a scale on any root: by its name, or as the notes above the root.
type Scale struct {
	Scale   string `json:"scale"`
	Notes   []int  `json:"notes,omitempty" jsonschema:"maxItems=1024"`
	Allowed []int  `json:"allowed,omitempty" jsonschema:"maxItems=1024"`
}

// Weights is a table of weights of a lane.
type Weights struct {
	Lane  score.LaneName `json:"lane"`
	Lines []score.Weight `json:"lines" jsonschema:"minItems=1,maxItems=32"`
}

// Of keeps what a project has at a place under a name. Conditions about other tracks are left out, as other projects have others. A roll is kept as it is
// given. The error is a *score.FieldError, or wraps score.ErrUnknownTrack or score.ErrUnknownPart.
func Of(p *score.Project, kind Kind, name string, at score.LaneAddress, roll score.Recipe) (Preset, error) {
	kept := Preset{Kind: kind, Name: name}
	part, err := p.Part(at.PartAddress)
	if err != nil {
		return kept, err
	}
	track := p.Track(at.Track)
	lane := part.Lanes.Lane(at.Lane)
	missing := func(what string) error {
		return &score.FieldError{Field: "what is kept", Got: "not there", Allowed: what}
	}
	switch kind {
	case LaneKind:
		if lane == nil || !part.Lanes.Has(at.Lane) {
			return kept, missing("a lane of the part")
		}
		kept.Lane = &Lane{Name: at.Lane, Value: *lane.Clone()}
		if i := at.Lane.Spec().Mod - 1; i >= 0 && i < len(part.Mods) {
			kept.Lane.Mod = &part.Mods[i]
		}
	case PartKind:
		alone := part.WithoutTracks()
		alone.Field = nil // the part is its lanes, which go with any field
		kept.Part = &alone
	case PatternKind, KitKind:
		if (kind == KitKind) != (track.Kind == score.Kit) {
			return kept, missing("a pattern of a track that is no kit, or a kit of a kit track")
		}
		pattern := track.Pattern(at.Pattern).WithoutTracks()
		pattern.Name = name
		kept.Pattern = &pattern
	case ScaleKind:
		kept.Scale = &Scale{Scale: p.Key.Scale, Notes: slices.Clone(p.Key.Notes), Allowed: slices.Clone(p.Key.Allowed)}
	case TuningKind:
		if kept.Tuning = p.Key.Tuning.Clone(); kept.Tuning == nil {
			kept.Tuning = theory.EqualTemperament()
		}
	case WeightsKind:
		if lane == nil || len(lane.Weights) == 0 {
			return kept, missing("a table of weights of the lane")
		}
		kept.Weights = &Weights{Lane: at.Lane, Lines: slices.Clone(lane.Weights)}
	case RollKind:
		roll.Name = name
		kept.Roll = &roll
	case ValuesKind, ArrowsKind, TravellersKind, RulesKind:
		if part.Field == nil {
			return kept, missing("the field of a field track")
		}
		layer := part.Field.Layer(score.LayerKind(kind))
		layer = layer.WithoutTracks()
		layer.ID, layer.Name = 1, name
		kept.Layer = &layer
	}
	return kept, kept.Validate()
}

// The first fields of the file of a preset.
const (
	FileFormat  = "jettyfog preset"
	FileVersion = 1
)

// File is a preset as it stands in a file.
type File struct {
	Format  string `json:"format" jsonschema:"enum=jettyfog preset"`
	Version int    `json:"version" jsonschema:"enum=1"`
	Preset  Preset `json:"preset"`
}

// Encode writes a preset as a file.
func Encode(p Preset) ([]byte, error) {
	data, err := json.Marshal(File{Format: FileFormat, Version: FileVersion, Preset: p})
	if err != nil {
		return nil, fmt.Errorf("encode the preset: %w", err)
	}
	return append(data, '\n'), nil
}

// Decode reads the file of a preset. The error is a *score.FileError or a *score.FieldError.
func Decode(data []byte) (Preset, error) {
	var file File
	if err := score.DecodeJSON(data, &file); err != nil {
		return Preset{}, err
	}
	if file.Format != FileFormat || file.Version != FileVersion {
		return Preset{}, &score.FileError{Reason: fmt.Sprintf("this is not a preset file of version %d: its format is %.40q and its version %d", FileVersion, file.Format, file.Version)}
	}
	return file.Preset, file.Preset.Validate()
}

// Validate returns nil if the preset is one that projects can use. The error is a *score.FieldError.
func (kept Preset) Validate() error {
	if !slices.Contains(Kinds(), kept.Kind) {
		return &score.FieldError{Field: "kind", Got: fmt.Sprintf("%.20q", string(kept.Kind)), Allowed: fmt.Sprintf("one of %v", Kinds())}
	}
	given := map[Kind]bool{
		LaneKind: kept.Lane != nil, PartKind: kept.Part != nil, PatternKind: kept.Pattern != nil, KitKind: kept.Pattern != nil, ScaleKind: kept.Scale != nil,
		TuningKind: kept.Tuning != nil, WeightsKind: kept.Weights != nil, RollKind: kept.Roll != nil,
	}
	for _, kind := range score.LayerKinds() {
		given[Kind(kind)] = kept.Layer != nil && kept.Layer.Kind == kind
	}
	usual := given[kept.Kind]
	for kind := range maps.Keys(given) {
		both := kind == PatternKind && kept.Kind == KitKind || kind == KitKind && kept.Kind == PatternKind
		usual = usual && (given[kind] == (kind == kept.Kind) || both)
	}
	if !usual {
		return &score.FieldError{Field: "preset", Got: "not of its kind", Allowed: fmt.Sprintf("just a %s, as its kind says", kept.Kind)}
	}
	p := score.Blank()
	kit := score.Demo().Tracks[2]
	kit.Routes = nil
	p.Tracks = append(p.Tracks, kit)
	at := score.PartAddress{Track: p.Tracks[0].ID}
	if kept.Layer != nil {
		field := score.TrackOf(p, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{score.NewFieldPart()}})
		p.Tracks = append(p.Tracks, field)
		at.Track = field.ID
	}
	if kept.Kind == KitKind {
		at = score.PartAddress{Track: p.Tracks[1].ID, Part: p.Tracks[1].Parts()[0].ID}
	}
	if err := score.CheckName("name", kept.Name); err != nil {
		return err
	}
	if err := score.CheckBounds(presetBounds, &kept); err != nil {
		return err
	}
	edit, err := kept.EditFor(p, score.LaneAddress{PartAddress: at, Lane: kept.lane()})
	if err != nil {
		return err
	}
	_, _, err = score.Apply(p, edit)
	return err
}

// lane returns the lane that a preset is about, if it is about one.
func (kept Preset) lane() score.LaneName {
	switch {
	case kept.Lane != nil:
		return kept.Lane.Name
	case kept.Weights != nil:
		return kept.Weights.Lane
	case kept.Roll != nil:
		return kept.Roll.Lane
	}
	return score.Pitch
}
