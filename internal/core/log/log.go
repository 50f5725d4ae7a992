// Package log is what music is a function of: where it began, and what happened since, in order of run time. What is
// played live is what its log plays, event for event, because both play it by the same Player.
//
//	p := log.NewPlayer(log.Log{Project: project}, nil)
//	messages, _ := p.Advance(end)
//
// Words. Run time counts from the beginning and never jumps; the song's time is that of the project's bars. A piece is a
// stretch of run time in which the song goes straight on. An edit counts as if it had always been; an action counts from
// its tick.
package log

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Log is what was done while a project played.
type Log struct {
	// Project and the live changes of Stage play first, from a tick of the song on.
	Project *score.Project
	Stage   stage.Stage
	From    score.Tick
	// PlaysSong has the song of the project play from its beginning, or as Plan says if there is one.
	PlaysSong bool
	Plan      Plan
	Entries   []Entry
}

// Head returns the log without its entries.
func (l *Log) Head() *Log {
	head := *l
	head.Entries = nil
	return &head
}

// Entry is one thing that happened at a tick of run time. Exactly one of Project, Action, Input, Passed, Tempo and Jump is set.
type Entry struct {
	Tick score.Tick
	// Project is another state of the project that plays from here on, as if it had always been; LetGo are the controls
	// whose live changes it takes away.
	Project *score.Project
	LetGo   []stage.Control
	// Way is an edit that makes Project of the state before; nil if none is known. It says nothing that Project does not.
	Way score.Edit
	// Action gives a control a value.
	Action *Action
	// Input came in; its tick is of the song.
	Input *midi.Message
	// Passed is a message that a hand has played through a track; its tick is of run time, and can be before the entry's.
	Passed *midi.Message
	// Tempo holds from here on in place of the project's, as that of another machine's clock does; 0 has the project's hold again.
	Tempo *score.Tempo
	// Jump has the song go on elsewhere here.
	Jump *Jump
}

// Action gives a control a value, or without one lets go of it.
type Action struct {
	Control stage.Control
	Value   *int
	// At is the tick of run time from which it counts; one that is over by then counts as soon as it can.
	At score.Tick
}

// Play returns the messages before a tick of run time, with ticks of run time, in order.
func (l *Log) Play(to score.Tick) (messages []midi.Message) { return l.Hear(to).Messages }

// passed returns the messages before a tick of run time that hands have played through tracks.
func (l *Log) passed(to score.Tick) (messages []midi.Message) {
	for _, entry := range l.Entries {
		if entry.Passed != nil && entry.Passed.Tick < to {
			messages = append(messages, *entry.Passed)
		}
	}
	return messages
}

// Heard is what a log plays, and when.
type Heard struct {
	Messages []midi.Message
	// Tempo and Bars are the tempos and the bars of run time, as far as they are known at its end.
	Tempo play.TempoMap
	Bars  score.Bars
	// Sections are where sections of the song began.
	Sections []Began
}

// Hear returns the messages before a tick of run time, as Play does, and the time in which they are played.
func (l *Log) Hear(to score.Tick) (h Heard) {
	p := l.play(to, func(played, withdrawn []midi.Message) {
		h.Messages = append(Withdrawn(h.Messages, withdrawn), played...)
	})
	h.Messages = midi.Merge(h.Messages, l.passed(to), nil)
	h.Tempo, h.Bars, h.Sections = p.Tempo(), p.Bars(), p.Sections()
	return h
}

// play plays a log until a tick of run time, and returns its player.
func (l *Log) play(to score.Tick, played func(messages, withdrawn []midi.Message)) *Player {
	p := NewPlayer(*l, nil)
	for _, entry := range l.Entries {
		if entry.Tick >= to {
			break
		}
		messages, _ := p.Advance(entry.Tick)
		played(messages, nil)
		played(p.Do(entry))
	}
	messages, _ := p.Advance(to)
	played(messages, nil)
	return p
}
