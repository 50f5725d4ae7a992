package live

import (
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Sound is a message with the time at which it is to be heard.
type Sound struct {
	midi.Message
	At int64
}

// Place is a move of a lane, with its tick of run time, and the time at which the lane goes on.
type Place struct {
	log.Place
	At int64
}

// Batch is what happens in one stretch of time. The sounds are ordered by time; the places of each lane
// are, and some may lie beyond the stretch. Its receivers share it
// and must not change it.
type Batch struct {
	Sounds []Sound
	Places []Place
	// Clicks count in, before playing begins. They are no messages, and are not recorded.
	Clicks []Click
}

// Click is a beat that is counted in.
type Click struct {
	At int64
	// First says that a bar begins with it.
	First bool
}

// Output is anything that can be played. Its methods must not block: an output that cannot keep up
// drops what it must, so that it delays no other.
type Output interface {
	// Send hands over a batch, before its time.
	Send(Batch)
	// Tell says that playing or recording has begun or ended, or that the tempo has changed. When
	// playing has ended the output drops what is still to come and releases all that sounds.
	Tell(Status)
}

// Status is what the transport is doing.
type Status struct {
	Playing bool `json:"playing"`
	// Recording says that a take is being recorded, Armed that one will be once its first bar comes.
	Recording bool `json:"recording"`
	Armed     bool `json:"armed"`
	// Tick of the song is played at the time At, in nanoseconds; from there time passes at Tempo.
	Tick  score.Tick  `json:"tick"`
	At    int64       `json:"at"`
	Tempo score.Tempo `json:"tempo"`
	// Stopped is the tick of the song at which playing stopped last, Loop the range of it that is looped.
	Stopped score.Tick `json:"stopped"`
	Loop    Range      `json:"loop"`
}
