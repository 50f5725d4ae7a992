package score

import "encoding/json"

// FromPlaces returns an edit of before, which names patterns and parts by their places from 0, as one that names them by
// their ids. The project must be the one to which the edit is to be applied. The error is about what the project does
// not have.
func FromPlaces(p *Project, e Edit) (Edit, error) {
	if all, several := e.(All); several {
		named := All{Name: all.Name}
		for _, form := range all.Edits {
			edit, err := form.Edit()
			if err == nil {
				edit, err = FromPlaces(p, edit)
			}
			if err == nil {
				p, _, err = Apply(p, edit) // those after it name places in what it leads to
			}
			if err != nil {
				return nil, err
			}
			named.Edits = append(named.Edits, FormOf(edit))
		}
		return named, nil
	}
	data, err := EncodeEdit(e)
	if err != nil {
		return nil, err
	}
	var form map[string]map[string]json.RawMessage
	if err := json.Unmarshal(data, &form); err != nil {
		return nil, err
	}
	for kind, fields := range form {
		if err := namePlaces(p, kind, fields); err != nil {
			return nil, err
		}
	}
	if data, err = json.Marshal(form); err != nil {
		return nil, err
	}
	return DecodeEdit(data)
}

// DecodeOldEdit reads an edit of before, for FromPlaces: the place of a part that is inserted was called part. The error
// is a *FileError.
func DecodeOldEdit(data []byte) (Edit, error) {
	var form any
	if err := DecodeJSON(data, &form); err != nil {
		return nil, err
	}
	renamePlaces(form)
	renamed, err := json.Marshal(form)
	if err != nil {
		return nil, err
	}
	return DecodeEdit(renamed)
}

// renamePlaces gives the places of parts that are inserted the name that they have now.
func renamePlaces(form any) {
	switch form := form.(type) {
	case map[string]any:
		if insert, is := form["insertPart"].(map[string]any); is {
			insert["at"] = insert["part"]
			delete(insert, "part")
		}
		if all, is := form["all"].(map[string]any); is {
			renamePlaces(all["edits"])
		}
	case []any:
		for _, one := range form {
			renamePlaces(one)
		}
	}
}

// namePlaces puts ids in the place of places in the fields of an edit of a kind.
func namePlaces(p *Project, kind string, fields map[string]json.RawMessage) error {
	place := func(field string) (int, bool) {
		var number int
		err := json.Unmarshal(fields[field], &number)
		return number, fields[field] != nil && err == nil
	}
	name := func(field string, id int) { fields[field], _ = json.Marshal(id) } // a number can always be written
	id, ok := place("track")
	track := p.Track(id)
	if !ok || track == nil {
		return nil
	}
	if at, ok := place("playing"); ok && at < len(track.Patterns) {
		name("playing", track.Patterns[at].ID)
	}
	at, ok := place("pattern")
	if !ok || at < 0 {
		return nil
	}
	if at >= len(track.Patterns) {
		return ErrUnknownPart
	}
	pattern := &track.Patterns[at]
	name("pattern", pattern.ID)
	part, ok := place("part")
	switch {
	case !ok || kind == "insertPart":
	case part < 0 || part >= len(pattern.Parts):
		return ErrUnknownPart
	default:
		name("part", pattern.Parts[part].ID)
	}
	return nil
}
