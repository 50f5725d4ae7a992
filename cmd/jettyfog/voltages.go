package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/wav"
)

// writeVoltages writes the voltages of a take, and beside them what their channels are.
func (c *renderCommand) writeVoltages(stdout io.Writer, t *take.Take) error {
	beside := strings.TrimSuffix(c.Out, filepath.Ext(c.Out)) + ".json"
	if beside == c.Out {
		return usageError{errors.New("--out is a .json; with --cv it is a .wav, and the .json is written beside it")}
	}
	at := slices.IndexFunc(t.Project.Outputs, func(o score.Output) bool { return o.Kind == score.Voltages && len(o.Voltages.Channels) > 0 })
	if at < 0 {
		return usageError{fmt.Errorf("“%s” has no output of voltages with channels: add one under Connect, or use --demo", t.Project.Name)}
	}
	voltages, err := cv.Of(t, t.Project.Outputs[at])
	if err != nil {
		return err
	}
	channels := wav.Channels(t.Project, voltages)
	described, err := json.MarshalIndent(channels, "", "  ")
	if err != nil {
		return err
	}
	file, err := os.Create(c.Out)
	if err != nil {
		return err
	}
	if err := errors.Join(wav.Write(file, voltages, c.Rate), file.Close()); err != nil {
		var long *wav.TooLongError
		if errors.As(err, &long) {
			return errors.Join(usageError{long}, os.Remove(c.Out))
		}
		return err
	}
	if err := os.WriteFile(beside, append(described, '\n'), 0o644); err != nil {
		return err
	}
	for _, channel := range channels {
		if channel.Beyond != "" {
			_, _ = fmt.Fprintf(stdout, "channel %d, %s: %s\n", channel.Channel, channel.Name, channel.Beyond)
		}
	}
	_, err = fmt.Fprintf(stdout, "%s: %d channels, %.3f s; %s says what they are\n", c.Out, len(channels), float64(wav.Frames(voltages, c.Rate))/float64(c.Rate), beside)
	return err
}
