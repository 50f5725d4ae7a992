package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
	"jettyfog/internal/schema"
	"jettyfog/internal/store"
)

// usageError is a value on the command line that cannot be used.
type usageError struct{ error }

func (e usageError) Unwrap() error { return e.error }

func exitStatus(err error) int {
	var usage usageError
	if errors.As(err, &usage) {
		return 2
	}
	return 1
}

// source is the project that a command is about.
type source struct {
	Demo    bool   `xor:"source" required:"" help:"Use the demo."`
	Project string `xor:"source" required:"" placeholder:"FILE.json" help:"Use a project file."`
	Named   string `xor:"source" required:"" placeholder:"NAME" help:"Use the project of that name in the folder."`
	Data    string `placeholder:"FOLDER" help:"Folder in which --named looks; without it, that of serve."`
}

type renderCommand struct {
	Log string `xor:"source" required:"" placeholder:"FILE.json" help:"Render what was done while a project played: a log, whose end is that of the file."`
	source
	tuningFiles
	Bars   int    `xor:"length" help:"How many bars, 1 to 100000; a log has its own end."`
	Song   bool   `xor:"length" help:"Render the song, from its first section to the end of its last one. Sections that wait for being released play one pass."`
	Luck   *int   `help:"Use another luck than the project's, 0 to 999999."`
	PPQ    int    `name:"ppq" default:"960" enum:"960,20160" help:"Ticks a quarter note: 960, or 20160 to round nothing."`
	Format int    `default:"1" enum:"0,1" help:"Format of the MIDI file: 0 or 1."`
	CV     bool   `name:"cv" help:"Write the voltages of the project's first output of voltages as a .wav of 32-bit floats, a channel a signal, and beside it a .json that says what its channels are."`
	Rate   int    `default:"48000" enum:"44100,48000,88200,96000,192000" help:"Samples a second of the .wav."`
	Out    string `required:"" placeholder:"FILE" help:"The file to write: a .mid, or with --cv a .wav."`
}

// Run renders and writes the file.
func (c *renderCommand) Run(stdout io.Writer) error {
	rendered, err := c.render()
	if err != nil {
		return err
	}
	if c.CV {
		return c.writeVoltages(stdout, rendered)
	}
	file, err := smf.FromTake(rendered, smf.Options{Format: c.Format, Division: c.PPQ})
	if err != nil {
		return usageError{err}
	}
	data, err := smf.Encode(file)
	if err != nil {
		return err
	}
	if err := os.WriteFile(c.Out, data, 0o644); err != nil {
		return err
	}
	bars := rendered.Bars()
	_, err = fmt.Fprintf(stdout, "%s: %d bars, %d notes, luck %d\n", c.Out, bars.At(rendered.End-1)+1, rendered.Count(), rendered.Luck)
	return err
}

// render returns a take of what the command names.
func (c *renderCommand) render() (*take.Take, error) {
	if c.Log != "" {
		return c.renderLog()
	}
	const mostBars = 100_000
	if !c.Song && (c.Bars < 1 || c.Bars > mostBars) {
		return nil, usageError{fmt.Errorf("--bars is %d; it must be 1 to %d", c.Bars, mostBars)}
	}
	project, err := c.load()
	if err != nil {
		return nil, err
	}
	if project, err = c.retune(project); err != nil {
		return nil, err
	}
	if c.Luck != nil {
		if project, _, err = score.Apply(project, score.ChangeLuck{Number: *c.Luck}); err != nil {
			return nil, usageError{fmt.Errorf("--luck: %w", err)}
		}
	}
	if !c.Song {
		return take.Render(project, c.Bars), nil
	}
	if len(project.Song) == 0 {
		return nil, usageError{fmt.Errorf("“%s” has no song: give it sections, or use --bars", project.Name)}
	}
	return take.RenderSong(project), nil
}

func (c *renderCommand) renderLog() (*take.Take, error) {
	if c.Song || c.Bars != 0 || c.Luck != nil || c.Scl != "" || c.Kbm != "" {
		return nil, usageError{errors.New("a log has its own end, luck and tuning: leave --bars, --song, --luck, --scl and --kbm out")}
	}
	data, err := os.ReadFile(c.Log)
	if err != nil {
		return nil, usageError{err}
	}
	logged, end, err := log.Decode(data)
	if err != nil {
		return nil, usageError{fmt.Errorf("%s: %w", c.Log, err)}
	}
	return take.OfLog(logged, end), nil
}

func (s source) load() (*score.Project, error) {
	if s.Demo {
		return score.Demo(), nil
	}
	if s.Named != "" {
		return s.read()
	}
	data, err := os.ReadFile(s.Project)
	if err != nil {
		return nil, usageError{err}
	}
	project, remarks, err := score.DecodeOld(data)
	if err != nil {
		return nil, usageError{fmt.Errorf("%s: %w", s.Project, err)}
	}
	for _, remark := range remarks {
		fmt.Fprintf(os.Stderr, "jettyfog: %s: %s\n", s.Project, remark)
	}
	return project, nil
}

// read returns the project of a folder that has the name.
func (s source) read() (*score.Project, error) {
	folder, err := dataFolder(s.Data, "project")
	if err != nil {
		return nil, err
	}
	project, err := store.ReadNamed(context.Background(), folder, s.Named)
	if err != nil {
		return nil, usageError{err}
	}
	return project, nil
}

type schemaCommand struct {
	Log      bool `help:"Print the schema of a log's file instead."`
	Preset   bool `help:"Print the schema of a preset's file instead."`
	Controls bool `help:"List the controls by which programs play along instead: their addresses and values."`
	Wire     bool `hidden:"" help:"Print the schema of the messages between the page and the server instead."`
}

// Run prints the schema.
func (c *schemaCommand) Run(stdout io.Writer) error {
	print := schema.ProjectFile
	switch {
	case c.Log:
		print = schema.LogFile
	case c.Preset:
		print = schema.PresetFile
	case c.Controls:
		print = schema.Controls
	case c.Wire:
		print = schema.Wire
	}
	data, err := print()
	if err != nil {
		return err
	}
	_, err = stdout.Write(data)
	return err
}
