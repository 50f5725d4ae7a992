package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"slices"
	"sync"
	"time"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/device"
	"jettyfog/internal/health"
	"jettyfog/internal/input"
	"jettyfog/internal/live"
	"jettyfog/internal/osc"
	"jettyfog/internal/server"
	"jettyfog/internal/shelf"
	"jettyfog/internal/store"
	"jettyfog/internal/studio"
	"jettyfog/internal/voltages"
	"jettyfog/web"
)

// host is everything that runs while the page is served.
type host struct {
	log       *slog.Logger
	kept      *store.Store
	board     *health.Board
	recorder  *live.Recorder
	wake      *live.Recorder
	transport *live.Transport
	rack      *device.Rack
	voltages  *voltages.Keeper
	osc       *osc.Keeper
	oscIn     *osc.Listener // or nil
	inputs    *input.Keeper
	stage     *live.StageKeeper
	handler   *server.Server
}

// parts are what was opened before anything is served.
type parts struct {
	opened   *studio.Studio
	staged   stage.Stage
	kept     *store.Store
	standIns []device.Device
	position log.Position      // where the project played
	bound    map[string]string // the devices of this machine by the names of outputs
	oscIn    *osc.Listener     // where OSC comes in, or nil
	inputs   map[string]string // the devices of this machine by the names of inputs
	feeds    []device.Device   // stand-ins for devices that send
}

func newHost(p parts, address net.Addr, log *slog.Logger) *host {
	opened, staged, kept := p.opened, p.staged, p.kept
	h := &host{log: log, kept: kept, oscIn: p.oscIn, board: health.NewBoard(log)}
	h.recorder = live.NewRecorder(kept, live.Reports{
		Finished: func() { h.handler.TakesChanged() },
		Problem:  h.reporter(health.Recording, "what is recorded waits in memory until it can be stored"),
		WentOn: func(why error) {
			log.Error("a take could not be written on", "cause", why)
			h.handler.Notice("The take could not be written on where it was, so it goes on as another take, from what was not stored yet.")
		},
		Lost: func(why error) {
			log.Error("a take is gone", "cause", why)
			h.handler.Notice("The take that was just recorded is gone from the folder of data; what it had is still in the wake.")
		},
	})
	h.wake = live.NewRecorder(kept.Wake(), live.Reports{
		Problem: h.reporter(health.Wake, "what is played waits in memory until the wake can be stored"),
		WentOn: func(why error) {
			log.Error("the wake could not be written on", "cause", why)
			h.handler.Notice("The wake could not be written on where it was, so it goes on anew, from what was not stored yet.")
		},
	})
	h.transport = live.New(opened.State().Project, live.Options{Omitted: func(o live.Omission) {
		h.handler.Notice(fmt.Sprintf("This machine could not keep up: %s. What plays goes on in its place.", o))
	}, Notice: func(text string) { h.handler.Notice(text) }, Keep: func(bars int) { go h.handler.Keep(bars) }, Heard: func(in live.Incoming) { h.handler.Heard(in) }}, h.recorder, h.wake)
	h.stage = live.NewStageKeeper(kept, h.reporter(health.Stage, "the live changes wait in memory until they can be stored"))
	state := opened.State()
	h.transport.Open(live.Opened{Document: state.Document, Revision: state.Revision, Project: state.Project, Stage: staged}, live.Now)
	h.transport.SetPosition(p.position)
	h.transport.ListenStage(func(p live.Performing) { h.stage.Keep(p.Document, p.Stage) })
	h.rack = device.NewRack(device.Options{
		List: device.List, StandIns: p.standIns, Held: h.held, Clock: device.NewClock(h.transport.Now),
		Connect: h.transport.Connect, Disconnect: h.transport.Disconnect,
		Changed: func(device.State) { h.handler.DevicesChanged() }, Notice: func(text string) { h.handler.Notice(text) },
	}, p.bound)
	h.transport.ListenOutputs(h.rack.SetOutputs)
	h.voltages = voltages.NewKeeper(voltages.Options{
		Now: h.transport.Now, Held: h.held, Connect: h.transport.Connect, Disconnect: h.transport.Disconnect,
		Show: func(shown voltages.Shown) { h.handler.ShowVoltages(shown) },
	})
	h.transport.ListenOutputs(h.voltages.SetOutputs)
	h.osc = osc.NewKeeper(osc.Options{
		Now: h.transport.Now, Held: h.held, Connect: h.transport.Connect, Disconnect: h.transport.Disconnect,
		Changed: func() { h.handler.DevicesChanged() },
	}, p.bound)
	h.transport.ListenOutputs(h.osc.SetOutputs)
	clock := input.NewSimulated(h.transport.Now, func() { h.handler.InputsChanged() })
	h.inputs = input.NewKeeper(input.Options{
		List: device.ListSending, StandIns: append(p.feeds, clock.Device()), StandIn: clock.Open, Held: h.held, Now: h.transport.Now,
		Hear: func(id int, m midi.Message, at int64) error {
			return h.transport.Hear(live.Incoming{Source: live.Source{Kind: score.DeviceInput, ID: id}, Message: m, At: at})
		},
		GivesClock: func(name string) bool { return h.givesClock(name, opened.State().Project.Outputs) },
		Gone:       func(id int) { h.transport.Gone(live.Source{Kind: score.DeviceInput, ID: id}) },
		Changed:    func() { h.handler.InputsChanged() }, Notice: func(text string) { h.handler.Notice(text) },
	}, p.inputs)
	h.transport.ListenInputs(h.inputs.SetInputs)
	h.handler = server.New(server.Options{
		Studio: opened, Transport: h.transport, Takes: shelf.New(kept), Wake: kept.Wake(), Machine: kept, Presets: kept, SetLists: kept, Rack: h.rack, Voltages: h.voltages, OSC: h.osc, OSCIn: oscAddress(p.oscIn), Inputs: h.inputs, Clock: clock,
		Page: web.Page(), Hosts: hosts(address), Health: h.board, Log: log,
	})
	return h
}

// oscAddress returns where OSC comes in; empty if it does nowhere.
func oscAddress(l *osc.Listener) string {
	if l == nil {
		return ""
	}
	return l.Address()
}

// givesClock reports whether one of some outputs gives a clock to a device.
func (h *host) givesClock(name string, outputs []score.Output) bool {
	for _, state := range h.rack.State().Outputs {
		if state.Device == name && slices.ContainsFunc(outputs, func(o score.Output) bool { return o.ID == state.Output && o.Clock != nil }) {
			return true
		}
	}
	return false
}

// hearOSC takes a message that a program of this machine has sent.
func (h *host) hearOSC(m midi.Message) error {
	return h.transport.Hear(live.Incoming{Source: live.Source{Kind: score.ProgramInput}, Message: m, At: h.transport.Now()})
}

// held reports whether the outputs of a project are not to be played. Where that is not known they are not.
func (h *host) held(document int64) bool {
	held, err := h.kept.Held(context.Background(), document)
	return held || err != nil
}

// reporter returns what reports why a source cannot be stored, and what becomes of it.
func (h *host) reporter(source health.Source, meanwhile string) func(error) {
	return func(problem error) {
		var disk *health.Problem
		switch {
		case errors.As(problem, &disk): // that is told by itself
			problem = &health.Problem{Kind: disk.Kind, Sentence: meanwhile, Cause: problem}
		case problem != nil:
			problem = fmt.Errorf("%s: %w", meanwhile, problem)
		}
		h.board.Report(source, problem)
	}
}

// closeWithin is how long requests that are being answered may take once the program is to end.
const closeWithin = 500 * time.Millisecond

// serve serves until the context ends, then lets go of everything in the order in which the parts depend on each
// other: the transport stops, the recorders write what is left, the pages are hung up. The error says what could not
// be kept.
func (h *host) serve(ctx context.Context, listener net.Listener, stdout io.Writer) error {
	httpServer := &http.Server{Handler: h.handler, ReadHeaderTimeout: 5 * time.Second, IdleTimeout: 2 * time.Minute}
	var playing, recording sync.WaitGroup
	running, endRunning := context.WithCancel(ctx)
	defer endRunning()
	recordCtx, endRecording := context.WithCancel(context.WithoutCancel(ctx))
	playing.Go(func() { h.transport.Run(running) })
	playing.Go(func() { h.kept.Watch(running, h.board) })
	devices, endDevices := context.WithCancel(context.WithoutCancel(ctx))
	defer endDevices()
	var racked sync.WaitGroup
	racked.Go(func() { h.rack.Run(devices) })
	racked.Go(func() { h.voltages.Run(devices) })
	racked.Go(func() { h.osc.Run(devices) })
	racked.Go(func() { h.inputs.Run(devices) })
	if h.oscIn != nil {
		playing.Go(func() {
			h.oscIn.Run(running, osc.Hearer{Hear: h.hearOSC, Turn: h.transport.Turn, Notice: h.handler.Notice})
		})
	}
	recording.Go(func() { h.recorder.Run(recordCtx) })
	recording.Go(func() { h.wake.Run(recordCtx) })
	recording.Go(func() { h.stage.Run(recordCtx) })
	recording.Go(func() {
		live.KeepPosition(recordCtx, h.transport, h.kept, h.reporter(health.Position, "where playing is waits in memory until it can be stored"))
	})
	stopServing := context.AfterFunc(ctx, func() {
		h.handler.Close()
		limited, cancel := context.WithTimeout(context.Background(), closeWithin)
		defer cancel()
		if err := httpServer.Shutdown(limited); err != nil {
			_ = httpServer.Close()
		}
	})
	defer stopServing()

	url := "http://" + listener.Addr().String()
	if err := h.kept.Announce(url); err != nil {
		h.board.Report(health.Folder, err)
	}
	fmt.Fprintf(stdout, "Jettyfog is at %s (stop with Ctrl+C)\n", url)
	err := httpServer.Serve(listener)
	if errors.Is(err, http.ErrServerClosed) {
		err = nil
	}
	endRunning()
	playing.Wait()
	endDevices() // which end what sounds once nothing plays
	racked.Wait()
	endRecording()
	recording.Wait()
	if takes, wake := h.recorder.Left(), h.wake.Left(); takes+wake > 0 {
		why := h.kept.Problem()
		if why == nil {
			why = errors.New("the disk did not take them in time")
		}
		err = errors.Join(err, fmt.Errorf("%d notes of takes and %d of the wake could not be kept: %w", takes, wake, why))
	}
	return err
}
