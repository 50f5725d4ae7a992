package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// glideGrid is how far apart the messages of a glide are: 24 in a quarter note, as many as MIDI clocks.
// It bounds how many messages a glide sends.
const glideGrid = score.TicksPerQuarter / 24

// control is a mod lane on its way to its target. A lane that sits on the step, or moves with it, by hits or by
// strikes, goes out with the note, just before it; one that moves by the clock is swung and delayed with its track.
// Its values are computed in the order of steps, and take effect in the order in which they are heard.
type control struct {
	lane  *value
	mod   score.Mod
	index int // of the mod in its part

	controlState
}

// controlState is how far a mod lane has come.
type controlState struct {
	turned  bool   // whether it has ever been given a value
	waiting []turn // values that take effect later

	started bool
	sent    int        // what was sent last
	from    int        // where the glide began, at the tick begun
	to      int        // where it goes
	begun   score.Tick // when
	sentTo  score.Tick // all of the glide before this tick has been sent
}

// turn is a value in the range of the target, the tick from which it counts, and whether it comes with a note.
type turn struct {
	tick     score.Tick
	target   int
	withNote bool
}

// compareTurns orders turns by tick; at one tick a note has the last word.
func compareTurns(a, b turn) int {
	if a.tick == b.tick && a.withNote != b.withNote {
		if b.withNote {
			return -1
		}
		return 1
	}
	return cmp.Compare(a.tick, b.tick)
}

// turn gives a mod lane a new value, from 0 to 127, at a tick of the steps; it is heard at another.
func (w *walker) turn(c *control, tick, heard score.Tick) {
	n := w.gate.DrawIndex
	if !c.lane.linked {
		n = c.lane.DrawIndex
	}
	if c.lane.evolved != nil {
		c.lane.evolveTo(w.evolvingBar(tick))
	}
	c.turned = true
	c.waiting = append(c.waiting, turn{tick: max(0, heard)})
	w.turnTo(c, c.lane.read(w.gate.Step(), n))
}

// turnTo gives the last of the values that wait, from 0 to 127.
func (w *walker) turnTo(c *control, value int) {
	if w.partIndex == 0 {
		w.states[w.trackIndex].mods[c.index] = uint8(value)
	}
	c.waiting[len(c.waiting)-1].target = c.mod.Least + score.Rounded((c.mod.Most-c.mod.Least)*value, 127)
}

// soundsAt returns when something is soundsAt that comes at a moment of the walker's own time and belongs to no note.
func (w *walker) soundsAt(local score.Tick) score.Tick {
	return (&placing{w: w, swing: w.swung(100), later: w.track.Delay}).at(exactly(local), w.aligned).whole
}

// goTo lets all values take effect that are heard before a tick, and sends what is passed up to there.
func (w *walker) goTo(c *control, until score.Tick) {
	slices.SortStableFunc(c.waiting, compareTurns)
	done := 0
	for ; done < len(c.waiting) && c.waiting[done].tick < until; done++ {
		t := c.waiting[done]
		if done+1 < len(c.waiting) && c.waiting[done+1].tick == t.tick {
			continue // of one tick the last counts
		}
		w.glide(c, t.tick)
		if c.started && c.mod.Glide > 0 {
			c.from, c.to, c.begun, c.sentTo = c.at(t.tick), t.target, t.tick, t.tick
			continue
		}
		if !c.started || t.target != c.sent {
			w.send(c, t.tick, t.target)
		}
		c.started, c.from, c.to, c.begun, c.sentTo = true, t.target, t.target, t.tick, t.tick
	}
	c.waiting = slices.Delete(c.waiting, 0, done)
	w.glide(c, until)
}

// at returns where a glide is at a tick.
func (c *control) at(tick score.Tick) int {
	if tick <= c.begun {
		return c.from
	}
	if tick >= c.begun+c.mod.Glide {
		return c.to
	}
	return c.from + score.Rounded((c.to-c.from)*int(tick-c.begun), int(c.mod.Glide))
}

// glide sends what a glide passes before a tick.
func (w *walker) glide(c *control, until score.Tick) {
	if until <= c.sentTo {
		return
	}
	first := c.sentTo
	c.sentTo = until
	if !c.started || c.sent == c.to {
		return
	}
	for tick := (first + glideGrid - 1) / glideGrid * glideGrid; tick < until; tick += glideGrid {
		if at := c.at(tick); at != c.sent {
			w.send(c, tick, at)
		}
		if c.sent == c.to {
			return
		}
	}
}

func (w *walker) send(c *control, tick score.Tick, value int) {
	c.sent = value
	w.queue(w.message(c, tick), c.index+1)
}

// message returns what a mod lane sent last, as sent at a tick.
func (w *walker) message(c *control, tick score.Tick) Change {
	m := w.change(tick, midi.ControlChange, uint8(c.mod.Number), c.sent)
	switch c.mod.Target {
	case score.Control14Target:
		m.Kind = midi.WideControl
	case score.BendTarget:
		m.Kind, m.Number = midi.Bend, 0
	case score.PressureTarget:
		m.Kind, m.Number = midi.Pressure, 0
	case score.ProgramTarget:
		m.Kind, m.Number = midi.Program, 0
	}
	return m
}
