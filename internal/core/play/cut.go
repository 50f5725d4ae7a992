package play

import "jettyfog/internal/core/score"

// Cut ends at a tick what sounds there of a pattern of a track: another pattern enters, in a project in which those cut.
type Cut struct {
	Track   uint32
	Pattern uint8
	Tick    score.Tick
}

// Cuts returns the cuts since it was asked last. They are known before anything at their ticks is handed over.
func (f *Performer) Cuts() []Cut {
	cuts := f.cuts
	f.cuts = nil
	return cuts
}
