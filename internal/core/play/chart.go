package play

import "jettyfog/internal/core/score"

// Move is a lane's going on to a step.
type Move struct {
	Tick score.Tick `json:"tick"`
	// Step counts from 0.
	Step int `json:"step"`
}

// Forecast is what chance has decided for a gate step that may sound.
type Forecast struct {
	Tick score.Tick `json:"tick"`
	// Start is when its first note is struck, after swing, nudge, jitter and delay; End when that is released.
	Start score.Tick `json:"start"`
	End   score.Tick `json:"end"`
	// Step is the gate step, from 0.
	Step int `json:"step"`
	// Probability is the percentage in force, in hundredths of a percent.
	Probability float64 `json:"probability"`
	// Sounds is what the luck and the step's condition decide.
	Sounds bool `json:"sounds"`
	// Key is the MIDI note number that it has or would have.
	Key int `json:"key"`
}

// Outlook is what a part is going to do in a stretch of time.
type Outlook struct {
	// Moves are those of each lane with a loop of its own and of the gate lane, ascending. The first of a
	// lane that moves by the clock is at or before the beginning of the stretch.
	Moves     map[score.LaneName][]Move
	Forecasts []Forecast
}

// Look returns what each part of a track will do in [from, to). It is computed by the code that plays, and
// for a silent track too. The track must exist.
func Look(p *score.Project, track int, from, to score.Tick) []Outlook {
	heard := heardBy(p, track)
	outlooks := make([]Outlook, len(heard.Track(track).Parts()))
	for i := range outlooks {
		outlooks[i] = Outlook{Moves: map[score.LaneName][]Move{}, Forecasts: []Forecast{}}
	}
	f := NewPerformer(heard)
	f.each(func(w *walker) {
		if w.track.ID != track {
			return
		}
		outlook := &outlooks[w.index]
		w.watchLanes(func(lane score.LaneName, move Move) {
			if move.Tick >= to {
				return
			}
			moves := outlook.Moves[lane]
			// Strikes of a stretched step can reach beyond the moment at which the lanes are aligned.
			for last := len(moves) - 1; last >= 0 && moves[last].Tick >= move.Tick; last-- {
				moves = moves[:last]
			}
			if move.Tick <= from {
				moves = moves[:0]
			}
			outlook.Moves[lane] = append(moves, move)
		})
	})
	f.skipTo(from)
	f.each(func(w *walker) {
		if w.track.ID != track {
			return
		}
		outlook := &outlooks[w.index]
		w.decided = func(d decision) {
			if d.tick >= from {
				outlook.Forecasts = append(outlook.Forecasts, Forecast{
					Tick: d.tick, Start: d.first.Start, End: d.first.End, Step: d.step,
					Probability: float64(d.probability) / 100, Sounds: d.sounds, Key: int(d.first.Key),
				})
			}
		}
	})
	f.walkAll(to)
	f.watchTo(to)
	return outlooks
}

// heardBy returns the project without the tracks that a track does not hear of, directly or through others.
func heardBy(p *score.Project, track int) *score.Project {
	heard := hearingOf(p).reach(track)
	heard[track] = true
	only := *p
	only.Tracks = nil
	for i := range p.Tracks {
		if heard[p.Tracks[i].ID] {
			only.Tracks = append(only.Tracks, p.Tracks[i])
		}
	}
	return &only
}
