package route

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// router gives notes and changes of tracks the channels of their instruments.
type router struct {
	tracks map[uint32]*routed
	order  []*routed
	// What gets notes in tune that were routed and not handed over yet.
	tunings []midi.Message
}

// routed is a track on its way to its instrument; tuner is nil if its instrument is left as it is tuned.
type routed struct {
	*score.Track
	tuner *tuner
	apart map[int]bool // the travellers that have routes of their own
}

func newRouter(p *score.Project) *router {
	r := &router{tracks: map[uint32]*routed{}}
	for i := range p.Tracks {
		track := &routed{Track: &p.Tracks[i], apart: apartOf(&p.Tracks[i])}
		if track.Retunes() {
			track.tuner = newTuner(track.Track)
		}
		r.tracks[uint32(track.ID)] = track
		r.order = append(r.order, track)
	}
	return r
}

// notes appends notes, which come in the order in which they start, with the channel and the key on which they are in
// tune. Of notes that start together there are as many as their track has voices, the highest, and as many as it has channels
// that are bent; what is not played bends none.
func (r *router) notes(notes []play.Note, dst []midi.Note) []midi.Note {
	for i, n := range notes {
		track := r.tracks[n.Track]
		if track.Voices > 0 && higherWith(notes, i) >= track.Voices {
			continue
		}
		note := midi.Note{
			Start: n.Start, End: n.End, Track: n.Track, Pattern: n.Pattern, Channel: uint8(track.Channel - 1), Key: n.Key, Velocity: n.Velocity,
			Voices: uint8(track.Voices), Overlap: uint16(track.Overlap), Detune: n.Detune,
		}
		if track.Kind == score.FieldKind && track.apart[int(n.Traveller)] {
			note.Traveller = n.Traveller
		}
		if track.tuner != nil {
			var played bool
			if r.tunings, played = track.tuner.tune(&note, r.tunings); !played {
				continue
			}
		}
		dst = append(dst, note)
	}
	return dst
}

// higherWith returns how many notes of its track start together with a note and are higher, or as high and before it.
func higherWith(notes []play.Note, note int) (higher int) {
	n := notes[note]
	for i := note - 1; i >= 0 && notes[i].Start == n.Start; i-- {
		if notes[i].Track == n.Track && notes[i].Key >= n.Key {
			higher++
		}
	}
	for i := note + 1; i < len(notes) && notes[i].Start == n.Start; i++ {
		if notes[i].Track == n.Track && notes[i].Key > n.Key {
			higher++
		}
	}
	return higher
}

// changes returns the messages of changes, which come in order, and those that get the notes in tune that were routed
// since it was asked last.
func (r *router) changes(changes []play.Change) []midi.Message {
	messages := make([]midi.Message, 0, len(changes))
	for _, c := range changes {
		messages = append(messages, r.change(c))
	}
	slices.SortStableFunc(r.tunings, midi.CompareKinds)
	tunings := r.tunings
	r.tunings = nil
	if len(tunings) == 0 {
		return messages
	}
	return midi.Merge(messages, tunings, nil)
}

func (r *router) change(c play.Change) midi.Message {
	m := midi.Message{
		Tick: c.Tick, Track: c.Track, Kind: c.Kind, Channel: uint8(r.tracks[c.Track].Channel - 1), Key: c.Number, Value: c.Value,
	}
	if c.Kind == midi.Program {
		m.Key, m.Value = uint8(c.Value), 0
	}
	return m
}

// programs returns what chooses the programs of all tracks, also of those that are muted, so that unmuting finds them
// chosen.
func (r *router) programs(tick score.Tick) (messages []midi.Message) {
	for _, t := range r.order {
		if t.Program > 0 {
			messages = append(messages, midi.Message{
				Tick: tick, Track: uint32(t.ID), Kind: midi.Program, Channel: uint8(t.Channel - 1), Key: uint8(t.Program - 1), Value: uint16(t.Bank),
			})
		}
	}
	return messages
}

// standing returns what the instruments need to know at a tick, of which changes is what tracks told them last. Of
// several programs for one channel, as of tracks that share it or of a mod lane, it is the last.
func (r *router) standing(tick score.Tick, changes []play.Change) []midi.Message {
	messages := r.programs(tick)
	for _, t := range r.order {
		if t.tuner != nil {
			messages = append(messages, t.tuner.told.Standing(tick)...)
		}
	}
	for _, c := range changes {
		messages = append(messages, r.change(c))
	}
	last := map[uint8]int{}
	for i, m := range messages {
		if m.Kind == midi.Program {
			last[m.Channel] = i
		}
	}
	kept := messages[:0]
	for i, m := range messages {
		if m.Kind != midi.Program || last[m.Channel] == i {
			kept = append(kept, m)
		}
	}
	slices.SortStableFunc(kept, midi.Compare)
	return kept
}
