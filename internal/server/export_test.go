package server

import (
	"log/slog"
	"net/http"
)

// Watched answers for a handler that panics.
func Watched(next http.Handler) http.Handler {
	return watched(slog.New(slog.DiscardHandler), Limits{}.orUsual())(next)
}

// FileName makes a name of a file of a title.
func FileName(title string) string { return fileName(title) }
