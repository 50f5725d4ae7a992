// Package take holds what was played: the messages that went out and the tempo, meter and luck under
// which they did.
//
//	t := take.Render(project, 4) // what four bars of the project play, without playing them
//	t, err := take.Apply(t, take.Quantise{Grid: "1/16", Strength: 80, Swing: 50})
//	loop, err := take.LoopOf(t, 2, began)                     // to play on in place of a track's pattern
//	pattern, err := take.ToPattern(t, choice, project, track, "") // steps that play it
//
// A take is never changed: an edit makes another. A take's ticks count from its start, which is the start of a bar. Its note-ons and note-offs of a
// channel and key take turns, and every note ends within the take.
package take
