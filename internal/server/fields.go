package server

import (
	"fmt"
	"net/http"
	"slices"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/bounds"
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// FieldRequest asks for a field to be laid out anew, as one edit.
type FieldRequest struct {
	Revision int64 `json:"revision"`
	score.PartAddress
	Do field.Change `json:"do" jsonschema:"enum=turn right,enum=mirror,enum=shift left,enum=shift right,enum=shift up,enum=shift down"`
}

type fieldsResource struct {
	studio    *studio.Studio
	transport *live.Transport
	notice    func(string)
}

// Routes lists the resource's routes.
func (f fieldsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/", f.change)
	r.Post("/roll", f.roll)
	return r
}

// FieldRollRequest asks for new values in the cells of a field that are not locked, as one edit.
type FieldRollRequest struct {
	Revision int64 `json:"revision"`
	score.PartAddress
	field.Roll
}

var rollBounds = bounds.For[field.Roll]()

func (f fieldsResource) roll(w http.ResponseWriter, r *http.Request) {
	var asked FieldRollRequest
	if err := read(r, &asked); err != nil {
		fail(w, err)
		return
	}
	part, err := f.fieldOf(asked.PartAddress)
	if err == nil {
		err = score.CheckBounds(rollBounds, &asked.Roll)
	}
	if known := func(o score.Option) bool { return o.Value == string(asked.Do) }; err == nil && !slices.ContainsFunc(field.RollOptions(), known) {
		err = &score.FieldError{Field: "do", Got: short(string(asked.Do)), Allowed: "notes, loops, tree or noise"}
	}
	if err != nil {
		fail(w, err)
		return
	}
	cells, shorter := field.Rolled(part.Field, asked.Roll)
	edit := score.SetField{PartAddress: asked.PartAddress, Cells: &cells}
	answer(w, r)(f.studio.Edit(r.Context(), asked.Revision, score.All{Name: "roll of a field, " + string(asked.Do), Edits: []score.EditJSON{score.FormOf(edit)}}))
	if shorter > 0 {
		f.notice(fmt.Sprintf("%s found no room for their length: they are shorter or left out.", score.Counted(shorter, "loop")))
	}
}

// fieldOf returns the part of an address, which has a field: the one that is seen, with the layers that are recalled live.
func (f fieldsResource) fieldOf(at score.PartAddress) (*score.Part, error) {
	part, err := f.transport.Stage().On(f.studio.State().Project).Part(at)
	if err == nil && part.Field == nil {
		err = score.ErrNoField
	}
	return part, err
}

func (f fieldsResource) change(w http.ResponseWriter, r *http.Request) {
	var asked FieldRequest
	if err := read(r, &asked); err != nil {
		fail(w, err)
		return
	}
	if !slices.Contains(field.Changes(), asked.Do) {
		fail(w, &score.FieldError{Field: "do", Got: short(string(asked.Do)), Allowed: "turn right, mirror, shift left, shift right, shift up or shift down"})
		return
	}
	part, err := f.fieldOf(asked.PartAddress)
	if err != nil {
		fail(w, err)
		return
	}
	changed := field.Changed(part.Field, asked.Do)
	given := func(list []int) *[]int { return &list }
	edit := score.SetField{
		PartAddress: asked.PartAddress, Columns: &changed.Columns, Rows: &changed.Rows, Cells: &changed.Cells, Travellers: &changed.Travellers,
	}
	if len(part.Field.RowNotes)+len(part.Field.ColumnNotes) > 0 || asked.Do == field.TurnRight {
		edit.RowNotes, edit.ColumnNotes = given(changed.RowNotes), given(changed.ColumnNotes)
	}
	answer(w, r)(f.studio.Edit(r.Context(), asked.Revision, score.All{Name: "field, " + string(asked.Do), Edits: []score.EditJSON{score.FormOf(edit)}}))
}
