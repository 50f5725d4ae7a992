package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/cv"
)

// What was read of channels stays over a restart, by interface and channel, until it is read anew or given up.
func TestCalibrations(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	first, second := []cv.VoltageReading{{Asked: 0, Read: 100}, {Asked: 10_000, Read: 9900}}, []cv.VoltageReading{{Asked: 0, Hertz: 261_626}, {Asked: 10_000, Hertz: 520_000}}
	require.NoError(t, s.Calibrate(ctx, "Quay interface", 3, first))
	require.NoError(t, s.Calibrate(ctx, "Pier interface", 3, first))
	require.NoError(t, s.Calibrate(ctx, "Quay interface", 3, second))
	require.NoError(t, s.Calibrate(ctx, "Pier interface", 4, first))
	require.NoError(t, s.Calibrate(ctx, "Pier interface", 4, nil))
	require.NoError(t, s.Close())
	all, err := open(t, folder).Calibrations(ctx)
	require.NoError(t, err)
	require.Len(t, all, 2)
	require.Equal(t, []any{"Pier interface", 3, first}, []any{all[0].Interface, all[0].Channel, all[0].Readings})
	require.Equal(t, second, all[1].Readings)
	require.Len(t, all[1].Calibration, 2)
}
