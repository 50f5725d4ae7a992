package server

import (
	"net/http"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// PatternRequest asks to write notes of a take into a new pattern.
type PatternRequest struct {
	Revision int64 `json:"revision"`
	// Track is the id of the track that gets the pattern; 0 makes a new one of the kind.
	Track int        `json:"track"`
	Kind  score.Kind `json:"kind,omitempty"`
	// Notes says which notes.
	Notes take.Choice `json:"notes"`
	// Rate is that of the steps; empty finds one.
	Rate score.NoteValue `json:"rate,omitempty"`
}

// PatternAnswer tells of a pattern that was written.
type PatternAnswer struct {
	Project ProjectState `json:"project"`
	// Track is the id of the track that got it, Name its name.
	Track int    `json:"track"`
	Name  string `json:"name"`
	// Remarks say what could not be kept, each a sentence without its full stop.
	Remarks []string `json:"remarks"`
}

// KeyRequest asks to make a key of notes of a take.
type KeyRequest struct {
	Revision int64       `json:"revision"`
	Notes    take.Choice `json:"notes"`
}

// pattern writes notes of a take into a pattern, which plays from then on.
func (t takesResource) pattern(w http.ResponseWriter, r *http.Request) {
	var request PatternRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	found, summary := t.find(w, r)
	if found == nil {
		return
	}
	project, edits := t.studio.State().Project, []score.EditJSON{}
	track := project.Track(request.Track)
	if request.Track == 0 {
		add := score.AddTrack{At: len(project.Tracks), Kind: request.Kind}
		next, _, err := score.Apply(project, add)
		if err != nil {
			fail(w, err)
			return
		}
		track = &next.Tracks[len(next.Tracks)-1]
		edits = append(edits, score.EditJSON{AddTrack: &add})
	}
	if track == nil {
		fail(w, score.ErrUnknownTrack)
		return
	}
	written, err := take.ToPattern(found, request.Notes, project, track, request.Rate)
	if err != nil {
		fail(w, err)
		return
	}
	edits = append(edits, score.EditJSON{InsertPattern: &score.InsertPattern{
		Track: track.ID, At: len(track.Patterns), Pattern: written.Pattern, Plays: true,
	}})
	if request.Track == 0 {
		edits = append(edits, score.EditJSON{RemovePattern: &score.RemovePattern{Track: track.ID}})
	}
	name := score.CleanName("pattern of “" + summary.Name + "”")
	state, err := t.studio.Edit(r.Context(), request.Revision, score.All{Name: name, Edits: edits})
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, PatternAnswer{Project: asAsked(r, state), Track: track.ID, Name: state.Project.Track(track.ID).Name, Remarks: written.Remarks})
}

// key makes the notes of a take the key of the project.
func (t takesResource) key(w http.ResponseWriter, r *http.Request) {
	var request KeyRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	found, _ := t.find(w, r)
	if found == nil {
		return
	}
	key, err := take.KeyOf(found, request.Notes, t.studio.State().Project.Key.Root)
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, r)(t.studio.Edit(r.Context(), request.Revision, score.SetProject{Key: &key}))
}
