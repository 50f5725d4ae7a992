package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"github.com/gofrs/flock"
)

// HeldError says that another program has the folder.
type HeldError struct {
	Folder string
	// Owner is who has it, as far as it has said so.
	Owner Owner
}

// Owner is a program that has a folder.
type Owner struct {
	Process int    `json:"process"`
	URL     string `json:"url"` // where its page is; empty until it is served
}

func (e *HeldError) Error() string {
	if e.Owner.URL == "" {
		return fmt.Sprintf("another Jettyfog has the folder %s and is starting or stopping; try again, or name another folder with --data", e.Folder)
	}
	return fmt.Sprintf("Jettyfog has the folder %s open already (process %d): its page is at %s; use that, or name another folder with --data",
		e.Folder, e.Owner.Process, e.Owner.URL)
}

// claim takes the folder for this program. The system lets go of it when the program dies, however it does. The
// error is a *HeldError if another program has it.
func claim(folder string) (*flock.Flock, error) {
	lock := flock.New(filepath.Join(folder, "jettyfog.lock"))
	mine, err := lock.TryLock()
	if err != nil {
		return nil, explain(err)
	}
	if !mine {
		held := &HeldError{Folder: folder}
		// The owner writes a word of itself a moment after it has taken the folder; until then there may be none.
		if word, err := os.ReadFile(ownerFile(folder)); err == nil {
			_ = json.Unmarshal(word, &held.Owner)
		}
		return nil, errors.Join(held, lock.Close())
	}
	// What a program that was killed said of itself is true no more.
	if err := os.Remove(ownerFile(folder)); err != nil && !errors.Is(err, os.ErrNotExist) {
		return nil, errors.Join(explain(err), lock.Close())
	}
	return lock, nil
}

func ownerFile(folder string) string { return filepath.Join(folder, "jettyfog.owner") }

// Announce says where the page of this program is, for whoever finds the folder taken.
func (s *Store) Announce(url string) error {
	word, err := json.Marshal(Owner{Process: os.Getpid(), URL: url})
	if err != nil {
		return err
	}
	return explain(os.WriteFile(ownerFile(s.folder), word, 0o600))
}
