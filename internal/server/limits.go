package server

import (
	"bytes"
	"errors"
	"io"
	"net/http"
	"os"
	"time"
)

// maxBody bounds the body of a request; the largest valid project is half of it.
const maxBody = 4 << 20

// Limits say how long the server waits for those who ask. The zero value stands for the usual ones.
type Limits struct {
	// Body is how long a body may take to come; 0 means 10 s.
	Body time.Duration
	// Write is how long an answer, or a piece of one, may take to be read; 0 means 30 s.
	Write time.Duration
}

func (l Limits) orUsual() Limits {
	if l.Body == 0 {
		l.Body = 10 * time.Second
	}
	if l.Write == 0 {
		l.Write = 30 * time.Second
	}
	return l
}

// takeBody reads the body of a request before anything is done about it, so that nothing is done about half of one.
func takeBody(l Limits) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			connection := http.NewResponseController(w)
			_ = connection.SetReadDeadline(time.Now().Add(l.Body)) // a test's recorder has none
			body, err := io.ReadAll(http.MaxBytesReader(w, r.Body, maxBody))
			// A deadline that passed later would look as if the asker had gone.
			_ = connection.SetReadDeadline(time.Time{})
			var tooLarge *http.MaxBytesError
			switch {
			case errors.As(err, &tooLarge):
				refuse(w, http.StatusRequestEntityTooLarge, "the request is larger than 4 MiB, which no project is")
			case errors.Is(err, os.ErrDeadlineExceeded):
				w.Header().Set("Connection", "close")
				refuse(w, http.StatusRequestTimeout, "the request came too slowly; nothing was changed; send it again")
			case err != nil:
				refuse(w, http.StatusBadRequest, "the request broke off; nothing was changed; send it again")
			default:
				r.Body = io.NopCloser(bytes.NewReader(body))
				next.ServeHTTP(w, r)
			}
		})
	}
}

// answerWriter gives each piece of an answer some time to be read, and knows whether the answer has begun.
type answerWriter struct {
	http.ResponseWriter
	limits Limits
	begun  bool
}

// Unwrap lets http.ResponseController reach the connection.
func (a *answerWriter) Unwrap() http.ResponseWriter { return a.ResponseWriter }

// WriteHeader implements http.ResponseWriter.
func (a *answerWriter) WriteHeader(status int) {
	a.begun = true
	a.ResponseWriter.WriteHeader(status)
}

// Write implements http.ResponseWriter.
func (a *answerWriter) Write(p []byte) (int, error) {
	a.begun = true
	a.wait()
	return a.ResponseWriter.Write(p)
}

func (a *answerWriter) wait() {
	_ = http.NewResponseController(a.ResponseWriter).SetWriteDeadline(time.Now().Add(a.limits.Write))
}
