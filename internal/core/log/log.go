// Package log is what music is a function of: where it began, and what happened since, in order of run time. What is
// played live is what its log plays, event for event.
package log

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// Log is what was done while a project played.
type Log struct {
	// Project plays first, from a tick of the song on.
	Project *score.Project
	From    score.Tick
	Entries []Entry
}

// Entry is one thing that happened at a tick of run time, which counts from the beginning. Exactly one of the fields
// after it is set.
type Entry struct {
	Tick score.Tick
	// Project is another state of the project that plays from here on, as if it had always been.
	Project *score.Project
	// Input came in; its tick is of the song.
	Input *midi.Message
	// Song is the tick of the song with which playing goes on here.
	Song *score.Tick
}

// Play returns the messages before a tick of run time, with ticks of run time, in order.
func (l *Log) Play(to score.Tick) []midi.Message {
	p := player{project: l.Project, later: l.From, player: route.NewPlayer(l.Project, l.From, play.Past{})}
	if l.From > 0 {
		p.missing = p.player.Standing()
	}
	for _, entry := range l.Entries {
		if entry.Tick >= to {
			break
		}
		p.advance(entry.Tick)
		p.act(entry)
	}
	p.advance(to)
	return p.messages
}

// player plays a log.
type player struct {
	project  *score.Project
	player   *route.Player
	inputs   []midi.Message
	run      score.Tick
	later    score.Tick // how much later in the song a tick is than in run time
	sent     midi.Settings
	missing  []midi.Message // what instruments must be told before anything else
	messages []midi.Message
}

func (p *player) advance(to score.Tick) {
	if to <= p.run {
		return
	}
	p.hand(midi.Merge(p.missing, p.player.Advance(to+p.later, nil), nil))
	p.run, p.missing = to, nil
}

func (p *player) hand(messages []midi.Message) {
	p.sent.Note(messages)
	for _, m := range messages {
		m.Tick -= p.later
		p.messages = append(p.messages, m)
	}
}

func (p *player) act(entry Entry) {
	switch {
	case entry.Input != nil:
		m := *entry.Input
		p.inputs = append(p.inputs, m)
		p.player.Hear(m)
	case entry.Song != nil:
		p.hand(p.player.Release(p.run + p.later))
		p.later = *entry.Song - p.run
		p.inputs = slices.DeleteFunc(p.inputs, func(m midi.Message) bool { return m.Tick >= *entry.Song })
		p.player = route.NewPlayer(p.project, *entry.Song, play.Past{Inputs: p.inputs})
		p.missing = p.sent.Missing(p.player.Standing(), nil)
	default:
		song := p.run + p.later
		tracks, _ := play.Replayed(p.project, entry.Project)
		var replayed *route.Player
		if len(tracks) > 0 {
			replayed = route.NewPlayer(entry.Project, song, play.Past{Inputs: p.inputs, Only: tracks})
		}
		p.player, p.project = p.player.Change(entry.Project, replayed, tracks, nil), entry.Project
		p.missing = p.sent.Missing(p.player.Standing(), nil)
	}
}
