package play

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/core/wave"
)

// modulation is what modulators do to a walker: at each step they are read, and the controls that they move get
//
//	clamp(round(base + Σ depth · amount · wave · (max − min)/2))
//
// where base is what is written, performed and moved by macros, not rounded yet.
type modulation struct {
	of       []modulator
	controls []modulated
	sendings []sending
	drivers  []*walker // the parts of the tracks that drive some
	modulationState
}

// modulationState is what was read last, by which the values between two steps go. It has no pointers.
type modulationState struct {
	read        [score.MaxModulators]reading
	controllers [score.MaxModulators]reading // those that came in last
	curves      curvesState
}

// reading is where a modulator stood at the last step.
type reading struct {
	id   uint8
	wave int32
}

// incoming is the value of a controller that came in for a modulator, from 0 to One, and the tick from which it counts.
type incoming struct {
	tick score.Tick
	reading
}

// modulator is one that moves a control of the walker.
type modulator struct {
	*score.Modulator
	original *score.Modulator
	free     *wave.Free // nil for one that something drives
}

// modulated is a control that modulators move.
type modulated struct {
	name     string
	of       stage.Scope
	lane     *value
	min, max int
	base     int // in sixteen bits after the point
	by       []depth
}

// depth is by how much a modulator moves a control: depth in thousandths times amount in percent times the control's range.
type depth struct {
	modulator int // its place among those of the walker
	weight    int
}

// wholeDepth is what weights are divided by, half a range included.
const wholeDepth = 2 * score.FullDepth * 100

// concerns reports whether a control is of the part, or of its track or the project.
func (w *walker) concerns(c stage.Control, of stage.Scope) bool {
	switch of {
	case stage.OfProject:
		return true
	case stage.OfTrack:
		return c.Track == w.track.ID
	}
	return c.Track == w.track.ID && c.Pattern == w.track.Playing && c.Part == w.part.ID
}

// moves calls a function with all that moves the part of a project.
func (w *walker) moves(p *score.Project, do func(m *score.Modulator, move score.ModulatorMove, spec *stage.Spec)) {
	for i := range p.Modulators {
		m := &p.Modulators[i]
		for _, move := range m.Moves {
			c := stage.Control(move.Control)
			if spec := c.Spec(); move.Depth != 0 && m.Amount > 0 && spec != nil && spec.Modulated && w.concerns(c, spec.Of) {
				do(m, move, spec)
			}
		}
	}
}

// takeModulators finds what moves the walker, and gives it a project, a track and a part of its own where anything does.
func (w *walker) takeModulators(c *common) {
	p := c.project
	w.moves(p, func(m *score.Modulator, move score.ModulatorMove, spec *stage.Spec) {
		control := stage.Control(move.Control)
		base, there := control.Written(p)
		if !there || control.Track != 0 && control.Name == "swing" && base == 0 { // which follows the project's
			return
		}
		at := slices.IndexFunc(w.controls, func(c modulated) bool {
			return c.name == control.Name && c.of == spec.Of && c.laneName() == control.Lane
		})
		if at < 0 {
			at = len(w.controls)
			w.controls = append(w.controls, modulated{name: control.Name, of: spec.Of, min: spec.Min, max: spec.Max, base: base * wave.One})
			for _, moved := range p.Moved {
				if stage.Control(moved.Control) == control {
					w.controls[at].base = moved.Value
				}
			}
			if control.Lane != "" {
				w.controls[at].lane = &value{name: control.Lane} // until its lane is read
			}
		}
		w.controls[at].by = append(w.controls[at].by, depth{w.modulatorOf(c, m), move.Depth * m.Amount * (spec.Max - spec.Min)})
	})
	w.takeSendings(c)
	if len(w.controls) == 0 {
		return
	}
	project, track, part := *p, *w.track, *w.part
	w.project, w.track, w.part = &project, &track, &part
	for _, one := range w.controls {
		if name := one.laneName(); name != "" {
			lane := *part.Lanes.Lane(name)
			if lane.Spread != nil {
				spread := *lane.Spread
				lane.Spread = &spread
			}
			part.Lanes.Set(name, &lane)
		}
	}
}

func (c modulated) laneName() score.LaneName {
	if c.lane == nil {
		return ""
	}
	return c.lane.name
}

// modulatorOf returns the place of a modulator among those of the walker.
func (w *walker) modulatorOf(c *common, m *score.Modulator) int {
	for i := range w.of {
		if w.of[i].ID == m.ID {
			return i
		}
	}
	one := modulator{Modulator: m, original: c.project.Original(m)}
	one.free, _ = wave.New(c.project, m, c.tempo.Nanos)
	if one.original == nil { // what it copies is gone
		one.original = &score.Modulator{}
	}
	w.read[len(w.of)].id = uint8(m.ID)
	w.of = append(w.of, one)
	return len(w.of) - 1
}

// takeLanes has the controls of lanes be those of the lanes that were read.
func (w *walker) takeLanes() {
	for i := range w.controls {
		if name := w.controls[i].laneName(); name != "" {
			w.controls[i].lane = w.lane(name)
			w.controls[i].lane.plain = false
		}
	}
}

// modulate reads the modulators at a tick of a step, and has the controls that they move have their values.
func (w *walker) modulate(tick score.Tick) {
	w.takeIncoming(tick)
	for i := range w.of {
		w.read[i].wave = int32(w.waveAt(i, tick))
	}
	w.setModulated()
}

// waveAt returns where a modulator stands at a tick.
func (w *walker) waveAt(i int, tick score.Tick) int {
	m := &w.of[i]
	switch {
	case m.free != nil:
		if m.free.Random() {
			tick = w.hold.first(tick)
		}
		return m.free.At(tick)
	case m.original.Shape == score.ControlShape:
		return w.controllerOf(m.ID)
	case m.original.Shape.DrivenByTrack():
		place := slices.IndexFunc(w.project.Tracks, func(t score.Track) bool { return t.ID == m.original.Track })
		if place < 0 {
			return 0
		}
		return w.states[place].waveOf(m.original, w.project.Tracks[place].Register, tick, w.tempo)
	}
	return 0
}

// first returns the tick of the first pass of what is held that a tick repeats.
func (h *holding) first(tick score.Tick) score.Tick {
	if h.every == 0 {
		return tick
	}
	bar := h.bars.At(tick)
	if bar < h.from {
		return tick
	}
	return h.bars.Start(h.from+(bar-h.from)%h.every) + tick - h.bars.Start(bar)
}

// setModulated has the controls have the values of what was read last.
func (w *walker) setModulated() {
	for i := range w.controls {
		c := &w.controls[i]
		sum := c.base * wholeDepth
		for _, by := range c.by {
			sum += by.weight * int(w.read[by.modulator].wave)
		}
		w.set(c, max(c.min, min(c.max, score.Rounded(sum, wave.One*wholeDepth))))
	}
}

// set gives a control of the walker a value.
func (w *walker) set(c *modulated, value int) {
	switch c.name {
	case "probability":
		w.track.Probability = value
	case "degrees":
		w.track.Transpose.Degrees = value
	case "semitones":
		w.track.Transpose.Semitones = value
	case "lowest":
		w.track.Register.Lowest = min(value, w.track.Register.Highest-w.narrowest()+1)
	case "highest":
		w.track.Register.Highest = max(value, w.track.Register.Lowest+w.narrowest()-1)
	case "delay":
		w.track.Delay = score.Tick(value)
	case "jitter":
		w.track.Jitter = value
	case "swing":
		if c.of == stage.OfTrack {
			w.track.Swing = max(score.Straight, value)
		} else {
			w.project.Swing = value
		}
		if w.ownClock {
			w.swing, w.grid = w.project.SwingOf(w.track)
		}
	case "fill level":
		w.project.FillLevel = value
	case "part fill":
		w.part.Fill = value
	case "amount":
		if c.lane.Lane().Amount = value; c.lane.name == score.Velocity || c.lane.name == score.Probability {
			c.lane.scale = value
		}
	case "depth":
		c.lane.Lane().Spread.Depth = value
	case "lean":
		c.lane.Lane().Spread.Lean = value
	}
}

// narrowest returns how many keys a register has at least: an octave, and room for every note of the tuning.
func (w *walker) narrowest() int {
	tuning := &w.pitches.tuning
	switch {
	case !w.pitches.tuned:
		return theory.Octave
	case w.track.Retunes():
		return max(theory.Octave, int((tuning.Period()+theory.Semitone-1)/theory.Semitone))
	}
	return max(theory.Octave, tuning.Span())
}

// restoreModulation has the controls have the values of what was read last in another state of the part.
func (w *walker) restoreModulation(was modulationState) {
	w.controllers = was.controllers
	w.restoreCurves(was.curves)
	for i := range w.of {
		for _, reading := range was.read {
			if reading.id == w.read[i].id {
				w.read[i] = reading
			}
		}
	}
	w.setModulated()
}

// lowestOf returns the lowest value that modulators can give a control, or the one that it has where none moves it; highestOf the highest.
func (w *walker) lowestOf(name string, has int) int { return w.endOf(name, has, -1) }

func (w *walker) highestOf(name string, has int) int { return w.endOf(name, has, 1) }

func (w *walker) endOf(name string, has, side int) int {
	for i := range w.controls {
		if c := &w.controls[i]; c.name == name && c.lane == nil {
			sum := c.base * wholeDepth
			for _, by := range c.by {
				sum += side * max(by.weight, -by.weight) * wave.One
			}
			return max(c.min, min(c.max, score.Rounded(sum, wave.One*wholeDepth)))
		}
	}
	return has
}

// hearController takes a controller that comes in for the modulators that it drives, and reports whether it drives any.
func (w *walker) hearController(m midi.Message) (drives bool) {
	if m.Kind != midi.ControlChange {
		return false
	}
	for i := range w.of {
		of := w.of[i].original
		if of.Shape == score.ControlShape && of.Controller == int(m.Key) && (of.Channel == 0 || of.Channel == int(m.Channel)+1) {
			drives = true
			w.incoming = append(w.incoming, incoming{m.Tick, reading{uint8(w.of[i].ID), int32(score.Rounded(int(m.Value)*wave.One, 127))}})
		}
	}
	return drives
}

// takeIncoming has the controllers count that came in by a tick.
func (w *walker) takeIncoming(tick score.Tick) {
	taken := 0
	for ; taken < len(w.incoming) && w.incoming[taken].tick <= tick; taken++ {
		came := w.incoming[taken].reading
		at := slices.IndexFunc(w.controllers[:], func(r reading) bool { return r.id == 0 || r.id == came.id })
		w.controllers[max(0, at)] = came
	}
	w.incoming = slices.Delete(w.incoming, 0, taken)
}

func (w *walker) controllerOf(id int) int {
	for _, r := range w.controllers {
		if int(r.id) == id {
			return int(r.wave)
		}
	}
	return 0
}
