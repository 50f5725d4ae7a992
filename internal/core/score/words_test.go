package score_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

func TestCounted(t *testing.T) {
	for count, want := range map[int]string{0: "0 bars", 1: "1 bar", 2: "2 bars", 21: "21 bars"} {
		require.Equal(t, want, score.Counted(count, "bar"))
	}
}
