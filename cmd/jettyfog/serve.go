package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"slices"
	"time"

	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
	"jettyfog/internal/osc"
	"jettyfog/internal/store"
	"jettyfog/internal/studio"
)

type serveFlags struct {
	Addr          string   `default:"127.0.0.1:7464" help:"Address to listen on, of this machine only."`
	Data          string   `placeholder:"FOLDER" help:"Folder for the projects and their takes."`
	Open          string   `placeholder:"NAME" help:"Open the project of that name; without it, the one that was open last."`
	StandInDevice []string `placeholder:"PATH" help:"A FIFO or terminal that stands in for a MIDI device; a FIFO is made where there is nothing."`
	StandInInput  []string `placeholder:"PATH" help:"A FIFO or terminal that stands in for a MIDI device that sends; a FIFO is made where there is nothing."`
	OSCIn         int      `name:"osc-in" placeholder:"PORT" help:"Port of this machine on which OSC comes in, as from a controller: /note, /cc, /program, /pressure, /bend, and /clock, /start, /stop, /continue, /position."`
	Restore       bool     `help:"Put the latest copy in the place of a damaged database, which is kept beside it."`
}

type serveCommand struct{ serveFlags }

// Run serves the user's own project. On a first visit that is the demo.
func (c *serveCommand) Run(ctx context.Context, stdout io.Writer) error {
	return c.serve(ctx, stdout, "project")
}

type demoCommand struct{ serveFlags }

// Run serves the demo.
func (c *demoCommand) Run(ctx context.Context, stdout io.Writer) error {
	return c.serve(ctx, stdout, "demo")
}

func (f serveFlags) serve(ctx context.Context, stdout io.Writer, folder string) (err error) {
	if err := checkLoopback(f.Addr); err != nil {
		return err
	}
	if f.Data, err = dataFolder(f.Data, folder); err != nil {
		return err
	}
	if f.Restore {
		restored, aside, err := store.Restore(f.Data, time.Now())
		if err != nil {
			return err
		}
		fmt.Fprintf(stdout, "Restored %s; the damaged database is kept as %s.\n", restored, aside)
	}
	kept, err := store.Open(f.Data)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, kept.Close()) }()
	listener, err := net.Listen("tcp", f.Addr)
	if err != nil {
		return usageError{fmt.Errorf("--addr %s: %w", f.Addr, err)}
	}
	defer listener.Close()
	document, err := kept.OpenDocument(ctx, score.Demo())
	if err != nil {
		return err
	}
	opened, err := studio.New(ctx, kept, document)
	if err != nil {
		return err
	}
	if f.Open != "" {
		if document, err = openNamed(ctx, kept, opened, f.Open); err != nil {
			return err
		}
	}
	staged, err := kept.Stage(ctx, document.ID)
	if err != nil {
		return err
	}
	position, err := kept.Position(ctx, document.ID)
	if err != nil {
		return err
	}
	devices, err := standIns("--stand-in-device", f.StandInDevice)
	if err != nil {
		return err
	}
	bound, err := kept.Bindings(ctx)
	if err != nil {
		return err
	}
	feeds, err := standIns("--stand-in-input", f.StandInInput)
	if err != nil {
		return err
	}
	inputs, err := kept.InputBindings(ctx)
	if err != nil {
		return err
	}
	var oscIn *osc.Listener
	if f.OSCIn != 0 {
		if oscIn, err = osc.Listen(f.OSCIn); err != nil {
			return usageError{fmt.Errorf("--osc-in %d: %w", f.OSCIn, err)}
		}
	}
	h := newHost(parts{opened, staged, kept, devices, position, bound, oscIn, inputs, feeds}, listener.Addr(), slog.New(slog.NewTextHandler(os.Stderr, nil)))
	return h.serve(ctx, listener, stdout)
}

// standIns returns what stands in for devices, as a flag names it.
func standIns(flag string, paths []string) (devices []device.Device, err error) {
	for _, path := range paths {
		one, err := device.StandIn(path)
		if err != nil {
			return nil, usageError{fmt.Errorf("%s: %w", flag, err)}
		}
		if slices.ContainsFunc(devices, func(d device.Device) bool { return d.Name == one.Name }) {
			return nil, usageError{fmt.Errorf("%s: two are named %s, and devices are known by their names", flag, one.Name)}
		}
		devices = append(devices, one)
	}
	return devices, nil
}

// dataFolder returns the folder that is named, or else the usual one of that name.
func dataFolder(named, usual string) (string, error) {
	if named != "" {
		return named, nil
	}
	config, err := os.UserConfigDir()
	if err != nil {
		return "", usageError{fmt.Errorf("name a folder with --data: %w", err)}
	}
	return filepath.Join(config, "jettyfog", usual), nil
}

// openNamed opens the project of a folder that has a name.
func openNamed(ctx context.Context, kept *store.Store, room *studio.Studio, name string) (studio.Document, error) {
	listed, err := kept.Projects(ctx)
	if err != nil {
		return studio.Document{}, err
	}
	one, err := store.Named(listed, name)
	if err != nil {
		return studio.Document{}, usageError{err}
	}
	if _, err := room.Open(ctx, room.State().Revision, one.ID, true); err != nil {
		return studio.Document{}, err
	}
	return kept.Document(ctx, one.ID)
}

// checkLoopback refuses addresses at which other machines could reach this one: whoever reaches it can do everything.
func checkLoopback(address string) error {
	resolved, err := net.ResolveTCPAddr("tcp", address)
	if err != nil {
		return usageError{fmt.Errorf("--addr %s: %w", address, err)}
	}
	if !resolved.IP.IsLoopback() {
		return usageError{fmt.Errorf("--addr %s would let other machines in, which this version does not do; use 127.0.0.1 or localhost", address)}
	}
	return nil
}

// hosts lists the names under which a page may ask for this address.
func hosts(addr net.Addr) []string {
	own := addr.String()
	_, port, err := net.SplitHostPort(own)
	if err != nil {
		return []string{own}
	}
	return []string{own, net.JoinHostPort("127.0.0.1", port), net.JoinHostPort("::1", port), net.JoinHostPort("localhost", port)}
}
