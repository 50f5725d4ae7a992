package live

import (
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
)

// Place is a move of a lane, with its tick of run time, and the time at which the lane goes on.
type Place struct {
	log.Place
	At int64
}

// Click is a beat that is counted in.
type Click struct {
	At int64
	// First says that a bar begins with it.
	First bool
}

// Screen is anything that shows what plays. Its methods must not block.
type Screen interface {
	// Show tells of moves of lanes and of beats that are counted in, before their times. Those of each lane are ordered by
	// time. The screen must not change them.
	Show(places []Place, clicks []Click)
	// Notify says that playing or recording has begun or ended, or that the tempo has changed.
	Notify(Status)
}

// Status is what the transport is doing.
type Status struct {
	Playing bool `json:"playing"`
	// Recording says that a take is being recorded, Armed that one will be once its first bar comes.
	Recording bool `json:"recording"`
	Armed     bool `json:"armed"`
	// Tick of the song is played at the time At, in nanoseconds; from there so many ticks pass in a millisecond.
	Tick          score.Tick `json:"tick"`
	At            int64      `json:"at"`
	TicksPerMilli float64    `json:"ticksPerMilli"`
	// Clock is that of another machine, if one is followed.
	Clock *ClockStatus `json:"clock,omitempty"`
	// Jump is one that waits.
	Jump *NextJump `json:"jump,omitempty"`
	// Opening says that the project that was opened last waits to come in.
	Opening bool `json:"opening,omitempty"`
	// Interrupted says that the program ended while it played, in the bar of Stopped, where it can go on.
	Interrupted bool `json:"interrupted,omitempty"`
	// Stopped is the tick of the song at which playing stopped last, Loop the range of it that is looped.
	Stopped score.Tick `json:"stopped"`
	Loop    Range      `json:"loop"`
}
