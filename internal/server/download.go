package server

import (
	"mime"
	"net/http"
	"strings"
)

// download answers with a file that the browser saves under a name made from a title.
func download(w http.ResponseWriter, contentType, title, extension string, data []byte) {
	w.Header().Set("Content-Type", contentType)
	w.Header().Set("Content-Disposition", mime.FormatMediaType("attachment", map[string]string{"filename": fileName(title) + extension}))
	w.Header().Set("Cache-Control", "no-store")
	// Only a broken connection can make this fail, and then nobody is there to be told.
	_, _ = w.Write(data)
}

// fileName makes a name that every file system takes of a title.
func fileName(title string) string {
	return strings.Map(func(r rune) rune {
		if strings.ContainsRune(`/\:*?"<>|`, r) || r < ' ' {
			return '-'
		}
		return r
	}, title)
}
