package output

import (
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// Event is a channel message for an output and the time at which it is to be heard, in nanoseconds of the transport's clock.
// Its tick is of run time.
type Event struct {
	midi.Message
	// Output is the id of the output.
	Output int
	At     int64
	// VelocityZero says that the output ends notes by note-ons of velocity 0.
	VelocityZero bool
}

// Bytes returns the messages of MIDI 1.0 as which the event goes out, in order, each with its status byte.
func (e Event) Bytes() (messages [][]byte) {
	for _, m := range midi.Split(e.Message) {
		data := midi.Append(nil, m)
		if e.VelocityZero && m.Kind == midi.NoteOff {
			data = midi.ZeroVelocity(data)
		}
		messages = append(messages, data)
	}
	return messages
}

// Port is where the events of an output go. Its methods are called one after the other and must not block: a port that
// cannot keep up drops what it must, never note-offs, so that it delays no other.
type Port interface {
	// Ahead is how long before its time an event is to be handed over; 0 where nobody is there to take it.
	Ahead() time.Duration
	// Send hands over events of all kinds, ordered by time, and by the core's order at one time.
	Send(events []Event)
	// Withdraw takes note-ons back that were sent, as far as they have not gone out yet.
	Withdraw(noteOns []Event)
	// Release drops what is to come and ends all that sounds.
	Release()
	// Panic is Release for instruments that hang: it sends all that can end a note, on every channel, whatever was sent before.
	Panic()
}

// Timed is a port to which time itself matters, as it gives a clock. While something plays it is told how time goes on after each call of
// Send that could have come, and again and again, so that it knows that the transport is there.
type Timed interface {
	Port
	Time(t Timeline)
}

// Timeline is how time goes on where something plays. It may be read during the call only.
type Timeline struct {
	// Project is what plays.
	Project *score.Project
	// Started is the time of tick 0 of run time, in nanoseconds of the transport's clock.
	Started int64
	// Tempo is that of run time, which will not change before Until.
	Tempo play.Timing
	Until score.Tick
	// Bar returns where the bar of the song begins and ends in which a tick of run time is, in run time.
	Bar func(tick score.Tick) (begins, ends score.Tick)
	// Beats returns the beats in [from, until) of run time.
	Beats func(from, until score.Tick) []Beat
}

// Began reports whether playing began so long ago at a time that a port which is told only now comes in where it is. A start that is just over
// is played from its beginning: another machine tells of its start as it starts.
func (t Timeline) Began(now int64) bool { return now > t.Started+int64(100*time.Millisecond) }

// Beat is where a beat begins.
type Beat struct {
	// Tick is of run time.
	Tick score.Tick
	// Bar is that of the song, and Beat that of the bar, from 0.
	Bar  int64
	Beat int
}
