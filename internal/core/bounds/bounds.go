// Package bounds checks values by the bounds that stand in the jsonschema tags of their types: the smallest and the largest
// number, and how many items a list has. The same tags make the published schemas and the page's types, so that a bound is
// stated once.
//
//	type Track struct {
//		Hold int `json:"hold" jsonschema:"minimum=0,maximum=64"`
//	}
//	v, broken := bounds.For[Track]().Check(&Track{Hold: 65}) // hold is 65; it must be 0 to 64
package bounds

import (
	"fmt"
	"math"
	"reflect"
	"strconv"
	"strings"
)

// Violation is a value that is out of its bounds.
type Violation struct {
	// Field is the path to it as it stands in the JSON form, or of a list "the number of" and the path.
	Field string
	Got   int64
	// Least and Most are its bounds.
	Least, Most int64
}

// Allowed completes the sentence "it must be …".
func (v Violation) Allowed() string {
	switch {
	case v.Least == v.Most:
		return strconv.FormatInt(v.Least, 10)
	case v.Most == math.MaxInt64:
		return fmt.Sprintf("at least %d", v.Least)
	case v.Least == math.MinInt64:
		return fmt.Sprintf("at most %d", v.Most)
	}
	return fmt.Sprintf("%d to %d", v.Least, v.Most)
}

// Bounds are those of a type. To find them takes long; they are found once.
type Bounds[T any] struct{ plan *plan }

// For finds the bounds of a type.
func For[T any]() Bounds[T] {
	return Bounds[T]{makePlan(reflect.TypeFor[T](), map[reflect.Type]*plan{})}
}

// Check returns the first value that is out of its bounds, in the order of fields; broken is false if there is none. What can be
// left out (omitempty) can be 0, or empty. What has the tag bounds:"own" is left to whoever has rules of its own for it.
func (b Bounds[T]) Check(value *T) (v Violation, broken bool) {
	found := b.plan.check(reflect.ValueOf(value).Elem())
	if found == nil {
		return v, false
	}
	v = found.Violation
	v.Field = strings.TrimPrefix(v.Field, ".")
	if found.list {
		v.Field = "the number of " + v.Field
	}
	return v, true
}

// Of returns the bounds of a field of a struct by its name in JSON. It panics if there is none.
func (b Bounds[T]) Of(name string) (least, most int) {
	for _, f := range b.plan.fields {
		if f.name == name && f.number {
			return int(f.least), int(f.most)
		}
	}
	panic(fmt.Sprintf("bounds: %v has no number %s with bounds", reflect.TypeFor[T](), name))
}

// plan is what is to be checked of a type.
type plan struct {
	fields []field // of a struct
	inner  *plan   // of what a pointer points to, or a list or a map holds
	kind   reflect.Kind
}

// field is what is to be checked of a field of a struct.
type field struct {
	index        int
	name         string
	number, list bool
	optional     bool // nothing, or 0, is as if it was left out
	least, most  int64
	plan         *plan // nil if nothing within it has bounds
}

type violation struct {
	Violation
	list bool
}

func makePlan(t reflect.Type, making map[reflect.Type]*plan) *plan {
	if known := making[t]; known != nil { // a type that holds itself
		return known
	}
	p := &plan{kind: t.Kind()}
	making[t] = p
	switch t.Kind() {
	case reflect.Pointer, reflect.Slice, reflect.Map:
		p.inner = makePlan(t.Elem(), making)
	case reflect.Struct:
		for i := range t.NumField() {
			if f, checked := makeField(t.Field(i), i, making); checked {
				p.fields = append(p.fields, f)
			}
		}
	}
	return p
}

func makeField(s reflect.StructField, index int, making map[reflect.Type]*plan) (f field, checked bool) {
	if !s.IsExported() || s.Tag.Get("bounds") == "own" {
		return f, false
	}
	f = field{index: index, least: math.MinInt64, most: math.MaxInt64}
	name, options, _ := strings.Cut(s.Tag.Get("json"), ",")
	f.name, f.optional = name, strings.Contains(options, "omitempty")
	bounded := false
	for _, rule := range strings.Split(s.Tag.Get("jsonschema"), ",") {
		name, text, _ := strings.Cut(rule, "=")
		number, err := strconv.ParseInt(text, 10, 64)
		if err != nil {
			continue
		}
		switch name {
		case "minimum", "minItems":
			f.least, bounded = number, true
		case "maximum", "maxItems":
			f.most, bounded = number, true
		}
	}
	of := s.Type
	if of.Kind() == reflect.Pointer {
		of = of.Elem()
	}
	f.list = bounded && (of.Kind() == reflect.Slice || of.Kind() == reflect.Map)
	f.number = bounded && (of.Kind() >= reflect.Int && of.Kind() <= reflect.Uintptr)
	if within := makePlan(s.Type, making); within.checks(map[*plan]bool{}) {
		f.plan = within
	}
	return f, f.list || f.number || f.plan != nil
}

// checks reports whether anything of a type has bounds.
func (p *plan) checks(seen map[*plan]bool) bool {
	if seen[p] {
		return false
	}
	seen[p] = true
	return len(p.fields) > 0 || p.inner != nil && p.inner.checks(seen)
}

func (p *plan) check(v reflect.Value) *violation {
	switch p.kind {
	case reflect.Pointer:
		if !v.IsNil() {
			return p.inner.check(v.Elem())
		}
	case reflect.Slice:
		for i := range v.Len() {
			if found := p.inner.check(v.Index(i)); found != nil {
				found.Field = fmt.Sprintf("[%d]%s", i, found.Field)
				return found
			}
		}
	case reflect.Map:
		for _, key := range v.MapKeys() {
			if found := p.inner.check(v.MapIndex(key)); found != nil {
				found.Field = fmt.Sprintf(".%v%s", key, found.Field)
				return found
			}
		}
	case reflect.Struct:
		for i := range p.fields {
			if found := p.fields[i].check(v.Field(p.fields[i].index)); found != nil {
				return found
			}
		}
	}
	return nil
}

func (f *field) check(v reflect.Value) *violation {
	of := v
	if of.Kind() == reflect.Pointer {
		if of.IsNil() {
			return nil
		}
		of = of.Elem()
	}
	if f.number || f.list {
		got := int64(0)
		switch {
		case f.list:
			got = int64(of.Len())
		case of.CanInt():
			got = of.Int()
		default:
			got = int64(of.Uint())
		}
		if (got < f.least || got > f.most) && !(got == 0 && f.optional) {
			return &violation{Violation{f.path(), got, f.least, f.most}, f.list}
		}
	}
	if f.plan == nil {
		return nil
	}
	found := f.plan.check(v)
	if found != nil {
		found.Field = f.path() + found.Field
	}
	return found
}

// path is what the field adds to a path; what is embedded adds nothing.
func (f *field) path() string {
	if f.name == "" {
		return ""
	}
	return "." + f.name
}
