package log

import (
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// conductor gives the values that the song and chains give. What it does follows from the project, from what was done and from
// the luck, so no log says it.
type conductor struct {
	plan   Plan
	begun  int // of the plan's sections, by what was given
	chains map[int]*chain

	known bool // whether due holds
	due   score.Tick
	given int // how many times something was given
	began []Began
}

// Began is where a section began.
type Began struct {
	Run  score.Tick
	Name string
}

// Sections lists where sections of the song have begun, or are about to.
func (p *Player) Sections() []Began { return p.conductor.began }

// mark notes that a section begins at a tick of run time.
func (p *Player) mark(section int, run score.Tick) {
	name := ""
	if s := p.written.Section(section); s != nil {
		name = s.Name
	}
	began := slices.DeleteFunc(p.conductor.began, func(b Began) bool { return b.Run >= run })
	if last := len(began) - 1; name != "" && (last < 0 || began[last].Name != name || began[last].Run < run) {
		began = append(began, Began{run, name})
	}
	p.conductor.began = began
}

// changed has the conductor look again when something is due: what plays is another.
func (c *conductor) changed() {
	c.known = false
	for _, chain := range c.chains {
		chain.found = false
	}
}

// Given counts how many times the song or a chain has given values, so that who listens knows when they have.
func (p *Player) Given() int { return p.conductor.given }

// Plan returns which sections play.
func (p *Player) Plan() Plan { return p.conductor.plan }

// SongEnd returns the tick of run time with which the song ends; ends is false if that is not known.
func (p *Player) SongEnd() (run score.Tick, ends bool) {
	bar, ends := p.conductor.plan.End()
	if !ends {
		return 0, false
	}
	return p.runOf(p.playing.Bars().Start(bar)), true
}

// due returns the tick of the song at which the conductor has to do something next. What counts from a bar on must be done before,
// as far ahead of it as tracks look.
func (p *Player) due() score.Tick {
	c := &p.conductor
	if c.known {
		return c.due
	}
	c.due = never
	if c.begun < len(c.plan) {
		next := c.plan[c.begun]
		c.due = p.playing.Bars().Start(next.Bar) - p.leadOf(p.given(next))
	}
	for _, track := range p.chained() {
		c.due = min(c.due, p.chainDue(track))
	}
	c.known = true
	return c.due
}

// never is a tick that never comes.
const never = score.LastTick * 2

// leadOf returns how far ahead of its tick an act must be done.
func (p *Player) leadOf(acts []act) (lead score.Tick) {
	s := p.stage
	for _, a := range acts {
		s = a.on(s)
	}
	for _, a := range acts {
		if !a.silences() {
			tracks := a.tracks(p.written)
			lead = max(lead, aheadOf(p.playing, tracks), aheadOf(s.On(p.written), tracks))
		}
	}
	return lead
}

// AheadOfSection returns how far ahead of where a section begins what it gives must be given.
func (p *Player) AheadOfSection(section int) score.Tick {
	return p.leadOf(p.given(score.Placed{Section: section}))
}

// conduct does what is due.
func (p *Player) conduct() {
	c := &p.conductor
	if c.begun < len(c.plan) {
		next := c.plan[c.begun]
		at, acts := p.playing.Bars().Start(next.Bar), p.given(next)
		if at-p.leadOf(acts) <= p.Song() {
			c.begun++
			p.give(acts, at)
			p.mark(next.Section, p.runOf(max(at, p.Song())))
			return
		}
	}
	for _, track := range p.chained() {
		if p.chainDue(track) <= p.Song() {
			p.goOnWithChain(track)
			return
		}
	}
}

// give does acts of the song or of a chain, which count from a tick on. What would be denser than can be played live is not done.
func (p *Player) give(acts []act, at score.Tick) {
	for _, a := range acts {
		a.at = max(at, p.Song())
		if score.CheckDensity(p.playing, a.on(p.stage).On(p.written)) == nil {
			p.do(a)
		}
	}
	p.conductor.changed()
	p.conductor.given++
	p.retempo()
}

// given returns what a section of the plan gives where it begins: what it says itself, and what its scene names.
func (p *Player) given(s score.Placed) (acts []act) {
	section := p.written.Section(s.Section)
	if section == nil {
		return []act{{given: []stage.Change{{Control: stage.Control{Name: stage.SectionOn}}}}}
	}
	var silences, moves, others []stage.Change
	for _, change := range valuesOf(p.written, section, int(s.Bar)) {
		switch {
		case change.Control.CheckRange(change.Value) != nil:
		case change.Control.Once() && change.Control.Track == 0: // a scene leads to no other section
		case change.Control.Once():
			moves = append(moves, change)
		case change.Control.Silences():
			silences = append(silences, change)
		default:
			others = append(others, change)
		}
	}
	for _, given := range [][]stage.Change{others, silences} {
		if len(given) > 0 {
			acts = append(acts, act{given: given, takesOver: section.TakesOver})
		}
	}
	for _, change := range moves {
		acts = append(acts, act{given: []stage.Change{change}})
	}
	return acts
}

// valuesOf lists what a section gives that begins with a bar.
func valuesOf(p *score.Project, section *score.Section, bar int) (values []stage.Change) {
	values = append(values, stage.Change{Control: stage.Control{Name: stage.SectionOn}, Value: section.ID})
	if slices.ContainsFunc(p.Modulators, func(m score.Modulator) bool { return m.RestartSections }) {
		values = append(values, stage.Change{Control: stage.Control{Name: stage.SectionBar}, Value: bar})
	}
	if section.Meter != nil {
		values = append(values, stage.Change{Control: stage.Control{Name: "meter", Bar: bar}, Value: section.ID})
	}
	if section.Tempo != nil {
		values = append(values, stage.Change{Control: stage.Control{Name: "tempo", Bar: bar}, Value: int(*section.Tempo)})
	}
	if section.Key != nil {
		values = append(values, stage.Change{Control: stage.Control{Name: "key"}, Value: section.ID})
	}
	if section.Luck != nil {
		values = append(values, stage.Change{Control: stage.Control{Name: "luck"}, Value: *section.Luck})
	}
	if scene := p.Scene(section.Scene); scene != nil {
		for _, value := range scene.Values {
			values = append(values, stage.Change{Control: stage.Control(value.Control), Value: value.Value})
		}
		values = append(values, stage.Change{Control: stage.Control{Name: stage.SceneOn}, Value: scene.ID})
	}
	return values
}

// replan has the song go on as it is written now, after an edit.
func (p *Player) replan(before *score.Project) {
	c, bars := &p.conductor, p.playing.Bars()
	c.plan = c.plan.edited(before, p.written, c.begun, bars.At(bars.Ceil(p.Song())))
	c.changed()
}

// steer does what an action does to the song: it goes on with another section, or its section is released.
func (p *Player) steer(a Action) {
	if a.Value == nil {
		return
	}
	c, bars := &p.conductor, p.playing.Bars()
	bar := bars.At(bars.Ceil(max(a.At, p.run) + p.later()))
	switch a.Control.Name {
	case stage.Section:
		c.plan = c.plan.with(p.written, *a.Value, bar)
	case stage.Release:
		c.plan = c.plan.released(p.written, bar)
	}
	for c.begun = min(c.begun, len(c.plan)); c.begun > 0 && c.plan[c.begun-1].Bar >= bar; {
		c.begun--
	}
	p.conductor.changed()
}
