package server

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"net/http"

	"github.com/go-json-experiment/json/jsontext"

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
	digest, err := digestOf(state.Project)
	if err != nil {
		fail(w, err)
		return
	}
	reply(w, ProjectDigest{Revision: state.Revision, Digest: digest})
}

func digestOf(project *score.Project) (string, error) {
	data, err := json.Marshal(project)
	if err != nil {
		return "", err
	}
	canonical := jsontext.Value(data)
	if err := canonical.Canonicalize(); err != nil {
		return "", err
	}
	sum := sha256.Sum256(canonical)
	return hex.EncodeToString(sum[:]), nil
}
