// Package oneof is the one codec of edits: a struct of pointers, of which exactly one is set, is how a value of one of
// several types stands in JSON, as {"mute": {…}}. A new type is one field of such a struct.
package oneof

import (
	"fmt"
	"reflect"
)

// Set has the field of a struct hold a value whose type it points to. It panics if no field does, which is an error of
// the program.
func Set(form, value any) {
	fields, held := reflect.ValueOf(form).Elem(), reflect.ValueOf(value)
	for i := range fields.NumField() {
		if field := fields.Field(i); field.Type().Elem() == held.Type() {
			field.Set(reflect.New(held.Type()))
			field.Elem().Set(held)
			return
		}
	}
	panic(fmt.Sprintf("oneof: %T has no field for %T", form, value))
}

// Get returns what the fields of a struct hold that are set.
func Get[T any](form any) (held []T) {
	fields := reflect.ValueOf(form)
	for i := range fields.NumField() {
		if field := fields.Field(i); !field.IsNil() {
			held = append(held, field.Elem().Interface().(T))
		}
	}
	return held
}
