package server

import (
	"net/http"
	"slices"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// FieldRequest asks for a field to be laid out anew, as one edit.
type FieldRequest struct {
	Revision int64 `json:"revision"`
	score.PartAddress
	Do field.Change `json:"do" jsonschema:"enum=turn right,enum=mirror,enum=shift left,enum=shift right,enum=shift up,enum=shift down"`
}

type fieldsResource struct{ studio *studio.Studio }

// Routes lists the resource's routes.
func (f fieldsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/", f.change)
	return r
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
	part, err := f.studio.State().Project.Part(asked.PartAddress)
	if err == nil && part.Field == nil {
		err = score.ErrNoField
	}
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
