package smf

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// Options says how a take is written.
type Options struct {
	// Format is 0 for one track that holds all, 1 for a track of tempo and meter and one for each
	// track of the take.
	Format int
	// Division is the number of ticks in a quarter note: DefaultDivision or ExactDivision.
	Division int
}

// FromTake lays a take out as a file. Each event is rounded from its own moment, never from a rounded
// distance, so rounding cannot add up; a note keeps a length of at least one tick. The error is a *RangeError for a
// take that is longer than a file can be.
func FromTake(t *take.Take, o Options) (File, error) {
	if longest := score.Tick(math.MaxUint32) * score.TicksPerQuarter / score.Tick(o.Division); t.End > longest {
		bars := t.Bars()
		return File{}, &RangeError{
			"the length of the take", fmt.Sprintf("%d bars", bars.At(t.End-1)+1),
			fmt.Sprintf("at most %d for a MIDI file of %d ticks a quarter note: cut off what lies beyond, or choose fewer bars", bars.At(longest), o.Division),
		}
	}
	end := round(t.End, o.Division)
	conductor := conductorEvents(t, o.Division)
	if o.Format == 0 {
		messages := t.Messages
		if len(t.Sounding()) > 1 { // several tracks on one key are one key for what reads the file
			var keys route.SharedKeys
			messages = keys.Play(messages, nil)
		}
		track := merge(conductor, noteEvents(messages, o.Division))
		return File{Format: 0, Division: o.Division, Tracks: []Track{{Events: track, End: end}}}, nil
	}
	tracks := []Track{{Events: conductor, End: end}}
	for _, one := range take.ByTrack(t) {
		events := []Event{{Data: text(metaTrackName, one.Tracks[0].Name)}}
		events = append(events, noteEvents(one.Messages, o.Division)...)
		tracks = append(tracks, Track{Events: events, End: end})
	}
	return File{Format: 1, Division: o.Division, Tracks: tracks}, nil
}

func conductorEvents(t *take.Take, division int) []Event {
	events := []Event{
		{Data: text(metaTrackName, t.Name)},
		{Data: timeSignature(t.Meter)},
	}
	if sharps, minor, ok := t.Key.Signature(); ok {
		events = append(events, Event{Data: keySignature(sharps, minor)})
	}
	for tick, meter := range t.Bars().Changes {
		events = append(events, Event{Tick: round(tick, division), Data: timeSignature(meter)})
	}
	for _, change := range t.Tempo {
		events = append(events, Event{Tick: round(change.Tick, division), Data: setTempo(change.Tempo)})
	}
	for _, marker := range t.Markers {
		events = append(events, Event{Tick: round(marker.Tick, division), Data: text(metaMarker, marker.Text)})
	}
	slices.SortStableFunc(events, func(a, b Event) int { return cmp.Compare(a.Tick, b.Tick) })
	return events
}

// noteEvents rounds each message by itself. Only where a note would get no length, or a key would be struck
// before it was let go, is a message moved on.
func noteEvents(messages []midi.Message, division int) []Event {
	events := make([]Event, 0, len(messages))
	data := make([]byte, 0, 3*len(messages))
	var sounding midi.Sounding[uint32] // when each note began
	free := map[[2]uint8]uint32{}      // from when on a key can be struck again
	count := map[[2]uint8]int{}        // how many notes are on a key
	for _, m := range messages {
		moment := round(m.Tick, division)
		if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
			key := [2]uint8{m.Channel, m.Key}
			if m.Kind == midi.NoteOn {
				if count[key] == 0 {
					moment = max(moment, free[key])
				}
				sounding.Begin(m.NoteID(), moment)
				count[key]++
			} else {
				began, _ := sounding.End(m.NoteID())
				moment = max(moment, began+1)
				free[key] = max(free[key], moment)
				count[key]--
			}
		}
		for _, single := range midi.Split(m) {
			first := len(data)
			data = appendMessage(data, single)
			events = append(events, Event{Tick: moment, Data: data[first:]})
		}
	}
	slices.SortStableFunc(events, func(a, b Event) int { return cmp.Compare(a.Tick, b.Tick) })
	return events
}

// merge interleaves two ordered lists; at one tick the events of a come first.
func merge(a, b []Event) []Event {
	merged := make([]Event, 0, len(a)+len(b))
	for len(a) > 0 && len(b) > 0 {
		if a[0].Tick <= b[0].Tick {
			merged, a = append(merged, a[0]), a[1:]
		} else {
			merged, b = append(merged, b[0]), b[1:]
		}
	}
	return append(append(merged, a...), b...)
}

// round converts a tick of the core to a tick of the file, halves upwards.
func round(t score.Tick, division int) uint32 {
	scaled := (2*int64(t)*int64(division) + int64(score.TicksPerQuarter)) / (2 * int64(score.TicksPerQuarter))
	return uint32(min(scaled, math.MaxUint32))
}
