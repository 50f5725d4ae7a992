package take

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/oneof"
	"jettyfog/internal/core/score"
)

// Edit is a correction of a take: a value that can be stored, sent and made again. What was recorded is never
// changed; a take is its recording with the edits in force made one after the other.
type Edit interface {
	// Label says in a few words what the edit does, to follow "Undo " or "Redo ".
	Label() string
	// apply changes a copy of a take whose lists it shares with the original.
	apply(t *Take) error
}

// Apply returns the take with an edit made; the take itself stays as it is. The error is a *score.FieldError.
func Apply(t *Take, e Edit) (*Take, error) {
	next := *t
	if err := e.apply(&next); err != nil {
		return nil, err
	}
	if next.End > score.LastTick {
		return nil, &score.FieldError{Field: "the end of the take", Got: int(next.End), Allowed: fmt.Sprintf("at most tick %d", score.LastTick)}
	}
	return &next, nil
}

// EditJSON is an edit as it is stored and sent: an object with exactly one of these fields.
type EditJSON struct {
	Rename      *Rename      `json:"rename,omitempty"`
	SetTrack    *SetTrack    `json:"setTrack,omitempty"`
	Trim        *Trim        `json:"trim,omitempty"`
	CutOut      *CutOut      `json:"cutOut,omitempty"`
	AddNotes    *AddNotes    `json:"addNotes,omitempty"`
	DeleteNotes *DeleteNotes `json:"deleteNotes,omitempty"`
	MoveNotes   *MoveNotes   `json:"moveNotes,omitempty"`
	ShapeNotes  *ShapeNotes  `json:"shapeNotes,omitempty"`
	SetNotes    *SetNotes    `json:"setNotes,omitempty"`
	Quantise    *Quantise    `json:"quantise,omitempty"`
	Fit         *Fit         `json:"fit,omitempty"`
	Thin        *Thin        `json:"thin,omitempty"`
	Several     *Several     `json:"several,omitempty"`
}

// EncodeEdit writes an edit.
func EncodeEdit(e Edit) ([]byte, error) { return json.Marshal(formOf(e)) }

// formOf returns the JSON form of an edit.
func formOf(e Edit) (form EditJSON) {
	oneof.Set(&form, e)
	return form
}

// DecodeEdit reads an edit. The error is a *score.FileError.
func DecodeEdit(data []byte) (Edit, error) {
	var form EditJSON
	if err := score.DecodeJSON(data, &form); err != nil {
		return nil, err
	}
	return form.Edit()
}

// Edit returns the one edit that the form holds. The error is a *score.FileError.
func (form EditJSON) Edit() (Edit, error) {
	edits := oneof.Get[Edit](form)
	if len(edits) != 1 {
		return nil, &score.FileError{Reason: fmt.Sprintf("the edit must hold exactly one change, not %d", len(edits))}
	}
	return edits[0], nil
}

// Rename gives the take another name.
type Rename struct {
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
}

// Label implements Edit.
func (e Rename) Label() string { return "name of the take" }

func (e Rename) apply(t *Take) error {
	if e.Name == "" || e.Name != score.CleanName(e.Name) {
		return &score.FieldError{Field: "name", Got: e.Name, Allowed: fmt.Sprintf("1 to %d characters, none of them a control character", score.MaxNameRunes)}
	}
	t.Name = e.Name
	return nil
}

// SetTrack changes how a track of the take is heard and carried away.
type SetTrack struct {
	Track uint32 `json:"track"`
	Mute  bool   `json:"mute"`
}

// Label implements Edit.
func (e SetTrack) Label() string {
	if e.Mute {
		return "mute of a track"
	}
	return "unmute of a track"
}

func (e SetTrack) apply(t *Take) error {
	at := slices.IndexFunc(t.Tracks, func(track Track) bool { return track.ID == e.Track })
	if at < 0 {
		return &score.FieldError{Field: "track", Got: int(e.Track), Allowed: "the id of a track of the take"}
	}
	t.Tracks = slices.Clone(t.Tracks)
	t.Tracks[at].Mute = e.Mute
	return nil
}

// Trim keeps a stretch of the take and lets go of what lies around it.
type Trim struct {
	From score.Tick `json:"from" jsonschema:"minimum=0"`
	To   score.Tick `json:"to" jsonschema:"minimum=1"`
	// Aligned keeps bars whole: the take begins and ends at bar lines, and what is not in the stretch is silent.
	Aligned bool `json:"aligned,omitempty"`
}

// Label implements Edit.
func (e Trim) Label() string { return "trim" }

func (e Trim) apply(t *Take) error {
	if err := checkStretch(t, e.From, e.To); err != nil {
		return err
	}
	before := t.Bars().Floor(e.From)
	*t = *Cut(t, e.From, e.To)
	if e.Aligned {
		t.delay(e.From - before)
		t.End = t.Bars().Ceil(t.End)
	}
	return nil
}

// CutOut takes a stretch out of the take; what comes after it moves up.
type CutOut struct {
	From score.Tick `json:"from" jsonschema:"minimum=0"`
	To   score.Tick `json:"to" jsonschema:"minimum=1"`
}

// Label implements Edit.
func (e CutOut) Label() string { return "cut" }

func (e CutOut) apply(t *Take) error {
	if err := checkStretch(t, e.From, e.To); err != nil {
		return err
	}
	if e.From == 0 && e.To >= t.End {
		return &score.FieldError{Field: "to", Got: int(e.To), Allowed: "something that leaves a part of the take"}
	}
	before, after := Cut(t, 0, e.From), Cut(t, e.To, t.End)
	*t = *before
	t.End = e.From // a note that is struck at the very end of it is gone, so nothing makes it longer
	for _, change := range after.Tempo {
		change.Tick += e.From
		if change.Tick > 0 && change.Tempo == t.Tempo.At(change.Tick) {
			continue
		}
		t.Tempo = append(t.Tempo.Until(change.Tick), change)
	}
	if e.From == 0 {
		t.Tempo = after.Tempo
	}
	t.joinMeters(after, e.From)
	for _, marker := range after.Markers {
		marker.Tick += e.From
		t.Markers = append(t.Markers, marker)
	}
	var moved []midi.Message
	for _, m := range after.Messages {
		m.Tick += e.From
		moved = append(moved, m)
	}
	t.Messages = midi.Merge(before.Messages, moved, nil)
	t.Finish(e.From + after.End)
	return nil
}

// joinMeters takes over the meters of a take that goes on from a tick on, which is after those of its own.
func (t *Take) joinMeters(after *Take, from score.Tick) {
	if from == 0 {
		t.Meter, t.Meters = after.Meter, after.Meters
		return
	}
	if !reflect.DeepEqual(t.Bars().Last(), after.Meter) {
		t.Meters = append(t.Meters, MeterAt{from, after.Meter})
	}
	for _, change := range after.Meters {
		t.Meters = append(t.Meters, MeterAt{from + change.Tick, change.Meter})
	}
}

// checkStretch refuses a stretch that is not one of the take.
func checkStretch(t *Take, from, to score.Tick) error {
	if from < 0 || from >= t.End {
		return &score.FieldError{Field: "from", Got: int(from), Allowed: fmt.Sprintf("0 to %d", t.End-1)}
	}
	if to <= from || to > t.End {
		return &score.FieldError{Field: "to", Got: int(to), Allowed: fmt.Sprintf("%d to %d", from+1, t.End)}
	}
	return nil
}
