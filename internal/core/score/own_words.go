package score

import (
	"fmt"
	"strings"
)

// Words says in a few words what is special of a gate step; empty if nothing.
func (d StepDetail) Words(p *Project) string {
	var words []string
	if d.Skip {
		words = append(words, "skipped")
	}
	if d.Stretch > 1 {
		words = append(words, fmt.Sprintf("lasts %d steps", d.Stretch))
	}
	if d.Condition != Always {
		words = append(words, d.Condition.Words(p))
	}
	if r := d.Ratchet; r != nil {
		words = append(words, r.words())
	}
	return strings.Join(words, ", ")
}

// words says how the hits of a step's own ratchet are.
func (r *StepRatchet) words() string {
	words := "a ratchet of its own: " + spacings.option(r.Spacing).Label
	if len(r.Shares) > 0 {
		words = "a ratchet of its own: by lengths of hits"
	}
	switch {
	case len(r.HitOdds) > 0:
		words += ", odds by hit"
	case r.Odds < 100:
		words += fmt.Sprintf(", odds %d %%", r.Odds)
	}
	if r.CountsTotal() > 0 {
		words += ", hits drawn"
	}
	if r.Walk != 0 {
		words += fmt.Sprintf(", %s a hit", signed(r.Walk))
	}
	return words
}

// Words says in a few words what a step of a lane has of its own; empty if nothing.
func (o *StepOwn) Words(p *Project, spec LaneSpec) string {
	var words []string
	add := func(format string, of ...any) { words = append(words, fmt.Sprintf(format, of...)) }
	if len(o.Notes) > 1 {
		add("%d notes", len(o.Notes))
	} else if len(o.Notes) == 1 {
		add("a note with its own timing")
	}
	if o.Each && len(o.Notes) > 1 {
		add("each by itself")
	}
	if s := o.Spread; s != nil {
		words = append(words, s.words(p, spec))
	}
	if total := o.Total(); total > 0 {
		drawn := 0
		for _, line := range o.Weights {
			if line.Weight > 0 {
				drawn++
			}
		}
		add("drawn from %s", Counted(drawn, "line"))
	}
	if len(o.Allowed) > 0 {
		var names []string
		for _, degree := range o.Allowed {
			if degree < p.Key.Spelling().Notes() {
				names = append(names, strings.TrimRight(p.Key.DegreeName(degree), "-0123456789"))
			}
		}
		if len(names) > 0 {
			add("only %s", strings.Join(names, " "))
		}
	}
	return strings.Join(words, ", ")
}

// words says what a spread does.
func (s *Spread) words(p *Project, spec LaneSpec) string {
	switch {
	case !s.varies():
		return "no spread"
	case s.Limits:
		return fmt.Sprintf("spread from %s to %s%s", stepWords(p, spec.Name, inBounds(s.Lowest, spec)), stepWords(p, spec.Name, inBounds(s.Highest, spec)), s.often())
	}
	return fmt.Sprintf("spread %s to %s%s", signed(s.Lowest), signed(s.Highest), s.often())
}

// often says how often and how deep a spread goes, if not always and whole.
func (s *Spread) often() (words string) {
	if s.Chance < 100 {
		words += fmt.Sprintf(" in %d %%", s.Chance)
	}
	if s.Depth < 100 {
		words += fmt.Sprintf(", depth %d %%", s.Depth)
	}
	return words
}

func inBounds(value int, spec LaneSpec) int { return min(spec.Most, max(spec.Least, value)) }
