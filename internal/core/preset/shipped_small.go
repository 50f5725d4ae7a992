package preset

import (
	s "jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// shippedRhythms are single parts of kits.
func shippedRhythms() []Preset {
	a := func(name, words string, part s.Part) Preset {
		part.Name = name
		return Preset{Kind: PartKind, Name: name, Words: words, Part: &part}
	}
	return []Preset{
		a("Hats that breathe", "Hats in 16ths whose loudness goes round in five.", drum("", closedHat, "1/16", "xxxx xxxx xxxx xxxx", loop(s.Velocity, "1/16", 96, 44, 66, 38, 72), spread(s.Velocity, -6, 6, 100, 0))),
		a("Stutter on four", "A snare on two and four, the last of which stutters, speeding up, in one pass of three.",
			drum("", snare, "1/16", "---- x--- ---- x---", detail(12, ratchet(s.Gathering, 60, -40, 0, 4, 0, 1, 1)))),
		a("Five over four", "Five even strokes in a bar.", drum("", lowBlock, "1/16", "x--x--x--x--x---")),
		a("Long ride", "A ride cymbal in a loop of thirteen 16ths.", drum("", ride, "1/16", "x--x-x--x-x--", spread(s.Velocity, -20, 6, 100, 0))),
		a("Ghosts", "Soft strokes between the beats, each as likely as the fog lets it.",
			drum("", snare, "1/16", "-xx- -x-x -xx- --xx", loop(s.Velocity, "1/16", 30, 42, 26, 36), loop(s.Probability, "1/16", 35, 60, 20, 50, 45))),
		a("Fill at the end", "Toms that come in the last of four passes only.",
			drum("", midTom, "1/16", "---- ---- --x- xxxx", detail(10, s.StepDetail{Condition: s.EveryPass(4, 4)}), detail(12, s.StepDetail{Condition: s.EveryPass(4, 4)}),
				detail(13, s.StepDetail{Condition: s.EveryPass(4, 4)}), detail(14, s.StepDetail{Condition: s.EveryPass(4, 4)}), detail(15, s.StepDetail{Condition: s.EveryPass(4, 4)}))),
	}
}

func shippedLanes() []Preset {
	return []Preset{
		aLane("Waves", "Velocities that swell and fall over eight beats.", s.Velocity, loop(s.Velocity, "1/4", 48, 60, 78, 98, 112, 98, 78, 60)),
		aLane("Limp", "Every second 16th a little late, every eighth one early.", s.Nudge, on(s.Nudge, 0, 9, 0, 9, 0, 9, 0, -6, 0, 9, 0, 9, 0, 9, 0, -6)),
		aLane("Thinning fog", "Probabilities that rise over four bars from nearly none to certain.", s.Probability, loop(s.Probability, "1/2", 15, 25, 40, 50, 65, 80, 90, 100)),
		aLane("Climb and fall", "Pitches up the scale and back, over an octave and a half.", s.Pitch, loop(s.Pitch, "1/16", 0, 2, 4, 5, 7, 9, 11), order(s.Pitch, s.ThereAndBack)),
		aLane("Short, short, long", "Lengths in threes.", s.Length, loop(s.Length, "1/16", 30, 30, 95)),
	}
}

func shippedTables() []Preset {
	return []Preset{
		table("Home and dominant", "Pitches: the root most, then the fifth, then the third, seldom the rest.", s.Pitch, 0, 40, 4, 25, 2, 15, 7, 10, 5, 5, 1, 5),
		table("Loud or barely", "Velocities: either an accent or a whisper, hardly anything between.", s.Velocity, 120, 3, 38, 5, 84, 1),
		table("Mostly one, sometimes four", "Ratchets: one hit as a rule, now and then a burst.", s.Ratchet, 1, 20, 2, 4, 3, 2, 4, 1),
		roll("Gusts", "Rolls two thirds of the velocities, leaning soft.", s.Recipe{Lane: s.Velocity, Lowest: 36, Highest: 118, Density: 66, Lean: -30}),
		{Kind: ScaleKind, Name: "Foghorn fifths", Words: "Five notes with a low second: wide steps at the ends, narrow in the middle.", Scale: &Scale{Scale: theory.Custom, Notes: []int{0, 1, 5, 7, 10}}},
		{Kind: TuningKind, Name: "Hull in just thirds", Words: "Twelve notes of small whole ratios: thirds and fifths of the root without beats.",
			Tuning: &theory.Tuning{Name: "Hull in just thirds", Pitches: []string{"16/15", "9/8", "6/5", "5/4", "4/3", "45/32", "3/2", "8/5", "5/3", "9/5", "15/8", "2/1"}}},
	}
}
