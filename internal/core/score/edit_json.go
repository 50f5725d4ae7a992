package score

import (
	"encoding/json"
	"fmt"
)

// EditJSON is an edit as it is stored and sent: an object with exactly one of these fields.
type EditJSON struct {
	SetProject    *SetProject    `json:"setProject,omitempty"`
	ChangeLuck    *ChangeLuck    `json:"changeLuck,omitempty"`
	BackLuck      *BackLuck      `json:"backLuck,omitempty"`
	RestoreLuck   *RestoreLuck   `json:"restoreLuck,omitempty"`
	AddTrack      *AddTrack      `json:"addTrack,omitempty"`
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
	Reshape       *Reshape       `json:"reshape,omitempty"`
	SetLane       *SetLane       `json:"setLane,omitempty"`
	RestoreLane   *RestoreLane   `json:"restoreLane,omitempty"`
	SetSteps      *SetSteps      `json:"setSteps,omitempty"`
	All           *All           `json:"all,omitempty"`
	Replace       *Replace       `json:"replace,omitempty"`
}

// EncodeEdit writes an edit.
func EncodeEdit(e Edit) ([]byte, error) { return json.Marshal(formOf(e)) }

// formOf returns the JSON form of an edit.
func formOf(e Edit) EditJSON {
	var form EditJSON
	switch e := e.(type) {
	case SetProject:
		form.SetProject = &e
	case ChangeLuck:
		form.ChangeLuck = &e
	case BackLuck:
		form.BackLuck = &e
	case RestoreLuck:
		form.RestoreLuck = &e
	case AddTrack:
		form.AddTrack = &e
	case InsertTrack:
		form.InsertTrack = &e
	case RemoveTrack:
		form.RemoveTrack = &e
	case MoveTrack:
		form.MoveTrack = &e
	case SetTrack:
		form.SetTrack = &e
	case SetLoop:
		form.SetLoop = &e
	case CopyPattern:
		form.CopyPattern = &e
	case InsertPattern:
		form.InsertPattern = &e
	case RemovePattern:
		form.RemovePattern = &e
	case MovePattern:
		form.MovePattern = &e
	case SetPattern:
		form.SetPattern = &e
	case AddPart:
		form.AddPart = &e
	case InsertPart:
		form.InsertPart = &e
	case RemovePart:
		form.RemovePart = &e
	case MovePart:
		form.MovePart = &e
	case SetPart:
		form.SetPart = &e
	case RestorePart:
		form.RestorePart = &e
	case Reshape:
		form.Reshape = &e
	case SetDetail:
		form.SetDetail = &e
	case SetLane:
		form.SetLane = &e
	case RestoreLane:
		form.RestoreLane = &e
	case SetSteps:
		form.SetSteps = &e
	case All:
		form.All = &e
	case Replace:
		form.Replace = &e
	default:
		panic(fmt.Sprintf("score: the edit %T has no JSON form", e))
	}
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
	var edits []Edit
	edits = appendEdit(edits, form.SetProject)
	edits = appendEdit(edits, form.ChangeLuck)
	edits = appendEdit(edits, form.BackLuck)
	edits = appendEdit(edits, form.RestoreLuck)
	edits = appendEdit(edits, form.AddTrack)
	edits = appendEdit(edits, form.InsertTrack)
	edits = appendEdit(edits, form.RemoveTrack)
	edits = appendEdit(edits, form.MoveTrack)
	edits = appendEdit(edits, form.SetTrack)
	edits = appendEdit(edits, form.SetLoop)
	edits = appendEdit(edits, form.CopyPattern)
	edits = appendEdit(edits, form.InsertPattern)
	edits = appendEdit(edits, form.RemovePattern)
	edits = appendEdit(edits, form.MovePattern)
	edits = appendEdit(edits, form.SetPattern)
	edits = appendEdit(edits, form.AddPart)
	edits = appendEdit(edits, form.InsertPart)
	edits = appendEdit(edits, form.RemovePart)
	edits = appendEdit(edits, form.MovePart)
	edits = appendEdit(edits, form.SetPart)
	edits = appendEdit(edits, form.RestorePart)
	edits = appendEdit(edits, form.Reshape)
	edits = appendEdit(edits, form.SetDetail)
	edits = appendEdit(edits, form.SetLane)
	edits = appendEdit(edits, form.RestoreLane)
	edits = appendEdit(edits, form.SetSteps)
	edits = appendEdit(edits, form.All)
	edits = appendEdit(edits, form.Replace)
	if len(edits) != 1 {
		return nil, &FileError{fmt.Sprintf("the edit must hold exactly one change, not %d", len(edits))}
	}
	return edits[0], nil
}

func appendEdit[E Edit](edits []Edit, e *E) []Edit {
	if e == nil {
		return edits
	}
	return append(edits, *e)
}
