package score

import (
	"fmt"
	"slices"
)

// MaxFieldLayers is how many layers of fields a project keeps.
const MaxFieldLayers = 64

// FieldLayer is one of the things that a field holds, kept by a name: fields are given it, also while they play, and keep the rest of what they hold.
type FieldLayer struct {
	ID   int       `json:"id" jsonschema:"minimum=1,maximum=255"`
	Name string    `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Kind LayerKind `json:"kind" jsonschema:"enum=values,enum=arrows,enum=travellers,enum=rules"`
	// Cells hold just what is of the kind; RowNotes and ColumnNotes are of values.
	Cells       []Cell        `json:"cells,omitempty" jsonschema:"maxItems=256"`
	RowNotes    []int         `json:"rowNotes,omitempty" jsonschema:"maxItems=16"`
	ColumnNotes []int         `json:"columnNotes,omitempty" jsonschema:"maxItems=16"`
	Travellers  []Traveller   `json:"travellers,omitempty" jsonschema:"maxItems=16"`
	Rules       []MeetingRule `json:"rules,omitempty" jsonschema:"maxItems=16"`
}

// LayerKind is what of a field a layer is.
type LayerKind string

// The kinds.
const (
	ValuesLayer     LayerKind = "values"     // the notes of cells, rows and columns, and what cells have of their own
	ArrowsLayer     LayerKind = "arrows"     // arrows, letters, repeaters and walls
	TravellersLayer LayerKind = "travellers" // all travellers
	RulesLayer      LayerKind = "rules"      // the rules of their meetings
)

var layerKinds = options[LayerKind]{
	{ValuesLayer, "values", "The notes of the cells, and what they have of their own."},
	{ArrowsLayer, "arrows", "The arrows, letters, repeaters and walls."},
	{TravellersLayer, "travellers", "All travellers. Those whose numbers are there already go on from where they are."},
	{RulesLayer, "rules", "The rules of the meetings."},
}

// LayerKindOptions lists the kinds as options.
func LayerKindOptions() []Option { return layerKinds.list() }

// LayerKinds lists the kinds.
func LayerKinds() []LayerKind {
	return []LayerKind{ValuesLayer, ArrowsLayer, TravellersLayer, RulesLayer}
}

// RecalledLayers are the ids of the layers that a field was given last, and that were not changed since; 0 is none.
type RecalledLayers struct {
	Values     int `json:"values,omitempty" jsonschema:"minimum=0,maximum=255"`
	Arrows     int `json:"arrows,omitempty" jsonschema:"minimum=0,maximum=255"`
	Travellers int `json:"travellers,omitempty" jsonschema:"minimum=0,maximum=255"`
	Rules      int `json:"rules,omitempty" jsonschema:"minimum=0,maximum=255"`
}

// Of returns the id of a kind.
func (r *RecalledLayers) Of(kind LayerKind) *int {
	switch kind {
	case ValuesLayer:
		return &r.Values
	case ArrowsLayer:
		return &r.Arrows
	case TravellersLayer:
		return &r.Travellers
	}
	return &r.Rules
}

// Layer returns one of the things that a field holds, without an id and a name.
func (f *Field) Layer(kind LayerKind) FieldLayer {
	f = f.clone()
	layer := FieldLayer{Kind: kind}
	switch kind {
	case ValuesLayer, ArrowsLayer:
		for i := range f.Cells {
			if held := f.Cells[i].only(kind); !held.empty() {
				layer.Cells = append(layer.Cells, held)
			}
		}
		if kind == ValuesLayer {
			layer.RowNotes, layer.ColumnNotes = f.RowNotes, f.ColumnNotes
		}
	case TravellersLayer:
		layer.Travellers = f.Travellers
	case RulesLayer:
		layer.Rules = f.Rules
	}
	return layer
}

// with puts a layer in the place of what of its kind the field holds.
func (f *Field) with(layer *FieldLayer) {
	own := layer.clone()
	switch layer.Kind {
	case ValuesLayer:
		f.Cells = together(own.Cells, f.Cells, ArrowsLayer)
		f.RowNotes, f.ColumnNotes = own.RowNotes, own.ColumnNotes
	case ArrowsLayer:
		f.Cells = together(own.Cells, f.Cells, ValuesLayer)
	case TravellersLayer:
		f.Travellers = own.Travellers
	case RulesLayer:
		f.Rules = own.Rules
	}
	*f.Recalled.Of(layer.Kind) = layer.ID
}

// together returns the cells of a layer with what others hold of another kind, and whether those are locked, in rows from the top.
func together(layer, others []Cell, kind LayerKind) (cells []Cell) {
	at := func(cells []Cell, column, row int) (c Cell) {
		i := slices.IndexFunc(cells, func(c Cell) bool { return c.Column == column && c.Row == row })
		if i < 0 {
			return Cell{Column: column, Row: row}
		}
		return cells[i]
	}
	for row := range MaxFieldSize {
		for column := range MaxFieldSize {
			c, other := at(layer, column, row), at(others, column, row)
			if kind == ArrowsLayer {
				c = c.withWays(&other)
			} else {
				c = other.withWays(&c)
			}
			if c.Locked = other.Locked; !c.empty() {
				cells = append(cells, c)
			}
		}
	}
	return cells
}

// only returns what of a kind the cell holds.
func (c *Cell) only(kind LayerKind) Cell {
	none := Cell{Column: c.Column, Row: c.Row}
	if kind == ArrowsLayer {
		return none.withWays(c)
	}
	values := c.withWays(&none)
	values.Locked = false
	return values
}

// withWays returns the cell with the arrows, the letter, the repeater and the wall of another one.
func (c Cell) withWays(of *Cell) Cell {
	c.Arrows, c.Letter, c.Jump, c.Repeater, c.Wall = of.Arrows, of.Letter, of.Jump, of.Repeater, of.Wall
	return c
}

// empty reports whether the cell holds nothing.
func (c *Cell) empty() bool {
	return !c.Note && len(c.Arrows) == 0 && c.Letter == "" && !c.Repeater && !c.Wall && !c.Locked
}

// FieldLayer returns the layer of a kind that has the id, or nil.
func (p *Project) FieldLayer(kind LayerKind, id int) *FieldLayer {
	for i := range p.FieldLayers {
		if p.FieldLayers[i].ID == id && p.FieldLayers[i].Kind == kind {
			return &p.FieldLayers[i]
		}
	}
	return nil
}

// WithoutTracks returns a copy of the layer whose rules name no tracks, as a project has it that has others.
func (l *FieldLayer) WithoutTracks() FieldLayer {
	alone := l.clone()
	alone.Rules = withoutTracks(alone.Rules)
	return alone
}

func withoutTracks(rules []MeetingRule) []MeetingRule {
	rules = slices.Clone(rules)
	for i := range rules {
		rules[i].Track = 0
	}
	return rules
}

// field returns a field that holds just the layer.
func (l *FieldLayer) field() *Field {
	return &Field{
		Columns: MaxFieldSize, Rows: MaxFieldSize, Cells: l.Cells, RowNotes: l.RowNotes, ColumnNotes: l.ColumnNotes,
		Travellers: l.Travellers, Rules: l.Rules,
	}
}

func (l *FieldLayer) clone() FieldLayer {
	clone, f := *l, l.field().clone()
	clone.Cells, clone.RowNotes, clone.ColumnNotes, clone.Travellers, clone.Rules = f.Cells, f.RowNotes, f.ColumnNotes, f.Travellers, f.Rules
	return clone
}

func cloneFieldLayers(layers []FieldLayer) []FieldLayer {
	clone := slices.Clone(layers)
	for i := range clone {
		clone[i] = layers[i].clone()
	}
	return clone
}

func (p *Project) validateFieldLayers() error {
	ids := map[int]bool{}
	for i := range p.FieldLayers {
		l, at := &p.FieldLayers[i], fmt.Sprintf("fieldLayers[%d]", i)
		if ids[l.ID] {
			return &FieldError{at + ".id", l.ID, "different from every other layer's"}
		}
		ids[l.ID] = true
		if err := firstOf([]error{CheckName(at+".name", l.Name), l.validate(at)}); err != nil {
			return err
		}
	}
	return nil
}

// validate refuses what no field could hold, and what is of another kind than the layer.
func (l *FieldLayer) validate(at string) error {
	if err := l.field().validate(at); err != nil {
		return err
	}
	cells := l.Kind == ValuesLayer || l.Kind == ArrowsLayer
	if !cells && len(l.Cells) > 0 || l.Kind != ValuesLayer && len(l.RowNotes)+len(l.ColumnNotes) > 0 ||
		l.Kind != TravellersLayer && len(l.Travellers) > 0 || l.Kind != RulesLayer && len(l.Rules) > 0 {
		return l.moreThan(at)
	}
	for i := range l.Cells {
		values, ways := l.Cells[i].only(ValuesLayer), l.Cells[i].only(ArrowsLayer)
		if l.Cells[i].Locked || l.Kind == ValuesLayer && !ways.empty() || l.Kind == ArrowsLayer && !values.empty() {
			return l.moreThan(at)
		}
	}
	return nil
}

func (l *FieldLayer) moreThan(at string) error {
	return &FieldError{at, "a layer of more than its kind", "just " + string(l.Kind)}
}
