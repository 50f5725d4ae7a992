package testkit

import (
	"fmt"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
)

// modulators draws up to four modulators of a project: of any shape, on any kind of control, of which some are not there. Those that would reach
// themselves move nothing.
func modulators(t *rapid.T, p *score.Project) (all []score.Modulator) {
	if rapid.IntRange(0, 2).Draw(t, "modulators") > 0 {
		return nil
	}
	for id := range rapid.IntRange(1, 4).Draw(t, "how many modulators") {
		m := score.Modulator{
			ID: 10 * (id + 1), Name: fmt.Sprint("Modulator ", id+1), Amount: rapid.SampledFrom([]int{100, 100, 33, 0}).Draw(t, "modulation"),
			Shape: rapid.SampledFrom(score.WaveShapes()).Draw(t, "wave"), Phase: rapid.SampledFrom([]int{0, 250, 999}).Draw(t, "phase"),
			Value: rapid.SampledFrom([]score.NoteValue{"1/4", "1/16t", "1/1"}).Draw(t, "pass"), Times: rapid.SampledFrom([]int{1, 3, 16}).Draw(t, "times"),
			Hertz:    rapid.SampledFrom([]int{0, 0, 730}).Draw(t, "hertz"),
			Symmetry: rapid.SampledFrom([]int{0, 0, -30}).Draw(t, "symmetry"), Skew: rapid.SampledFrom([]int{0, 0, 50}).Draw(t, "skew"),
			FadeIn: rapid.SampledFrom([]int{0, 0, 3}).Draw(t, "fade in"), Once: seldom(t, "once"), Restart: rapid.SampledFrom([]int{0, 0, 2}).Draw(t, "restart"),
			RestartSections: seldom(t, "restart with sections"), Points: []int{-100, 30, 100},
			Between: rapid.SampledFrom([]score.Interpolation{score.StepsBetween, score.LineBetween, score.SmoothBetween}).Draw(t, "between"),
			Copies:  rapid.SampledFrom([]int{10, 20, 99}).Draw(t, "copies"), Stretch: &score.Ratio{N: 3, M: 2},
			Track: rapid.SampledFrom(append(idsOf(p), 77)).Draw(t, "driving track"), Mod: rapid.IntRange(1, 8).Draw(t, "driving mod"),
			Attack: rapid.SampledFrom([]int{0, 200}).Draw(t, "attack"), Release: rapid.SampledFrom([]int{0, 300}).Draw(t, "release"),
			Channel: rapid.IntRange(0, 2).Draw(t, "driving channel"), Controller: 4,
			Moves: modulatorMoves(t, p), Sends: sends(t),
		}
		with := append(all, m)
		if p.Modulators = with; p.Validate() != nil {
			m.Moves, m.Sends, m.Shape = []score.ModulatorMove{}, nil, score.SineShape
			with = append(all, m)
		}
		all = with
	}
	return all
}

func sends(t *rapid.T) []score.ModulatorSend {
	return rapid.SampledFrom([][]score.ModulatorSend{
		nil, nil, {{Track: 1, Mod: score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}}},
		{{Track: 2, Mod: score.Mod{Target: score.BendTarget, Least: 16383}}, {Track: 77, Mod: score.Mod{Target: score.PressureTarget, Most: 9}}},
	}).Draw(t, "sends")
}

func modulatorMoves(t *rapid.T, p *score.Project) (moves []score.ModulatorMove) {
	for range rapid.IntRange(1, 4).Draw(t, "moves") {
		track := rapid.SampledFrom(p.Tracks).Draw(t, "moved track")
		part := rapid.SampledFrom(track.Parts()).Draw(t, "moved part")
		c := rapid.SampledFrom([]score.ControlAddress{
			{Name: "probability", Track: track.ID}, {Name: "degrees", Track: track.ID}, {Name: "semitones", Track: track.ID}, {Name: "lowest", Track: track.ID},
			{Name: "highest", Track: track.ID}, {Name: "swing", Track: track.ID}, {Name: "delay", Track: track.ID}, {Name: "jitter", Track: track.ID},
			{Name: "part fill", Track: track.ID, Pattern: track.Playing, Part: part.ID},
			{Name: "amount", Track: track.ID, Pattern: track.Playing, Part: part.ID, Lane: score.Velocity},
			{Name: "amount", Track: track.ID, Pattern: track.Playing, Part: part.ID, Lane: score.Mod1},
			{Name: "depth", Track: track.ID, Pattern: track.Playing, Part: part.ID, Lane: rapid.SampledFrom(score.LaneNames()).Draw(t, "moved lane")},
			{Name: "lean", Track: track.ID, Pattern: track.Playing, Part: part.ID, Lane: score.Pitch},
			{Name: "fill level"}, {Name: "swing"}, {Name: "speed", Track: track.ID}, {Name: "probability", Track: 77},
		}).Draw(t, "moved")
		moved := false
		for _, other := range moves {
			moved = moved || other.Control == c
		}
		if !moved {
			moves = append(moves, score.ModulatorMove{Control: c, Depth: rapid.SampledFrom([]int{1000, -400, 70, 0}).Draw(t, "depth of it")})
		}
	}
	return moves
}
