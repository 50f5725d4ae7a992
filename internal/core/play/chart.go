package play

import (
	"slices"

	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Move is a lane's going on to a step.
type Move struct {
	Tick score.Tick `json:"tick"`
	// Step counts from 0.
	Step int `json:"step"`
}

// Forecast is what chance has decided for a gate step that may sound.
type Forecast struct {
	Tick score.Tick `json:"tick"`
	// Step is the gate step, from 0.
	Step int `json:"step"`
	// Probability is the percentage in force, in hundredths of a percent.
	Probability float64 `json:"probability"`
	// Sounds is what the luck and the step's condition decide.
	Sounds bool `json:"sounds"`
	// Hits are those that the step has or would have, at least one: more than one where it has a ratchet, or is stretched.
	Hits []Hit `json:"hits"`
}

// Hit is what starts at one time.
type Hit struct {
	// Odds is the percentage of a ratchet's hits that sound, 100 for its first.
	Odds int `json:"odds"`
	// Sounds is what the luck decides, for a step that sounds.
	Sounds bool `json:"sounds"`
	// Velocity is 1 to 127.
	Velocity int `json:"velocity"`
	// Notes are those of a chord, or one, in the order in which they start.
	Notes []HitNote `json:"notes"`
}

// HitNote is a note of a hit.
type HitNote struct {
	// Start and End are when it sounds, after swing, nudge, jitter, delay and strum.
	Start score.Tick `json:"start"`
	End   score.Tick `json:"end"`
	// Key is its MIDI note number, and Detune how far above that it sounds, in cents.
	Key    int     `json:"key"`
	Detune float64 `json:"detune,omitempty"`
	// Velocity is 1 to 127.
	Velocity int `json:"velocity"`
}

// Heard returns the notes that sound, if the step does.
func (f Forecast) Heard() (notes []HitNote) {
	for _, hit := range f.Hits {
		if f.Sounds && hit.Sounds {
			notes = append(notes, hit.Notes...)
		}
	}
	return notes
}

// hitOf returns a hit as it is forecast. What would start before the beginning does not sound.
func (w *walker) hitOf(now *striking, h *hit, sounds bool, notes []Note) Hit {
	if len(notes) == 0 {
		return Hit{Odds: now.shape.OddsOf(h.number), Velocity: int(w.strength(now, h.number)), Notes: []HitNote{}}
	}
	for len(notes) > 1 && notes[0].Start < 0 { // they are in the order of their starts
		notes = notes[1:]
	}
	sounds = sounds && notes[0].Start >= 0
	hit := Hit{Odds: now.shape.OddsOf(h.number), Sounds: sounds, Velocity: int(notes[0].Velocity)}
	for _, n := range notes {
		hit.Notes = append(hit.Notes, HitNote{n.Start, n.End, int(n.Key), float64(n.Detune) / float64(theory.Cent), int(n.Velocity)})
	}
	return hit
}

// Outlook is what a part is going to do in a stretch of time.
type Outlook struct {
	// Moves are those of each lane with a loop of its own and of the gate lane, ascending. The first of a
	// lane that moves by the clock is at or before the beginning of the stretch.
	Moves     map[score.LaneName][]Move
	Forecasts []Forecast
	// Moments are those of the part's field, ascending; the first is at or before the beginning of the stretch.
	Moments []FieldMoment
}

// Course is how a project plays: what it is at a tick, up to which it plays as if it had always been so, and what is done
// from there on.
type Course struct {
	Project *score.Project
	From    score.Tick
	Acts    []Act
	// Going, if it is set, is from where chance goes on at From.
	Going *Going
	// Later, if it is set, is where everything stood later, for what follows to be known sooner.
	Later *Later
}

// Later is a state of a performer, the project with which it resumes, and the acts that are not done.
type Later struct {
	State   *State
	Project *score.Project
	Acts    []Act
}

// End returns the project after all that is done.
func (c Course) End() *score.Project {
	p := c.Project
	for i := range c.Acts {
		p = c.Acts[i].Change(p)
	}
	return p
}

// Cuts returns the ticks within (from, to) at which something counts that was done to a track, ascending.
func (c Course) Cuts(track int, from, to score.Tick) (cuts []score.Tick) {
	acts := c.Acts
	if c.Later != nil {
		acts = c.Later.Acts
	}
	for i := range acts {
		if a := &acts[i]; a.Tick > from && a.Tick < to && !a.Silences && (a.Tracks == nil || slices.Contains(a.Tracks, track)) {
			cuts = append(cuts, a.Tick)
		}
	}
	slices.Sort(cuts)
	return slices.Compact(cuts)
}

// Look returns what each part of a track will do in [from, to); see Course.Look.
func Look(p *score.Project, track int, from, to score.Tick) []Outlook {
	return Course{Project: p}.Look(track, from, to)
}

// Look returns what each part of a track will do in [from, to), of the pattern that plays at the end of it. It is computed
// by the code that plays, and for a silent track too. The track must exist.
func (c Course) Look(track int, from, to score.Tick) []Outlook {
	if c.Later != nil {
		if outlooks, complete := c.look(c.Later.begin(track), track, from, to); complete {
			return outlooks
		}
		c.Later = nil
	}
	outlooks, _ := c.look(c.begin(track), track, from, to)
	return outlooks
}

// look returns what a performer does that has not come to a stretch; complete says that the last move before it is known of
// every lane, and nothing of a step before the state from which it went on reaches into it.
func (c Course) look(f *Performer, track int, from, to score.Tick) (outlooks []Outlook, complete bool) {
	look := &looking{track: track, from: from, to: to, parts: map[int]*Outlook{}}
	f.built = look.attach
	f.each(look.attach)
	switch {
	case c.Later != nil:
		f.pass(from, nil)
	case len(f.acts) == 0 && c.Going == nil || from < c.From:
		f.skipTo(from)
	case c.Going != nil:
		f.skipTo(c.From)
		f.limit = c.From
		f.pass(c.From, nil)
		f.limit = 0
		f.GoOn(c.Going)
		f.pass(from, nil)
	default:
		f.skipTo(c.From)
		f.pass(from, nil)
	}
	for _, g := range f.groups {
		f.walk(g, to, to)
	}
	f.watchTo(to)
	complete = true
	f.each(func(w *walker) {
		if w.track.ID != track {
			return
		}
		complete = complete && (c.Later == nil || c.Later.State.Walked(track)+w.longest() <= from)
		outlook := *look.parts[w.part.ID]
		outlooks = append(outlooks, outlook)
		for _, name := range score.LaneNames() {
			if w.part.Lanes.Has(name) && (name == score.Gate || !w.part.Lanes.Lane(name).Linked) {
				moves := outlook.Moves[name]
				complete = complete && len(moves) > 0 && moves[0].Tick <= from
			}
		}
		if w.machine != nil {
			complete = complete && len(outlook.Moments) > 0 && outlook.Moments[0].Tick <= from
		}
	})
	return outlooks, complete
}

// begin returns a performer of the tracks that a track hears of, and where something is done of those that hear of it, too:
// how far ahead it looks follows from all of them.
func (c Course) begin(track int) *Performer {
	f := newPerformer(c.Project, []int{track})
	for _, a := range c.Acts {
		if !a.Silences && slices.ContainsFunc(f.groups, func(g *group) bool { return g.isOf(&a) }) {
			f.Act(a)
		}
	}
	if len(f.acts) == 0 {
		return newPerformer(heardBy(c.Project, track), nil)
	}
	return f
}

// begin returns a performer that goes on from a state, of the tracks that hear of a track and of which it hears.
func (l *Later) begin(track int) *Performer {
	f := resume(l.Project, l.State, l.Acts, nil, []int{track})
	f.acts = slices.DeleteFunc(f.acts, func(a Act) bool { return a.Silences })
	return f
}

// looking gathers what the parts of a track do in [from, to).
type looking struct {
	track    int
	from, to score.Tick
	parts    map[int]*Outlook // by id
}

// attach has what a part does gathered.
func (l *looking) attach(w *walker) {
	if w.track.ID != l.track {
		return
	}
	outlook := l.parts[w.part.ID]
	if outlook == nil {
		outlook = &Outlook{Moves: map[score.LaneName][]Move{}, Forecasts: []Forecast{}}
		l.parts[w.part.ID] = outlook
	}
	w.watchLanes(func(lane score.LaneName, move Move) {
		if move.Tick >= l.to {
			return
		}
		moves := outlook.Moves[lane]
		// Strikes of a stretched step can reach beyond the moment at which the lanes are aligned.
		for last := len(moves) - 1; last >= 0 && moves[last].Tick >= move.Tick; last-- {
			moves = moves[:last]
		}
		if move.Tick <= l.from {
			moves = moves[:0]
		}
		outlook.Moves[lane] = append(moves, move)
	})
	w.watchField = func(tick score.Tick, s *field.State, sounds []field.Sound) {
		switch {
		case tick >= l.to:
			return
		case tick <= l.from:
			outlook.Moments = outlook.Moments[:0]
		}
		outlook.Moments = append(outlook.Moments, w.momentOf(tick, s, sounds))
	}
	w.decided = func(d decision) {
		if d.tick >= l.from && d.tick < l.to {
			outlook.Forecasts = append(outlook.Forecasts, Forecast{
				Tick: d.tick, Step: d.step, Probability: float64(d.probability) / 100, Sounds: d.sounds, Hits: d.hits,
			})
		}
	}
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
