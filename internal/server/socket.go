package server

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/coder/websocket"

	"jettyfog/internal/core/score"
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
	c := &client{queue: make(chan []byte, queueLength), drop: drop}
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

// read answers questions until the page hangs up or asks something else than the time.
func (h *hub) read(ctx context.Context, socket *websocket.Conn, c *client) error {
	for {
		_, data, err := socket.Read(ctx)
		if err != nil {
			return err
		}
		now := h.options.Transport.Now()
		var question Question
		if err := score.DecodeJSON(data, &question); err != nil {
			_ = socket.Close(websocket.StatusUnsupportedData, "a page may only ask for the time")
			return err
		}
		c.enqueue(encodeMessage(Message{Clock: &ClockAnswer{Sent: question.Sent, Server: now}}))
	}
}
