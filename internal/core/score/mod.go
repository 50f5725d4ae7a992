package score

import (
	"fmt"
	"slices"
)

// MaxMods is how many mod lanes a part can have.
const MaxMods = 8

// Mod is where a mod lane goes.
type Mod struct {
	Target ModTarget `json:"target" jsonschema:"enum=control,enum=control14,enum=bend,enum=pressure,enum=program"`
	// Number is the controller: 0 to 119 for ControlTarget, 0 to 31 for Control14Target.
	Number int `json:"number" jsonschema:"minimum=0,maximum=119"`
	// Least and Most are what the lane's lowest and highest value mean, in the target's own range: 0 to
	// 127, or 0 to 16383 for Control14Target and BendTarget. Least above Most turns the lane around.
	Least int `json:"least" jsonschema:"minimum=0,maximum=16383"`
	Most  int `json:"most" jsonschema:"minimum=0,maximum=16383"`
	// Glide is how long it takes to reach a new value, in ticks; 0 jumps.
	Glide Tick `json:"glide" jsonschema:"minimum=0,maximum=80640"`
}

// ModTarget is what kind of message a mod lane sends.
type ModTarget string

// The targets.
const (
	ControlTarget   ModTarget = "control"
	Control14Target ModTarget = "control14" // MSB first, then LSB at number + 32
	BendTarget      ModTarget = "bend"
	PressureTarget  ModTarget = "pressure"
	ProgramTarget   ModTarget = "program"
)

// ModTargetSpec tells what a target takes.
type ModTargetSpec struct {
	Name ModTarget `json:"name"`
	// Label is what it is called on the screen, and Help a sentence about it.
	Label string `json:"label"`
	Help  string `json:"help"`
	// Most is its highest value; the lowest is 0.
	Most int `json:"most"`
	// Numbered says that it has a number, and MostNumber is the highest.
	Numbered   bool `json:"numbered"`
	MostNumber int  `json:"mostNumber"`
}

// modTargets is in the order in which to offer them.
var modTargets = []ModTargetSpec{
	{ControlTarget, "CC", "A controller of 7 bits.", 127, true, 119},
	{Control14Target, "CC, 14 bit", "A controller of 14 bits, which takes a second controller, 32 above it.", 16383, true, 31},
	{BendTarget, "pitch bend", "The pitch bend of the channel.", 16383, false, 119},
	{PressureTarget, "channel pressure", "The pressure of the whole channel.", 127, false, 119},
	{ProgramTarget, "program change", "The program of the channel.", 127, false, 119},
}

// ModTargetSpecs lists the targets in the order in which to offer them.
func ModTargetSpecs() []ModTargetSpec { return slices.Clone(modTargets) }

// ModTargets lists the names of the targets.
func ModTargets() (names []ModTarget) {
	for _, spec := range modTargets {
		names = append(names, spec.Name)
	}
	return names
}

// Spec returns what the target takes, or the zero ModTargetSpec if there is no such target.
func (t ModTarget) Spec() ModTargetSpec {
	for _, spec := range modTargets {
		if spec.Name == t {
			return spec
		}
	}
	return ModTargetSpec{}
}

// ModLanes lists the mod lanes in the order of a part's Mods.
func ModLanes() []LaneName { return []LaneName{Mod1, Mod2, Mod3, Mod4, Mod5, Mod6, Mod7, Mod8} }

func validateMods(field string, mods []Mod) error {
	for i, m := range mods {
		if err := m.validate(fmt.Sprintf("%s[%d]", field, i)); err != nil {
			return err
		}
	}
	return nil
}

func (m Mod) validate(at string) error {
	spec := m.Target.Spec()
	return firstOf([]error{
		checkListed(at+".target", m.Target, ModTargets()),
		checkRange(at+".number", m.Number, 0, spec.MostNumber),
		checkRange(at+".least", m.Least, 0, spec.Most),
		checkRange(at+".most", m.Most, 0, spec.Most),
	})
}
