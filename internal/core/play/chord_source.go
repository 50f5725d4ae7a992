package play

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// maxHeldKeys bounds how many keys of a chord count; later ones do not.
const maxHeldKeys = 24

// chordSource is the chord that a walker has its pitches from, in place of the key; source is nil without one. It is read at each step.
type chordSource struct {
	source  *score.PitchSource
	place   int             // of the track whose notes it is, or -1
	mapped  *score.ChordMap // nil without one
	chords  [][]int         // of the map, as they lie
	keys    []int           // of the chord, in the order in which they are played
	madeOf  heldKeys        // of which they were made
	is      theory.Chord
	address uint64 // of the draws of the hit that is struck
	notes   uint8  // how many notes of it were looked up
	chordState
	keysState
}

// chordState is how far the chord has come by what the track itself does: the order, and the chord of a map that was read last.
type chordState struct {
	struck int64 // how many strikes of the order there were
	slot   int16 // of the map, from 1; 0 before the first
	voiced heldKeys
}

// keysState is which keys that come in are held.
type keysState struct {
	waiting []midi.Message // those that come in later, ascending
	held    heldKeys
	down    heldKeys
	letGo   bool // all that are held are up again, and stay until one is pressed
}

// heldKeys are keys in the order in which they were pressed.
type heldKeys struct {
	count uint8
	keys  [maxHeldKeys]uint8
}

func (h *heldKeys) list() []uint8 { return h.keys[:h.count] }

func (h *heldKeys) press(key uint8) {
	if !slices.Contains(h.list(), key) && h.count < maxHeldKeys {
		h.keys[h.count] = key
		h.count++
	}
}

func (h *heldKeys) release(key uint8) {
	if at := slices.Index(h.list(), key); at >= 0 {
		copy(h.keys[at:], h.keys[at+1:h.count])
		h.count--
		h.keys[h.count] = 0
	}
}

// takeChordSource finds where the pitches of the walker are from.
func (w *walker) takeChordSource(c *common) {
	source := w.track.Pitches
	if source == nil {
		return
	}
	w.chordSource = chordSource{source: source, place: -1}
	for i := range c.project.Tracks {
		if c.project.Tracks[i].ID == source.FollowsTrack() {
			w.place = i
		}
	}
	if m := c.project.ChordMap(source.Map); m != nil && source.Kind == score.MapPitches {
		w.mapped = m
		for i := range m.Chords {
			w.chords = append(w.chords, m.Chords[i].Voiced())
		}
	}
}

// hearKeys takes a key that comes in, and reports whether it counts.
func (w *walker) hearKeys(m midi.Message) bool {
	if m.Kind != midi.NoteOn && m.Kind != midi.NoteOff || !w.source.HearsKeys() || !w.source.Counts(m.Channel, m.Key) {
		return false
	}
	w.waiting = append(w.waiting, m)
	return true
}

// takeKeys has the keys count that came in by a tick, and reports whether one was pressed while none was down.
func (w *walker) takeKeys(tick score.Tick) (first bool) {
	taken := 0
	for ; taken < len(w.waiting) && w.waiting[taken].Tick <= tick; taken++ {
		m := w.waiting[taken]
		stays := w.source.Latched || w.source.Kind == score.MapPitches // the chord that was called
		switch {
		case m.Kind == midi.NoteOn:
			if w.letGo || w.held.count == 0 {
				first, w.letGo, w.held, w.down = true, false, heldKeys{}, heldKeys{}
			}
			w.held.press(m.Key)
			w.down.press(m.Key)
		case stays:
			w.down.release(m.Key)
			w.letGo = w.down.count == 0
		default:
			w.down.release(m.Key)
			w.held.release(m.Key)
		}
	}
	w.waiting = slices.Delete(w.waiting, 0, taken)
	return first
}

// readChord finds the chord that a step at a tick plays by: the pitch lane calls that of a map that is called neither by notes nor by time.
func (w *walker) readChord(tick score.Tick) {
	source := w.source
	if source == nil {
		return
	}
	if first := w.takeKeys(tick); first && source.Restart {
		w.seekTo(tick)
		w.align(tick)
		w.local = 0
	}
	switch {
	case source.Kind == score.HeldPitches:
		w.setChord(w.held.list())
	case source.Kind == score.TrackPitches && w.place >= 0:
		w.setChord(w.states[w.place].struckKeys.list())
	case source.Kind == score.MapPitches && source.ByNote && w.held.count > 0:
		w.call(int(w.held.keys[w.held.count-1]) - source.Lowest)
	case source.Kind == score.MapPitches && source.InTime && w.mapped != nil:
		w.call(w.mapped.At(tick))
	default:
		w.setChord(nil)
	}
}

// call has a chord of the map be the one that is played, as it lies nearest to the last one if the map leads them.
func (w *walker) call(place int) {
	if len(w.chords) == 0 {
		w.setChord(nil)
		return
	}
	place = floorMod(place, len(w.chords))
	if w.slot != int16(place+1) {
		keys := w.chords[place]
		if w.mapped.Led && len(keys) > 0 {
			var from []int
			for _, key := range w.voiced.list() {
				from = append(from, int(key))
			}
			keys = theory.Lead(from, keys)
		}
		w.slot = int16(place + 1)
		if len(keys) > 0 || !w.mapped.Led { // an empty one leads nowhere
			w.voiced = heldKeys{}
		}
		for _, key := range keys {
			w.voiced.press(uint8(key))
		}
	}
	if len(w.chords[place]) == 0 {
		w.setChord(nil)
		return
	}
	w.setChord(w.voiced.list())
}

// setChord has keys be the chord that is played, in its order.
func (w *walker) setChord(keys []uint8) {
	if len(w.keys) > 0 && slices.Equal(keys, w.madeOf.list()) {
		return
	}
	w.keys, w.madeOf = w.keys[:0], heldKeys{}
	for _, key := range keys {
		w.madeOf.press(key)
		w.keys = append(w.keys, int(key))
	}
	if len(w.keys) == 0 {
		return
	}
	if len(w.source.Rules) > 0 {
		w.is = theory.ChordOf(w.keys)
	}
	if w.source.Order != score.AsPlayed {
		slices.Sort(w.keys)
		w.keys = slices.Compact(w.keys)
	}
	octaves, single := w.source.Octaves, len(w.keys)
	if octaves == 0 && w.ordered() {
		octaves = 1
	}
	for octave := 1; octave < octaves; octave++ {
		for _, key := range w.keys[:single] {
			w.keys = append(w.keys, key+octave*theory.Octave)
		}
	}
	w.keys = inChordOrder(w.source.Order, w.keys)
}

// ordered reports whether the notes come one with each strike, in an order.
func (w *walker) ordered() bool {
	return w.source.Order != score.ByLane && w.source.Order != score.AllAtOnce
}

// inChordOrder returns keys, ascending or as they were pressed, in the order in which they are played.
func inChordOrder(order score.ChordOrder, keys []int) []int {
	last := len(keys) - 1
	switch order {
	case score.Down:
		slices.Reverse(keys)
	case score.UpDown:
		for i := last - 1; i > 0; i-- {
			keys = append(keys, keys[i])
		}
	case score.UpDownTwice:
		for i := last; i >= 0; i-- {
			keys = append(keys, keys[i])
		}
	case score.Inward, score.Outward:
		turned := make([]int, 0, len(keys))
		for i := range keys {
			if i%2 == 0 {
				turned = append(turned, keys[i/2])
			} else {
				turned = append(turned, keys[last-i/2])
			}
		}
		if order == score.Outward {
			slices.Reverse(turned)
		}
		return turned
	}
	return keys
}

// silentChord reports whether the present step of the walker has its pitches from a chord that has no notes, or is only played while keys are held and none
// is.
func (w *walker) silentChord() bool {
	if w.source != nil && w.source.OnlyHeld && (w.held.count == 0 || !w.source.Latched && w.down.count == 0) {
		return true
	}
	if !w.source.OfChord() {
		return false
	}
	if w.source.Calls() && len(w.chords) > 0 {
		called := w.pitch.read(w.gate.Step(), w.gate.DrawIndex) + w.track.Transpose.Degrees
		return len(w.chords[floorMod(called, len(w.chords))]) == 0
	}
	return len(w.keys) == 0
}

// beginHit makes the draws for the notes of a hit ready, and returns the degree from which they are read: that of the lanes, moved on by the order; where
// the lanes call the chords of a map, it is 0.
func (w *walker) beginHit(now *striking, h *hit, degree int) int {
	source := w.source
	if !source.OfChord() {
		return degree
	}
	w.address, w.notes = h.numbered(now.n), 0
	if w.source.Calls() {
		w.call(degree)
		degree = 0
	}
	switch {
	case source.Order == score.RandomNote && len(w.keys) > 0:
		address := w.chance
		address.Lane, address.Purpose, address.N = score.Pitch.Spec().Number(), chance.ChordNote, w.address
		degree += chance.Below(address, len(w.keys))
	case w.ordered():
		degree += int(w.struck % int64(max(1, len(w.keys))))
	}
	return degree
}

// noteAt returns the note that a degree is: of the key, or of the chord, on into the next octaves.
func (w *walker) noteAt(degree int) int {
	if !w.source.OfChord() {
		return w.pitches.note(degree)
	}
	octave := 0
	if w.source.Octaves == 0 && !w.ordered() {
		octave = floorDiv(degree, len(w.keys))
	}
	return w.pitches.noteOfKey(w.keys[floorMod(degree, len(w.keys))]) + octave*w.pitches.spelling.Period()
}

// ruled returns by how many semitones the rules of its role move the next note of the hit, which a degree is.
func (w *walker) ruled(degree int) (semitones int) {
	if !w.source.OfChord() || len(w.source.Rules) == 0 {
		return 0
	}
	role := w.is.RoleOf(w.keys[floorMod(degree, len(w.keys))])
	for i, rule := range w.source.Rules {
		if rule.Role != role {
			continue
		}
		address := w.chance
		address.Lane, address.Purpose, address.N, address.Sub = score.Pitch.Spec().Number(), chance.RoleRule, w.address, uint8(i)<<4|w.notes&15
		if chance.Happens(address, rule.Odds) {
			semitones = rule.Semitones
			break
		}
	}
	w.notes++
	return semitones
}

// restoreChord takes over how far the chord has come in another state of the part.
func (w *walker) restoreChord(chord chordState, keys keysState) {
	w.chordState, w.keysState = chord, keys
	w.waiting = slices.Clone(keys.waiting)
}
