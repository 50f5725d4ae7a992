package preset

import s "jettyfog/internal/core/score"

func shippedBasses() []Preset {
	return []Preset{
		pattern("Keel", "A bass of root and fifth, short and even.",
			partOf("1/16", "x-x- --x- x-x- -x--", on(s.Pitch, -14, 0, -14, 0, 0, 0, -10, 0, -14, 0, -14, 0, 0, -10), on(s.Length, 60, 0, 40))),
		pattern("Mooring", "A bass with ties and slides, one voice; give the track one voice for legato.",
			partOf("1/16", "x~-x x-~- x~x- -xx~", on(s.Pitch, -14, 0, 0, -7, -14, 0, 0, 0, -12, 0, -10, 0, 0, -11, -14), on(s.Slide, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1),
				loop(s.Velocity, "1/16", 112, 84, 96))),
		pattern("Undertow", "Off the beat throughout, so that a bass drum has the beat.",
			partOf("1/8", "-x-x-x-x", on(s.Pitch, 0, -14, 0, -14, 0, -12, 0, -13), on(s.Length, 0, 80, 0, 80, 0, 80, 0, 45))),
		pattern("Slipway", "Falls down the scale in a loop of five against the bar.",
			partOf("1/8", "xx-xx", loop(s.Pitch, "1/8", -7, -8, -9, -10, -11, -14, -12), loop(s.Velocity, "1/8", 110, 84, 96))),
		pattern("Pedal and crew", "A pedal note stays; every second step wanders over the scale without it.",
			partOf("1/16", "xxxx xxxx", on(s.Pitch, -14, -14, -14, -14, -14, -14, -14, -14),
				own(s.Pitch, 1, wander(1, 8, 1, 2, 3, 4, 5, 6)), own(s.Pitch, 3, wander(1, 8, 1, 2, 3, 4, 5, 6)), own(s.Pitch, 5, wander(1, 8, 1, 2, 3, 4, 5, 6)),
				own(s.Pitch, 7, wander(1, 13, 1, 2, 3, 4, 5, 6)), loop(s.Velocity, "1/16", 108, 72), loop(s.Probability, "1/16", 100, 80, 100, 60))),
		pattern("Bilge pump", "Octaves in eighths; the upper one comes by chance.",
			partOf("1/8", "xxxxxxxx", on(s.Pitch, -14, -14, -14, -14, -12, -12, -11, -11), on(s.Octave, 0, 1, 0, 1, 0, 1, 0, 1), on(s.Probability, 100, 70, 100, 55, 100, 70, 100, 85),
				on(s.Length, 70, 40, 70, 40, 70, 40, 70, 40))),
		pattern("Tide gauge", "One long note a bar, which moves by a step or two every few bars and sometimes does not.",
			partOf("1/2", "x~", loop(s.Pitch, "1/1", -14, -14, -12, -11, -14, -10), spread(s.Pitch, -1, 1, 25, 0), on(s.Length, 100, 100))),
		pattern("Capstan", "A line of seven that turns under a gate of sixteen, there and back.",
			partOf("1/16", "x-xx -x-x x-x- xx-x", loop(s.Pitch, "1/16", -14, -10, -9, -7, -12, -11, -8), order(s.Pitch, s.ThereAndBack), loop(s.Velocity, "1/8", 112, 76, 92, 70, 100))),
	}
}

func shippedPads() []Preset {
	return []Preset{
		pattern("Harbour at night", "Four slow chords, a bar each, opened wide.",
			partOf("1/1", "xxxx", on(s.Pitch, 0, -2, 3, -3), on(s.Chord, 3, 3, 4, 6), on(s.Length, 100, 100, 100, 100), on(s.Velocity, 62, 58, 66, 56),
				func(part *s.Part) { part.Voicing.Open = true })),
		pattern("Anchor light", "Two notes that rub and part; which of them moves is drawn each time.",
			partOf("1/1", "xx", own(s.Pitch, 0, rubbing()), own(s.Pitch, 1, rubbing()), on(s.Length, 101, 101), on(s.Velocity, 60, 54))),
		pattern("Rising mist", "A chord of five whose fingers come one after the other, a breath apart.",
			partOf("1/1", "x-", own(s.Pitch, 0, breath()), on(s.Length, 101), on(s.Velocity, 64))),
		pattern("Dry dock", "Fifths and fourths without a third, drawn from a table; hangs in any scale.",
			partOf("1/2", "x~x~", weigh(s.Pitch, 0, 4, -3, 2, 3, 2, 1, 1), on(s.Chord, 1, 0, 9), on(s.Length, 100, 100, 100, 100), spread(s.Velocity, -30, -10, 100, 0))),
		pattern("Glass and brass", "High sevenths, strummed, that swell and fall with a loop of their own.",
			partOf("1/2", "xxx", on(s.Pitch, 7, 9, 5), on(s.Chord, 3, 3, 3), on(s.Length, 90, 90, 90), loop(s.Velocity, "1/2", 40, 52, 66, 78, 60), func(part *s.Part) { part.Voicing.Strum = 30 })),
	}
}

// rubbing is two notes, each of which wanders by itself.
func rubbing() s.StepOwn {
	has := notes(1)
	has.Spread = &s.Spread{Chance: 60, Depth: 100, Lowest: -2, Highest: 3, Grain: 1}
	has.Each = true
	return has
}

// breath is a chord whose notes come an eighth apart, each softer than the one before.
func breath() s.StepOwn {
	has := notes(4, 6, 8, 11)
	for i := range has.Notes {
		has.Notes[i].Nudge, has.Notes[i].Velocity = s.Tick(i)*s.TicksPerQuarter/2, -6*i
	}
	return has
}

func shippedLines() []Preset {
	return []Preset{
		pattern("Bell line", "Bells in a loop of eleven over sixteen gates: it comes round after eleven bars.",
			partOf("1/16", "x-xx -x~- x-xx -x~x", loop(s.Pitch, "1/16", 0, 4, 2, 6, 4, 7, 9, 4, 2, 3, 1), loop(s.Velocity, "1/8", 112, 78, 90, 64, 102, 72, 86))),
		pattern("Wandering lantern", "Drifts up and down the scale by a step at a time and never leaves its octave.",
			partOf("1/8", "xxx-xx-x", loop(s.Pitch, "1/8", 0, 1, 2, 3, 4, 5, 6, 7), order(s.Pitch, s.Drift), loop(s.Velocity, "1/8", 96, 70, 84), loop(s.Probability, "1/8", 100, 90, 75))),
		pattern("Three against four", "A figure of three notes in triplets over straight gates.",
			partOf("1/8", "xxxxxxxx", loop(s.Pitch, "1/8t", 0, 2, 4), loop(s.Velocity, "1/8", 104, 64))),
		pattern("Gull calls", "Short falling cries, ratcheted down the scale, now and then.",
			partOf("1/8", "x---x---x--x----", on(s.Pitch, 11, 0, 0, 0, 9, 0, 0, 0, 12, 0, 0, 8), on(s.Probability, 70, 0, 0, 0, 45, 0, 0, 0, 60, 0, 0, 35),
				detail(0, ratchet(s.Slackening, 100, -40, -1, 0, 0, 3, 1)), detail(4, ratchet(s.Slackening, 100, -50, -2, 0, 2, 1)), detail(8, ratchet(s.Gathering, 80, -30, -1, 0, 1, 1, 1)))),
		pattern("Signal flags", "Calls and answers: the answer comes only where the call was silent.",
			partOf("1/16", "x-x- xx-- x-x- x---", on(s.Pitch, 4, 0, 2, 0, 0, 3, 0, 0, 9, 0, 7, 0, 11), on(s.Probability, 60, 0, 60, 0, 60, 60),
				detail(8, s.StepDetail{Condition: "not sounded"}), detail(10, s.StepDetail{Condition: "sounded"}))),
		pattern("Slow evolution", "Begins on one note; every two bars a quarter of its steps is written anew.",
			partOf("1/16", "x--x --x- x--x --x-", loop(s.Pitch, "1/16", 0, 0, 0, 0, 0, 0, 0, 0), evolve(s.Pitch, 2, 25, 0, 9), spread(s.Velocity, -30, 6, 100, 0))),
		pattern("Night watch bells", "Four pairs of strokes and rests, the pairs struck a little unevenly.",
			partOf("1/4", "xx-x x-x- ", on(s.Pitch, 7, 7, 0, 7, 7, 0, 4), on(s.Nudge, 0, 6, 0, 0, 6), on(s.Velocity, 104, 84, 0, 104, 84, 0, 96), on(s.Length, 60, 60, 60, 60, 60, 60, 100))),
		pattern("Tangle", "Pitches shuffled anew each pass, lengths backward, velocities there and back: never the same and always related.",
			partOf("1/16", "xxxxxxx", loop(s.Pitch, "1/16", 0, 2, 3, 4, 7, 9), order(s.Pitch, s.Shuffle), loop(s.Length, "1/16", 90, 40, 60, 30, 100), order(s.Length, s.Backward),
				loop(s.Velocity, "1/16", 60, 80, 100, 120), order(s.Velocity, s.ThereAndBack), loop(s.Probability, "1/16", 100, 70, 90, 60))),
	}
}
