package score

import "slices"

// ChainTo is where a pattern leads.
type ChainTo string

// Where a pattern can lead: to the next one of the list, after the last one the first; to one that is named; to one that is
// drawn by weights; or to silence, which mutes the track.
const (
	ToNext    ChainTo = "next"
	ToPattern ChainTo = "pattern"
	ToDrawn   ChainTo = "drawn"
	ToSilence ChainTo = "silence"
)

// ChainTargets lists them in the order in which to offer them.
func ChainTargets() []ChainTo { return []ChainTo{ToNext, ToPattern, ToDrawn, ToSilence} }

// Chain says where a pattern leads once it has played for so many whole passes of its gate's order, in a kit of the longest.
type Chain struct {
	Passes int     `json:"passes" jsonschema:"minimum=1,maximum=64"`
	To     ChainTo `json:"to" jsonschema:"enum=next,enum=pattern,enum=drawn,enum=silence"`
	// Pattern is the id of the one that is named. One that is gone leads nowhere: the pattern that plays stays.
	Pattern int `json:"pattern,omitempty" jsonschema:"minimum=0,maximum=255"`
	// Weights are those of the patterns that can be drawn; one that is gone has none.
	Weights []PatternWeight `json:"weights,omitempty" jsonschema:"maxItems=16"`
}

// PatternWeight is how likely a pattern is drawn, beside the others of its list.
type PatternWeight struct {
	Pattern int `json:"pattern" jsonschema:"minimum=0,maximum=255"`
	Weight  int `json:"weight" jsonschema:"minimum=0,maximum=1000"`
}

// Next returns the id of the pattern to which one of a track leads, where draw(n) returns a number from 0 to n-1; leads is false
// if it stays, or leads to silence.
func (t *Track) Next(from int, draw func(n int) int) (pattern int, leads bool) {
	at := t.patternPlace(from)
	if at < 0 || t.Patterns[at].After == nil {
		return 0, false
	}
	switch chain := t.Patterns[at].After; chain.To {
	case ToNext:
		return t.Patterns[(at+1)%len(t.Patterns)].ID, true
	case ToPattern:
		return chain.Pattern, t.Pattern(chain.Pattern) != nil
	case ToDrawn:
		sum := 0
		for _, w := range chain.Weights {
			sum += t.weight(w)
		}
		if sum == 0 {
			return 0, false
		}
		drawn := draw(sum)
		for _, w := range chain.Weights {
			if drawn -= t.weight(w); drawn < 0 {
				return w.Pattern, true
			}
		}
	}
	return 0, false
}

// weight returns that of a pattern, of which there is none if it is gone.
func (t *Track) weight(w PatternWeight) int {
	if t.Pattern(w.Pattern) == nil {
		return 0
	}
	return w.Weight
}

// Chained reports whether a pattern of the project leads to others.
func (p *Project) Chained() bool {
	return slices.ContainsFunc(p.Tracks, func(t Track) bool {
		return slices.ContainsFunc(t.Patterns, func(pattern Pattern) bool { return pattern.After != nil })
	})
}

func (c *Chain) clone() *Chain {
	if c == nil {
		return nil
	}
	copied := *c
	copied.Weights = slices.Clone(c.Weights)
	return &copied
}

func (c *Chain) validate(field string) error {
	if c == nil {
		return nil
	}
	if err := checkListed(field+".to", c.To, ChainTargets()); err != nil || c.To != ToDrawn {
		return err
	}
	sum := 0
	for _, w := range c.Weights {
		sum += w.Weight
	}
	if sum == 0 {
		return &FieldError{field + ".weights", "a list whose weights sum to 0", "one with a weight above 0, so that there is a pattern to lead to"}
	}
	return nil
}
