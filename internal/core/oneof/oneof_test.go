package oneof_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/oneof"
)

func TestAFieldHoldsItsType(t *testing.T) {
	type form struct {
		Number *int
		Text   *string
	}
	var f form
	oneof.Set(&f, "ebb")
	require.Equal(t, "ebb", *f.Text)
	require.Equal(t, []any{"ebb"}, oneof.Get[any](f))
	oneof.Set(&f, 7)
	require.Equal(t, []any{7, "ebb"}, oneof.Get[any](f))
	require.PanicsWithValue(t, "oneof: *oneof_test.form has no field for bool", func() { oneof.Set(&f, true) })
}
