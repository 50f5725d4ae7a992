package testkit

import "jettyfog/internal/core/score"

// Demo returns the demo's first three tracks, without its song and its output of voltages: each track has the pattern that plays, and no other.
func Demo() *score.Project {
	p := Unwired(Unsung(score.Demo()))
	p.Macros, p.Modulators, p.FieldLayers, p.Tracks = nil, nil, nil, p.Tracks[:3:3]
	for i := range p.Tracks {
		p.Tracks[i].Patterns = p.Tracks[i].Patterns[:1:1]
	}
	return p
}

// Buoy returns the first track of Demo alone: a small project that has chance and loops of its own.
func Buoy() *score.Project {
	p := Demo()
	p.Tracks = p.Tracks[:1:1]
	return p
}

// Unwired returns a project without outputs: all tracks go to the built-in sound.
func Unwired(p *score.Project) *score.Project {
	p = p.Clone()
	p.Outputs = nil
	for i := range p.Tracks {
		p.Tracks[i].Routes = nil
	}
	return p
}
