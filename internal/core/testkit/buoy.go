package testkit

import "jettyfog/internal/core/score"

// Buoy returns the demo with its first track alone: a small project that has chance and loops of its own.
func Buoy() *score.Project {
	p := score.Demo()
	p.Tracks = p.Tracks[:1:1]
	return p
}
