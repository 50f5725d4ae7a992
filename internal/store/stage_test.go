package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/stage"
)

// Live changes are there after a restart; before any were made there are none.
func TestLiveChangesStay(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	none, err := s.Stage(t.Context())
	require.NoError(t, err)
	require.Empty(t, none.Changes())
	live := stage.Stage{}.With(stage.Control{Name: "mute", Track: 3}, 1).With(stage.Control{Name: "swing"}, 583)
	require.NoError(t, s.SaveStage(t.Context(), stage.Stage{}.With(stage.Control{Name: "luck"}, 7)))
	require.NoError(t, s.SaveStage(t.Context(), live))
	require.NoError(t, s.Close())
	kept, err := open(t, folder).Stage(t.Context())
	require.NoError(t, err)
	require.Equal(t, live, kept)
}
