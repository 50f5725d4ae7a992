package score

import "encoding/json"

// Encoder writes projects as files, as Encode does, and faster where each is the one before after an edit: tracks that
// both share are not written again. The zero value is ready. It may not be used by two goroutines at once.
type Encoder struct {
	written map[*Pattern]json.RawMessage // of each track, by its first pattern, which edits of it replace
}

// Encode writes the project as a file.
func (e *Encoder) Encode(p *Project) ([]byte, error) {
	type rest Project // whose list of tracks is hidden by an empty one, which comes last
	type document struct {
		rest
		Tracks [0]Track `json:"tracks"`
	}
	data, err := json.Marshal(struct {
		Format  string   `json:"format"`
		Version int      `json:"version"`
		Project document `json:"project"`
	}{FileFormat, FileVersion, document{rest: rest(*p)}})
	if err != nil {
		return nil, err
	}
	const end = "]}}"
	data = data[:len(data)-len(end)]
	written := make(map[*Pattern]json.RawMessage, len(p.Tracks))
	for i := range p.Tracks {
		first := &p.Tracks[i].Patterns[0]
		track, known := e.written[first]
		if !known {
			if track, err = json.Marshal(p.Tracks[i]); err != nil {
				return nil, err
			}
		}
		if written[first] = track; i > 0 {
			data = append(data, ',')
		}
		data = append(data, track...)
	}
	e.written = written
	return append(data, end+"\n"...), nil
}
