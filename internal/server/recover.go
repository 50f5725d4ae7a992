package server

import (
	"fmt"
	"log/slog"
	"net/http"
	"runtime/debug"
)

// watched hands answers on through an answerWriter, and answers for a handler that has panicked.
func watched(log *slog.Logger, limits Limits) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			answer := &answerWriter{ResponseWriter: w, limits: limits}
			answer.wait()
			defer func() {
				what := recover()
				if what == nil {
					return
				}
				if what == http.ErrAbortHandler {
					panic(what)
				}
				log.Error("a request made the program fail", "request", r.Method+" "+r.URL.Path, "what", fmt.Sprint(what), "stack", string(debug.Stack()))
				if !answer.begun {
					refuse(answer, http.StatusInternalServerError, "Jettyfog has made a mistake with this request, and its log says which; what was stored before is safe")
				}
			}()
			next.ServeHTTP(answer, r)
		})
	}
}
