package play

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// glideGrid is how far apart the messages of a glide are: 24 in a quarter note, as many as MIDI clocks.
// It bounds how many messages a glide sends.
const glideGrid = score.TicksPerQuarter / 24

// Controllers of MIDI 1.0.
const (
	portamentoTime   = 5
	portamentoSwitch = 65
)

// control is a mod lane on its way to its target. A lane that sits on the step, or moves with it, by hits or by
// strikes, goes out with the note, just before it; one that moves by the clock is swung and delayed with its track.
// Its values are computed in the order of steps, and take effect in the order in which they are heard.
type control struct {
	lane  *value
	mod   score.Mod
	index int // of the mod in its part

	turned  bool   // whether it has ever been given a value
	waiting []turn // values that take effect later

	started bool
	sent    int        // what was sent last
	from    int        // where the glide began, at the tick begun
	to      int        // where it goes
	begun   score.Tick // when
	told    score.Tick // all of the glide before this tick has been sent
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
	n := w.gate.drawn
	if !c.lane.linked {
		n = c.lane.drawn
	}
	if c.lane.evolved != nil {
		c.lane.evolveTo(w.hold.within(tick), w.bar)
	}
	value := c.lane.read(w.gate.step(), n)
	c.turned = true
	c.waiting = append(c.waiting, turn{tick: max(0, heard), target: c.mod.Least + rounded((c.mod.Most-c.mod.Least)*value, 127)})
}

// heard returns when something is heard that comes at a moment of the walker's own time and belongs to no note.
func (w *walker) heard(local score.Tick) score.Tick {
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
			c.from, c.to, c.begun, c.told = c.at(t.tick), t.target, t.tick, t.tick
			continue
		}
		if !c.started || t.target != c.sent {
			w.send(c, t.tick, t.target)
		}
		c.started, c.from, c.to, c.begun, c.told = true, t.target, t.target, t.tick, t.tick
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
	return c.from + rounded((c.to-c.from)*int(tick-c.begun), int(c.mod.Glide))
}

// glide sends what a glide passes before a tick.
func (w *walker) glide(c *control, until score.Tick) {
	if until <= c.told {
		return
	}
	first := c.told
	c.told = until
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
func (w *walker) message(c *control, tick score.Tick) Message {
	m := Message{Tick: tick, Track: uint32(w.track.ID), Channel: uint8(w.track.Channel - 1), Value: uint16(c.sent)}
	switch c.mod.Target {
	case score.ControlTarget:
		m.Kind, m.Key = ControlChange, uint8(c.mod.Number)
	case score.Control14Target:
		m.Kind, m.Key = WideControl, uint8(c.mod.Number)
	case score.BendTarget:
		m.Kind = Bend
	case score.PressureTarget:
		m.Kind = Pressure
	case score.ProgramTarget:
		m.Kind, m.Key, m.Value = Program, uint8(c.sent), 0
	}
	return m
}

// Standing appends to dst what mod lanes and slides of all parts that are not silent sent last, as sent now:
// what an instrument needs to know that has not heard all of it.
func (f *Performer) Standing(dst []Message) []Message {
	for _, t := range f.tracks {
		if m, ok := programOf(t, f.played); ok {
			dst = append(dst, m)
		}
	}
	for _, w := range f.walkers {
		if w.silent {
			continue
		}
		dst = append(dst, w.portamentoMessage(f.played))
		if u := f.tuners[w.place]; u != nil {
			dst = u.standing(f.played, dst)
		}
		for _, v := range w.mods {
			if v.control.started {
				dst = append(dst, w.message(v.control, f.played))
			}
		}
	}
	dst = lastPrograms(dst)
	slices.SortStableFunc(dst, CompareMessages)
	return dst
}

// queue keeps a message until it is handed over, unless the part is silent. At one tick those of slides, whose
// slot is 0, come before those of mods.
func (w *walker) queue(m Message, slot int) {
	m.Tick = max(0, m.Tick)
	if !w.silent {
		*w.controls = append(*w.controls, pendingControl{m, ofStep | w.order<<slotBits | slot})
	}
}

const (
	slotBits    = 4 // slides, MaxMods mods and a tuner
	tunerSlot   = 1 + score.MaxMods
	ofStep      = 1 << (slotBits + 5 + 4) // what steps send comes after the programs that tracks begin with
	maxSlotBits = slotBits + 5 + 4 + 1    // MaxTracks tracks of MaxParts parts, and that
)

type pendingControl struct {
	Message
	order int
}

// slideInto switches portamento for a note that starts at a tick: on if the note before it slides.
func (w *walker) slideInto(tick score.Tick) {
	if w.sliding == w.portamento {
		return
	}
	w.portamento = w.sliding
	m := w.portamentoMessage(tick)
	if w.sliding {
		time := m
		time.Key, time.Value = portamentoTime, uint16(w.part.SlideTime)
		w.queue(time, 0)
	}
	w.queue(m, 0)
}

func (w *walker) portamentoMessage(tick score.Tick) Message {
	m := Message{
		Tick: tick, Track: uint32(w.track.ID), Kind: ControlChange, Channel: uint8(w.track.Channel - 1), Key: portamentoSwitch,
	}
	if w.portamento {
		m.Value = 127
	}
	return m
}

// rounded divides and rounds to the nearest, halves away from 0.
func rounded(number, by int) int {
	if number < 0 {
		return -rounded(-number, by)
	}
	return (2*number + by) / (2 * by)
}
