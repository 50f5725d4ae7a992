package server

import (
	"net/http"

	"jettyfog/internal/core/score"
)

// ProjectDigest is by what a page finds out whether its copy of the project is whole.
type ProjectDigest struct {
	Revision int64 `json:"revision"`
	// Digest is the SHA-256, in hexadecimal, of the project's JSON in its canonical form (RFC 8785).
	Digest string `json:"digest"`
}

// digest answers with the digest of the project. It takes longer than an edit; pages ask when nobody edits.
func (p projectResource) digest(w http.ResponseWriter, _ *http.Request) {
	state := p.studio.State()
	digest, err := score.Digest(state.Project)
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, ProjectDigest{Revision: state.Revision, Digest: digest})
}
