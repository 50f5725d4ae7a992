package server

import (
	"context"
	"encoding/json"
	"sync"

	"jettyfog/internal/live"
)

// hub sends everything that changes to every page. It is an output of the transport.
type hub struct {
	options Options

	mu      sync.Mutex
	clients map[*client]struct{}
	closed  bool
	problem string
}

func newHub(o Options) *hub { return &hub{options: o, clients: map[*client]struct{}{}} }

// Send implements live.Output.
func (h *hub) Send(b live.Batch) {
	if len(b.Sounds)+len(b.Places)+len(b.Clicks) > 0 {
		h.broadcast(Message{Batch: wireBatch(b)})
	}
}

// Tell implements live.Output.
func (h *hub) Tell(status live.Status) { h.broadcast(Message{Transport: &status}) }

func (h *hub) broadcast(m Message) {
	data := encode(m)
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.clients {
		c.enqueue(data)
	}
}

// takesChanged tells the list of takes. A problem that lasts is told once.
func (h *hub) takesChanged(problem error) {
	sentence := ""
	if problem != nil {
		sentence = "The take could not be written to disk; it is kept in memory and tried again: " + problem.Error()
	}
	h.mu.Lock()
	known := sentence != "" && sentence == h.problem
	h.problem = sentence
	h.mu.Unlock()
	if !known {
		h.broadcast(h.takes(context.Background(), sentence))
	}
}

func (h *hub) takes(ctx context.Context, problem string) Message {
	takes, err := h.options.Takes.Takes(ctx)
	if err != nil && problem == "" {
		problem = "The list of takes cannot be read: " + err.Error()
	}
	return Message{Takes: &TakesMessage{Takes: takes, Problem: problem}}
}

// join adds a client and greets it with all that there is to know.
func (h *hub) join(ctx context.Context, c *client) {
	h.mu.Lock()
	h.clients[c] = struct{}{}
	if h.closed {
		c.drop(errClosing)
	}
	h.mu.Unlock()
	// A change between these lines is sent twice, which does no harm; it is never missed.
	project, transport := h.options.Studio.State(), h.options.Transport.Status()
	c.enqueue(encode(Message{Project: &project}))
	c.enqueue(encode(Message{Transport: &transport}))
	c.enqueue(encode(h.takes(ctx, "")))
}

func (h *hub) leave(c *client) {
	h.mu.Lock()
	defer h.mu.Unlock()
	delete(h.clients, c)
}

func (h *hub) close() {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.closed = true
	for c := range h.clients {
		c.drop(errClosing)
	}
}

// encode cannot fail: a Message holds nothing that JSON cannot.
func encode(m Message) []byte {
	data, err := json.Marshal(m)
	if err != nil {
		panic("server: " + err.Error())
	}
	return data
}
