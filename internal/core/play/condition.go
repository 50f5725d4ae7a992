package play

import (
	"slices"

	"jettyfog/internal/core/score"
)

// sentence is a condition made ready to be decided.
type sentence struct {
	or    bool
	terms []term
}

// term is a term of it.
type term struct {
	score.Term
	trackIndex int  // of the track that it is about, among those of the project
	mutual     bool // whether that track hears this one too
}

// readCondition makes a step's condition ready; nil is always.
func readCondition(c *common, track *score.Track, condition score.Condition) *sentence {
	read, or, ok := condition.Terms()
	if !ok {
		panic("play: a condition that is no sentence")
	}
	if len(read) == 0 {
		return nil
	}
	s := &sentence{or: or}
	for _, t := range read {
		one := term{Term: t}
		if t.Track > 0 {
			one.trackIndex, one.mutual = trackIndexOf(c.project, t.Track), c.hearing.mutual(track.ID, t.Track)
		}
		s.terms = append(s.terms, one)
	}
	return s
}

// allows reports whether a step's condition holds.
func (w *walker) allows(s *step) bool {
	if s.condition == nil {
		return true
	}
	for i := range s.condition.terms {
		t := &s.condition.terms[i]
		if w.holds(t) != t.Not == s.condition.or {
			return s.condition.or // one is enough, or one is too many
		}
	}
	return !s.condition.or
}

// holds reports whether a term holds, before it is negated.
func (w *walker) holds(t *term) bool {
	switch t.Kind {
	case score.PassTerm:
		pass := w.pass() + 1
		if t.Of > 0 {
			pass = (pass-1)%int64(t.Of) + 1
		}
		return pass >= int64(t.First) && (t.Last == 0 || pass <= int64(t.Last))
	case score.FillingTerm:
		return w.project.Filling
	case score.SoundedTerm:
		return w.sounded
	case score.SectionTerm:
		return w.project.SectionOn == t.ID
	case score.SceneTerm:
		return w.project.SceneOn == t.ID
	}
	about := &w.states[t.trackIndex]
	switch notes := about.notesIn(w.bars.At(w.next) - 1); {
	case t.Kind == score.UnderNotesTerm:
		return notes < t.Notes
	case t.Kind == score.OverNotesTerm:
		return notes > t.Notes
	case t.mutual && about.since == w.next: // tracks that hear each other hear what was before the tick
		return about.before
	}
	return about.now
}

// trackState is what other tracks hear of one: whether its last step that was on sounded, and what that was before a
// tick; and how many notes it struck.
type trackState struct {
	now, before bool
	since       score.Tick // the tick of that step

	bar         int64 // in which it struck notes last
	notes, past int   // how many, and how many in the bar before

	driving
}

func (s *trackState) set(tick score.Tick, sounds bool) {
	if s.since != tick {
		s.before, s.since = s.now, tick
	}
	s.now = sounds
}

// strike counts notes of a step in a bar.
func (s *trackState) strike(bar int64, notes int) {
	switch bar {
	case s.bar:
	case s.bar + 1:
		s.bar, s.past, s.notes = bar, s.notes, 0
	default:
		s.bar, s.past, s.notes = bar, 0, 0
	}
	s.notes += notes
}

// notesIn returns how many notes were struck in a bar, which may not be before the last but one.
func (s *trackState) notesIn(bar int64) int {
	switch bar {
	case s.bar:
		return s.notes
	case s.bar - 1:
		return s.past
	}
	return 0
}

// about returns the terms of a step's condition that are about tracks.
func (s *step) about() (terms []term) {
	if s.condition == nil {
		return nil
	}
	for _, t := range s.condition.terms {
		if t.Track > 0 {
			terms = append(terms, t)
		}
	}
	return terms
}

// listens reports whether the sentence is about what sounded before.
func (s *sentence) listens() bool {
	return s != nil && slices.ContainsFunc(s.terms, func(t term) bool { return t.Kind == score.SoundedTerm || t.Track > 0 })
}
