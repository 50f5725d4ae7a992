package server

import (
	"context"
	"io/fs"
	"net/http"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"jettyfog/internal/core/take"
	"jettyfog/internal/live"
	"jettyfog/internal/studio"
)

// TakeStore is what the server needs of the store.
type TakeStore interface {
	Takes(context.Context) ([]take.Summary, error)
	Take(ctx context.Context, id int64) (*take.Take, error)
	AddTake(ctx context.Context, t *take.Take, revision int64) (id int64, err error)
}

// WakeStore is what the server needs of the wake.
type WakeStore interface {
	// Last returns the last whole bars that were played, as a take without a name, the bar at which they began,
	// and the revision of which they are. The error wraps take.ErrUnknown if nothing was played yet.
	Last(ctx context.Context, bars int) (last *take.Take, bar int, revision int64, err error)
}

// Options are the server's parts and settings.
type Options struct {
	Studio    *studio.Studio
	Transport *live.Transport
	Takes     TakeStore
	Wake      WakeStore
	// Page holds the built front end.
	Page fs.FS
	// Hosts are the names and addresses, with their ports, under which the server may be asked.
	Hosts []string
}

// Server answers requests. Make one with New.
type Server struct {
	options Options
	hub     *hub
	luck    trialLuck
	router  chi.Router
}

// New wires a server up.
func New(o Options) *Server {
	s := &Server{options: o, hub: newHub(o)}
	o.Studio.Listen(func(state studio.Snapshot) {
		o.Transport.SetRevision(state.Revision)
		s.luck.play(o.Transport, state.Project)
		s.hub.broadcast(Message{Project: &state})
	})
	o.Transport.Attach(s.hub)

	r := chi.NewRouter()
	r.Use(middleware.Recoverer, securityHeaders, guard(o.Hosts))
	r.Route("/api", func(r chi.Router) {
		r.Use(limitBody)
		r.Mount("/", projectResource{o.Studio}.Routes())
		r.Mount("/history", historyResource{o.Studio}.Routes())
		r.Mount("/roll", rollResource{o.Studio}.Routes())
		r.Mount("/tuning", tuningResource{o.Studio}.Routes())
		r.Mount("/chart", chartResource{o.Studio}.Routes())
		r.Mount("/roster", rosterResource{o.Studio}.Routes())
		r.Mount("/draws", drawsResource{o.Studio}.Routes())
		r.Mount("/lists", listsResource{}.Routes())
		r.Mount("/transport", transportResource{o.Transport, o.Studio, &s.luck}.Routes())
		r.Mount("/takes", takesResource{o.Takes, o.Studio, s.TakesChanged}.Routes())
		r.Mount("/wake", wakeResource{o.Wake, o.Takes, o.Transport, s.TakesChanged}.Routes())
	})
	r.Get("/ws", s.hub.serve)
	r.Handle("/*", page(o.Page))
	s.router = r
	return s
}

// ServeHTTP implements http.Handler.
func (s *Server) ServeHTTP(w http.ResponseWriter, r *http.Request) { s.router.ServeHTTP(w, r) }

// TakesChanged tells every page the list of takes, or why a take could not be stored.
func (s *Server) TakesChanged(problem error) { s.hub.takesChanged(problem) }

// Close hangs up on every page.
func (s *Server) Close() { s.hub.close() }
