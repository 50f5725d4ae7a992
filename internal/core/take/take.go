package take

import (
	"fmt"
	"slices"
	"strings"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Take is a recording. It is not changed once it is finished.
type Take struct {
	Name string
	// Luck is the luck in force when the take began.
	Luck int
	// Meter holds from the beginning, Meters from later ticks on, ascending.
	Meter  score.Meter
	Meters []MeterAt
	Key    theory.Key
	// Tempo is the tempo map, with ticks counted from the take's start.
	Tempo play.TempoMap
	// Markers name moments, in order: which patterns play, from where on.
	Markers []Marker
	// Tracks are those of which the take has messages, and those that the project had when the take began.
	Tracks []Track
	// Messages are in the order in which they went out, ticks counted from the take's start.
	Messages []midi.Message
	// End is the take's length.
	End score.Tick
	// Project is what made the take, as it was when the take began; nil if that is not known or no project did.
	Project *score.Project
}

// Track names a track of a take.
type Track struct {
	ID   uint32 `json:"id"`
	Name string `json:"name"`
	// Mute silences the track where the take is heard or carried away; its messages stay.
	Mute bool `json:"mute,omitempty"`
	// Kit says that keys are instruments, which no change of pitch is about unless it names the track or its notes.
	Kit bool `json:"kit,omitempty"`
	// Parts are what a kit calls its keys, where it is known, each key once.
	Parts []KitPart `json:"parts,omitempty"`
}

// KitPart is what a kit calls a key.
type KitPart struct {
	Key  uint8  `json:"key"`
	Name string `json:"name"`
}

// TrackOf returns a track of a project as one of a take.
func TrackOf(track *score.Track) Track {
	t := Track{ID: uint32(track.ID), Name: track.Name, Kit: track.Kind == score.Kit}
	if !t.Kit {
		return t
	}
	for i := range track.Patterns {
		for _, part := range track.Patterns[i].Parts {
			if !slices.ContainsFunc(t.Parts, func(known KitPart) bool { return known.Key == uint8(part.Note) }) {
				t.Parts = append(t.Parts, KitPart{uint8(part.Note), part.Name})
			}
		}
	}
	return t
}

// Heading is what is known of a take beside its messages, and grows while it is recorded; ticks count from its start.
type Heading struct {
	Meter   score.Meter
	Meters  []MeterAt
	Tempo   play.TempoMap
	Markers []Marker
	Tracks  []Track
}

// Piece is a run of messages of a take that is being recorded.
type Piece struct {
	// First is how many messages of the take come before.
	First    int
	Messages []midi.Message
	// Standing is what instruments were told before the piece and is still in force, in the order of messages.
	Standing []midi.Message
}

// MeterAt is a meter and the tick from which it holds; a bar begins there.
type MeterAt struct {
	Tick  score.Tick  `json:"tick"`
	Meter score.Meter `json:"meter"`
}

// Bars returns the take's bars.
func (t *Take) Bars() score.Bars {
	bars := score.NewBars(t.Meter)
	for _, change := range t.Meters {
		bars = bars.Change(change.Tick, change.Meter)
	}
	return bars
}

// SetMeters takes over bars from a tick on, which is the take's beginning, whatever its end.
func (t *Take) SetMeters(bars score.Bars, from score.Tick) {
	t.Meter, t.Meters = bars.Meter(bars.At(from)), nil
	for tick, meter := range bars.Changes {
		if tick > from {
			t.Meters = append(t.Meters, MeterAt{tick - from, meter})
		}
	}
}

// Marker names a moment.
type Marker struct {
	Tick score.Tick `json:"tick"`
	Text string     `json:"text"`
}

// MarkChanges appends a marker where another state of a project lets tracks play other patterns.
func MarkChanges(markers []Marker, before, after *score.Project, at score.Tick) []Marker {
	var names []string
	for i := range after.Tracks {
		track := &after.Tracks[i]
		playing := track.Pattern(track.Playing).Name
		if was := before.Track(track.ID); was == nil || was.Pattern(was.Playing).Name != playing {
			names = append(names, track.Name+": "+playing)
		}
	}
	if len(names) == 0 {
		return markers
	}
	return append(markers, Marker{at, strings.Join(names, ", ")})
}

// ByTrack returns each track of a take as a take of its own, in their order. Together they have all its messages.
func ByTrack(t *Take) []*Take {
	named := *t
	named.NameTracks()
	t = &named
	places := make(map[uint32]int, len(t.Tracks))
	alone := make([]*Take, len(t.Tracks))
	for i, track := range t.Tracks {
		one := *t
		one.Tracks, one.Messages = []Track{track}, nil
		places[track.ID], alone[i] = i, &one
	}
	for _, m := range t.Messages {
		one := alone[places[m.Track]]
		one.Messages = append(one.Messages, m)
	}
	return alone
}

// NameTracks gives every track that has a message a name, if it has none, so that none is left out where tracks
// are listed.
func (t *Take) NameTracks() {
	named := make(map[uint32]bool, len(t.Tracks))
	for _, track := range t.Tracks {
		named[track.ID] = true
	}
	for _, m := range t.Messages {
		if !named[m.Track] {
			named[m.Track] = true
			t.Tracks = append(t.Tracks[:len(t.Tracks):len(t.Tracks)], Track{ID: m.Track, Name: fmt.Sprintf("Track %d", m.Track)})
		}
	}
}

// Origin is the project that plays from a moment of a take on.
type Origin struct {
	Tick     score.Tick
	Revision int64
	Project  *score.Project
}

// Of returns an empty take of the project that begins now.
func Of(p *score.Project, name string) *Take {
	t := &Take{
		Name:  name,
		Luck:  p.Luck.Number,
		Key:   p.Key,
		Tempo: play.TempoMapOf(p),

		Project: p,
	}
	t.SetMeters(p.Bars(), 0)
	for i := range p.Tracks {
		t.Tracks = append(t.Tracks, TrackOf(&p.Tracks[i]))
	}
	return t
}

// Finish ends a take whose recording has stopped, or was broken off: the take ends at the moment
// end or at its last message, whichever is later, and notes that are still sounding end there.
// Note-offs whose note-on came before the take are dropped.
func (t *Take) Finish(end score.Tick) {
	var sounding midi.Sounding[struct{}]
	kept := t.Messages[:0]
	for _, m := range t.Messages {
		if m.Kind == midi.NoteOn {
			sounding.Begin(m.NoteID(), struct{}{})
			end = max(end, m.Tick+1) // a note has a length
		} else if m.Kind == midi.NoteOff {
			if _, ok := sounding.End(m.NoteID()); !ok {
				continue
			}
		}
		kept = append(kept, m)
		end = max(end, m.Tick)
	}
	t.End, t.Tempo = end, t.Tempo.Until(end)
	t.Meters = slices.DeleteFunc(slices.Clone(t.Meters), func(change MeterAt) bool { return change.Tick >= end })
	t.Messages = append(kept, sounding.Release(func(struct{}) score.Tick { return end })...)
}

// Sounding returns the ids of the tracks that have notes, in the order in which they begin.
func (t *Take) Sounding() (ids []uint32) {
	for _, m := range t.Messages {
		if m.Kind == midi.NoteOn && !slices.Contains(ids, m.Track) {
			ids = append(ids, m.Track)
		}
	}
	return ids
}

// Count returns how many notes the take has.
func (t *Take) Count() int {
	notes := 0
	for _, m := range t.Messages {
		if m.Kind == midi.NoteOn {
			notes++
		}
	}
	return notes
}

// Nanos returns how long the take lasts, in nanoseconds.
func (t *Take) Nanos() int64 { return t.Tempo.Nanos(t.End) }
