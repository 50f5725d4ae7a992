package score

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
)

// Encoder writes projects as files in pieces, and fast where each is the one before after an edit: tracks that both share are
// not written again. The zero value is ready. It may not be used by two goroutines at once.
type Encoder struct {
	written map[*Pattern]EncodedTrack // by the first pattern of each track, which edits of it replace
}

// EncodedProject is a project file in pieces.
type EncodedProject struct {
	// Rest is the file of the project without its tracks.
	Rest   []byte
	Tracks []EncodedTrack
}

// EncodedTrack is the JSON of a track, and by what it is known again: its SHA-256, in hexadecimal.
type EncodedTrack struct {
	JSON   json.RawMessage
	Digest string
}

// afterTracks is what comes after the tracks in the file of a project.
const afterTracks = "]}}\n"

// Encode writes the project.
func (e *Encoder) Encode(p *Project) (encoded EncodedProject, err error) {
	type rest Project // whose list of tracks is hidden by an empty one, which comes last
	type document struct {
		rest
		Tracks [0]Track `json:"tracks"`
	}
	encoded.Rest, err = json.Marshal(struct {
		Format  string   `json:"format"`
		Version int      `json:"version"`
		Project document `json:"project"`
	}{FileFormat, FileVersion, document{rest: rest(*p)}})
	if err != nil {
		return encoded, err
	}
	encoded.Rest = append(encoded.Rest, '\n')
	written := make(map[*Pattern]EncodedTrack, len(p.Tracks))
	for i := range p.Tracks {
		first := &p.Tracks[i].Patterns[0]
		track, known := e.written[first]
		if !known {
			if track.JSON, err = json.Marshal(p.Tracks[i]); err != nil {
				return encoded, err
			}
			sum := sha256.Sum256(track.JSON)
			track.Digest = hex.EncodeToString(sum[:])
		}
		written[first] = track
		encoded.Tracks = append(encoded.Tracks, track)
	}
	e.written = written
	return encoded, nil
}

// File returns the project file of the pieces, as Encode of a whole project writes it.
func (e EncodedProject) File() []byte {
	var tracks []json.RawMessage
	for _, track := range e.Tracks {
		tracks = append(tracks, track.JSON)
	}
	return JoinTracks(e.Rest, tracks)
}

// JoinTracks puts tracks into the file of a project without its tracks.
func JoinTracks(rest []byte, tracks []json.RawMessage) []byte {
	file := bytes.TrimSuffix(bytes.Clone(rest), []byte(afterTracks))
	for i, track := range tracks {
		if i > 0 {
			file = append(file, ',')
		}
		file = append(file, track...)
	}
	return append(file, afterTracks...)
}
