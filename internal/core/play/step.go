package play

import "jettyfog/internal/core/score"

// step is a gate step made ready to be played: what the gate lane and the step's details say.
type step struct {
	gate      uint8 // score.Off, On or Tie
	stretch   uint8 // from 1
	skip      bool
	strike    strikeCode
	condition conditionCode
	pass, of  uint8 // of a condition "a:b", pass counted from 0
	track     uint8 // of a condition about a track, its place in the project
	mutual    bool  // whether that track hears this one too
}

// lengths returns how many step lengths the step takes; one that is skipped and played all the same, because all are,
// takes one.
func (s *step) lengths() score.Tick {
	if s.skip {
		return 1
	}
	return score.Tick(s.stretch)
}

// strikeCode stands for a score.Strike.
type strikeCode uint8

const (
	strikeOnce strikeCode = iota
	strikeEach
	strikeSustain
)

// conditionCode stands for a kind of score.Condition.
type conditionCode uint8

const (
	always conditionCode = iota
	firstPass
	notFirstPass
	whileFilling
	afterSound
	afterSilence
	onPass
	afterTrack
)

var conditionCodes = map[score.Condition]conditionCode{
	score.Always: always, score.FirstPass: firstPass, score.NotFirstPass: notFirstPass, score.WhileFilling: whileFilling,
	score.AfterSound: afterSound, score.AfterSilence: afterSilence,
}

var strikeCodes = map[score.Strike]strikeCode{
	"": strikeOnce, score.Once: strikeOnce, score.Each: strikeEach, score.Sustain: strikeSustain,
}

// readSteps makes all gate steps of a part ready.
func readSteps(p *score.Project, track *score.Track, part *score.Part) *[score.MaxSteps]step {
	steps := new([score.MaxSteps]step)
	for i, gate := range part.Lanes.Lane(score.Gate).Steps {
		steps[i] = step{gate: uint8(gate), stretch: 1}
	}
	for i, detail := range part.Details {
		s := &steps[i]
		s.skip, s.stretch, s.strike = detail.Skip, uint8(max(1, detail.Stretch)), strikeCodes[detail.Strike]
		s.condition = conditionCodes[detail.Condition]
		if a, b, ok := detail.Condition.Passes(); ok {
			s.condition, s.pass, s.of = onPass, uint8(a-1), uint8(b)
		}
		if id, ok := detail.Condition.Track(); ok {
			s.condition, s.track, s.mutual = afterTrack, uint8(placeOf(p, id)), id == track.ID || mutual(p, track.ID)[id]
		}
	}
	return steps
}

// placeOf returns the place of the track with the id, which must exist.
func placeOf(p *score.Project, id int) int {
	for i := range p.Tracks {
		if p.Tracks[i].ID == id {
			return i
		}
	}
	panic("play: the project refers to a track that it does not have")
}
