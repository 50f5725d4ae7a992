package stage

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/wave"
)

// Macro is the name of the controls that macros are, whose values are positions; Modulation that of the amounts of modulators.
const (
	Macro      = "macro"
	Modulation = "modulation"
)

// moverSpecs are the controls of macros and of modulators. They are put on a project before all that they move.
func moverSpecs() []Spec {
	return []Spec{
		{Name: Macro, Of: OfMacro, Words: "position", Unit: perMille, Max: score.FullTravel, control: ofList(Macro,
			func(p *score.Project) []score.Macro { return p.Macros },
			func(m *score.Macro) (id int, position *int) { return m.ID, &m.Position },
			func(macros *[]score.Macro) *score.SetProject { return &score.SetProject{Macros: macros} })},
		{Name: Modulation, Of: OfModulator, Words: "amount", Unit: "%", Max: 100, control: ofList(Modulation,
			func(p *score.Project) []score.Modulator { return p.Modulators },
			func(m *score.Modulator) (id int, amount *int) { return m.ID, &m.Amount },
			func(modulators *[]score.Modulator) *score.SetProject {
				return &score.SetProject{Modulators: modulators}
			})},
	}
}

// ofList is a control of each one of a list of a project, which is written as a whole: with the values that stand of all others.
func ofList[T any](name string, list func(*score.Project) []T, of func(*T) (id int, value *int), set func(*[]T) *score.SetProject) control {
	find := func(t *target) *int {
		all := list(t.project)
		for i := range all {
			if id, value := of(&all[i]); id == t.ID {
				return value
			}
		}
		return nil
	}
	return control{
		has:  func(t *target) bool { return find(t) != nil },
		read: func(t *target) int { return *find(t) },
		edit: func(t *target, to int) score.EditJSON {
			all := slices.Clone(list(t.project))
			for i := range all {
				id, value := of(&all[i])
				if *value = t.standingOf(Control{Name: name, ID: id}, *value); id == t.ID {
					*value = to
				}
			}
			return score.EditJSON{SetProject: set(&all)}
		},
	}
}

// reached returns the ids of the tracks that a modulator moves or sends by; nil is all.
func (c Control) reached(p *score.Project) []int {
	tracks := []int{}
	if m := p.Modulator(c.ID); m != nil {
		for _, move := range m.Moves {
			if move.Control.Track == 0 {
				return nil
			}
			tracks = append(tracks, move.Control.Track)
		}
		for _, send := range m.Sends {
			tracks = append(tracks, send.Track)
		}
	}
	return tracks
}

// movable reports whether macros can move a control: a number that says how something plays. What is done once, what silences, which
// pattern, layer of a field, scene or section plays, and what holds from a bar on are not; the tempo is moved by its push.
func (s *Spec) movable() bool {
	switch {
	case s.Of == OfMacro, s.Once, s.OfSong, s.byBar, s.silences, s.Unit == bits, s.layer != "":
		return false
	}
	return s.Name != SceneOn && s.Name != SectionOn && s.Name != "pattern"
}

// modulated reports whether modulators can move a control: what each step reads, and moves no lane.
func (s *Spec) modulated() bool {
	return slices.Contains(map[Scope][]string{
		OfProject: {"fill level", "swing"},
		OfTrack:   {"probability", "degrees", "semitones", "lowest", "highest", "swing", "delay", "jitter"},
		OfPart:    {"part fill"},
		OfLane:    {"amount", "depth", "lean"},
	}[s.Of], s.Name)
}

// moved returns the value of a control as macros move it from one that stands, rounded once and kept within the control's range. Is is false if
// none moves it.
func (s Stage) moved(p *score.Project, c Control, stands int) (value int, is bool) {
	exact, is := s.movedExactly(p, c, stands)
	if !is {
		return stands, false
	}
	spec := c.Spec()
	return max(spec.Min, min(spec.Max, score.Rounded(exact, wave.One))), true
}

// movedExactly is moved before it is rounded and bounded, in sixteen bits after the point: what absolute macros set, and what all others add to it.
func (s Stage) movedExactly(p *score.Project, c Control, stands int) (value int, is bool) {
	if len(p.Macros) == 0 {
		return 0, false
	}
	spec := c.Spec()
	if spec == nil || !spec.Movable {
		return 0, false
	}
	base, added := stands*wave.One, 0
	for i := range p.Macros {
		macro := &p.Macros[i]
		at := slices.IndexFunc(macro.Moves, func(m score.MacroMove) bool { return Control(m.Control) == c })
		if at < 0 {
			continue
		}
		is = true
		move, position := macro.Moves[at], macro.Position
		if value, changed := s.InForceOf(Control{Name: Macro, ID: macro.ID}); changed {
			position = value
		}
		travel := func(position int) int {
			return wave.Bend(move.Curve, score.Rounded(position*wave.One, score.FullTravel))
		}
		if move.Absolute {
			base = move.From*wave.One + (move.To-move.From)*travel(position)
			continue
		}
		added += move.By * (travel(position) - travel(macro.Rest))
	}
	return base + added, is
}

// unrounded lists what macros give controls that modulators move too, where rounding or bounding it changes it.
func (s Stage) unrounded(p *score.Project) (values []score.MovedValue) {
	for i := range p.Modulators {
		for _, move := range p.Modulators[i].Moves {
			c := Control(move.Control)
			stands, there := c.Written(p)
			if changed, is := s.InForceOf(c); is {
				stands = changed
			}
			exact, is := s.movedExactly(p, c, stands)
			listed := slices.ContainsFunc(values, func(v score.MovedValue) bool { return v.Control == move.Control })
			if value, _ := s.moved(p, c, stands); there && is && !listed && exact != value*wave.One {
				values = append(values, score.MovedValue{Control: move.Control, Value: exact})
			}
		}
	}
	slices.SortFunc(values, byAddress)
	return values
}

func byAddress(a, b score.MovedValue) int {
	return cmp.Compare(Control(a.Control).Address(), Control(b.Control).Address())
}

// movedWith returns what macros give some controls before it is rounded, with what they give others in the place of what they gave those.
func movedWith(values, others []score.MovedValue, of []Control) (all []score.MovedValue) {
	about := func(v score.MovedValue) bool { return slices.Contains(of, Control(v.Control)) }
	all = slices.DeleteFunc(slices.Clone(values), about)
	for _, v := range others {
		if about(v) {
			all = append(all, v)
		}
	}
	slices.SortFunc(all, byAddress)
	return all
}

// Effective returns the value that a control has: the live change or else the written one, as macros move it. There is false if the
// project does not have it.
func (s Stage) Effective(p *score.Project, c Control) (value int, there bool) {
	value, there = c.Written(p)
	if changed, is := s.InForceOf(c); is {
		value = changed
	}
	value, _ = s.moved(p, c, value)
	return value, there
}

// withMoved returns the values that count of controls, with those of all controls that macros move.
func (s Stage) withMoved(p *score.Project) []Change {
	changes := s.InForce()
	for i := range p.Macros {
		for _, move := range p.Macros[i].Moves {
			c := Control(move.Control)
			value, there := s.Effective(p, c)
			if _, is := s.moved(p, c, value); there && is {
				changes = with(changes, c, value)
			}
		}
	}
	return changes
}

// Moved lists the controls that macros move away from where they stand, each with the value that it has.
func (s Stage) Moved(p *score.Project) []Change {
	moved := []Change{}
	for i := range p.Macros {
		for _, move := range p.Macros[i].Moves {
			c := Control(move.Control)
			stands, there := c.Written(p)
			if changed, is := s.InForceOf(c); is {
				stands = changed
			}
			if value, is := s.moved(p, c, stands); there && is && value != stands {
				moved = with(moved, c, value)
			}
		}
	}
	return moved
}

// movedBy returns the controls that follow from one: itself, and what it moves if it is a macro.
func (c Control) movedBy(p *score.Project) []Control {
	controls := []Control{c}
	if c.Name != Macro {
		return controls
	}
	if macro := p.Macro(c.ID); macro != nil {
		for _, move := range macro.Moves {
			if spec := SpecOf(move.Control.Name, Control(move.Control).scope()); spec != nil && spec.Movable {
				controls = append(controls, Control(move.Control))
			}
		}
	}
	return controls
}
