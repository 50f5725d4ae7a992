package stage

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/score"
)

// MaxChanges bounds how many live changes there are.
const MaxChanges = 4096

// Change is a live change: a control and its value.
type Change struct {
	Control Control `json:"control"`
	Value   int     `json:"value"`
}

// Stage is what performing put on top of a project. It is a value that is never changed; the zero value is nothing. Live
// changes of what a project does not have rest until it has it again.
//
// It has two layers: the live changes, which a hand has made, and under them the values that sections of the song and chains of
// patterns have given. A live change counts; once it is let go of, the value under it does.
type Stage struct{ changes, under []Change } // each in the order of the registry, then of ids

// Of returns the live changes of a list; of several of one control the last counts, and what is no control is left out.
func Of(changes []Change) (s Stage) {
	for _, c := range changes {
		if SpecOf(c.Control.Name, c.Control.scope()) != nil && len(s.changes) < MaxChanges {
			s = s.With(c.Control, c.Value)
		}
	}
	return s
}

// Changes lists the live changes.
func (s Stage) Changes() []Change { return append([]Change{}, s.changes...) }

// Hand returns the stage without what the song and chains have given.
func (s Stage) Hand() Stage { return Stage{changes: s.changes} }

// InForce lists the values that count: the live changes, and what is under none of them.
func (s Stage) InForce() []Change {
	in := s.Changes()
	for _, change := range s.under {
		if at, found := slices.BinarySearchFunc(in, change.Control, compareTo); !found {
			in = slices.Insert(in, at, change)
		}
	}
	return in
}

// Equal reports whether two stages are the same.
func (s Stage) Equal(other Stage) bool {
	return slices.Equal(s.changes, other.changes) && slices.Equal(s.under, other.under)
}

// Value returns the value of a live change; ok is false if the control has none.
func (s Stage) Value(c Control) (value int, ok bool) { return valueIn(s.changes, c) }

// InForceOf returns the value of a control that is not the written one; ok is false if it has none.
func (s Stage) InForceOf(c Control) (value int, ok bool) {
	if value, ok = s.Value(c); ok {
		return value, true
	}
	return valueIn(s.under, c)
}

func valueIn(changes []Change, c Control) (value int, ok bool) {
	at, found := slices.BinarySearchFunc(changes, c, compareTo)
	if !found {
		return 0, false
	}
	return changes[at].Value, true
}

// With returns the stage on which a control has a value. What is done once leaves it as it is.
func (s Stage) With(c Control, value int) Stage {
	if c.Once() {
		return s
	}
	return Stage{with(s.changes, c, value), s.under}
}

// Under returns the stage with a value that the song or a chain gives, which counts where there is no live change; taking over,
// it counts in place of one. What is done once leaves it as it is.
func (s Stage) Under(c Control, value int, takesOver bool) Stage {
	if c.Once() {
		return s
	}
	if takesOver {
		always := c
		always.Bar = 0
		s = s.Without(c).Without(always)
	}
	return Stage{s.changes, with(s.under, c, value)}
}

func with(changes []Change, c Control, value int) []Change {
	at, found := slices.BinarySearchFunc(changes, c, compareTo)
	changes = slices.Clone(changes)
	if found {
		changes[at].Value = value
		return changes
	}
	return slices.Insert(changes, at, Change{c, value})
}

// Without returns the stage on which a control has no live change.
func (s Stage) Without(c Control) Stage {
	return Stage{kept(s.changes, func(change Change) bool { return change.Control != c }), s.under}
}

// Written returns the stage on which a control has the value that is written.
func (s Stage) Written(c Control) Stage {
	return s.keep(func(change Change) bool { return change.Control != c })
}

// After returns the stage after an action, which without a value lets go of the control.
func (s Stage) After(c Control, value *int) Stage {
	if value == nil {
		return s.Without(c)
	}
	return s.With(c, *value)
}

// Stopped returns the stage once playing has stopped: momentary controls fall back, and nothing is given by the song or by chains
// any more.
func (s Stage) Stopped() Stage {
	return Stage{changes: kept(s.changes, func(change Change) bool { return !change.Control.Momentary() })}
}

func (s Stage) keep(which func(Change) bool) Stage {
	return Stage{kept(s.changes, which), kept(s.under, which)}
}

func kept(changes []Change, which func(Change) bool) []Change {
	return slices.DeleteFunc(slices.Clone(changes), func(change Change) bool { return !which(change) })
}

func compareTo(change Change, c Control) int {
	a, b := change.Control, c
	return cmp.Or(cmp.Compare(a.rank(), b.rank()), cmp.Compare(a.Track, b.Track), cmp.Compare(a.Pattern, b.Pattern),
		cmp.Compare(a.Part, b.Part), cmp.Compare(a.Lane, b.Lane), cmp.Compare(a.Bar, b.Bar), cmp.Compare(a.ID, b.ID))
}

// rank is the place of a control in the registry.
func (c Control) rank() int {
	of := c.scope()
	return slices.IndexFunc(specs, func(spec Spec) bool { return spec.Name == c.Name && spec.Of == of })
}

// On returns a project with all values put on it that count. What cannot be is left as it is written.
func (s Stage) On(p *score.Project) *score.Project {
	var edits []score.EditJSON
	for _, change := range differing(s.withMoved(p), p) {
		if edit, err := s.edit(p, change); err == nil {
			edits = append(edits, edit)
		}
	}
	if moved := s.unrounded(p); len(moved) > 0 {
		edits = append(edits, score.EditJSON{SetProject: &score.SetProject{Moved: &moved}})
	}
	if len(edits) == 0 {
		return p
	}
	if next, _, err := score.Apply(p, score.All{Name: "live changes", Edits: edits}); err == nil {
		return next
	}
	for _, edit := range edits { // one by one, without those that cannot be
		if next, can := applied(p, edit); can {
			p = next
		}
	}
	return p
}

// applied returns a project after an edit; can is false where the edit cannot be.
func applied(p *score.Project, form score.EditJSON) (next *score.Project, can bool) {
	edit, err := form.Edit()
	if err != nil {
		return p, false
	}
	next, _, err = score.Apply(p, edit)
	return next, err == nil
}

func (s Stage) edit(p *score.Project, change Change) (score.EditJSON, error) {
	spec, t, err := change.Control.find(p, s)
	if err != nil {
		return score.EditJSON{}, err
	}
	return spec.edit(t, change.Value), nil
}

// writing returns the edit that writes a value of a control, without what macros add to others that are written with it.
func (s Stage) writing(p *score.Project, change Change) (score.EditJSON, error) {
	spec, t, err := change.Control.find(p, s)
	if err != nil {
		return score.EditJSON{}, err
	}
	t.unmoved = true
	return spec.edit(t, change.Value), nil
}

// Differing lists the live changes that a project has and that differ from what is written in it.
func (s Stage) Differing(p *score.Project) []Change { return differing(s.changes, p) }

func differing(changes []Change, p *score.Project) []Change {
	differing := []Change{}
	for _, change := range changes {
		if written, there := change.Control.Written(p); there && written != change.Value {
			differing = append(differing, change)
		}
	}
	return differing
}

// Store returns the edit that writes the live changes into a project, but for momentary ones; ok is false if there are
// none.
func (s Stage) Store(p *score.Project) (edit score.All, ok bool) {
	edit.Name = "live changes"
	s = s.Stopped()
	for _, change := range s.Differing(p) {
		if form, err := s.writing(p, change); err == nil {
			edit.Edits = append(edit.Edits, form)
		}
	}
	return edit, len(edit.Edits) > 0
}

// Edited returns the stage after an edit of the project, which is not one that undoes or does again. Writing a value takes
// the control's live change away, unless it is the same value; so does anything new that takes the place of what was
// deleted. Another project has no live changes.
func (s Stage) Edited(edit score.Edit, before, after *score.Project) Stage {
	if _, another := edit.(score.Replace); another {
		return Stage{}
	}
	return s.keep(func(change Change) bool {
		was, wasThere := change.Control.Written(before)
		is, isThere := change.Control.Written(after)
		return !isThere || is == change.Value || wasThere && was == is && change.Control.writtenAlike(before, after)
	})
}

// writtenAlike reports whether what a control changes, which is there in both, is written alike in two projects but for its value.
func (c Control) writtenAlike(before, after *score.Project) bool {
	spec, was, errBefore := c.find(before, Stage{})
	_, is, errAfter := c.find(after, Stage{})
	return errBefore != nil || errAfter != nil || spec.sameAs == nil || spec.sameAs(was, is)
}

// Step returns what turns a state of a project, of which written is the document, into the one after an action that leads
// to a stage. A control that is let go of has the written value again; so have those that belong together, as the ends of a
// register, where they cannot be together. With a macro go all controls that it moves.
func (s Stage) Step(written *score.Project, c Control) func(*score.Project) *score.Project {
	if c.Once() {
		return func(p *score.Project) *score.Project { return p }
	}
	var steps []func(*score.Project) *score.Project
	for _, one := range c.movedBy(written) {
		steps = append(steps, s.step(written, one))
	}
	about, unrounded := c.movedBy(written), s.unrounded(written)
	return func(p *score.Project) *score.Project {
		for _, step := range steps {
			p = step(p)
		}
		if moved := movedWith(p.Moved, unrounded, about); !slices.Equal(moved, p.Moved) {
			p, _ = applied(p, score.EditJSON{SetProject: &score.SetProject{Moved: &moved}})
		}
		return p
	}
}

func (s Stage) step(written *score.Project, c Control) func(*score.Project) *score.Project {
	is, _ := c.Written(written)
	value, _ := s.Effective(written, c)
	form, err := s.edit(written, Change{c, value})
	return func(p *score.Project) *score.Project {
		if err != nil {
			return p
		}
		next, can := applied(p, form)
		if !can {
			own, _ := Stage{}.edit(written, Change{c, is})
			if next, can = applied(p, own); !can {
				return p
			}
		}
		return next
	}
}
