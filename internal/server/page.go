package server

import (
	"io/fs"
	"net/http"
	"strings"
)

// page serves the built front end. The names of its assets change with their contents, so they may
// be kept for ever; the page itself may not.
func page(files fs.FS) http.Handler {
	serve := http.FileServerFS(files)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method != http.MethodGet && r.Method != http.MethodHead {
			refuse(w, http.StatusMethodNotAllowed, "the page can only be read")
			return
		}
		if strings.HasPrefix(r.URL.Path, "/assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			w.Header().Set("Cache-Control", "no-cache")
		}
		serve.ServeHTTP(w, r)
	})
}
