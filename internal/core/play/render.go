package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Note is one sounding note.
type Note struct {
	// Start is when it is struck, End when it is released; End is after Start.
	Start, End score.Tick
	// Track is the id of the track that plays it.
	Track uint32
	// Step is the gate step that struck it, from 0.
	Step uint8
	// Channel counts from 0, as in a MIDI message.
	Channel uint8
	// Key is the MIDI note number.
	Key uint8
	// Velocity is 1 to 127.
	Velocity uint8
}

// Render appends to dst the notes that start in [from, to), ordered by start, then by the order of
// the tracks. The project must be valid and from at least 0. Muted tracks play nothing.
func Render(p *score.Project, from, to score.Tick, dst []Note) []Note {
	players := make([]player, 0, len(p.Tracks))
	for i := range p.Tracks {
		if p.Tracks[i].Mute {
			continue
		}
		next := newPlayer(p, &p.Tracks[i], from)
		next.advance(to)
		players = append(players, next)
	}
	for {
		first := -1
		for i := range players {
			if players[i].done {
				continue
			}
			if first < 0 || players[i].note.Start < players[first].note.Start {
				first = i
			}
		}
		if first < 0 {
			return dst
		}
		dst = append(dst, players[first].note)
		players[first].advance(to)
	}
}

// player walks along one track from note to note.
type player struct {
	gate, pitch, velocity, length, probability loop

	luck     chance.Address
	spelling theory.Spelling
	register theory.Register

	move int64 // the gate move to look at next
	note Note  // the note found last
	done bool  // there is no further note
}

func newPlayer(p *score.Project, t *score.Track, from score.Tick) player {
	lanes := &t.Lanes
	walker := player{
		gate:        newLoop(lanes, score.Gate),
		pitch:       newLoop(lanes, score.Pitch),
		velocity:    newLoop(lanes, score.Velocity),
		length:      newLoop(lanes, score.Length),
		probability: newLoop(lanes, score.Probability),
		luck: chance.Address{
			Luck:    uint64(p.Luck.Number),
			Track:   uint32(t.ID),
			Lane:    uint8(score.Gate.Index()),
			Purpose: chance.Sound,
		},
		spelling: p.Key.Spelling(),
		register: t.Register,
		note:     Note{Track: uint32(t.ID), Channel: uint8(t.Channel - 1)},
	}
	walker.move = walker.gate.firstMove(from)
	return walker
}

// advance finds the next note that starts before to and leaves it in p.note, or sets p.done.
func (p *player) advance(to score.Tick) {
	for ; p.gate.start(p.move) < to; p.move++ {
		if !p.on() {
			continue
		}
		start := p.gate.start(p.move)
		if !p.sounds(p.probability.at(start)) {
			continue
		}
		p.note.Start = start
		p.note.End = p.end()
		p.note.Step = uint8(p.gate.step(p.move))
		p.note.Key = p.key(start)
		p.note.Velocity = uint8(p.velocity.at(start))
		p.move++
		return
	}
	p.done = true
}

// on reports whether the present gate step starts a note if chance allows it.
func (p *player) on() bool { return p.gate.steps[p.gate.step(p.move)] == score.On }

// sounds decides by the luck whether the present gate step sounds.
func (p *player) sounds(percent int) bool {
	p.luck.N = uint64(p.move)
	return chance.Happens(p.luck, percent)
}

// key returns the note number that the pitch lane asks for at a moment.
func (p *player) key(t score.Tick) uint8 {
	return uint8(p.register.Fold(p.spelling.Note(p.pitch.at(t))))
}

// end returns when the note that the present gate step strikes is released.
func (p *player) end() score.Tick {
	last := p.move
	for p.gate.steps[p.gate.step(last+1)] == score.Tie {
		last++
	}
	start := p.gate.start(last)
	return start + max(1, p.gate.rate*score.Tick(p.length.at(start))/100)
}
