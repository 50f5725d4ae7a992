package server

import (
	"context"
	"encoding/json"
	"fmt"
	"sync"
	"time"

	"jettyfog/internal/health"
	"jettyfog/internal/live"
	"jettyfog/internal/output"
)

// hub sends everything that changes to every page. It is a port and a screen of the transport: all pages together are one
// output, the built-in one, and each decides whether it sounds.
type hub struct {
	options Options

	mu          sync.Mutex
	clients     map[*client]bool // whether each was brought up to date with what sounds
	closed      bool
	heard       int // of what came in at the machine in a second
	heardSecond int64
}

func newHub(o Options) *hub { return &hub{options: o, clients: map[*client]bool{}} }

// pageAhead is how long before its time an event goes to a page, which has to hand it on in time however busy it is.
const pageAhead = 120 * time.Millisecond

// Ahead implements output.Port.
func (h *hub) Ahead() time.Duration {
	h.mu.Lock()
	defer h.mu.Unlock()
	if len(h.clients) == 0 {
		return 0
	}
	return pageAhead
}

// Send implements output.Port.
func (h *hub) Send(events []output.Event) {
	if batch := wireBatch(events); batch != nil {
		h.play(batch)
	}
}

// Withdraw implements output.Port.
func (h *hub) Withdraw(noteOns []output.Event) {
	h.play(&WireBatch{Withdrawn: wireSounds(noteOns), Unsent: wireMessages(noteOns)})
}

// Release implements output.Port.
func (h *hub) Release() { h.play(&WireBatch{Release: true}) }

// Panic implements output.Port.
func (h *hub) Panic() { h.play(&WireBatch{Release: true, Panic: true}) }

// Show implements live.Screen.
func (h *hub) Show(places []live.Place, clicks []live.Click) {
	batch := &WireBatch{}
	for _, c := range clicks {
		batch.Clicks = append(batch.Clicks, WireClick(c))
	}
	for _, p := range places {
		batch.Places = append(batch.Places, WirePlace{At: p.At, Tick: p.Tick, Track: p.Track, Part: p.Part, Lane: p.Lane, Step: p.Step})
	}
	h.play(batch)
}

// Notify implements live.Screen.
func (h *hub) Notify(status live.Status) { h.broadcast(Message{Transport: &status}) }

// staged tells every page what performing has changed.
func (h *hub) staged(p live.Performing) {
	h.broadcast(Message{Stage: stageMessage(p, h.options.Studio.State().Project)})
}

func (h *hub) broadcast(m Message) {
	data := encodeMessage(m)
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.clients {
		c.enqueue(data)
	}
}

// play sends what sounds and what is shown with it to every page that was brought up to date.
func (h *hub) play(batch *WireBatch) {
	data := encodeMessage(Message{Batch: batch})
	h.mu.Lock()
	defer h.mu.Unlock()
	for c, plays := range h.clients {
		if plays {
			c.enqueue(data)
		}
	}
}

// notice tells every page of something that has happened, in whole sentences.
func (h *hub) notice(text string) { h.broadcast(Message{Notice: &NoticeMessage{Text: text}}) }

// problems tells every page what is wrong.
func (h *hub) problems(problems []string) {
	h.broadcast(Message{Problems: &ProblemsMessage{Problems: problems}})
}

// takesChanged tells every page the list of takes.
func (h *hub) takesChanged() {
	if takes := h.takes(context.Background()); takes != nil {
		h.broadcast(*takes)
	}
}

// takes returns the list of takes, or nil if it cannot be read, which is reported.
func (h *hub) takes(ctx context.Context) *Message {
	takes, err := h.options.Takes.Takes(ctx)
	if ctx.Err() != nil {
		return nil
	}
	if err != nil {
		h.options.Health.Report(health.Takes, fmt.Errorf("the list of takes cannot be read: %w", err))
		return nil
	}
	h.options.Health.Report(health.Takes, nil)
	return &Message{Takes: &TakesMessage{Takes: takes}}
}

// join adds a client and greets it with all that there is to know.
func (h *hub) join(ctx context.Context, c *client) {
	h.mu.Lock()
	h.clients[c] = false
	if h.closed {
		c.drop(errClosing)
	}
	h.mu.Unlock()
	// A change between these lines is sent twice, which does no harm; it is never missed. A note would do harm: it is sent once.
	project, transport := h.options.Studio.State(), h.options.Transport.Status()
	greeting := whole(project)
	c.enqueue(encodeMessage(h.devices(ctx)))
	c.enqueue(encodeMessage(h.inputs()))
	c.enqueue(encodeMessage(Message{Project: &greeting}))
	c.enqueue(encodeMessage(Message{Transport: &transport}))
	c.enqueue(encodeMessage(Message{Stage: stageMessage(h.options.Transport.Performing(), project.Project)}))
	h.options.Transport.Chase(h, func(events []output.Event) {
		h.mu.Lock()
		defer h.mu.Unlock()
		h.clients[c] = true
		if batch := wireBatch(events); batch != nil {
			c.enqueue(encodeMessage(Message{Batch: batch}))
		}
	})
	if calibrations := h.calibrations(ctx); calibrations != nil {
		c.enqueue(encodeMessage(*calibrations))
	}
	if takes := h.takes(ctx); takes != nil {
		c.enqueue(encodeMessage(*takes))
	}
	c.enqueue(encodeMessage(Message{Problems: &ProblemsMessage{Problems: h.options.Health.Problems()}}))
}

// leave takes a client away. What is held down on the last page is let go of.
func (h *hub) leave(c *client) {
	h.mu.Lock()
	delete(h.clients, c)
	last := len(h.clients) == 0
	h.mu.Unlock()
	if last {
		h.options.Transport.EndMomentary()
	}
}

func (h *hub) close() {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.closed = true
	for c := range h.clients {
		c.drop(errClosing)
	}
}

// encodeMessage cannot fail: a Message holds nothing that JSON cannot.
func encodeMessage(m Message) []byte {
	data, err := json.Marshal(m)
	if err != nil {
		panic("server: " + err.Error())
	}
	return data
}
