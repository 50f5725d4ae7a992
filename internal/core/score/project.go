package score

import (
	"slices"

	"jettyfog/internal/core/theory"
)

// Bounds of a project.
const (
	MaxTracks       = 32
	MaxAllParts     = 512 // of all patterns of all tracks
	MaxLuck         = 999_999
	MaxFormerLuck   = 1000
	MaxMeterChanges = 256
	MaxMeterBar     = 1_000_000
	MaxNameRunes    = 60
)

// Swing, in tenths of a percent.
const (
	Straight  = 500
	MostSwing = 750
)

// SwingGrids lists the grids that a project can swing on.
func SwingGrids() []NoteValue { return []NoteValue{"1/8", "1/16"} }

// Project is the whole document.
type Project struct {
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Tempo is in thousandths of a quarter note per minute; it holds from the beginning.
	Tempo Tempo `json:"tempo" bounds:"own" jsonschema:"minimum=10000,maximum=400000"`
	// TempoChanges are other tempos and when they begin, ascending.
	TempoChanges []TempoChange `json:"tempoChanges,omitempty" jsonschema:"maxItems=256"`
	// Meter holds from the beginning, MeterChanges from later bars on, ascending.
	Meter        Meter         `json:"meter"`
	MeterChanges []MeterChange `json:"meterChanges,omitempty" jsonschema:"maxItems=256"`
	Key          theory.Key    `json:"key"`
	Luck         Luck          `json:"luck"`
	// Swing is the share of a pair of steps of the swing grid that the first one takes, in tenths of a percent: 500 is
	// straight, 667 is a triplet feel. Pairs are counted from the bar line; a single last step of a bar is straight.
	Swing int `json:"swing" bounds:"own" jsonschema:"minimum=500,maximum=750"`
	// SwingGrid is the grid that all tracks swing on, whatever their own steps are.
	SwingGrid NoteValue `json:"swingGrid" jsonschema:"enum=1/8,enum=1/16"`
	// Filling turns conditions and off steps of fills on.
	Filling bool `json:"filling"`
	// PatternsCut has the notes of a track end that sound where another pattern of it enters; else they finish.
	PatternsCut bool `json:"patternsCut,omitempty"`
	// SceneOn is the id of the scene that is on, for conditions about it; 0 is none.
	SceneOn int `json:"sceneOn,omitempty" jsonschema:"minimum=0,maximum=1000000"`
	// SectionOn is the id of the section of the song that plays, while it plays; 0 is none.
	SectionOn int `json:"-"`
	// SectionBar is the bar with which that section began.
	SectionBar int `json:"-"`
	// FillLevel is the percentage of off steps that sound while filling, in place of what each part says; 0 leaves it to the parts.
	FillLevel int `json:"fillLevel,omitempty" jsonschema:"minimum=0,maximum=100"`
	// Recipes are ways of rolling that were kept.
	Recipes []Recipe `json:"recipes,omitempty" jsonschema:"maxItems=64"`
	// Outputs are where tracks can go besides the built-in sound.
	Outputs []Output `json:"outputs,omitempty" jsonschema:"maxItems=16"`
	// Inputs are what becomes of what comes in; ClockIn says which clock is followed.
	Inputs  []Input `json:"inputs,omitempty" jsonschema:"maxItems=16"`
	ClockIn ClockIn `json:"clockIn,omitzero"`
	Tracks  []Track `json:"tracks" jsonschema:"minItems=1,maxItems=32"`
	// Scenes are sets of values that controls get together; Song is the sections in the order in which they play.
	Scenes []Scene   `json:"scenes,omitempty" jsonschema:"maxItems=64"`
	Song   []Section `json:"song,omitempty" jsonschema:"maxItems=128"`
	// ChordMaps are chords that tracks can have their pitches from.
	ChordMaps []ChordMap `json:"chordMaps,omitempty" jsonschema:"maxItems=16"`
	// FieldLayers are what fields were given names for, and can be given again.
	FieldLayers []FieldLayer `json:"fieldLayers,omitempty" jsonschema:"maxItems=64"`
	// Macros each move several controls by hand, Modulators by themselves.
	Macros     []Macro     `json:"macros,omitempty" jsonschema:"maxItems=16"`
	Modulators []Modulator `json:"modulators,omitempty" jsonschema:"maxItems=16"`
	// Moved are the values of controls that macros move and modulators too, before they are rounded, while it plays.
	Moved []MovedValue `json:"-"`
	// Switches are what messages that come in do, Mappings which controls faders and knobs turn.
	Switches []Switch  `json:"switches,omitempty" jsonschema:"maxItems=256"`
	Mappings []Mapping `json:"mappings,omitempty" jsonschema:"maxItems=256"`
}

// Luck is the number from which every random decision follows, and those that were in use before.
type Luck struct {
	// Number is 0 to MaxLuck, short enough to be read out and written down.
	Number int `json:"number" jsonschema:"minimum=0,maximum=999999"`
	// Former holds up to MaxFormerLuck earlier numbers, the latest last.
	Former []int `json:"former" jsonschema:"maxItems=1000"`
}

// Track returns the track with the id, or nil.
func (p *Project) Track(id int) *Track {
	for i := range p.Tracks {
		if p.Tracks[i].ID == id {
			return &p.Tracks[i]
		}
	}
	return nil
}

// Silent reports whether a part of a track is kept from being heard: it is muted, or its track is silent.
func (p *Project) Silent(track *Track, part *Part) bool { return part.Mute || p.SilentTrack(track) }

// SilentTrack reports whether a whole track is kept from being heard: muted, not active, or beside a solo.
func (p *Project) SilentTrack(track *Track) bool {
	solo := slices.ContainsFunc(p.Tracks, func(t Track) bool { return t.Solo })
	return track.Mute || track.OffAir || solo && !track.Solo
}

// FillOf returns the percentage of a part's off steps that sound while filling.
func (p *Project) FillOf(part *Part) int {
	if p.FillLevel > 0 {
		return p.FillLevel
	}
	return part.Fill
}

// SwingOf returns the swing of a track, in tenths of a percent, and the grid that it bends; a grid of 0 is the track's
// own steps.
func (p *Project) SwingOf(t *Track) (amount int, grid Tick) {
	amount = p.Swing
	if t.Swing != 0 {
		amount = t.Swing
	}
	if !t.SwingOwnSteps {
		grid = p.SwingGrid.Ticks()
	}
	return amount, grid
}

// Clone returns a copy that shares nothing with p.
func (p *Project) Clone() *Project {
	clone := *p
	clone.Luck.Former = slices.Clone(p.Luck.Former)
	clone.TempoChanges, clone.Recipes = slices.Clone(p.TempoChanges), slices.Clone(p.Recipes)
	clone.Outputs, clone.Switches = cloneOutputs(p.Outputs), slices.Clone(p.Switches)
	clone.Inputs = cloneInputs(p.Inputs)
	clone.Macros, clone.Mappings = cloneMacros(p.Macros), slices.Clone(p.Mappings)
	clone.ChordMaps, clone.FieldLayers = cloneChordMaps(p.ChordMaps), cloneFieldLayers(p.FieldLayers)
	clone.Modulators, clone.Moved = cloneModulators(p.Modulators), slices.Clone(p.Moved)
	clone.Meter, clone.MeterChanges = p.Meter.clone(), slices.Clone(p.MeterChanges)
	for i := range clone.MeterChanges {
		clone.MeterChanges[i].Meter = clone.MeterChanges[i].Meter.clone()
	}
	clone.Key = p.Key.Clone()
	clone.Scenes, clone.Song = slices.Clone(p.Scenes), slices.Clone(p.Song)
	for i := range clone.Scenes {
		clone.Scenes[i] = clone.Scenes[i].clone()
	}
	for i := range clone.Song {
		clone.Song[i] = clone.Song[i].clone()
	}
	clone.Tracks = make([]Track, len(p.Tracks))
	for i := range p.Tracks {
		clone.Tracks[i] = p.Tracks[i].Clone()
	}
	return &clone
}
