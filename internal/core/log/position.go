package log

import (
	"slices"

	"jettyfog/internal/core/score"
)

// Position is where playing is, or stopped, so that it can go on from there, after a crash too.
type Position struct {
	// Song is the tick of the song with which the bar begins, and Plan says which sections play, if the song does.
	Song score.Tick `json:"song"`
	Plan Plan       `json:"plan,omitempty"`
	// Playing says that it had not stopped: what is stored so was interrupted.
	Playing bool `json:"playing"`
}

// Equal reports whether two positions are the same.
func (p Position) Equal(other Position) bool {
	return p.Song == other.Song && p.Playing == other.Playing && slices.Equal(p.Plan, other.Plan)
}
