package log

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// chain is how far a track has come in leading from pattern to pattern.
type chain struct {
	pattern int
	base    int64 // how many passes had been when it came to the pattern; -1 is not known yet
	decided uint64
	found   bool       // whether end, or look, holds
	end     score.Tick // of the song, at which its passes are over; never if it is not known
	look    score.Tick // at which to look for it
}

// lookAgain is how long it takes to look for the end of a pass again that was too far.
const lookAgain = 32 * 4 * score.TicksPerQuarter

// chained lists the tracks whose patterns that play lead to others.
func (p *Player) chained() (tracks []int) {
	for i := range p.playing.Tracks {
		if t := &p.playing.Tracks[i]; t.Pattern(t.Playing).After != nil {
			tracks = append(tracks, t.ID)
		}
	}
	return tracks
}

// chainOf returns how far a track has come.
func (p *Player) chainOf(track int) *chain {
	c, playing := p.conductor.chains[track], p.playing.Track(track).Playing
	if c == nil {
		c = &chain{pattern: playing, base: -1}
		if p.conductor.chains == nil {
			p.conductor.chains = map[int]*chain{}
		}
		p.conductor.chains[track] = c
	}
	if c.pattern != playing {
		c.pattern, c.base, c.found = playing, -1, false
	}
	if !c.found {
		c.found, c.end, c.look = true, never, p.Song()
		for _, a := range p.acts[p.pending:] {
			if tracks := a.tracks(p.written); tracks == nil || slices.Contains(tracks, track) {
				c.look = max(c.look, a.at+1) // by then it counts
			}
		}
	}
	return c
}

// chainDue returns the tick of the song at which something is to be done for a chain: the end of its passes, or where to look for it.
func (p *Player) chainDue(track int) score.Tick {
	c := p.chainOf(track)
	if c.end == never {
		return c.look
	}
	pattern, leads := p.leadsTo(track)
	return c.end - p.leadOf([]act{p.chainAct(track, pattern, leads)})
}

// goOnWithChain looks for the end of a track's passes, or leads to another pattern.
func (p *Player) goOnWithChain(track int) {
	c := p.chainOf(track)
	p.conductor.known = false
	t := p.playing.Track(track)
	after := t.Pattern(t.Playing).After
	if c.end == never {
		end, base, found := p.performance.player.ChainEnd(p.settled.On(p.written), p.playedActs(p.acts[p.pending:], p.settled), play.Passes{
			Track: track, Pattern: c.pattern, Base: c.base, Count: int64(after.Passes),
		})
		if c.base = base; found {
			c.end = end
		} else {
			c.look = p.Song() + lookAgain
		}
		return
	}
	pattern, leads := p.leadsTo(track)
	at := c.end
	c.decided++
	c.base, c.found = c.base+int64(after.Passes), false
	if after.To != score.ToSilence && (!leads || pattern == c.pattern) {
		c.found, c.end, c.look = true, never, max(p.Song(), at+1)
		return
	}
	p.give([]act{p.chainAct(track, pattern, leads)}, at)
	if after.To == score.ToSilence {
		c.found, c.end, c.look = true, never, never // it has come to its end, until something is done
	}
}

// leadsTo returns the pattern to which the one that plays leads; leads is false if it stays, or leads to silence.
func (p *Player) leadsTo(track int) (pattern int, leads bool) {
	t, c := p.playing.Track(track), p.conductor.chains[track]
	return t.Next(t.Playing, func(n int) int {
		return chance.Below(chance.Address{
			Luck: uint64(p.playing.Luck.Number), Purpose: chance.Chain, N: uint64(track)<<32 | c.decided,
		}, n)
	})
}

// chainAct returns the act with which a track leads to a pattern, or to silence.
func (p *Player) chainAct(track, pattern int, leads bool) act {
	change := stage.Change{Control: stage.Control{Name: "mute", Track: track}, Value: 1}
	if leads {
		change = stage.Change{Control: stage.Control{Name: "pattern", Track: track}, Value: pattern}
	}
	return act{given: []stage.Change{change}, takesOver: true}
}

// Next is a pattern to which a track will lead, as far as that is decided.
type Next struct {
	// At is the tick of the song from which it plays.
	At    score.Tick `json:"at"`
	Track int        `json:"track"`
	// Pattern is its id; Silent says that there is none, for the track falls silent.
	Pattern int  `json:"pattern"`
	Silent  bool `json:"silent"`
}

// Chains lists the patterns to which tracks will lead, as far as that is decided.
func (p *Player) Chains() (coming []Next) {
	for _, track := range p.chained() {
		c := p.chainOf(track)
		if c.end == never {
			continue
		}
		pattern, leads := p.leadsTo(track)
		if t := p.playing.Track(track); leads || t.Pattern(t.Playing).After.To == score.ToSilence {
			coming = append(coming, Next{At: c.end, Track: track, Pattern: pattern, Silent: !leads})
		}
	}
	return coming
}
