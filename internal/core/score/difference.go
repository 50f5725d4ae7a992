package score

import (
	"reflect"
	"strings"
)

// Difference is one change that leads from a document to another: the value at a path of its JSON form is replaced,
// added before what stands there, or removed. Those of a list are made one after the other.
type Difference struct {
	Op    string `json:"op" jsonschema:"enum=replace,enum=add,enum=remove"`
	Path  []any  `json:"path"`
	Value any    `json:"value,omitempty"`
}

// Differences returns what leads from a project to another. Both must stay as they are.
func Differences(before, after *Project) []Difference {
	var d differences
	d.compare(nil, reflect.ValueOf(*before), reflect.ValueOf(*after))
	return d.found
}

type differences struct{ found []Difference }

func (d *differences) add(op string, path []any, value any) {
	d.found = append(d.found, Difference{op, append([]any{}, path...), value})
}

// compare finds what differs at a path.
func (d *differences) compare(path []any, before, after reflect.Value) {
	switch before.Kind() {
	case reflect.Struct:
		for i, field := range fieldsOf[before.Type()] {
			d.field(append(path, field.name), field.omitted, before.Field(i), after.Field(i))
		}
	case reflect.Pointer:
		if !before.IsNil() && !after.IsNil() && before.Elem().Kind() == reflect.Struct {
			d.compare(path, before.Elem(), after.Elem())
			return
		}
		d.leaf(path, before, after)
	case reflect.Slice:
		if before.Len() == after.Len() && before.UnsafePointer() == after.UnsafePointer() {
			return // edits share what they do not change
		}
		if before.Type().Elem().Kind() == reflect.Struct || before.Len() != after.Len() {
			d.list(path, before, after)
			return
		}
		d.leaf(path, before, after)
	default:
		d.leaf(path, before, after)
	}
}

// field compares a field, which stands in JSON only if it is not empty where it is omitted then.
func (d *differences) field(path []any, omitted bool, before, after reflect.Value) {
	switch gone, empty := omitted && isEmpty(before), omitted && isEmpty(after); {
	case gone && empty:
	case empty:
		d.add("remove", path, nil)
	case gone:
		d.add("replace", path, after.Interface())
	default:
		d.compare(path, before, after)
	}
}

// jsonField is what a field is called in JSON, and whether it is left out where it is empty.
type jsonField struct {
	name    string
	omitted bool
}

// fieldsOf has the fields of all structs of a project.
var fieldsOf = map[reflect.Type][]jsonField{}

func init() { learnFields(reflect.TypeFor[Project]()) }

func learnFields(t reflect.Type) {
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice || t.Kind() == reflect.Map {
		t = t.Elem()
	}
	if _, known := fieldsOf[t]; known || t.Kind() != reflect.Struct {
		return
	}
	fields := make([]jsonField, t.NumField())
	fieldsOf[t] = fields
	for i := range fields {
		name, options, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
		fields[i] = jsonField{name, options == "omitempty" || options == "omitzero"}
		learnFields(t.Field(i).Type)
	}
}

func isEmpty(v reflect.Value) bool {
	if kind := v.Kind(); kind == reflect.Slice || kind == reflect.Map {
		return v.Len() == 0
	}
	return v.IsZero()
}

func (d *differences) leaf(path []any, before, after reflect.Value) {
	if !reflect.DeepEqual(before.Interface(), after.Interface()) {
		d.add("replace", path, after.Interface())
	}
}

// list compares lists of structs, and others that have grown or shrunk: what is the same at their beginnings and at their ends is left, what is between is
// compared where there is as much of it, and removed and added otherwise.
func (d *differences) list(path []any, before, after reflect.Value) {
	if before.Len() == after.Len() {
		for i := range before.Len() {
			d.compare(append(path, i), before.Index(i), after.Index(i))
		}
		return
	}
	same := func(i, j int) bool { return reflect.DeepEqual(before.Index(i).Interface(), after.Index(j).Interface()) }
	first, end, to := 0, before.Len(), after.Len()
	for first < end && first < to && same(first, first) {
		first++
	}
	for end > first && to > first && same(end-1, to-1) {
		end, to = end-1, to-1
	}
	for i := end - 1; i >= first; i-- {
		d.add("remove", append(path, i), nil)
	}
	for i := first; i < to; i++ {
		d.add("add", append(path, i), after.Index(i).Interface())
	}
}
