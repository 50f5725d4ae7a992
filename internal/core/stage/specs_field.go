package stage

import (
	"reflect"

	"jettyfog/internal/core/score"
)

// LayerControl returns the name of the control that gives a field a layer of a kind.
func LayerControl(kind score.LayerKind) string { return "field " + string(kind) }

// fieldSpecs are the controls of which layers a field has. Their values are ids of layers of the project.
func fieldSpecs() (specs []Spec) {
	for _, kind := range score.LayerKinds() {
		name := LayerControl(kind)
		spec := onPart(within(layerBounds, "id", Spec{Name: name, Words: name}),
			func(p *score.Part) int { return *p.Field.Recalled.Of(kind) }, nil)
		spec.layer = kind
		spec.has = func(t *target) bool { return t.part.Field != nil }
		spec.edit = func(t *target, value int) score.EditJSON {
			at := score.PartAddress{Track: t.Track, Pattern: t.Pattern, Part: t.Part}
			edit := score.RecallLayer{PartAddress: at, Kind: kind, Layer: value}
			if value == spec.read(t) { // it has what is written again, which need not be a layer of the project
				written := t.part.Field.Layer(kind)
				written.ID, edit.Written = value, &written
			}
			return score.EditJSON{RecallLayer: &edit}
		}
		spec.sameAs = func(t, other *target) bool {
			return reflect.DeepEqual(t.part.Field.Layer(kind), other.part.Field.Layer(kind))
		}
		specs = append(specs, spec)
	}
	return specs
}
