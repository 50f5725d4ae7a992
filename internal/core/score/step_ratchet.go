package score

import "fmt"

// Bounds of the ratchet of a step.
const (
	MaxHits     = 16
	MaxHitWalk  = 14
	MaxHitShare = 100
)

// StepRatchet shapes the ratchet of one step in place of the part's.
type StepRatchet struct {
	RatchetShape
	// Shares, if there are any, are how long the hits are beside each other, 1 to 100, in place of the spacing. Hits beyond the list begin
	// with it anew.
	Shares []int `json:"shares,omitempty" jsonschema:"maxItems=16"`
	// HitOdds, if there are any, are how often the second hit and those after it sound, in percent, in place of the odds. Hits beyond the list
	// begin with it anew.
	HitOdds []int `json:"hitOdds,omitempty" jsonschema:"maxItems=15"`
	// Walk is how many degrees of the scale each hit is above the one before; a kit has none.
	Walk int `json:"walk,omitempty" jsonschema:"minimum=-14,maximum=14"`
	// Counts, if there are any, is a table from which the number of hits is drawn, in place of the ratchet lane: the i-th, from 1, is the
	// weight of i hits, 0 to 100. If all are 0 the lane counts.
	Counts []int `json:"counts,omitempty" jsonschema:"maxItems=16"`
}

// OddsOf returns how often a hit sounds, counted from 0, in percent; the first always does.
func (r *StepRatchet) OddsOf(hit int) int {
	switch {
	case hit == 0:
		return 100
	case len(r.HitOdds) > 0:
		return r.HitOdds[(hit-1)%len(r.HitOdds)]
	}
	return r.Odds
}

// IsRandom reports whether chance can change how many hits there are, or which of them sound.
func (r *StepRatchet) IsRandom() bool {
	if r == nil {
		return false
	}
	for hit := range MaxHits {
		if r.OddsOf(hit) < 100 {
			return true
		}
	}
	return r.CountsTotal() > 0
}

// ShareOf returns how long a hit is, counted from 0, beside the others.
func (r *StepRatchet) ShareOf(hit int) int { return r.Shares[hit%len(r.Shares)] }

// CountsTotal returns the sum of the weights of counts.
func (r *StepRatchet) CountsTotal() (total int) {
	for _, weight := range r.Counts {
		total += weight
	}
	return total
}

// validate checks what the bounds of the types do not.
func (r *StepRatchet) validate(field string) error {
	if r == nil {
		return nil
	}
	for _, list := range []struct {
		name        string
		values      []int
		least, most int
	}{
		{"shares", r.Shares, 1, MaxHitShare}, {"hitOdds", r.HitOdds, 0, 100}, {"counts", r.Counts, 0, 100},
	} {
		for i, value := range list.values {
			if err := checkRange(fmt.Sprintf("%s.%s[%d]", field, list.name, i), value, list.least, list.most); err != nil {
				return err
			}
		}
	}
	return checkListed(field+".spacing", r.Spacing, Spacings())
}
