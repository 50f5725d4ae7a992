package play

import "jettyfog/internal/core/score"

// Move is a lane's going on to a step.
type Move struct {
	Tick score.Tick `json:"tick"`
	// Step counts from 0.
	Step int `json:"step"`
}

// Moves returns the moves of a lane in [from, to).
func Moves(t *score.Track, lane score.LaneName, from, to score.Tick) []Move {
	walk := newLoop(&t.Lanes, lane)
	moves := []Move{}
	for n := walk.firstMove(from); walk.start(n) < to; n++ {
		moves = append(moves, Move{Tick: walk.start(n), Step: walk.step(n)})
	}
	return moves
}

// Forecast is what chance has decided for a gate step that may sound.
type Forecast struct {
	Tick score.Tick `json:"tick"`
	// End is when its note is released, if it sounds.
	End score.Tick `json:"end"`
	// Step is the gate step, from 0.
	Step int `json:"step"`
	// Probability is the percentage in force.
	Probability int `json:"probability"`
	// Sounds is what the luck decides.
	Sounds bool `json:"sounds"`
	// Key is the MIDI note number that it has or would have.
	Key int `json:"key"`
}

// Forecasts returns what each gate step of a track that is on will do in [from, to). It decides by
// the same code as Render, and for a muted track too.
func Forecasts(p *score.Project, t *score.Track, from, to score.Tick) []Forecast {
	walker := newPlayer(p, t, from)
	forecasts := []Forecast{}
	for ; walker.gate.start(walker.move) < to; walker.move++ {
		if !walker.on() {
			continue
		}
		start := walker.gate.start(walker.move)
		percent := walker.probability.at(start)
		forecasts = append(forecasts, Forecast{
			Tick:        start,
			End:         walker.end(),
			Step:        walker.gate.step(walker.move),
			Probability: percent,
			Sounds:      walker.sounds(percent),
			Key:         int(walker.key(start)),
		})
	}
	return forecasts
}
