// Package web holds the built front end, so that the program is one file.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Page returns the files of the front end as `make build` left them.
func Page() fs.FS {
	page, err := fs.Sub(dist, "dist")
	if err != nil {
		panic("web: " + err.Error())
	}
	return page
}
