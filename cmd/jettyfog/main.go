// Command jettyfog is the whole program: the server of the page and a renderer for the command line.
package main

import (
	"context"
	"fmt"
	"io"
	"os"
	"os/signal"
	"syscall"

	"github.com/alecthomas/kong"
)

// version is set by the build.
var version = "development"

// commandLine lists the commands and their flags.
type commandLine struct {
	Serve   serveCommand     `cmd:"" help:"Serve the page for your own projects."`
	Demo    demoCommand      `cmd:"" help:"Serve the page for the demo, apart from your own projects."`
	Listen  listenCommand    `cmd:"" help:"Read a FIFO that stands in for a MIDI device, and write down what comes and when."`
	Render  renderCommand    `cmd:"" help:"Render a project to a Standard MIDI File without playing it."`
	Tuning  tuningCommand    `cmd:"" help:"Write the tuning of a project to Scala files."`
	Schema  schemaCommand    `cmd:"" help:"Print the JSON Schema of the project file."`
	Version kong.VersionFlag `help:"Print the version and exit."`
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	code := run(ctx, os.Args[1:], os.Stdout, os.Stderr)
	stop()
	os.Exit(code)
}

// run returns the exit status: 0 for success, 2 for a command line that cannot be understood or a
// value that cannot be used, 1 for anything else that went wrong. Each error is one line.
func run(ctx context.Context, args []string, stdout, stderr io.Writer) int {
	var line commandLine
	exited := -1
	parser, err := kong.New(&line,
		kong.Name("jettyfog"),
		kong.Description("Probabilistic, polymetric step sequences, recorded as MIDI."),
		kong.Writers(stdout, stderr),
		kong.Exit(func(code int) { exited = code }),
		kong.Vars{"version": version},
		kong.BindTo(ctx, (*context.Context)(nil)),
		kong.BindTo(stdout, (*io.Writer)(nil)),
	)
	if err != nil {
		panic("jettyfog: " + err.Error())
	}
	parsed, err := parser.Parse(args)
	if exited >= 0 {
		return exited
	}
	if err != nil {
		fmt.Fprintf(stderr, "jettyfog: %v (see jettyfog --help)\n", err)
		return 2
	}
	if err := parsed.Run(); err != nil {
		fmt.Fprintf(stderr, "jettyfog: %v\n", err)
		return exitStatus(err)
	}
	return 0
}
