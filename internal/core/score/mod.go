package score

import "fmt"

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
	ControlTarget   ModTarget = "control"   // a controller of 7 bits
	Control14Target ModTarget = "control14" // a controller of 14 bits, MSB first, then LSB at number + 32
	BendTarget      ModTarget = "bend"      // pitch bend
	PressureTarget  ModTarget = "pressure"  // channel pressure
	ProgramTarget   ModTarget = "program"   // program change
)

// ModTargets lists the targets in the order in which to offer them.
func ModTargets() []ModTarget {
	return []ModTarget{ControlTarget, Control14Target, BendTarget, PressureTarget, ProgramTarget}
}

// Wide reports whether the target takes 14 bits.
func (t ModTarget) Wide() bool { return t == Control14Target || t == BendTarget }

// ModLanes lists the mod lanes in the order of a part's Mods.
func ModLanes() []LaneName { return []LaneName{Mod1, Mod2, Mod3, Mod4, Mod5, Mod6, Mod7, Mod8} }

func validateMods(field string, mods []Mod) error {
	var checks []error
	for i, m := range mods {
		at := fmt.Sprintf("%s[%d]", field, i)
		most, numbers := 127, 119
		if m.Target.Wide() {
			most = 1<<14 - 1
		}
		if m.Target == Control14Target {
			numbers = 31
		}
		checks = append(checks,
			checkListed(at+".target", m.Target, ModTargets()),
			checkRange(at+".number", m.Number, 0, numbers),
			checkRange(at+".least", m.Least, 0, most),
			checkRange(at+".most", m.Most, 0, most))
	}
	return firstOf(checks)
}
