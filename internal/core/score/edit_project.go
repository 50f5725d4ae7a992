package score

import (
	"fmt"
	"slices"
	"strings"

	"jettyfog/internal/core/theory"
)

// SetProject changes the given properties of the project and leaves the others.
type SetProject struct {
	Name         *string        `json:"name,omitempty"`
	Tempo        *Tempo         `json:"tempo,omitempty"`
	TempoChanges *[]TempoChange `json:"tempoChanges,omitempty"`
	Meter        *Meter         `json:"meter,omitempty"`
	MeterChanges *[]MeterChange `json:"meterChanges,omitempty"`
	Key          *theory.Key    `json:"key,omitempty"`
	Swing        *int           `json:"swing,omitempty"`
	SwingGrid    *NoteValue     `json:"swingGrid,omitempty"`
	Filling      *bool          `json:"filling,omitempty"`
	FillLevel    *int           `json:"fillLevel,omitempty"`
	PatternsCut  *bool          `json:"patternsCut,omitempty"`
	SceneOn      *int           `json:"sceneOn,omitempty"`
	SectionOn    *int           `json:"-"`
	Recipes      *[]Recipe      `json:"recipes,omitempty"`
	Outputs      *[]Output      `json:"outputs,omitempty"`
	Inputs       *[]Input       `json:"inputs,omitempty"`
	ClockIn      *ClockIn       `json:"clockIn,omitempty"`
	Switches     *[]Switch      `json:"switches,omitempty"`
	Macros       *[]Macro       `json:"macros,omitempty"`
	Modulators   *[]Modulator   `json:"modulators,omitempty"`
	ChordMaps    *[]ChordMap    `json:"chordMaps,omitempty"`
	Moved        *[]MovedValue  `json:"-"`
	SectionBar   *int           `json:"-"`
	Mappings     *[]Mapping     `json:"mappings,omitempty"`
}

// Label implements Edit.
func (e SetProject) Label() string {
	var what []string
	if e.Name != nil {
		what = append(what, "name")
	}
	if e.Tempo != nil {
		what = append(what, fmt.Sprintf("tempo %g", float64(*e.Tempo)/1000))
	}
	if e.TempoChanges != nil {
		what = append(what, "tempo changes")
	}
	if e.Meter != nil {
		what = append(what, "meter "+e.Meter.String())
	}
	if e.MeterChanges != nil {
		what = append(what, "meter changes")
	}
	if e.Key != nil {
		what = append(what, "key")
	}
	if e.Swing != nil {
		what = append(what, fmt.Sprintf("swing %d.%d %%", *e.Swing/10, *e.Swing%10))
	}
	if e.SwingGrid != nil {
		what = append(what, fmt.Sprintf("swing on %s", *e.SwingGrid))
	}
	if e.Recipes != nil {
		what = append(what, "recipes")
	}
	if e.Outputs != nil {
		what = append(what, "outputs")
	}
	if e.Inputs != nil {
		what = append(what, "inputs")
	}
	if e.ClockIn != nil {
		what = append(what, map[bool]string{true: "own tempo", false: "clock source"}[e.ClockIn.Input == 0])
	}
	if e.Switches != nil {
		what = append(what, "switches")
	}
	if e.Macros != nil {
		what = append(what, "macros")
	}
	if e.ChordMaps != nil {
		what = append(what, "chord maps")
	}
	if e.Modulators != nil {
		what = append(what, "modulators")
	}
	if e.Moved != nil {
		what = append(what, "what macros move")
	}
	if e.SectionBar != nil {
		what = append(what, "bar of the section")
	}
	if e.Mappings != nil {
		what = append(what, "faders and knobs")
	}
	if e.FillLevel != nil {
		what = append(what, fmt.Sprintf("fill level %d %%", *e.FillLevel))
	}
	if e.PatternsCut != nil {
		what = append(what, map[bool]string{true: "patterns that enter cut", false: "patterns that enter let notes finish"}[*e.PatternsCut])
	}
	if e.SceneOn != nil {
		what = append(what, "scene that is on")
	}
	if e.SectionOn != nil {
		what = append(what, "section that is on")
	}
	if e.Filling != nil {
		what = append(what, map[bool]string{true: "fill", false: "end of fill"}[*e.Filling])
	}
	return strings.Join(what, ", ")
}

func (e SetProject) apply(p *Project) (Edit, error) {
	return SetProject{
		Name:         swap(&p.Name, e.Name),
		Tempo:        swap(&p.Tempo, e.Tempo),
		TempoChanges: swapList(&p.TempoChanges, e.TempoChanges),
		Meter:        swap(&p.Meter, e.Meter),
		MeterChanges: swapList(&p.MeterChanges, e.MeterChanges),
		Key:          swap(&p.Key, e.Key),
		Swing:        swap(&p.Swing, e.Swing),
		SwingGrid:    swap(&p.SwingGrid, e.SwingGrid),
		Filling:      swap(&p.Filling, e.Filling),
		FillLevel:    swap(&p.FillLevel, e.FillLevel),
		PatternsCut:  swap(&p.PatternsCut, e.PatternsCut),
		SceneOn:      swap(&p.SceneOn, e.SceneOn),
		SectionOn:    swap(&p.SectionOn, e.SectionOn),
		Recipes:      swapList(&p.Recipes, e.Recipes),
		Outputs:      swapList(&p.Outputs, e.Outputs),
		Inputs:       swapList(&p.Inputs, e.Inputs),
		ClockIn:      swap(&p.ClockIn, e.ClockIn),
		Switches:     swapList(&p.Switches, e.Switches),
		Macros:       swapList(&p.Macros, e.Macros),
		Modulators:   swapList(&p.Modulators, e.Modulators),
		ChordMaps:    swapList(&p.ChordMaps, e.ChordMaps),
		Moved:        swapList(&p.Moved, e.Moved),
		SectionBar:   swap(&p.SectionBar, e.SectionBar),
		Mappings:     swapList(&p.Mappings, e.Mappings),
	}, nil
}

// ChangeLuck takes another luck and remembers the present one.
type ChangeLuck struct {
	Number int `json:"number" jsonschema:"minimum=0,maximum=999999"`
}

// Label implements Edit.
func (e ChangeLuck) Label() string { return fmt.Sprintf("luck %d", e.Number) }

func (e ChangeLuck) apply(p *Project) (Edit, error) {
	inverse := RestoreLuck{Luck: p.Luck}
	former := append(slices.Clone(p.Luck.Former), p.Luck.Number)
	if len(former) > MaxFormerLuck {
		former = former[1:]
	}
	p.Luck = Luck{Number: e.Number, Former: former}
	return inverse, nil
}

// BackLuck goes back to the luck that was in use before the present one.
type BackLuck struct{}

// Label implements Edit.
func (e BackLuck) Label() string { return "back to the former luck" }

func (e BackLuck) apply(p *Project) (Edit, error) {
	last := len(p.Luck.Former) - 1
	if last < 0 {
		return nil, ErrNothingBefore
	}
	inverse := RestoreLuck{Luck: p.Luck}
	p.Luck = Luck{Number: p.Luck.Former[last], Former: p.Luck.Former[:last]}
	return inverse, nil
}

// RestoreLuck sets the luck and all former ones; it undoes the other edits of luck.
type RestoreLuck struct {
	Luck Luck `json:"luck"`
}

// Label implements Edit.
func (e RestoreLuck) Label() string { return fmt.Sprintf("luck %d", e.Luck.Number) }

func (e RestoreLuck) apply(p *Project) (Edit, error) {
	inverse := RestoreLuck{Luck: p.Luck}
	p.Luck = Luck{Number: e.Luck.Number, Former: slices.Clone(e.Luck.Former)}
	return inverse, nil
}
