package score

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"

	"github.com/go-json-experiment/json/jsontext"
)

// Digest returns the SHA-256, in hexadecimal, of the project's JSON in its canonical form (RFC 8785, JSON Canonicalization
// Scheme), by which copies are compared.
func Digest(p *Project) (string, error) {
	data, err := json.Marshal(p)
	if err != nil {
		return "", fmt.Errorf("encode the project: %w", err)
	}
	canonical := jsontext.Value(data)
	if err := canonical.Canonicalize(); err != nil {
		return "", fmt.Errorf("bring the project into its canonical form: %w", err)
	}
	sum := sha256.Sum256(canonical)
	return hex.EncodeToString(sum[:]), nil
}
