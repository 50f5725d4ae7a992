package route

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Sent is a message that goes to an output.
type Sent struct {
	// Output is its id.
	Output int
	midi.Message
}

// Outlets turn the messages of tracks into those of the outputs to which they go: by their routes, which notes go, on which
// channel and how many octaves away, and by what each output's keys do already; see SharedKeys. A note ends where it began,
// whatever becomes of its track's routes.
//
// The zero value knows no tracks. Outlets may not be used by two goroutines at once.
type Outlets struct {
	tracks  map[uint32]routes
	offsets map[int]int         // of outputs, in milliseconds
	keys    map[int]*SharedKeys // by outputs
	down    map[midi.NoteID][]placed

	routed []outgoing     // scratch
	shared []midi.Message // scratch
}

// outgoing is what goes to an output at one tick.
type outgoing struct {
	output   int
	messages []midi.Message
}

// routes are those of a track.
type routes struct {
	track *score.Track
	list  []score.Route
}

// placed is a note that is down at an output, and the route that brought it there.
type placed struct {
	route score.Route
	note  midi.NoteID
}

// NewOutlets returns the outlets of a project, with all keys up. The project must not be changed.
func NewOutlets(p *score.Project) *Outlets {
	o := &Outlets{keys: map[int]*SharedKeys{}, down: map[midi.NoteID][]placed{}}
	o.route(p)
	return o
}

func (o *Outlets) route(p *score.Project) {
	o.tracks = make(map[uint32]routes, len(p.Tracks))
	for i := range p.Tracks {
		track := &p.Tracks[i]
		o.tracks[uint32(track.ID)] = routes{track, track.RouteList()}
	}
	o.offsets = map[int]int{}
	for _, output := range p.Outputs {
		o.offsets[output.ID] = output.Offset
	}
}

// Play appends to dst what goes out of messages as a Player gives them, in order. All messages of one tick must come in one
// call. What goes to one output is in order; of several outputs at one tick it comes in the order of their ids.
func (o *Outlets) Play(messages []midi.Message, dst []Sent) []Sent {
	for len(messages) > 0 {
		together := 1
		for together < len(messages) && messages[together].Tick == messages[0].Tick {
			together++
		}
		dst = o.play(messages[:together], dst)
		messages = messages[together:]
	}
	return dst
}

// play appends what goes out of the messages of one tick.
func (o *Outlets) play(messages []midi.Message, dst []Sent) []Sent {
	for i := range o.routed {
		o.routed[i].messages = o.routed[i].messages[:0]
	}
	for _, m := range messages {
		if m.Kind == midi.NoteOff {
			for _, p := range o.down[m.NoteID()] {
				o.give(p.route.Output, p.note.Off(m.Tick))
			}
			delete(o.down, m.NoteID())
			continue
		}
		from := o.tracks[m.Track]
		for _, r := range from.list {
			routed, goes := apply(r, m, from.track)
			if !goes {
				continue
			}
			o.give(r.Output, routed)
			if m.Kind == midi.NoteOn {
				o.down[m.NoteID()] = append(o.down[m.NoteID()], placed{r, routed.NoteID()})
			}
		}
	}
	for i := range o.routed {
		if to := &o.routed[i]; len(to.messages) > 0 {
			dst = o.share(to.output, to.messages, dst)
		}
	}
	return dst
}

// give adds a message to those of an output that go out at one tick. Outputs are in the order of their ids.
func (o *Outlets) give(output int, m midi.Message) {
	at, found := slices.BinarySearchFunc(o.routed, output, func(to outgoing, id int) int { return cmp.Compare(to.output, id) })
	if !found {
		o.routed = slices.Insert(o.routed, at, outgoing{output: output})
	}
	o.routed[at].messages = append(o.routed[at].messages, m)
}

// share appends what an output is sent of messages of one tick, of which several can be on one key.
func (o *Outlets) share(output int, messages []midi.Message, dst []Sent) []Sent {
	keys := o.keys[output]
	if keys == nil {
		keys = &SharedKeys{}
		o.keys[output] = keys
	}
	o.shared = keys.Play(messages, o.shared[:0])
	for _, m := range o.shared {
		dst = append(dst, Sent{output, m})
	}
	return dst
}

// Routed returns a message as it goes by each route of its track, whatever the outputs' keys do already.
func (o *Outlets) Routed(m midi.Message) (all []Sent) {
	from := o.tracks[m.Track]
	for _, r := range from.list {
		if routed, goes := apply(r, m, from.track); goes {
			all = append(all, Sent{r.Output, routed})
		}
	}
	return all
}

// apply returns a message of a track as it goes by a route, and whether it does.
func apply(r score.Route, m midi.Message, track *score.Track) (midi.Message, bool) {
	m.Channel += uint8(r.ChannelOf(track) - track.Channel)
	switch m.Kind {
	case midi.NoteOn:
		if int(m.Key) < r.Lowest || int(m.Key) > r.Highest || int(m.Velocity) < r.Softest || int(m.Velocity) > r.Loudest {
			return m, false
		}
		return moved(m, r.Octave)
	case midi.KeyTuning:
		m, goes := moved(m, r.Octave)
		pitch := int(m.Velocity) + octave*r.Octave
		m.Velocity = uint8(max(0, min(theory.HighestNote, pitch)))
		return m, goes && pitch == int(m.Velocity)
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

// Change has the routes of another state of the project count from a tick on. It appends to dst what ends the notes whose track
// does not go by their route any more, and returns the tracks that have a route more, or another: what their outputs need to know
// is to be sent by Begin. To an output whose offset is another all routes are others, so that no note ends before it begins.
func (o *Outlets) Change(p *score.Project, tick score.Tick, dst []Sent) (sent []Sent, begun []Begun) {
	before, offsets := o.tracks, o.offsets
	o.route(p)
	same := func(list []score.Route, r score.Route) bool {
		return slices.Contains(list, r) && offsets[r.Output] == o.offsets[r.Output]
	}
	ends := map[int][]midi.Message{}
	var outputs []int
	for id, places := range o.down {
		kept := slices.DeleteFunc(slices.Clone(places), func(at placed) bool {
			if now, known := o.tracks[id.Track]; !known || same(now.list, at.route) {
				return false
			}
			if ends[at.route.Output] == nil {
				outputs = append(outputs, at.route.Output)
			}
			ends[at.route.Output] = append(ends[at.route.Output], at.note.Off(tick))
			return true
		})
		o.down[id] = kept
	}
	slices.Sort(outputs)
	for _, output := range outputs {
		slices.SortFunc(ends[output], midi.Compare)
		dst = o.share(output, ends[output], dst)
	}
	for i := range p.Tracks {
		id := uint32(p.Tracks[i].ID)
		for _, r := range o.tracks[id].list {
			if was, known := before[id]; known && !same(was.list, r) {
				begun = append(begun, Begun{id, r})
			}
		}
	}
	return dst, begun
}

// Begun is a track that goes by a route by which it did not go before.
type Begun struct {
	Track uint32
	Route score.Route
}

// Begin appends to dst what brings an output up to date to which a track goes by a new route: what instruments were told of it,
// and the notes that go on.
func (o *Outlets) Begin(b Begun, standing, lasting []midi.Message, dst []Sent) []Sent {
	track := o.tracks[b.Track].track
	if track == nil {
		return dst
	}
	var messages []midi.Message
	for _, m := range append(slices.Clone(standing), lasting...) {
		if m.Track != b.Track {
			continue
		}
		routed, goes := apply(b.Route, m, track)
		if !goes {
			continue
		}
		messages = append(messages, routed)
		if m.Kind == midi.NoteOn {
			o.down[m.NoteID()] = append(o.down[m.NoteID()], placed{b.Route, routed.NoteID()})
		}
	}
	slices.SortStableFunc(messages, midi.CompareKinds)
	return o.share(b.Route.Output, messages, dst)
}
