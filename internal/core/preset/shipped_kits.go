package preset

import s "jettyfog/internal/core/score"

// Keys of General MIDI's percussion map.
const (
	bassDrum, sideStick, snare, clap    = 36, 37, 38, 39
	closedHat, pedalHat, openHat        = 42, 44, 46
	lowTom, midTom, highTom             = 45, 47, 50
	ride, bell, cowbell, tambourine     = 51, 53, 56, 54
	lowConga, openConga, muteConga      = 64, 63, 62
	maracas, claves, lowBlock, hiBlock  = 70, 75, 77, 76
	lowAgogo, hiAgogo, triangle, shaker = 68, 67, 81, 82
)

func shippedKits() []Preset {
	return []Preset{
		kit("Quay at noon", "4/4. A plain beat for a start: bass drum on one and three, hats in eighths that breathe.",
			drum("Bass drum", bassDrum, "1/16", "x--- ---- x-x- ----"),
			drum("Snare", snare, "1/16", "---- x--- ---- x---", on(s.Velocity, 96, 96, 96, 96, 104)),
			drum("Hats", closedHat, "1/8", "xxxx xxxx", loop(s.Velocity, "1/8", 92, 54, 76, 50), spread(s.Velocity, -8, 6, 100, 0)),
		),
		kit("Ferry engine", "4/4. Four on the floor, open hats between, and a clap that drags.",
			drum("Bass drum", bassDrum, "1/4", "xxxx", on(s.Velocity, 118, 110, 114, 110)),
			drum("Open hat", openHat, "1/8", "-x-x-x-x", spread(s.Velocity, -14, 4, 100, 20)),
			drum("Clap", clap, "1/16", "---- x--- ---- x---", on(s.Nudge, 0, 0, 0, 0, 8, 0, 0, 0, 0, 0, 0, 0, 8)),
			drum("Shaker", shaker, "1/16", "xxxx xxxx xxxx xxxx", loop(s.Velocity, "1/16", 70, 34, 52, 38), loop(s.Probability, "1/16", 100, 80, 100, 60, 90)),
		),
		kit("Broken ropes", "4/4. Snares off the beat, a bass drum that leaves holes, and ghost notes by chance.",
			drum("Bass drum", bassDrum, "1/16", "x-x- ---- --x- -x--", on(s.Velocity, 116, 0, 88, 0, 0, 0, 0, 0, 0, 0, 112, 0, 0, 92)),
			drum("Snare", snare, "1/16", "---- x--x -x-- x---", on(s.Velocity, 96, 96, 96, 96, 112, 96, 96, 46, 96, 52, 96, 96, 108),
				on(s.Probability, 100, 100, 100, 100, 100, 100, 100, 55, 100, 65)),
			drum("Ride", ride, "1/8", "x-xx x-xx", spread(s.Velocity, -18, 8, 100, 0)),
		),
		kit("Halyards in three", "3/4. A waltz that is struck on rims and wood.",
			drum("Bass drum", bassDrum, "1/4", "x--"),
			drum("Rim", sideStick, "1/8", "--x-x-", on(s.Velocity, 96, 0, 84, 0, 70)),
			drum("Block", hiBlock, "1/16", "x--x -x-- x-x-", spread(s.Velocity, -20, 10, 100, 0), loop(s.Probability, "1/4", 100, 70, 85)),
		),
		kit("Five bollards", "5/4. Three and two, with a bell that counts four against it.",
			drum("Bass drum", bassDrum, "1/8", "x--x--x---"),
			drum("Snare", snare, "1/8", "------x---", detail(6, ratchet(s.Gathering, 60, -40, 0, 6, 2, 1))),
			drum("Hats", closedHat, "1/8", "xxxxxxxxxx", loop(s.Velocity, "1/8", 96, 48, 64), spread(s.Velocity, -6, 6, 100, 0)),
			drum("Bell", bell, "1/8", "x---"),
		),
		kit("Seven buoys", "7/8 as two, two and three.",
			drum("Bass drum", bassDrum, "1/16", "x--- ---- x-----"),
			drum("Snare", snare, "1/16", "---- x--- ---x--"),
			drum("Hats", closedHat, "1/8", "xxxxxxx", on(s.Velocity, 104, 56, 92, 56, 98, 60, 48)),
			drum("Tambourine", tambourine, "1/16", "--x- --x- --x--x", loop(s.Probability, "1/8", 90, 60, 75)),
		),
		kit("Swell in six", "6/8. Slow rolls of toms over a long bass drum.",
			drum("Bass drum", bassDrum, "1/8", "x-----", on(s.Velocity, 112)),
			drum("Low tom", lowTom, "1/8", "---x--", detail(3, ratchet(s.Slackening, 100, -50, 0, 0, 3, 2))),
			drum("High tom", highTom, "1/8", "-----x", on(s.Probability, 100, 100, 100, 100, 100, 45), detail(5, ratchet(s.Even, 80, 30, 0, 2, 2, 2))),
			drum("Shaker", shaker, "1/8", "xxxxxx", on(s.Velocity, 84, 46, 52, 76, 46, 58)),
		),
		kit("Nine gulls", "9/8 as two, two, two and three, on hand drums.",
			drum("Low conga", lowConga, "1/8", "x---x----"),
			drum("Open conga", openConga, "1/8", "--x---x--", spread(s.Velocity, -16, 12, 100, 0)),
			drum("Slap", muteConga, "1/8", "-x-x-x-xx", on(s.Velocity, 0, 62, 0, 58, 0, 62, 0, 54, 88), loop(s.Probability, "1/8", 80, 60, 100, 70)),
			drum("Maracas", maracas, "1/16", "xxxxxxxxxxxxxxxxxx", loop(s.Velocity, "1/16", 64, 30, 44)),
		),
		kit("Eleven knots", "11/8, each part a loop of its own length: they come together after a long while.",
			drum("Bass drum", bassDrum, "1/8", "x----x-----"),
			drum("Stick", sideStick, "1/8", "--x--x-"),
			drum("Hats", pedalHat, "1/16", "x-xx-", loop(s.Velocity, "1/16", 88, 52, 70, 44, 60, 50, 76)),
			drum("Agogo", hiAgogo, "1/8", "x---x--x-", spread(s.Velocity, -24, 0, 100, 0)),
		),
		kit("Workshop clatter", "4/4. Claves, blocks and agogos; each decides anew which of its strokes it leaves out.",
			drum("Claves", claves, "1/16", "x--x --x- --x- x---"),
			drum("Low block", lowBlock, "1/16", "-x-- x--x ---x -x--", loop(s.Probability, "1/8", 70, 90, 50)),
			drum("High block", hiBlock, "1/16", "--x- -x-- x--- --xx", loop(s.Probability, "1/8", 60, 80, 100, 40, 70)),
			drum("Low agogo", lowAgogo, "1/8", "x--x--x-", spread(s.Velocity, -30, 10, 100, 30)),
		),
		kit("Fog signal", "Very sparse: one deep stroke every two bars, and a triangle now and then. For the beginning of an evening.",
			drum("Bass drum", bassDrum, "1/4", "x-------"),
			drum("Triangle", triangle, "1/2", "-x-x--x", loop(s.Probability, "1/2", 30, 55, 20, 70), spread(s.Velocity, -40, -10, 100, 0)),
			drum("Ride", ride, "1/4", "--x---x-----", on(s.Probability, 0, 0, 60, 0, 0, 0, 40), spread(s.Velocity, -40, -20, 100, 0)),
		),
		kit("Rivets", "4/4. Machines: ratchets that speed up, thrown in by chance, over a steady cowbell.",
			drum("Bass drum", bassDrum, "1/16", "x--x --x- x--x ----"),
			drum("Cowbell", cowbell, "1/8", "x-xxx-x-", on(s.Velocity, 70, 0, 48, 62, 74, 0, 52)),
			drum("Rivet", closedHat, "1/4", "xxxx", detail(1, ratchet(s.Gathering, 90, -30, 0, 4, 0, 1, 2)), detail(3, ratchet(s.Gathering, 100, 40, 0, 0, 2, 1, 1, 0, 1))),
			drum("Tom", midTom, "1/16", "---- ---- ---- --x-", on(s.Probability, 100, 100, 100, 100, 100, 100, 100, 100, 100, 100, 100, 100, 100, 100, 50)),
		),
	}
}
