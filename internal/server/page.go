package server

import (
	"io/fs"
	"net/http"
	"strings"
)

// page serves the built front end. The names of its assets change with their contents, so they may
// be kept for ever; the page itself may not. Folders are not listed.
func page(files fs.FS) http.Handler {
	serve := http.FileServerFS(files)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method != http.MethodGet && r.Method != http.MethodHead {
			refuse(w, http.StatusMethodNotAllowed, "the page can only be read")
			return
		}
		w.Header().Set("Cache-Control", "no-cache")
		name := strings.TrimPrefix(r.URL.Path, "/")
		if r.URL.Path != "/" {
			if info, err := fs.Stat(files, name); err != nil || info.IsDir() {
				refuse(w, http.StatusNotFound, "there is nothing at "+short(r.URL.Path))
				return
			}
		}
		if strings.HasPrefix(name, "assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		}
		serve.ServeHTTP(w, r)
	})
}
