package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/coder/websocket"

	"jettyfog/internal/core/score"
	"jettyfog/internal/live"
)

const (
	// maxQuestion bounds what a page may send at once.
	maxQuestion = 1 << 10
	// queueLength is how many messages may wait for a page before it is dropped: some seconds' worth.
	queueLength = 512
	writeWithin = 5 * time.Second
)

var (
	errClosing = errors.New("the server is shutting down")
	errTooSlow = errors.New("the page reads too slowly")
)

// client is one page. One goroutine reads from it and one writes to it.
type client struct {
	queue chan []byte
	drop  context.CancelCauseFunc
	// sources are the inputs of the page at which something came in; only the goroutine that reads uses it.
	sources map[live.Source]struct{}
}

// enqueue never blocks: a page that does not keep up is dropped, and connects again.
func (c *client) enqueue(data []byte) {
	select {
	case c.queue <- data:
	default:
		c.drop(errTooSlow)
	}
}

func (h *hub) serve(w http.ResponseWriter, r *http.Request) {
	socket, err := websocket.Accept(w, r, nil)
	if err != nil {
		return // Accept has answered
	}
	defer socket.CloseNow()
	socket.SetReadLimit(maxQuestion)
	ctx, drop := context.WithCancelCause(r.Context())
	c := &client{queue: make(chan []byte, queueLength), drop: drop, sources: map[live.Source]struct{}{}}
	h.join(ctx, c)
	defer h.leave(c)
	go func() { drop(h.read(ctx, socket, c)) }()
	h.write(ctx, socket, c)
}

// write sends what is queued until the client is dropped or does not take it.
func (h *hub) write(ctx context.Context, socket *websocket.Conn, c *client) {
	for {
		select {
		case <-ctx.Done():
			reason := context.Cause(ctx)
			switch {
			case errors.Is(reason, errTooSlow):
				_ = socket.Close(websocket.StatusPolicyViolation, reason.Error())
			case errors.Is(reason, errClosing):
				_ = socket.Close(websocket.StatusGoingAway, reason.Error())
			}
			return
		case data := <-c.queue:
			limited, cancel := context.WithTimeout(ctx, writeWithin)
			err := socket.Write(limited, websocket.MessageText, data)
			cancel()
			if err != nil {
				return
			}
		}
	}
}

// read answers questions and takes what comes in at the page, until it hangs up or sends something else. What it has left down is released
// then.
func (h *hub) read(ctx context.Context, socket *websocket.Conn, c *client) error {
	defer func() {
		for source := range c.sources {
			h.options.Transport.Gone(source)
		}
	}()
	for {
		_, data, err := socket.Read(ctx)
		if err != nil {
			return err
		}
		now := h.options.Transport.Now()
		var question Question
		if err := score.DecodeJSON(data, &question); err != nil {
			_ = socket.Close(websocket.StatusUnsupportedData, "a page may only ask for the time and send what comes in")
			return err
		}
		if question.Input != nil {
			if err := h.hear(c, *question.Input, now); err != nil {
				c.enqueue(encodeMessage(Message{Notice: &NoticeMessage{Text: fmt.Sprintf("What came in did nothing: %s.", err)}}))
			}
			continue
		}
		c.enqueue(encodeMessage(Message{Clock: &ClockAnswer{Sent: question.Sent, Server: now}}))
	}
}
