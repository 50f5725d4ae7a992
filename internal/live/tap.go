package live

import (
	"time"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Taps further apart than tapPause begin anew, and so many of the last ones count at most.
const (
	tapPause = 1500 * time.Millisecond
	maxTaps  = 8
)

// tap takes a beat that somebody taps at a time; from the second one on the tempo is that of the taps.
func (t *Transport) tap(at int64) error {
	t.mu.Lock()
	if last := len(t.taps) - 1; last >= 0 && at-t.taps[last] > int64(tapPause) {
		t.taps = nil
	}
	t.taps = append(t.taps, at)
	t.taps = t.taps[max(0, len(t.taps)-maxTaps):]
	taps := t.taps
	t.mu.Unlock()
	if len(taps) < 2 || taps[len(taps)-1] == taps[0] {
		return nil
	}
	const tenth = 100 // of a beat a minute, in thousandths
	perMinute := int64(time.Minute) * 1000 / tenth * int64(len(taps)-1) / (taps[len(taps)-1] - taps[0])
	tempo := int(max(score.MinTempo, min(score.MaxTempo, score.Tempo(perMinute*tenth))))
	return t.Do([]Doing{{Control: stage.Control{Name: "tempo"}, Value: &tempo}}, Now, 0)
}
