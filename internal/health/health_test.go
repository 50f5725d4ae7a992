package health_test

import (
	"bytes"
	"errors"
	"fmt"
	"log/slog"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/health"
)

// A problem is told and logged once with its cause, however often it is met, and so is its end; what two sources have
// in common is told once.
func TestAProblemIsToldOnce(t *testing.T) {
	var log bytes.Buffer
	board := health.NewBoard(slog.New(slog.NewTextHandler(&log, nil)))
	var told [][]string
	board.Listen(func(problems []string) { told = append(told, problems) })
	full := &health.Problem{Kind: health.Full, Sentence: "the disk is full", Cause: errors.New("no space left on device")}
	for range 5 {
		board.Report(health.Wake, &health.Problem{Sentence: "it waits in memory", Cause: fmt.Errorf("write: %w", full)})
		board.Report(health.Folder, full)
	}
	board.Report(health.Takes, full)
	require.Equal(t, []string{"the disk is full", "it waits in memory"}, board.Problems())
	require.Equal(t, 3, strings.Count(log.String(), `cause="no space left on device"`))
	require.Equal(t, [][]string{{"it waits in memory"}, {"the disk is full", "it waits in memory"}, {"the disk is full", "it waits in memory"}}, told)
	for _, source := range []health.Source{health.Wake, health.Folder, health.Takes, health.Copies} {
		board.Report(source, nil)
		board.Report(source, nil)
	}
	require.Empty(t, board.Problems())
	require.Len(t, told, 6)
	require.Equal(t, 3, strings.Count(log.String(), "all is well again"))
}
