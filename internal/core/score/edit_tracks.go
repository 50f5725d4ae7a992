package score

import (
	"fmt"
	"slices"
	"unicode/utf8"
)

// AddTrack adds a new track, or a copy of one.
type AddTrack struct {
	// At is its place among the tracks, from 0.
	At int `json:"at"`
	// Kind is what a new track plays.
	Kind Kind `json:"kind,omitempty" jsonschema:"enum=melodic,enum=kit,enum=field"`
	// Copy is the id of a track to copy; without it the track is new.
	Copy int `json:"copy,omitempty"`
}

// Label implements Edit.
func (e AddTrack) Label() string {
	if e.Copy != 0 {
		return "copy of a track"
	}
	return fmt.Sprintf("new %s track", e.Kind)
}

func (e AddTrack) apply(p *Project) (Edit, error) {
	id := p.unusedID()
	track := newTrack(id, fmt.Sprintf("Track %d", id), NewPart("Part 1"))
	track.Channel = p.unusedChannels(1)
	switch {
	case e.Copy != 0:
		original := p.Track(e.Copy)
		if original == nil {
			return nil, fmt.Errorf("track %d: %w", e.Copy, ErrUnknownTrack)
		}
		track = original.Clone()
		track.ID, track.Name = id, CopyName(original.Name)
		if track.Retunes() { // it needs channels of its own
			track.Channel = p.unusedChannels(track.lastChannel() - track.Channel + 1)
		}
	case e.Kind == Kit:
		track.Kind, track.Channel = Kit, percussionChannel
		track.Patterns[0].Parts[0] = NewKitPart(36)
	case e.Kind == FieldKind:
		track.Kind = FieldKind
		track.Patterns[0].Parts[0] = NewFieldPart()
	}
	return InsertTrack{At: e.At, Track: track}.apply(p)
}

// TrackOf returns a new track of a kind for a project, of one pattern.
func TrackOf(p *Project, kind Kind, name string, pattern Pattern) Track {
	track := newTrack(p.unusedID(), name, NewPart("Part 1"))
	track.Kind, track.Channel = kind, p.unusedChannels(1)
	if kind == Kit {
		track.Channel = percussionChannel
	}
	track.Patterns, track.Playing = []Pattern{pattern.clone()}, pattern.ID
	return track
}

// percussionChannel is the channel that General MIDI keeps for percussion.
const percussionChannel = 10

// unusedID returns an id that no track of the project has, above all others while there are some and above those that something names, so
// that what names a removed track finds no other.
func (p *Project) unusedID() int {
	id := 1
	for i := range p.Tracks {
		if p.Tracks[i].ID < maxTrackID {
			id = max(id, p.Tracks[i].ID+1)
		}
	}
	for named := range p.namedTracks() {
		if named < maxNamedTrackID {
			id = max(id, named+1)
		}
	}
	for p.Track(id) != nil {
		id--
	}
	return id
}

// maxTrackID is the highest id of a track, maxNamedTrackID the highest that inputs and modulators can name.
const (
	maxTrackID      = 1<<31 - 1
	maxNamedTrackID = 255
)

// unusedChannels returns the lowest of so many channels in a row that no track takes and that are not for
// percussion, or 1 if there are none.
func (p *Project) unusedChannels(count int) int {
	for first := 1; first+count-1 <= 16; first++ {
		last := first + count - 1
		used := slices.ContainsFunc(p.Tracks, func(t Track) bool { return t.Channel <= last && first <= t.lastChannel() })
		if !used && (last < percussionChannel || first > percussionChannel) {
			return first
		}
	}
	return 1
}

// CopyName names the copy of something, within the bounds of names.
func CopyName(name string) string {
	const mark = " copy"
	for utf8.RuneCountInString(name)+len(mark) > MaxNameRunes {
		_, size := utf8.DecodeLastRuneInString(name)
		name = name[:len(name)-size]
	}
	return name + mark
}

// InsertTrack puts a whole track among the others.
type InsertTrack struct {
	// At is its place, from 0.
	At    int   `json:"at"`
	Track Track `json:"track"`
}

// Label implements Edit.
func (e InsertTrack) Label() string { return fmt.Sprintf("track “%s”", e.Track.Name) }

func (e InsertTrack) apply(p *Project) (Edit, error) {
	if err := checkRange("at", e.At, 0, len(p.Tracks)); err != nil {
		return nil, err
	}
	track := e.Track.Clone()
	p.keepKnownRoutes(&track)
	p.Tracks = slices.Insert(p.Tracks, e.At, track)
	return RemoveTrack{Track: e.Track.ID}, nil
}

// RemoveTrack takes a track away. Tracks that follow it get their own clock back, and conditions about it
// are dropped.
type RemoveTrack struct {
	Track int `json:"track"`
}

// Label implements Edit.
func (e RemoveTrack) Label() string { return "removal of a track" }

func (e RemoveTrack) apply(p *Project) (Edit, error) {
	at := slices.IndexFunc(p.Tracks, func(t Track) bool { return t.ID == e.Track })
	if at < 0 {
		return nil, fmt.Errorf("track %d: %w", e.Track, ErrUnknownTrack)
	}
	if len(p.Tracks) == 1 {
		return nil, &FieldError{"the number of tracks", 0, fmt.Sprintf("1 to %d", MaxTracks)}
	}
	undo := []Edit{InsertTrack{At: at, Track: p.Tracks[at].Clone()}}
	for _, cut := range p.cuts(e.Track) {
		inverse, err := cut.apply(p)
		if err != nil {
			return nil, err
		}
		undo = append(undo, inverse)
	}
	p.Tracks = slices.Delete(p.Tracks, at, at+1)
	return all(e.Label(), undo...), nil
}

// cuts returns the edits that make every other track independent of a track.
func (p *Project) cuts(id int) []Edit {
	var cuts []Edit
	for i := range p.Tracks {
		track := &p.Tracks[i]
		if track.ID == id {
			continue
		}
		if track.Pitches.FollowsTrack() == id {
			cuts = append(cuts, SetTrack{Track: track.ID, Pitches: &PitchSource{Kind: KeyPitches}})
		}
		if track.Source.FollowsTrack() && track.Source.Track == id {
			own := track.Source
			own.Kind, own.Track = OwnClock, 0
			cuts = append(cuts, SetTrack{Track: track.ID, Source: &own})
		}
		for _, pattern := range track.Patterns {
			for k := range pattern.Parts {
				cuts = append(cuts, pattern.Parts[k].cuts(id, PartAddress{track.ID, pattern.ID, pattern.Parts[k].ID})...)
			}
		}
	}
	return cuts
}

// WithoutTracks returns a copy of the part without its conditions about other tracks and, of a field, without layers and tracks that its rules name, as a
// project has it that has others.
func (part *Part) WithoutTracks() Part {
	alone := part.Clone()
	for step, detail := range part.Details {
		for _, id := range detail.Condition.Tracks() {
			detail.Condition = detail.Condition.without(id)
		}
		alone.setDetail(step, detail)
	}
	if alone.Field != nil {
		alone.Field.Recalled, alone.Field.Rules = RecalledLayers{}, withoutTracks(alone.Field.Rules)
	}
	return alone
}

// WithoutTracks returns a copy of the pattern without its conditions about other tracks.
func (pattern *Pattern) WithoutTracks() Pattern {
	alone := pattern.clone()
	for i := range alone.Parts {
		alone.Parts[i] = alone.Parts[i].WithoutTracks()
	}
	return alone
}

// cuts returns the edits that drop a part's conditions about a track, in the order of the steps.
func (part *Part) cuts(id int, at PartAddress) []Edit {
	var cuts []Edit
	for step := range MaxSteps {
		detail := part.Details[step]
		if detail.Condition.About(id) {
			detail.Condition = detail.Condition.without(id)
			cuts = append(cuts, SetDetail{PartAddress: at, Step: step, Detail: detail})
		}
	}
	return cuts
}

// MoveTrack gives a track another place among the others.
type MoveTrack struct {
	Track int `json:"track"`
	// To is the place, from 0.
	To int `json:"to"`
}

// Label implements Edit.
func (e MoveTrack) Label() string { return "order of tracks" }

func (e MoveTrack) apply(p *Project) (Edit, error) {
	from := slices.IndexFunc(p.Tracks, func(t Track) bool { return t.ID == e.Track })
	if from < 0 {
		return nil, fmt.Errorf("track %d: %w", e.Track, ErrUnknownTrack)
	}
	if err := checkRange("to", e.To, 0, len(p.Tracks)-1); err != nil {
		return nil, err
	}
	moveTo(p.Tracks, from, e.To)
	return MoveTrack{Track: e.Track, To: from}, nil
}

// moveTo moves an element of a list to another place; those between make room.
func moveTo[T any](list []T, from, to int) {
	moved := list[from]
	copy(list[from:], list[from+1:])
	copy(list[to+1:], list[to:len(list)-1])
	list[to] = moved
}
