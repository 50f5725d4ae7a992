package live

import (
	"fmt"
	"reflect"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// tracks are those of a recording: every track of every project that plays in it. Where another project is opened
// meanwhile its tracks come to those before, also where they have the same ids, so that every note stands under the
// name of the track that played it.
type tracks struct {
	named []take.Track
	ids   map[projectTrack]uint32
	eras  []era
	notes midi.Sounding[uint32] // which track of the recording a note is of
}

// projectTrack is a track of a project, as it was called when it played.
type projectTrack struct {
	id   int
	name string
}

// era is what plays from a moment on, until the next.
type era struct {
	from    score.Tick
	project *score.Project
	ids     map[uint32]uint32 // of the project's tracks in the recording
}

// play says that a project plays from a tick on.
func (t *tracks) play(project *score.Project, from score.Tick) {
	if t.ids == nil {
		t.ids = map[projectTrack]uint32{}
	}
	next := era{from: from, project: project, ids: map[uint32]uint32{}}
	for i := range project.Tracks {
		track := &project.Tracks[i]
		next.ids[uint32(track.ID)] = t.idOf(track)
	}
	t.eras = append(t.eras, next)
}

// idOf returns the id that a track of a project has in the recording.
func (t *tracks) idOf(track *score.Track) uint32 {
	key := projectTrack{track.ID, track.Name}
	if id, known := t.ids[key]; known {
		return id
	}
	id, renamed := t.before(track)
	if renamed {
		at := slices.IndexFunc(t.named, func(other take.Track) bool { return other.ID == id })
		t.named[at].Name = track.Name
	} else {
		id = t.add(take.TrackOf(track))
	}
	t.ids[key] = id
	return id
}

// before returns the id of the track of which a track of the next state of the project differs in its name only.
func (t *tracks) before(track *score.Track) (uint32, bool) {
	if len(t.eras) == 0 {
		return 0, false
	}
	last := t.eras[len(t.eras)-1]
	was := last.project.Track(track.ID)
	if was == nil || !reflect.DeepEqual(was.Patterns, track.Patterns) {
		return 0, false
	}
	return last.ids[uint32(track.ID)], true
}

// add adds a track, under its id if no other has that.
func (t *tracks) add(track take.Track) uint32 {
	taken := func(other take.Track) bool { return other.ID == track.ID }
	for slices.ContainsFunc(t.named, taken) {
		track.ID++
	}
	t.named = append(t.named[:len(t.named):len(t.named)], track)
	return track.ID
}

// of returns the track of the recording that a message belongs to. A note ends where it began.
func (t *tracks) of(m midi.Message) uint32 {
	if m.Kind == midi.NoteOff {
		if id, sounds := t.notes.End(m.NoteID()); sounds {
			return id
		}
	}
	for len(t.eras) > 1 && t.eras[1].from <= m.Tick {
		t.eras = t.eras[1:]
	}
	ids := t.eras[0].ids
	id, known := ids[m.Track]
	if !known { // of a project that played before the recording began, and was on its way
		id = t.add(take.Track{ID: m.Track, Name: fmt.Sprintf("Track %d", m.Track)})
		ids[m.Track] = id
	}
	if m.Kind == midi.NoteOn {
		t.notes.Begin(m.NoteID(), id)
	}
	return id
}
