package main

import (
	"fmt"
	"io"
	"os"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// tuningFiles are the files that a tuning is read from.
type tuningFiles struct {
	Scl string `placeholder:"FILE.scl" help:"Play in the tuning of a Scala scale file; melodic tracks bend their notes, each on channels of its own."`
	Kbm string `placeholder:"FILE.kbm" help:"Use the keys of a Scala keyboard mapping file, with --scl."`
}

// retune returns the project in the tuning of the files, or as it is if there are none.
func (f tuningFiles) retune(project *score.Project) (*score.Project, error) {
	if f.Scl == "" {
		if f.Kbm != "" {
			return nil, usageError{fmt.Errorf("--kbm says which keys play a tuning; name the tuning with --scl")}
		}
		return project, nil
	}
	tuning, err := readFile(f.Scl, theory.ParseScale)
	if err != nil {
		return nil, err
	}
	if f.Kbm != "" {
		if tuning.Keyboard, err = readFile(f.Kbm, theory.ParseKeyboard); err != nil {
			return nil, err
		}
	}
	retuned, _, err := score.Apply(project, score.Retune(project, tuning))
	if err != nil {
		return nil, usageError{fmt.Errorf("%s: %w", f.Scl, err)}
	}
	return retuned, nil
}

func readFile[T any](name string, parse func([]byte) (*T, error)) (*T, error) {
	data, err := os.ReadFile(name)
	if err != nil {
		return nil, usageError{err}
	}
	read, err := parse(data)
	if err != nil {
		return nil, usageError{fmt.Errorf("%s: %w", name, err)}
	}
	return read, nil
}

type tuningCommand struct {
	source
	Scl string `required:"" placeholder:"FILE.scl" help:"The scale file to write."`
	Kbm string `placeholder:"FILE.kbm" help:"The keyboard mapping file to write."`
}

// Run writes the tuning of a project to files.
func (c *tuningCommand) Run(stdout io.Writer) error {
	project, err := c.load()
	if err != nil {
		return err
	}
	tuning := project.Key.Tuning
	if tuning == nil {
		tuning = theory.EqualTemperament()
	}
	if err := os.WriteFile(c.Scl, theory.FormatScale(tuning), 0o644); err != nil {
		return err
	}
	if c.Kbm != "" {
		keyboard := theory.DefaultKeyboard()
		if tuning.Keyboard != nil {
			keyboard = *tuning.Keyboard
		}
		if err := os.WriteFile(c.Kbm, theory.FormatKeyboard(&keyboard), 0o644); err != nil {
			return err
		}
	}
	_, err = fmt.Fprintf(stdout, "%s: %d notes\n", c.Scl, len(tuning.Pitches))
	return err
}
