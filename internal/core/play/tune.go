package play

import (
	"math"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// tuner gets the notes of a track in tune, in the order in which they start.
type tuner struct {
	track *score.Track
	order int // for the messages it sends
	// The channels of BendTuned, of which channels[0] is the track's own.
	channels []tunedChannel
	// The keys of MessageTuned.
	keys    [128]tunedKey
	chosen  bool // whether the channel was told its tuning program
	program uint8
}

// tunedChannel is what a channel was told, and since when and until when a note sounds on it.
type tunedChannel struct {
	ranged bool
	bend   uint16
	bent   bool
	since  score.Tick // the tick after its start, so that 0 is no note
	until  score.Tick
}

// tunedKey is what a key was told, and until when it sounds.
type tunedKey struct {
	pitch theory.Cents
	tuned bool
	until score.Tick
}

func newTuner(t *score.Track, order int) *tuner {
	u := &tuner{track: t, order: order, program: uint8(t.Channel - 1)}
	if t.Tuned.By == score.BendTuned {
		u.channels = make([]tunedChannel, t.Tuned.Channels)
	}
	return u
}

// tune gives a note a channel or a key on which it is in tune, and appends the messages that make it so. It
// reports whether there is one: of notes that start together only as many are played as there are channels.
func (u *tuner) tune(n *Note, dst []pendingControl) ([]pendingControl, bool) {
	send := func(m Message) {
		m.Tick, m.Track = n.Start, n.Track
		dst = append(dst, pendingControl{m, u.order<<slotBits | tunerSlot})
	}
	if u.channels == nil {
		u.retune(n, send)
		return dst, true
	}
	played := u.bend(n, send)
	return dst, played
}

// bend takes the channel that has been silent for the longest, or on which a note ends first that did not
// start just now.
func (u *tuner) bend(n *Note, send func(Message)) (played bool) {
	chosen := -1
	for i := range u.channels {
		c := &u.channels[i]
		if c.since < n.Start+1 && (chosen < 0 || c.until < u.channels[chosen].until) {
			chosen = i
		}
	}
	if chosen < 0 {
		return false
	}
	c := &u.channels[chosen]
	n.Channel += uint8(chosen)
	n.Alone = true
	if !c.ranged {
		c.ranged = true
		send(Message{Kind: BendRange, Channel: n.Channel, Value: uint16(u.track.Tuned.Range)})
	}
	const middle, most = 1 << 13, 1<<14 - 1
	steps := rounded(int(n.Detune)*middle, u.track.Tuned.Range*int(theory.Semitone))
	if bend := uint16(max(0, min(most, middle+steps))); bend != c.bend || !c.bent {
		c.bend, c.bent = bend, true
		send(Message{Kind: Bend, Channel: n.Channel, Value: bend})
	}
	c.since, c.until = n.Start+1, n.End
	return true
}

// retune takes the nearest key that has the pitch already or is silent.
func (u *tuner) retune(n *Note, send func(Message)) {
	pitch := theory.Cents(n.Key)*theory.Semitone + n.Detune
	chosen, least := int(n.Key), math.MaxInt
	for key := range u.keys {
		k := &u.keys[key]
		away := max(key-int(n.Key), int(n.Key)-key)
		if away < least && (k.until <= n.Start || k.tuned && k.pitch == pitch) {
			chosen, least = key, away
		}
	}
	if !u.chosen {
		u.chosen = true
		send(Message{Kind: TuningProgram, Channel: n.Channel, Value: uint16(u.program)})
	}
	k := &u.keys[chosen]
	if !k.tuned || k.pitch != pitch {
		k.tuned, k.pitch = true, pitch
		send(keyTuning(n.Channel, uint8(chosen), pitch))
	}
	k.until = max(k.until, n.End)
	n.Key, n.Detune = uint8(chosen), pitch-theory.Cents(chosen)*theory.Semitone
}

// keyTuning returns the message that tunes a key: to a semitone, and above it so many 16384ths of one. The
// highest value, which stands for no change, is not reached by pitches within 0…127.
func keyTuning(channel, key uint8, pitch theory.Cents) Message {
	const parts = 1 << 14
	steps := max(0, min(128*parts-2, rounded(int(pitch)*parts, int(theory.Semitone))))
	return Message{Kind: KeyTuning, Channel: channel, Key: key, Velocity: uint8(steps / parts), Value: uint16(steps % parts)}
}

// standing appends to dst what was sent last.
func (u *tuner) standing(tick score.Tick, dst []Message) []Message {
	m := Message{Tick: tick, Track: uint32(u.track.ID), Channel: uint8(u.track.Channel - 1)}
	for i := range u.channels {
		c, of := &u.channels[i], m
		of.Channel += uint8(i)
		if c.ranged {
			of.Kind, of.Value = BendRange, uint16(u.track.Tuned.Range)
			dst = append(dst, of)
		}
		if c.bent {
			of.Kind, of.Value = Bend, c.bend
			dst = append(dst, of)
		}
	}
	if u.chosen {
		of := m
		of.Kind, of.Value = TuningProgram, uint16(u.program)
		dst = append(dst, of)
	}
	for key := range u.keys {
		if k := &u.keys[key]; k.tuned {
			of := keyTuning(m.Channel, uint8(key), k.pitch)
			of.Tick, of.Track = tick, m.Track
			dst = append(dst, of)
		}
	}
	return dst
}
