package score_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// fieldOf returns a project whose second track has a field, and where that is.
func fieldOf(f *score.Field) (*score.Project, score.PartAddress) {
	p := testkit.Buoy()
	track := score.TrackOf(p, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{score.NewFieldPart()}})
	track.Patterns[0].Parts[0].Field = f
	p.Tracks = append(p.Tracks, track)
	return p, score.PartAddress{Track: track.ID}
}

func applied(t require.TestingT, p *score.Project, e score.Edit) (next *score.Project, inverse score.Edit) {
	next, inverse, err := score.Apply(p, e)
	require.NoError(t, err)
	return next, inverse
}

// Values and arrows of a cell are kept and recalled apart from each other; what is locked stays locked. By hand.
func TestLayersOfCells(t *testing.T) {
	p, at := fieldOf(&score.Field{Columns: 3, Rows: 1, RowNotes: []int{4}, Cells: []score.Cell{
		{Note: true, Degree: 2, Arrows: []score.Arrow{{To: 2, Weight: 100}}, Locked: true}, {Column: 1, Letter: "A", Note: true, Velocity: 90, Mods: []score.CellMod{{Mod: 2, Value: 7}}}, {Column: 2, Wall: true},
	}})
	p, _ = applied(t, p, score.KeepLayer{PartAddress: at, Kind: score.ValuesLayer, Name: "Ebb"})
	p, _ = applied(t, p, score.KeepLayer{PartAddress: at, Kind: score.ArrowsLayer, Name: "Flood"})
	require.Equal(t, score.FieldLayer{ID: 1, Name: "Ebb", Kind: score.ValuesLayer, RowNotes: []int{4}, Cells: []score.Cell{
		{Note: true, Degree: 2}, {Column: 1, Note: true, Velocity: 90, Mods: []score.CellMod{{Mod: 2, Value: 7}}},
	}}, p.FieldLayers[0])
	require.Equal(t, []score.Cell{{Arrows: []score.Arrow{{To: 2, Weight: 100}}}, {Column: 1, Letter: "A"}, {Column: 2, Wall: true}}, p.FieldLayers[1].Cells)

	cells := []score.Cell{{Column: 1, Note: true, Degree: 7, Repeater: true}, {Column: 2, Locked: true}}
	p, _ = applied(t, p, score.SetField{PartAddress: at, Cells: &cells})
	before := p
	p, inverse := applied(t, p, score.RecallLayer{PartAddress: at, Kind: score.ArrowsLayer, Layer: 2})
	field := p.Tracks[1].Parts()[0].Field
	require.Equal(t, []score.Cell{
		{Arrows: []score.Arrow{{To: 2, Weight: 100}}}, {Column: 1, Note: true, Degree: 7, Letter: "A"}, {Column: 2, Wall: true, Locked: true},
	}, field.Cells)
	require.Equal(t, score.RecalledLayers{Arrows: 2}, field.Recalled)
	undone, _ := applied(t, p, inverse)
	require.Equal(t, before.Tracks, undone.Tracks)
	p, _ = applied(t, p, score.SetField{PartAddress: at, Cells: &cells})
	require.Zero(t, p.Tracks[1].Parts()[0].Field.Recalled, "what is changed is not the layer any more")
}

// A field that is given all of its layers again is as it was, in rows from the top; deleting a layer and undoing that leaves all as it is.
func TestLayersAreTheField(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p, at := fieldOf(testkit.Field(t))
		own := *p.Tracks[1].Parts()[0].Field
		own.Cells = slices.DeleteFunc(slices.Clone(own.Cells), func(c score.Cell) bool {
			return !c.Note && !c.Wall && !c.Repeater && c.Letter == "" && len(c.Arrows) == 0 // which holds nothing
		})
		for _, kind := range score.LayerKinds() {
			p, _ = applied(t, p, score.KeepLayer{PartAddress: at, Kind: kind, Name: "Ebb"})
		}
		other := testkit.Field(t)
		p.Tracks[1].Parts()[0].Field = other
		for i, kind := range score.LayerKinds() {
			p, _ = applied(t, p, score.RecallLayer{PartAddress: at, Kind: kind, Layer: i + 1})
		}
		is := p.Tracks[1].Parts()[0].Field
		require.Equal(t, score.RecalledLayers{Values: 1, Arrows: 2, Travellers: 3, Rules: 4}, is.Recalled)
		require.Equal(t, []int{other.Columns, other.Rows}, []int{is.Columns, is.Rows})
		is.Recalled, is.Columns, is.Rows = score.RecalledLayers{}, own.Columns, own.Rows
		require.ElementsMatch(t, own.Cells, is.Cells)
		own.Cells, is.Cells = nil, nil
		require.Equal(t, own, *is)
		layers := p.FieldLayers
		gone, inverse := applied(t, p, score.RemoveLayer{Layer: rapid.IntRange(1, 4).Draw(t, "layer")})
		require.Len(t, gone.FieldLayers, 3)
		back, _ := applied(t, gone, inverse)
		require.Equal(t, layers, back.FieldLayers)
	})
}

// A layer that is not there is refused by kind and id; so is one that holds what is not of its kind, and one whose id another has.
func TestLayersThatCannotBe(t *testing.T) {
	p, at := fieldOf(&score.Field{Columns: 1, Rows: 1})
	p.FieldLayers = []score.FieldLayer{{ID: 1, Name: "Ebb", Kind: score.ArrowsLayer}}
	for _, e := range []score.Edit{
		score.RecallLayer{PartAddress: at, Kind: score.ValuesLayer, Layer: 1}, score.RecallLayer{PartAddress: at, Kind: score.ArrowsLayer, Layer: 2},
		score.RemoveLayer{Layer: 2},
	} {
		_, _, err := score.Apply(p, e)
		require.ErrorIs(t, err, score.ErrUnknownLayer)
	}
	melodic := score.PartAddress{Track: p.Tracks[0].ID}
	for _, e := range []score.Edit{
		score.KeepLayer{PartAddress: melodic, Kind: score.ValuesLayer, Name: "Ebb"}, score.RecallLayer{PartAddress: melodic, Kind: score.ArrowsLayer, Layer: 1},
	} {
		_, _, err := score.Apply(p, e)
		require.ErrorIs(t, err, score.ErrNoField)
	}
	for _, layer := range []score.FieldLayer{
		{Kind: score.ArrowsLayer, Cells: []score.Cell{{Note: true}}}, {Kind: score.ValuesLayer, Cells: []score.Cell{{Note: true, Wall: true}}},
		{Kind: score.ValuesLayer, Cells: []score.Cell{{Note: true, Locked: true}}}, {Kind: score.RulesLayer, Travellers: []score.Traveller{score.NewTraveller(1, 0, 0)}},
		{Kind: score.TravellersLayer, Cells: []score.Cell{{Note: true}}}, {Kind: score.ArrowsLayer, RowNotes: []int{1}}, {Kind: score.ValuesLayer, RowNotes: []int{29}},
		{Kind: score.ValuesLayer, Rules: []score.MeetingRule{{A: 1, B: 2, When: score.InOneCell, Do: score.DoSound, Odds: 100}}},
	} {
		layer.ID, layer.Name = 2, "Flood"
		_, _, err := score.Apply(p, score.InsertLayer{Layer: layer})
		var refused *score.FieldError
		require.ErrorAs(t, err, &refused, layer)
	}
	_, _, err := score.Apply(p, score.InsertLayer{Layer: p.FieldLayers[0]})
	require.ErrorContains(t, err, "different from every other layer's")
	_, _, err = score.Apply(p, score.InsertLayer{At: 2, Layer: score.FieldLayer{ID: 2, Name: "Flood", Kind: score.RulesLayer}})
	require.ErrorContains(t, err, "at is 2; it must be 0 to 1")
	// The id of a deleted layer is not given to another, so that a scene which names it recalls no other.
	p, _ = applied(t, p, score.KeepLayer{PartAddress: at, Kind: score.RulesLayer, Name: "Flood"})
	p, _ = applied(t, p, score.RemoveLayer{Layer: 1})
	p, _ = applied(t, p, score.KeepLayer{PartAddress: at, Kind: score.RulesLayer, Name: "Slack"})
	require.Equal(t, 3, p.FieldLayers[1].ID)
	p.FieldLayers[1].ID = 255
	p, _ = applied(t, p, score.KeepLayer{PartAddress: at, Kind: score.RulesLayer, Name: "Spring"})
	require.Equal(t, 1, p.FieldLayers[2].ID)
}
