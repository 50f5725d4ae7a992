package score

import (
	"encoding/json"
	"fmt"

	"jettyfog/internal/core/oneof"
)

// EditJSON is an edit as it is stored and sent: an object with exactly one of these fields.
type EditJSON struct {
	SetProject    *SetProject    `json:"setProject,omitempty"`
	ChangeLuck    *ChangeLuck    `json:"changeLuck,omitempty"`
	BackLuck      *BackLuck      `json:"backLuck,omitempty"`
	RestoreLuck   *RestoreLuck   `json:"restoreLuck,omitempty"`
	AddTrack      *AddTrack      `json:"addTrack,omitempty"`
	AddLines      *AddLines      `json:"addLines,omitempty"`
	InsertTrack   *InsertTrack   `json:"insertTrack,omitempty"`
	RemoveTrack   *RemoveTrack   `json:"removeTrack,omitempty"`
	MoveTrack     *MoveTrack     `json:"moveTrack,omitempty"`
	SetTrack      *SetTrack      `json:"setTrack,omitempty"`
	SetLoop       *SetLoop       `json:"setLoop,omitempty"`
	CopyPattern   *CopyPattern   `json:"copyPattern,omitempty"`
	InsertPattern *InsertPattern `json:"insertPattern,omitempty"`
	RemovePattern *RemovePattern `json:"removePattern,omitempty"`
	MovePattern   *MovePattern   `json:"movePattern,omitempty"`
	SetPattern    *SetPattern    `json:"setPattern,omitempty"`
	AddPart       *AddPart       `json:"addPart,omitempty"`
	InsertPart    *InsertPart    `json:"insertPart,omitempty"`
	RemovePart    *RemovePart    `json:"removePart,omitempty"`
	MovePart      *MovePart      `json:"movePart,omitempty"`
	SetPart       *SetPart       `json:"setPart,omitempty"`
	RestorePart   *RestorePart   `json:"restorePart,omitempty"`
	SetDetail     *SetDetail     `json:"setDetail,omitempty"`
	SetField      *SetField      `json:"setField,omitempty"`
	KeepLayer     *KeepLayer     `json:"keepLayer,omitempty"`
	InsertLayer   *InsertLayer   `json:"insertLayer,omitempty"`
	RemoveLayer   *RemoveLayer   `json:"removeLayer,omitempty"`
	RecallLayer   *RecallLayer   `json:"recallLayer,omitempty"`
	SetOwn        *SetOwn        `json:"setOwn,omitempty"`
	ToggleNote    *ToggleNote    `json:"toggleNote,omitempty"`
	Reshape       *Reshape       `json:"reshape,omitempty"`
	SetLane       *SetLane       `json:"setLane,omitempty"`
	RestoreLane   *RestoreLane   `json:"restoreLane,omitempty"`
	SetSteps      *SetSteps      `json:"setSteps,omitempty"`
	SetScene      *SetScene      `json:"setScene,omitempty"`
	RemoveScene   *RemoveScene   `json:"removeScene,omitempty"`
	SetSection    *SetSection    `json:"setSection,omitempty"`
	RemoveSection *RemoveSection `json:"removeSection,omitempty"`
	All           *All           `json:"all,omitempty"`
	Replace       *Replace       `json:"replace,omitempty"`
}

// EncodeEdit writes an edit.
func EncodeEdit(e Edit) ([]byte, error) { return json.Marshal(FormOf(e)) }

// FormOf returns the JSON form of an edit.
func FormOf(e Edit) (form EditJSON) {
	oneof.Set(&form, e)
	return form
}

// DecodeEdit reads an edit. The error is a *FileError.
func DecodeEdit(data []byte) (Edit, error) {
	var form EditJSON
	if err := DecodeJSON(data, &form); err != nil {
		return nil, err
	}
	return form.Edit()
}

// Edit returns the one edit that the form holds. The error is a *FileError.
func (form EditJSON) Edit() (Edit, error) {
	edits := oneof.Get[Edit](form)
	if len(edits) != 1 {
		return nil, &FileError{fmt.Sprintf("the edit must hold exactly one change, not %d", len(edits))}
	}
	return edits[0], nil
}
