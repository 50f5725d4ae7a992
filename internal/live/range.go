package live

import (
	"errors"

	"jettyfog/internal/core/score"
)

// Range is a stretch of the song that is looped; one that ends at 0 is none. Chance is the same in each pass, or goes on from
// pass to pass.
type Range struct {
	From   score.Tick `json:"from"`
	To     score.Tick `json:"to"`
	GoesOn bool       `json:"goesOn"`
}

// ErrRange refuses a range that is none, or ends before it begins.
var ErrRange = errors.New("a range that is looped must end after it begins; what is looped stays as it was")

// SetLoop has a range of the song play over and over once it is come to, or with one that ends at 0 none. The error is ErrRange.
func (t *Transport) SetLoop(loop Range) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if loop.To != 0 && loop.To <= loop.From || loop.From < 0 {
		return ErrRange
	}
	t.loop = loop
	t.prepare()
	t.notify()
	return nil
}
