package server

import (
	"mime"
	"net/http"
	"path"
	"strings"
	"unicode"
)

// download answers with a file that the browser saves under a name made from a title.
func download(w http.ResponseWriter, contentType, title, extension string, data []byte) {
	w.Header().Set("Content-Type", contentType)
	w.Header().Set("Content-Disposition", mime.FormatMediaType("attachment", map[string]string{"filename": fileName(title) + extension}))
	w.Header().Set("Cache-Control", "no-store")
	// Only a broken connection can make this fail, and then nobody is there to be told.
	_, _ = w.Write(data)
}

// fileName makes a name of a title that every file system takes, that hides no file, and to which an extension can
// be given that is seen for what it is: nothing in it turns the direction of writing or looks like another extension.
func fileName(title string) string {
	name := strings.Map(func(r rune) rune {
		switch {
		case unicode.Is(unicode.Cf, r) || unicode.IsControl(r):
			return -1
		case strings.ContainsRune(`/\:*?"<>|`, r):
			return '-'
		}
		return r
	}, title)
	name = strings.Trim(name, " .")
	if extension := path.Ext(name); extension != "" && !strings.Contains(extension, " ") {
		name = strings.TrimSuffix(name, extension) + "-" + extension[1:]
	}
	if name == "" {
		name = "untitled"
	}
	return name
}
