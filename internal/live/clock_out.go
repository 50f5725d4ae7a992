package live

import (
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// clocks are how far the clocks of outputs were sent.
type clocks struct {
	told  score.Tick   // of run time, while something plays
	begun map[int]bool // which outputs were told where playing stands
	piece int          // up to which jumps were told
	idle  int64        // when the next clock comes while nothing plays
}

// clockTick is how long it is from one clock to the next (MIDI 1.0: 24 a quarter note).
const clockTick = score.TicksPerQuarter / 24

// before is how long before a clock a start or a continue is sent at least, and between it and what comes before it (MIDI 1.0 asks for a
// millisecond, which a receiver needs to be ready).
const before = int64(time.Millisecond)

const sixteenth = score.TicksPerQuarter / 4

// tellClocks has the clocks of outputs sent up to where all has been computed.
func (t *Transport) tellClocks() {
	until, pieces := t.player.Run(), t.player.Pieces()
	var events []output.Event
	for _, o := range t.project.Outputs {
		if o.Clock == nil {
			delete(t.clocks.begun, o.ID)
			continue
		}
		if begins := t.nextPosition(); !t.clocks.begun[o.ID] && begins < until {
			if t.clocks.begun == nil {
				t.clocks.begun = map[int]bool{}
			}
			t.clocks.begun[o.ID] = true
			events = append(events, t.clockBegins(o, begins)...)
		}
		for _, piece := range pieces[min(len(pieces), max(1, t.clocks.piece)):] {
			if at := t.clockTime(o, piece.Run); o.Clock.Follows && piece.Run < until {
				events = append(append(events, clockEvent(o, midi.Stop, at-3*before)), position(o, piece.Song, at)...)
			}
		}
		for tick := (t.clocks.told + clockTick - 1) / clockTick * clockTick; tick < until; tick += clockTick {
			events = append(events, clockEvent(o, midi.Clock, t.clockTime(o, tick)))
		}
	}
	for t.clocks.piece < len(pieces) && pieces[t.clocks.piece].Run < until {
		t.clocks.piece++
	}
	t.clocks.told = max(t.clocks.told, until)
	t.sendClocks(events)
}

// nextPosition returns the first tick of run time at a sixteenth that was not told yet: from there on a machine can go on.
func (t *Transport) nextPosition() score.Tick {
	song := t.player.Pieces().Song(t.clocks.told)
	return t.clocks.told + (song+sixteenth-1)/sixteenth*sixteenth - song
}

// chaseClocks returns what brings a machine up to date that is connected while something plays.
func (t *Transport) chaseClocks() (events []output.Event) {
	for _, o := range t.project.Outputs {
		if o.Clock != nil && t.clocks.begun[o.ID] {
			at := t.nextPosition()
			events = append(events, position(o, t.player.Pieces().Song(at), t.clockTime(o, at))...)
		}
	}
	return events
}

func (t *Transport) clockTime(o score.Output, run score.Tick) int64 {
	return t.timeOf(run) + int64(o.Clock.Offset)*int64(time.Millisecond)
}

// clockBegins returns what a machine is told that goes on at a tick of run time.
func (t *Transport) clockBegins(o score.Output, run score.Tick) []output.Event {
	at, song := t.clockTime(o, run), t.player.Pieces().Song(run)
	if song == 0 || o.Clock.Starts && run == 0 {
		return []output.Event{clockEvent(o, midi.Start, at-before)}
	}
	return position(o, song, at)
}

// position tells a machine to go on at a tick of the song with the clock at a moment. Beyond the last position that can be told it goes on where
// it stands.
func position(o score.Output, song score.Tick, at int64) []output.Event {
	events := []output.Event{clockEvent(o, midi.Continue, at-before)}
	if sixteenths := song / sixteenth; sixteenths <= midi.MaxSongPosition {
		told := clockEvent(o, midi.SongPosition, at-2*before)
		told.Value = uint16(sixteenths)
		events = []output.Event{told, events[0]}
	}
	return events
}

func clockEvent(o score.Output, kind midi.Kind, at int64) output.Event {
	return output.Event{Message: midi.Message{Kind: kind}, Output: o.ID, At: at}
}

// sendClocks has events of clocks go out.
func (t *Transport) sendClocks(events []output.Event) {
	if len(events) == 0 {
		return
	}
	t.outgoing = append(t.outgoing, events...)
	for _, feed := range t.ports {
		feed.add(events)
	}
}

// stopClocks tells machines that playing stops.
func (t *Transport) stopClocks(now int64) {
	var events []output.Event
	for _, o := range t.project.Outputs {
		if o.Clock != nil {
			events = append(events, clockEvent(o, midi.Stop, now))
		}
	}
	t.clocks = clocks{}
	t.sendClocks(events)
	t.feedPorts(now)
	t.outgoing = nil
}

// idleClocks goes on with the clocks of outputs that have one while nothing plays.
func (t *Transport) idleClocks(now int64) {
	until := now + int64(t.ahead())
	apart := play.TempoMap{{Tempo: t.project.Tempo}}.Nanos(clockTick)
	if t.clocks.idle < now {
		t.clocks.idle = now + apart
	}
	var events []output.Event
	for ; t.clocks.idle < until; t.clocks.idle += apart {
		for _, o := range t.project.Outputs {
			if o.Clock != nil && o.Clock.WhileStopped {
				events = append(events, clockEvent(o, midi.Clock, t.clocks.idle+int64(o.Clock.Offset)*int64(time.Millisecond)))
			}
		}
	}
	t.sendClocks(events)
	t.feedPorts(now)
	t.outgoing = nil
}
