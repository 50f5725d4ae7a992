package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/studio"
)

// Set lists, and where playing was, are there again after a start.
func TestSetListsAndPositionsAreKept(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	_, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	none, err := s.Position(ctx, 1)
	require.NoError(t, err)
	require.Equal(t, log.Position{}, none)
	opening, closing := studio.SetList{Name: "Opening", Projects: []int64{3, 1, 3}}, studio.SetList{Name: "Closing", Projects: []int64{2}}
	for _, list := range []studio.SetList{opening, {Name: "Closing", Projects: []int64{9, 9}}, closing} {
		require.NoError(t, s.KeepSetList(ctx, list))
	}
	at := log.Position{Song: 80_640, Plan: log.Plan{{Section: 2, Bars: 4}, {Section: 1, Bar: 4}}, Playing: true}
	require.NoError(t, s.SavePosition(ctx, 1, log.Position{Song: 1}))
	require.NoError(t, s.SavePosition(ctx, 1, at))
	require.NoError(t, s.Close())

	s = open(t, folder)
	lists, err := s.SetLists(ctx)
	require.NoError(t, err)
	require.Equal(t, []studio.SetList{closing, opening}, lists)
	kept, err := s.Position(ctx, 1)
	require.NoError(t, err)
	require.Equal(t, at, kept)
	require.NoError(t, s.KeepSetList(ctx, studio.SetList{Name: "Opening"}))
	lists, err = s.SetLists(ctx)
	require.NoError(t, err)
	require.Equal(t, []studio.SetList{closing}, lists)
	require.NoError(t, s.Close())
	query(t, folder, "UPDATE positions SET place = 'x'")
	s = open(t, folder)
	_, err = s.Position(ctx, 1)
	require.ErrorContains(t, err, "read where playing was")
}
