package preset

import "slices"

// Shipped lists the presets that ship with the program, in the order in which to offer them.
func Shipped() []Preset {
	return slices.Concat(shippedKits(), shippedBasses(), shippedPads(), shippedLines(), shippedRhythms(), shippedLanes(), shippedTables(), shippedFields())
}

// Find returns a shipped preset; found is false if there is none of the kind and name.
func Find(kind Kind, name string) (kept Preset, found bool) {
	all := Shipped()
	at := slices.IndexFunc(all, func(p Preset) bool { return p.Kind == kind && p.Name == name })
	if at < 0 {
		return Preset{}, false
	}
	return all[at], true
}
