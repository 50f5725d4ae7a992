package stage

import (
	"cmp"
	"fmt"
	"strings"

	"jettyfog/internal/core/score"
)

func partSpecs() []Spec {
	return append([]Spec{
		onPart(Spec{Name: "part mute", Words: "mute", Max: 1, Values: onOff, silences: true},
			func(p *score.Part) int { return number(p.Mute) },
			func(_ *target, value int) score.SetPart { return score.SetPart{Mute: given(value > 0)} }),
		onPart(within(partBounds, "fill", Spec{Name: "part fill", Words: "fill", Unit: "%"}),
			func(p *score.Part) int { return p.Fill },
			func(_ *target, value int) score.SetPart { return score.SetPart{Fill: &value} }),
	}, loopSpecs()...)
}

// onPart completes the spec of a control of parts.
func onPart(spec Spec, read func(*score.Part) int, set func(*target, int) score.SetPart) Spec {
	spec.Of = OfPart
	spec.control = control{
		read: func(t *target) int { return read(t.part) },
		edit: func(t *target, value int) score.EditJSON {
			edit := set(t, value)
			edit.PartAddress = score.PartAddress{Track: t.Track, Pattern: t.Pattern, Part: t.Part}
			return score.EditJSON{SetPart: &edit}
		},
	}
	return spec
}

// loopRow is how many steps a control of looped steps is about, so that its values are exact wherever numbers are short.
const loopRow = 16

// The controls of looped steps: the lowest bit of the value is the first of their steps.
var loopNames = [score.MaxSteps / loopRow]string{"loop steps 1-16", "loop steps 17-32", "loop steps 33-48", "loop steps 49-64"}

// loopSpecs are the controls of which steps are looped.
func loopSpecs() (specs []Spec) {
	for row, name := range loopNames {
		specs = append(specs, onPart(Spec{Name: name, Words: name, Unit: bits, Max: 1<<loopRow - 1},
			func(p *score.Part) int { return bitsOf(p.Held, row) },
			func(t *target, value int) score.SetPart {
				steps := score.HeldSteps{}
				for other, name := range loopNames {
					bits := value
					if other != row {
						bits = t.standing(name, bitsOf(t.part.Held, other))
					}
					steps = append(steps, stepsOf(bits, other)...)
				}
				return score.SetPart{Held: &steps}
			}))
	}
	return specs
}

// bitsOf returns which steps of a row are among some.
func bitsOf(steps score.HeldSteps, row int) (bits int) {
	for _, step := range steps {
		if step/loopRow == row {
			bits |= 1 << (step % loopRow)
		}
	}
	return bits
}

func stepsOf(bits, row int) (steps score.HeldSteps) {
	for i := range loopRow {
		if bits>>i&1 > 0 {
			steps = append(steps, row*loopRow+i)
		}
	}
	return steps
}

// stepWords says which steps of a row bits are, as "1, 3–5".
func stepWords(bits, row int) string {
	var words []string
	steps := stepsOf(bits, row)
	for i := 0; i < len(steps); i++ {
		from := i
		for i+1 < len(steps) && steps[i+1] == steps[i]+1 {
			i++
		}
		if from == i {
			words = append(words, fmt.Sprint(steps[i]+1))
		} else {
			words = append(words, fmt.Sprintf("%d–%d", steps[from]+1, steps[i]+1))
		}
	}
	return cmp.Or(strings.Join(words, ", "), "none")
}
