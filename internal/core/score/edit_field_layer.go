package score

import (
	"cmp"
	"errors"
	"fmt"
	"slices"
)

// ErrUnknownLayer is returned for a layer of fields that the project does not have.
var ErrUnknownLayer = errors.New("there is no such layer of fields")

// KeepLayer keeps one of the things that a field holds, by a name.
type KeepLayer struct {
	PartAddress
	Kind LayerKind `json:"kind" jsonschema:"enum=values,enum=arrows,enum=travellers,enum=rules"`
	Name string    `json:"name" jsonschema:"minLength=1,maxLength=60"`
}

// Label implements Edit.
func (e KeepLayer) Label() string { return fmt.Sprintf("keep the %s “%s”", e.Kind, e.Name) }

func (e KeepLayer) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	if part.Field == nil {
		return nil, ErrNoField
	}
	layer := part.Field.Layer(e.Kind)
	layer.ID, layer.Name = p.unusedLayer(), e.Name
	return InsertLayer{At: len(p.FieldLayers), Layer: layer}.apply(p)
}

// unusedLayer returns an id that no layer has, above all others while there are some, so that what names a deleted one finds no other.
func (p *Project) unusedLayer() (id int) {
	for _, layer := range p.FieldLayers {
		id = max(id, layer.ID)
	}
	if id++; id <= maxLayerID {
		return id
	}
	for id = 1; slices.ContainsFunc(p.FieldLayers, func(l FieldLayer) bool { return l.ID == id }); id++ {
	}
	return id
}

// maxLayerID bounds the ids of layers.
const maxLayerID = 255

// NewLayer returns the edit that adds a layer to those of a project, and the id that it gets.
func (p *Project) NewLayer(layer FieldLayer) (edit InsertLayer, id int) {
	layer = layer.clone()
	layer.ID = p.unusedLayer()
	return InsertLayer{At: len(p.FieldLayers), Layer: layer}, layer.ID
}

// InsertLayer adds a layer at a place of the list.
type InsertLayer struct {
	At    int        `json:"at" jsonschema:"minimum=0,maximum=64"`
	Layer FieldLayer `json:"layer"`
}

// Label implements Edit.
func (e InsertLayer) Label() string {
	return fmt.Sprintf("keep the %s “%s”", e.Layer.Kind, e.Layer.Name)
}

func (e InsertLayer) apply(p *Project) (Edit, error) {
	if e.At < 0 || e.At > len(p.FieldLayers) {
		return nil, &FieldError{"at", e.At, fmt.Sprintf("0 to %d", len(p.FieldLayers))}
	}
	p.FieldLayers = slices.Insert(slices.Clone(p.FieldLayers), e.At, e.Layer.clone())
	return RemoveLayer{Layer: e.Layer.ID}, nil
}

// RemoveLayer deletes a layer. Fields that were given it keep what they hold.
type RemoveLayer struct {
	Layer int `json:"layer" jsonschema:"minimum=1,maximum=255"`
}

// Label implements Edit.
func (e RemoveLayer) Label() string { return "delete a layer of fields" }

func (e RemoveLayer) apply(p *Project) (Edit, error) {
	at := slices.IndexFunc(p.FieldLayers, func(l FieldLayer) bool { return l.ID == e.Layer })
	if at < 0 {
		return nil, ErrUnknownLayer
	}
	inverse := InsertLayer{At: at, Layer: p.FieldLayers[at]}
	if p.FieldLayers = slices.Delete(slices.Clone(p.FieldLayers), at, at+1); len(p.FieldLayers) == 0 {
		p.FieldLayers = nil
	}
	return inverse, nil
}

// RecallLayer gives a field a layer of the project, in the place of what of its kind the field holds.
type RecallLayer struct {
	PartAddress
	Kind  LayerKind `json:"kind" jsonschema:"enum=values,enum=arrows,enum=travellers,enum=rules"`
	Layer int       `json:"layer" jsonschema:"minimum=1,maximum=255"`
	// Written is what the field holds again when a live change is let go of, in the place of the layer.
	Written *FieldLayer `json:"-"`
}

// Label implements Edit.
func (e RecallLayer) Label() string { return fmt.Sprintf("recall %s", e.Kind) }

func (e RecallLayer) apply(p *Project) (Edit, error) {
	part, err := p.Part(e.PartAddress)
	if err != nil {
		return nil, err
	}
	layer := cmp.Or(e.Written, p.FieldLayer(e.Kind, e.Layer))
	switch {
	case part.Field == nil:
		return nil, ErrNoField
	case layer == nil:
		return nil, ErrUnknownLayer
	}
	was := part.Field
	part.Field = was.clone()
	part.Field.with(layer)
	return SetField{
		PartAddress: e.PartAddress, Cells: given(was.Cells), RowNotes: given(was.RowNotes), ColumnNotes: given(was.ColumnNotes),
		Travellers: given(was.Travellers), Rules: given(was.Rules), Recalled: &was.Recalled,
	}, nil
}

// given returns a list for an edit, in which one of nothing says that it is given.
func given[T any](list []T) *[]T {
	list = append([]T{}, list...)
	return &list
}
