package route

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// routes are those of a track, of a kit which keys are whose, and of a kit or a field which parts or travellers go apart.
type routes struct {
	track *score.Track
	list  []score.Route
	parts map[uint8][]int // of a kit with routes of parts: the ids of the parts that have a key, in any pattern
	apart map[int]bool    // the parts of a kit, or travellers of a field, that have routes of their own
}

func routesOf(track *score.Track) routes {
	r := routes{track: track, list: track.RouteList(), apart: apartOf(track)}
	if r.apart != nil && track.Kind == score.Kit {
		r.parts = keysOf(track)
	}
	return r
}

// apartOf returns the ids of the parts of a kit, or travellers of a field, that have routes of their own; nil is none.
func apartOf(track *score.Track) (apart map[int]bool) {
	for _, route := range track.RouteList() {
		if !route.OnlyPart {
			continue
		}
		if apart == nil {
			apart = map[int]bool{}
		}
		apart[route.Part] = true
	}
	return apart
}

// keysOf returns the ids of a kit's parts by their keys.
func keysOf(kit *score.Track) map[uint8][]int {
	keys := map[uint8][]int{}
	for i := range kit.Patterns {
		for j := range kit.Patterns[i].Parts {
			part := &kit.Patterns[i].Parts[j]
			if key := uint8(part.Note); !slices.Contains(keys[key], part.ID) {
				keys[key] = append(keys[key], part.ID)
			}
		}
	}
	return keys
}

// has reports whether a note goes by a route, as of a part of a kit or a traveller of a field.
func (from *routes) has(r score.Route, m midi.Message) bool {
	switch {
	case from.apart == nil:
		return true
	case from.track.Kind == score.FieldKind && r.OnlyPart:
		return int(m.Traveller) == r.Part
	case from.track.Kind == score.FieldKind:
		return !from.apart[int(m.Traveller)]
	}
	ids := from.parts[m.Key]
	if r.OnlyPart {
		return slices.Contains(ids, r.Part)
	}
	return len(ids) == 0 || slices.ContainsFunc(ids, func(id int) bool { return !from.apart[id] })
}

// apply returns a message of the track as it goes by a route, on the first of its channels, and whether it does.
func (from *routes) apply(r score.Route, m midi.Message) (midi.Message, bool) {
	m.Channel += uint8(r.ChannelOf(from.track) - from.track.Channel)
	switch m.Kind {
	case midi.NoteOn:
		if int(m.Key) < r.Lowest || int(m.Key) > r.Highest || int(m.Velocity) < r.Softest || int(m.Velocity) > r.Loudest || !from.has(r, m) {
			return m, false
		}
		m.Velocity = curved(m.Velocity, r.Curve)
		return moved(m, r.Octave)
	case midi.KeyTuning:
		m, goes := moved(m, r.Octave)
		pitch := int(m.Velocity) + octave*r.Octave
		m.Velocity = uint8(max(0, min(theory.HighestNote, pitch)))
		return m, goes && pitch == int(m.Velocity)
	case midi.Program:
		return m, r.Program == 0
	}
	return m, true
}

const octave = 12

// moved returns a message with its key moved by octaves, and whether there is such a key.
func moved(m midi.Message, octaves int) (midi.Message, bool) {
	key := int(m.Key) + octave*octaves
	m.Key = uint8(max(0, min(theory.HighestNote, key)))
	return m, key == int(m.Key)
}

// curved returns a velocity, 1 to 127, as a route's curve has it; see score.Route.
func curved(velocity uint8, curve int) uint8 {
	const full, whole = 127, 100
	v := int(velocity)
	bent := v*full*whole + curve*v*(full-v)
	return uint8(max(1, (bent+full*whole/2)/(full*whole)))
}

// programOf returns the program that a route has an instrument play, its own or else its track's, on the first of its channels.
func programOf(track *score.Track, r score.Route) (m midi.Message, has bool) {
	program, bank := r.Program, r.Bank
	if program == 0 {
		program, bank = track.Program, track.Bank
	}
	if program == 0 || r.Output == score.BuiltIn {
		return m, false
	}
	return midi.Message{
		Track: uint32(track.ID), Kind: midi.Program, Channel: uint8(r.ChannelOf(track) - 1), Key: uint8(program - 1), Value: uint16(bank),
	}, true
}

// placeOf returns of a route where it leads: what sounds there sounds on while all else of the route is another.
func placeOf(r score.Route) score.Route {
	r.Softest, r.Loudest, r.Curve, r.Program, r.Bank, r.Lead, r.Patch = 0, 0, 0, 0, 0, 0, ""
	return r
}
