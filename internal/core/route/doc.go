// Package route turns what tracks play into the messages of an output: it gives notes their channel, gets them in tune,
// ends those that have no voice left, chooses programs, and decides what becomes of notes that share a key.
//
//	player := route.NewPlayer(project, 0, play.Past{})
//	messages := player.Advance(project.Meter.Bar(), nil)
//	var shared route.SharedKeys
//	sent := shared.Play(messages, nil)
//
// A Player plays a project through its routes; live playing, rendering and takes have their messages from it. Each
// note has a note-on and a note-off of its own, whatever else sounds on its key, and so it is kept in takes.
// SharedKeys makes of them what an output is sent, where a key has one state however many notes are on it.
package route
