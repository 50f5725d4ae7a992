package route

import (
	"math"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// tuner gets the notes of a track in tune, in the order in which they start.
type tuner struct {
	track *score.Track
	told  midi.Settings
	// The channels of BendTuned, of which channels[0] is the track's own.
	channels []tunedChannel
	keys     [128]tunedKey // of MessageTuned
}

// tunedChannel is since when and until when a note sounds on a channel.
type tunedChannel struct {
	since score.Tick // the tick after its start, so that 0 is no note
	until score.Tick
}

// tunedKey is what a key was told, and until when it sounds.
type tunedKey struct {
	pitch theory.Cents
	tuned bool
	until score.Tick
}

func newTuner(t *score.Track) *tuner {
	u := &tuner{track: t}
	if t.Tuned.By == score.BendTuned {
		u.channels = make([]tunedChannel, t.Tuned.Channels)
	}
	return u
}

// tune gives a note a channel or a key on which it is in tune, and appends the messages that make it so. It
// reports whether there is one: of notes that start together only as many are played as there are channels.
func (u *tuner) tune(n *midi.Note, dst []midi.Message) ([]midi.Message, bool) {
	send := func(m midi.Message) {
		m.Tick, m.Track = n.Start, n.Track
		if u.told.Set(m) {
			dst = append(dst, m)
		}
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
func (u *tuner) bend(n *midi.Note, send func(midi.Message)) (played bool) {
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
	send(midi.Message{Kind: midi.BendRange, Channel: n.Channel, Value: uint16(u.track.Tuned.Range)})
	const middle, most = 1 << 13, 1<<14 - 1
	steps := score.Rounded(int(n.Detune)*middle, u.track.Tuned.Range*int(theory.Semitone))
	send(midi.Message{Kind: midi.Bend, Channel: n.Channel, Value: uint16(max(0, min(most, middle+steps)))})
	c.since, c.until = n.Start+1, n.End
	return true
}

// retune takes the nearest key that has the pitch already or is silent.
func (u *tuner) retune(n *midi.Note, send func(midi.Message)) {
	pitch := theory.Cents(n.Key)*theory.Semitone + n.Detune
	chosen, least := int(n.Key), math.MaxInt
	for key := range u.keys {
		k := &u.keys[key]
		away := max(key-int(n.Key), int(n.Key)-key)
		if away < least && (k.until <= n.Start || k.tuned && k.pitch == pitch) {
			chosen, least = key, away
		}
	}
	send(midi.Message{Kind: midi.TuningProgram, Channel: n.Channel, Value: uint16(u.track.Channel - 1)})
	send(keyTuning(n.Channel, uint8(chosen), pitch))
	k := &u.keys[chosen]
	k.pitch, k.tuned, k.until = pitch, true, max(k.until, n.End)
	n.Key, n.Detune = uint8(chosen), pitch-theory.Cents(chosen)*theory.Semitone
}

// keyTuning returns the message that tunes a key: to a semitone, and above it so many 16384ths of one. The
// highest value, which stands for no change, is not reached by pitches within 0…127.
func keyTuning(channel, key uint8, pitch theory.Cents) midi.Message {
	const parts = 1 << 14
	steps := max(0, min(128*parts-2, score.Rounded(int(pitch)*parts, int(theory.Semitone))))
	return midi.Message{Kind: midi.KeyTuning, Channel: channel, Key: key, Velocity: uint8(steps / parts), Value: uint16(steps % parts)}
}
