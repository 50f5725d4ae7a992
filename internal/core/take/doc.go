// Package take holds what was played: the messages that went out and the tempo, meter and luck under
// which they did.
//
//	t := take.Render(project, 4) // what four bars of the project play, without playing them
//
// A take's ticks count from its start, which is the start of a bar. Its note-ons and note-offs of a
// channel and key take turns, and every note ends within the take.
package take
