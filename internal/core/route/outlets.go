package route

import (
	"cmp"
	"maps"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
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
	apart   map[int]bool        // outputs of voltages, where no track shares keys with another
	keys    map[int]*SharedKeys // by outputs
	down    map[midi.NoteID][]placed
	voices  voices
	told    map[int]*midi.Settings // by outputs: which programs they have

	routed []outgoing     // scratch
	shared []midi.Message // scratch
}

// outgoing is what goes to an output at one tick.
type outgoing struct {
	output   int
	messages []midi.Message
}

// placed is a note that is down at an output, and the route that brought it there.
type placed struct {
	route score.Route
	note  midi.NoteID
	base  uint8 // the first channel of the route
}

// NewOutlets returns the outlets of a project, with all keys up. The project must not be changed.
func NewOutlets(p *score.Project) *Outlets {
	o := &Outlets{keys: map[int]*SharedKeys{}, down: map[midi.NoteID][]placed{}, voices: voices{}, told: map[int]*midi.Settings{}, apart: map[int]bool{}}
	o.route(p)
	return o
}

func (o *Outlets) route(p *score.Project) {
	o.tracks = make(map[uint32]routes, len(p.Tracks))
	for i := range p.Tracks {
		o.tracks[uint32(p.Tracks[i].ID)] = routesOf(&p.Tracks[i])
	}
	o.offsets = map[int]int{}
	for _, output := range p.Outputs {
		o.offsets[output.ID] = output.Offset
		o.apart[output.ID] = o.apart[output.ID] || output.Kind == score.Voltages || output.Kind == score.OSC // for what is down there to end as it began
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
	for _, m := range messages {
		if m.Kind == midi.NoteOff {
			for _, p := range o.down[m.NoteID()] {
				o.give(p.route.Output, p.note.Off(m.Tick))
				o.voices.free(p)
			}
			delete(o.down, m.NoteID())
			continue
		}
		for _, r := range o.tracks[m.Track].list {
			o.begin(m, r)
		}
	}
	return o.flush(dst)
}

// begin has a message that is no note-off go out by a route of its track, if it does.
func (o *Outlets) begin(m midi.Message, r score.Route) {
	from := o.tracks[m.Track]
	routed, goes := from.apply(r, m)
	if !goes {
		return
	}
	base := routed.Channel
	_, channels := r.Channels(from.track)
	if m.Kind != midi.NoteOn {
		for range channels {
			o.give(r.Output, routed)
			routed.Channel++
		}
		return
	}
	if channels > 1 {
		routed.Channel += o.voices.take(m.Track, r, channels)
	}
	for o.apart[r.Output] && o.isDown(r.Output, routed.NoteID()) { // by another route, or of another octave
		routed.Value++
	}
	o.down[m.NoteID()] = append(o.down[m.NoteID()], placed{r, routed.NoteID(), base})
	o.give(r.Output, routed)
}

// isDown reports whether a note sounds at an output.
func (o *Outlets) isDown(output int, id midi.NoteID) bool {
	for _, places := range o.down {
		if slices.ContainsFunc(places, func(p placed) bool { return p.route.Output == output && p.note == id }) {
			return true
		}
	}
	return false
}

// flush appends what was given to outputs.
func (o *Outlets) flush(dst []Sent) []Sent {
	for i := range o.routed {
		if to := &o.routed[i]; len(to.messages) > 0 {
			dst = o.share(to.output, to.messages, dst)
			to.messages = to.messages[:0]
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

// share appends what an output is sent of messages of one tick, of which several can be on one key. Programs go out only where they are
// others.
func (o *Outlets) share(output int, messages []midi.Message, dst []Sent) []Sent {
	keys, told := o.keys[output], o.told[output]
	if keys == nil {
		keys, told = &SharedKeys{}, &midi.Settings{}
		o.keys[output], o.told[output] = keys, told
	}
	messages = slices.DeleteFunc(messages, func(m midi.Message) bool { return m.Kind == midi.Program && !told.Set(m) })
	if o.shared = o.shared[:0]; o.apart[output] {
		slices.SortStableFunc(messages, midi.Compare)
		o.shared = append(o.shared, messages...)
	} else {
		o.shared = keys.Play(messages, o.shared)
	}
	for _, m := range o.shared {
		dst = append(dst, Sent{output, m})
	}
	return dst
}

// Cut appends to dst what ends at a tick all that sounds of a track.
func (o *Outlets) Cut(track uint32, tick score.Tick, dst []Sent) []Sent {
	return o.end(func(id midi.NoteID, _ placed) bool { return id.Track == track }, tick, dst)
}

// end appends to dst what ends notes at a tick.
func (o *Outlets) end(ends func(midi.NoteID, placed) bool, tick score.Tick, dst []Sent) []Sent {
	first := len(dst)
	for id, places := range o.down {
		o.down[id] = slices.DeleteFunc(slices.Clone(places), func(p placed) bool {
			if !ends(id, p) {
				return false
			}
			o.give(p.route.Output, p.note.Off(tick))
			o.voices.free(p)
			return true
		})
	}
	dst = o.flush(dst)
	slices.SortStableFunc(dst[first:], func(a, b Sent) int {
		return cmp.Or(cmp.Compare(a.Output, b.Output), midi.Compare(a.Message, b.Message))
	})
	return dst
}

// Begun is a track that goes by a route by which it did not go before.
type Begun struct {
	Track uint32
	Route score.Route
	// Known says that the program is all that there is to say, as the track is new or went there before.
	Known bool
}

// Change has the routes of another state of the project count from a tick on. It appends to dst what ends the notes whose track
// does not go by their route any more, and returns the tracks that have a route more, or another: what their outputs need to know
// is to be sent by Begin. To an output whose offset is another all routes are others, so that no note ends before it begins.
func (o *Outlets) Change(p *score.Project, tick score.Tick, dst []Sent) (sent []Sent, begun []Begun) {
	before, offsets := o.tracks, o.offsets
	o.route(p)
	same := func(list []score.Route, r score.Route) int {
		if offsets[r.Output] != o.offsets[r.Output] {
			return -1
		}
		return slices.IndexFunc(list, func(other score.Route) bool { return placeOf(other) == placeOf(r) })
	}
	dst = o.end(func(id midi.NoteID, at placed) bool {
		now, known := o.tracks[id.Track]
		return known && same(now.list, at.route) < 0
	}, tick, dst)
	for i := range p.Tracks {
		id := uint32(p.Tracks[i].ID)
		was, known := before[id]
		for _, r := range o.tracks[id].list {
			if !known {
				begun = append(begun, Begun{id, r, true})
				continue
			}
			at := same(was.list, r)
			if at < 0 {
				begun = append(begun, Begun{Track: id, Route: r})
			} else if old := was.list[at]; old.Program != r.Program || old.Bank != r.Bank {
				begun = append(begun, Begun{id, r, true})
			}
		}
	}
	return dst, begun
}

// Begin appends to dst what brings an output up to date at a tick to which a track goes by a new route: what instruments were told of it,
// and, unless the track has them wait, the notes that go on.
func (o *Outlets) Begin(b Begun, tick score.Tick, standing, lasting []midi.Message, dst []Sent) []Sent {
	track := o.tracks[b.Track].track
	if track == nil {
		return dst
	}
	o.program(track, b.Route, tick)
	if b.Known {
		return o.flush(dst)
	}
	messages := slices.Clone(standing)
	if !track.ChaseWaits {
		messages = append(messages, lasting...)
	}
	slices.SortStableFunc(messages, midi.CompareKinds)
	for _, m := range messages {
		if m.Track == b.Track {
			o.begin(m, b.Route)
		}
	}
	return o.flush(dst)
}

// Programs appends to dst the programs with which playing a project begins at a tick.
func (o *Outlets) Programs(p *score.Project, tick score.Tick, dst []Sent) []Sent {
	for i := range p.Tracks {
		track := &p.Tracks[i]
		for _, r := range track.RouteList() {
			o.program(track, r, tick)
		}
	}
	return o.flush(dst)
}

// program has the program of a route, its own or else its track's, go out on all its channels.
func (o *Outlets) program(track *score.Track, r score.Route, tick score.Tick) {
	m, has := programOf(track, r)
	if !has {
		return
	}
	m.Tick = tick
	_, count := r.Channels(track)
	for range count {
		o.give(r.Output, m)
		m.Channel++
	}
}

// Routes returns those of a track, which must not be changed.
func (o *Outlets) Routes(track uint32) []score.Route { return o.tracks[track].list }

// Early appends to dst a program that is due later as it goes out now, by one of the routes of its track.
func (o *Outlets) Early(m midi.Message, r score.Route, dst []Sent) []Sent {
	if slices.Contains(o.tracks[m.Track].list, r) {
		o.begin(m, r)
	}
	return o.flush(dst)
}

// Anywhere returns a message as it can have gone out, by each route of its track and on each of the route's channels.
func (o *Outlets) Anywhere(m midi.Message) (all []Sent) {
	from := o.tracks[m.Track]
	for _, r := range from.list {
		routed, goes := from.apply(r, m)
		_, count := r.Channels(from.track)
		for range count {
			if goes {
				all = append(all, Sent{r.Output, routed})
			}
			routed.Channel++
		}
	}
	return all
}

// OwnPrograms returns the programs of routes that have programs of their own, as sent at a tick.
func (o *Outlets) OwnPrograms(tick score.Tick) (all []Sent) {
	for _, id := range slices.Sorted(maps.Keys(o.tracks)) {
		track := o.tracks[id].track
		for _, r := range o.tracks[id].list {
			m, has := programOf(track, r)
			m.Tick = tick
			_, count := r.Channels(track)
			for range count {
				if has && r.Program > 0 {
					all = append(all, Sent{r.Output, m})
				}
				m.Channel++
			}
		}
	}
	return all
}

// Waits reports whether an output to which a track begins to go waits for its next note.
func (o *Outlets) Waits(track uint32) bool {
	of := o.tracks[track].track
	return of != nil && of.ChaseWaits
}

// Lead returns how much earlier than playing begins programs are sent, in milliseconds.
func (o *Outlets) Lead() (lead int) {
	for _, from := range o.tracks {
		for _, r := range from.list {
			if _, has := programOf(from.track, r); has {
				lead = max(lead, r.Lead)
			}
		}
	}
	return lead
}

// Standing returns a message of what is in force, or of a note that sounds, as it stands at each output, whatever the outputs' keys do.
func (o *Outlets) Standing(m midi.Message) (all []Sent) {
	if m.Kind != midi.NoteOn {
		return o.Anywhere(m)
	}
	for _, p := range o.down[m.NoteID()] {
		on := m
		on.Channel, on.Key, on.Value = p.note.Channel, p.note.Key, p.note.Number
		on.Velocity = curved(m.Velocity, p.route.Curve)
		all = append(all, Sent{p.route.Output, on})
	}
	return all
}
