package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"sync"
	"time"

	"jettyfog/internal/core/score"
	"jettyfog/internal/live"
	"jettyfog/internal/server"
	"jettyfog/internal/shelf"
	"jettyfog/internal/store"
	"jettyfog/internal/studio"
	"jettyfog/web"
)

type serveFlags struct {
	Addr string `default:"127.0.0.1:7464" help:"Address to listen on; only this machine can reach the default."`
	Data string `placeholder:"FOLDER" help:"Folder for the project and its takes."`
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
	if f.Data == "" {
		config, err := os.UserConfigDir()
		if err != nil {
			return usageError{fmt.Errorf("name a folder with --data: %w", err)}
		}
		f.Data = filepath.Join(config, "jettyfog", folder)
	}
	listener, err := net.Listen("tcp", f.Addr)
	if err != nil {
		return usageError{fmt.Errorf("--addr %s: %w", f.Addr, err)}
	}
	defer listener.Close()
	kept, err := store.Open(f.Data)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, kept.Close()) }()
	document, err := kept.Document(ctx, score.Demo())
	if err != nil {
		return err
	}
	opened, err := studio.New(ctx, kept, document)
	if err != nil {
		return err
	}
	return serveOn(ctx, listener, opened, kept, stdout)
}

// serveOn serves until the context ends, then lets go of everything in the order in which the parts
// depend on each other: the transport stops, the recorder writes what is left, the pages are hung up.
func serveOn(ctx context.Context, listener net.Listener, opened *studio.Studio, kept *store.Store, stdout io.Writer) error {
	log := slog.New(slog.NewTextHandler(os.Stderr, nil))
	var handler *server.Server
	recorder := live.NewRecorder(kept, func(problem error) {
		if problem != nil {
			log.Error("a take could not be stored", "problem", problem)
		}
		handler.TakesChanged(problem)
	})
	wake := live.NewRecorder(kept.Wake(), func(problem error) {
		if problem != nil {
			log.Error("the wake could not be stored", "problem", problem)
		}
	})
	transport := live.New(opened.State().Project, live.Options{}, recorder, wake)
	handler = server.New(server.Options{
		Studio: opened, Transport: transport, Takes: shelf.New(kept), Wake: kept.Wake(), Page: web.Page(), Hosts: hosts(listener.Addr()),
	})
	httpServer := &http.Server{Handler: handler, ReadHeaderTimeout: 5 * time.Second, ReadTimeout: 30 * time.Second, IdleTimeout: 2 * time.Minute}

	var playing, recording sync.WaitGroup
	recordCtx, endRecording := context.WithCancel(context.WithoutCancel(ctx))
	playing.Go(func() { transport.Run(ctx) })
	recording.Go(func() { recorder.Run(recordCtx) })
	recording.Go(func() { wake.Run(recordCtx) })
	stopServing := context.AfterFunc(ctx, func() {
		handler.Close()
		limited, cancel := context.WithTimeout(context.Background(), 3*time.Second)
		defer cancel()
		if err := httpServer.Shutdown(limited); err != nil {
			_ = httpServer.Close()
		}
	})
	defer stopServing()

	fmt.Fprintf(stdout, "Jettyfog is at http://%s (stop with Ctrl+C)\n", listener.Addr())
	err := httpServer.Serve(listener)
	if errors.Is(err, http.ErrServerClosed) {
		err = nil
	}
	transport.Stop()
	if ctx.Err() != nil {
		playing.Wait()
	}
	endRecording()
	recording.Wait()
	return err
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
