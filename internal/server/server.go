package server

import (
	"context"
	"io/fs"
	"log/slog"
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/device"
	"jettyfog/internal/health"
	"jettyfog/internal/input"
	"jettyfog/internal/live"
	"jettyfog/internal/osc"
	"jettyfog/internal/shelf"
	"jettyfog/internal/studio"
	"jettyfog/internal/voltages"
)

// WakeStore is what the server needs of the wake. The errors wrap take.ErrUnknown if nothing was played yet.
type WakeStore interface {
	// LastBars returns the last whole bars before a moment of a stretch; a stretch of 0 is the last one, a moment
	// of 0 its end.
	LastBars(ctx context.Context, stretch int64, end score.Tick, bars int) (take.Stretch, error)
	// Piece returns what is in [from, to) of a stretch.
	Piece(ctx context.Context, stretch int64, from, to score.Tick) (take.Stretch, error)
	// CopyLog gives a take that was kept from [from, to) of a stretch what the stretch is a function of, if that is known.
	CopyLog(ctx context.Context, stretch, id int64, from, to score.Tick) error
}

// Options are the server's parts and settings.
type Options struct {
	Studio    *studio.Studio
	Transport *live.Transport
	Takes     *shelf.Shelf
	Wake      WakeStore
	Machine   MachineStore
	Presets   PresetStore
	SetLists  SetListStore
	// Rack has devices of the machine play.
	Rack *device.Rack
	// Voltages plays outputs of voltages.
	Voltages *voltages.Keeper
	// OSC plays outputs that are programs.
	OSC *osc.Keeper
	// Inputs hears devices of the machine, Clock is the simulated one.
	Inputs *input.Keeper
	Clock  *input.Simulated
	// OSCIn is the address at which OSC comes in; empty if it does nowhere.
	OSCIn string
	// Health tells what is wrong with the places where things are kept.
	Health *health.Board
	// Log gets what nobody but a developer can do anything about.
	Log *slog.Logger
	// Page holds the built front end.
	Page   fs.FS
	Limits Limits
	// Hosts are the names and addresses, with their ports, under which the server may be asked.
	Hosts []string
}

// Server answers requests. Make one with New.
type Server struct {
	options Options
	hub     *hub
	router  chi.Router
}

// New wires a server up.
func New(o Options) *Server {
	s := &Server{options: o, hub: newHub(o)}
	o.Studio.Listen(func(state studio.Snapshot) {
		told := step(state)
		if state.Opened != nil {
			s.DevicesChanged() // first, so that no page plays what it may not
			s.hub.broadcast(Message{Project: &told})
			s.open(state)
			return
		}
		o.Transport.SetRevision(state.Revision)
		s.hub.broadcast(Message{Project: &told})
		o.Transport.SetProject(state.Project, live.Change{Way: state.Way, New: state.New})
		s.hub.staged(o.Transport.Performing())
	})
	o.Transport.ListenStage(s.hub.staged)
	o.Transport.Connect(s.hub)
	o.Transport.Attach(s.hub)
	o.Health.Listen(s.hub.problems)

	r := chi.NewRouter()
	r.Use(watched(o.Log, o.Limits.orUsual()), securityHeaders, guard(o.Hosts))
	r.Route("/api", func(r chi.Router) {
		r.Use(takeBody(o.Limits.orUsual()))
		r.Mount("/", projectResource{o.Studio}.Routes())
		r.Mount("/projects", projectsResource{o.Studio, newPictures(), s.hub.notice}.Routes())
		r.Mount("/history", historyResource{o.Studio}.Routes())
		r.Mount("/roll", rollResource{o.Studio}.Routes())
		r.Mount("/tuning", tuningResource{o.Studio}.Routes())
		r.Mount("/chart", chartResource{o.Studio, o.Transport}.Routes())
		r.Mount("/roster", rosterResource{o.Studio, o.Transport}.Routes())
		r.Mount("/fields", fieldsResource{o.Studio, o.Transport, s.hub.notice}.Routes())
		r.Mount("/draws", drawsResource{o.Studio, o.Transport}.Routes())
		r.Mount("/lists", listsResource{}.Routes())
		r.Mount("/transport", transportResource{o.Transport, o.Studio, s.hub}.Routes())
		r.Mount("/devices", devicesResource{o.Machine, o.Rack, o.Voltages, o.OSC, o.Inputs, o.Transport, o.Studio, s.DevicesChanged}.Routes())
		r.Mount("/inputs", inputsResource{o.Machine, o.Inputs, o.Clock}.Routes())
		r.Mount("/voltages", voltagesResource{o.Studio, o.Voltages, o.Machine, s.hub}.Routes())
		r.Mount("/setups", setupsResource{o.Machine, o.Studio}.Routes())
		r.Mount("/presets", presetsResource{o.Presets, o.Studio}.Routes())
		r.Mount("/setlists", setListsResource{o.SetLists, o.Studio}.Routes())
		r.Mount("/scenes", (&scenesResource{studio: o.Studio}).Routes())
		performed := stageResource{o.Transport, o.Studio, s.hub.notice}
		r.Mount("/stage", performed.Routes())
		r.Mount("/modulators", curvesResource{o.Studio, o.Transport}.Routes())
		r.Mount("/chords", chordsResource{o.Studio}.Routes())
		r.Mount("/controls", performed.controlRoutes())
		r.Mount("/takes", takesResource{o.Machine, o.Takes, o.Studio, s.TakesChanged}.Routes())
		r.Mount("/entry", entryResource{o.Studio, o.Transport}.Routes())
		r.Mount("/loops", loopsResource{o.Studio, o.Wake, o.Transport}.Routes())
		r.Mount("/wake", wakeResource{o.Wake, o.Takes, o.Transport, s.TakesChanged}.Routes())
	})
	r.Get("/ws", s.hub.serve)
	r.Handle("/*", page(o.Page))
	s.router = r
	return s
}

// open has a project that was opened play, and pages list its takes.
func (s *Server) open(state studio.Snapshot) {
	when := live.NextBar
	if state.Opened.AtOnce {
		when = live.Now
	}
	s.options.Transport.Open(live.Opened{Document: state.Document, Revision: state.Revision, Project: state.Project, Stage: state.Opened.Stage}, when)
	s.hub.takesChanged()
}

// ServeHTTP implements http.Handler.
func (s *Server) ServeHTTP(w http.ResponseWriter, r *http.Request) { s.router.ServeHTTP(w, r) }

// TakesChanged tells every page the list of takes.
func (s *Server) TakesChanged() { s.hub.takesChanged() }

// Notice tells every page of something that has happened, in whole sentences.
func (s *Server) Notice(text string) { s.hub.notice(text) }

// Close hangs up on every page.
func (s *Server) Close() { s.hub.close() }
