package score

import (
	"fmt"
	"strings"

	strict "github.com/go-json-experiment/json"
)

// MaxStretch is how many step lengths a step can last.
const MaxStretch = 16

// StepDetail is what is special of a gate step. The zero value is a plain step.
type StepDetail struct {
	// Skip passes over the step in no time.
	Skip bool `json:"skip,omitempty"`
	// Stretch is how many step lengths the step lasts, 1 to 16; 0 means 1.
	Stretch int `json:"stretch,omitempty" jsonschema:"minimum=0,maximum=16"`
	// Lengths says what becomes of each step length of a stretched step, in the digits of the gate lane: 0 is silent, 1 is
	// struck and 2 is tied to what sounds in the length before; empty is struck once, then silent.
	Lengths string `json:"lengths,omitempty" jsonschema:"maxLength=16"`
	// Condition is when the step may sound, besides its probability; empty means always.
	Condition Condition `json:"condition,omitempty"`
	// Ratchet shapes the step's ratchet in place of the part's; it is never changed.
	Ratchet *StepRatchet `json:"ratchet,omitempty"`
}

// Struck says what becomes of the lengths of a stretched step, each Off, On or Tie, a tie to silence being silent. A step
// that is not stretched has one, which is struck.
func (d StepDetail) Struck() []int {
	lengths := make([]int, max(1, d.Stretch))
	if d.Lengths == "" || len(d.Lengths) != len(lengths) {
		lengths[0] = On
		return lengths
	}
	for i := range lengths {
		lengths[i] = int(d.Lengths[i] - '0')
		if lengths[i] == Tie && (i == 0 || lengths[i-1] == Off) {
			lengths[i] = Off
		}
	}
	return lengths
}

// UnmarshalJSON reads a detail, also one of before, which said in a word how a stretched step sounds.
func (d *StepDetail) UnmarshalJSON(data []byte) error {
	type plain StepDetail
	var read struct {
		plain
		Strike string `json:"strike"`
	}
	if err := strict.Unmarshal(data, &read, strict.RejectUnknownMembers(true)); err != nil {
		return explain(err, data)
	}
	*d = StepDetail(read.plain)
	rest := map[string]string{"each": "1", "sustain": "2"}[read.Strike]
	switch {
	case read.Strike == "":
	case rest == "" && read.Strike != "once":
		return &FileError{fmt.Sprintf("strike is %.40q; it must be once, each or sustain", read.Strike)}
	case rest != "" && d.Stretch > 1:
		d.Lengths = "1" + strings.Repeat(rest, min(d.Stretch, MaxStretch)-1)
	}
	return nil
}

func (d StepDetail) validate(field string, step int, p *Project) error {
	wrong := d.Lengths != "" && (len(d.Lengths) != d.Stretch || strings.Trim(d.Lengths, "012") != "" ||
		!strings.Contains(d.Lengths, "1") || d.Lengths[0] == '2')
	if wrong {
		return &FieldError{field + ".lengths", fmt.Sprintf("%.40q", d.Lengths),
			"a digit for each step length of a stretched step, 0 for silent, 1 for played or 2 for tied, one of them 1 and the first not 2"}
	}
	return firstOf([]error{
		checkRange(field+", its step,", step, 0, MaxSteps-1),
		d.Condition.validate(field+".condition", p),
		d.Ratchet.validate(field + ".ratchet"),
	})
}
