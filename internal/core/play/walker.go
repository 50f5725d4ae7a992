package play

import (
	"slices"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/orders"
	"jettyfog/internal/core/score"
)

// walker goes along the gate lane of one part, step by step. Its own time, local, is counted in ticks
// at the speed of the track since the lanes were aligned last.
type walker struct {
	walkerState
	gate orders.Mover

	order      int // of the part among all parts of all tracks
	trackIndex int // of the track in the project
	partIndex  int // of the part in its track

	project *score.Project
	track   *score.Track
	part    *score.Part
	steps   *[score.MaxSteps]step
	pitches *pitches
	speed   score.Ratio
	tempo   TempoMap
	swing   int        // in tenths of a percent
	grid    score.Tick // that swing bends; 0 is the part's own steps
	hold    holding
	bars    score.Bars
	unit    score.Tick // of lengths; 0 is the step itself
	// Whether the walker's time is the project's, whether it goes by the clock, and whether it needs to
	// look ahead for ties.
	straight, ownClock, ties bool

	chance, soundChance chance.Address
	durations           int  // the sum of the weights of the durations
	unsteady            bool // chance decides how long steps last

	noteLanes
	modulation
	chordSource
	fieldSource
	clock curveClock

	// The lanes with a loop of their own, by what moves them.
	byClock, byStep, byHit, byStrike []*value
	all, mods, evolving              []*value
	unheard                          []*value         // mod lanes that go nowhere
	changes                          *[]pendingChange // of the performer, not yet handed over
	states                           []trackState     // of all tracks
	begins                           bool             // whether all lanes are at their first steps at the present step
	turnedNow                        []stepTurn       // scratch
	intervals                        []score.Interval // of a chord, scratch
	hits                             []hit            // of a step, scratch

	watch   func(lane score.LaneName, move Move)
	decided func(decision)
}

// walkerState is how far a walker has come, besides how far its lanes have.
type walkerState struct {
	next score.Tick // when the next step comes, before swing, nudge, jitter and delay

	incoming []incoming // controllers that drive modulators, ascending

	triggers  []score.Tick // of a track without a clock of its own, when it goes on, ascending
	triggered int64        // how many times it could have gone on
	control   int          // the last value of the controller that it hears

	entered score.Tick // when its pattern did, or the hold that it has was set
	aligned score.Tick // when the lanes were aligned last
	passes  int64      // of the gate lane's order that had begun by then
	local   score.Tick // the next step's time since then
	sounded bool       // whether the part's last step that was on sounded
	stops   bool       // whether it goes on next only where a pass of what is held begins, and plays nothing there

	realigns bool // whether the lanes are aligned where the next step comes

	evolvedBars int64 // how many more bars its lanes have evolved than the song says, where chance goes on

	sliding, portamento bool // whether the last note slides, and what was sent of it
}

func newWalker(c *common, place, index int) *walker {
	p := c.project
	t := &p.Tracks[place]
	part := &t.Parts()[index]
	w := &walker{
		project: p, track: t, part: part, trackIndex: place, partIndex: index, order: place*score.MaxParts + index, pitches: c.pitches,
		steps: readSteps(c, t, part), speed: t.Speed, tempo: c.tempo,
		bars: c.bars, unit: part.LengthUnit.Ticks(), ownClock: t.Source.Kind == score.OwnClock && part.Field == nil,
		chance: chance.Address{Luck: uint64(p.Luck.Number), Track: uint32(t.ID), Part: uint8(part.ID)},
	}
	w.takeModulators(c)
	w.takeCurveClock(c)
	w.takeChordSource(c)
	t, part = w.track, w.part
	if t.Luck != score.FollowLuck {
		w.chance.Luck = uint64(t.Luck)
	}
	w.soundChance = w.chance
	w.soundChance.Lane, w.soundChance.Purpose = score.Gate.Spec().Number(), chance.Sound
	w.swing, w.grid = w.project.SwingOf(t)
	switch {
	case part.Field != nil: // whose moments swing on the grid
		w.speed = score.Ratio{N: 1, M: 1}
		if w.grid == 0 {
			w.swing = score.Straight
		}
	case !w.ownClock: // what it hears is swung already
		w.swing, w.speed, w.next = score.Straight, score.Ratio{N: 1, M: 1}, never
	}
	w.straight = w.speed.N == w.speed.M
	w.hold = holding{bars: w.bars, from: int64(t.HoldFrom), every: int64(t.Hold), holdState: holdState{passes: -1, heard: -1}}
	for _, d := range part.Durations {
		w.durations += d.Weight
	}
	w.gate = orders.New(part.GateLane(), w.chance)
	w.gate.DrawIndex, w.gate.Fresh = -1, true // its first move is the first step
	w.unsteady = w.durations > 0 || w.gate.AtRandom() && w.lengthsDiffer()
	for i := range w.steps {
		w.ties = w.ties || w.steps[i].gate == score.Tie
	}
	w.readLanes()
	w.takeLanes()
	w.takeField()
	return w
}

// lengthsDiffer reports whether some steps of the gate's loop last longer than others.
func (w *walker) lengthsDiffer() bool {
	loop := w.part.GateLane()
	var first score.Tick
	for place := range loop.Length {
		s := &w.steps[loop.StepAt(place)]
		switch lengths := s.lengths(); {
		case s.skip:
		case first == 0:
			first = lengths
		case lengths != first:
			return true
		}
	}
	return false
}

func (w *walker) due() score.Tick { return w.next }

func (w *walker) rank() int { return w.order }

// play does the next step, or the next moment of a field, and appends its notes to dst.
func (w *walker) play(dst []Note) []Note {
	if w.stops {
		w.stops = false
		w.seekTo(w.next)
		w.findNext()
		return dst
	}
	switch {
	case !w.ownClock:
		w.seekTo(w.next)
		w.local = w.next - w.aligned
	case w.realigns:
		w.seekTo(w.next)
		w.align(w.next)
		w.local = 0
	}
	if len(w.controls) > 0 {
		w.seekTo(w.next)
		w.modulate(w.next)
	}
	w.readChord(w.next)
	if w.machine != nil {
		return w.playField(dst)
	}
	dst = w.step(dst)
	if w.ownClock {
		w.findNext()
	} else {
		w.triggers = w.triggers[1:]
		w.findTrigger()
	}
	return dst
}

// step has the gate go on by a step, and appends its notes to dst.
func (w *walker) step(dst []Note) []Note {
	w.begin()
	w.notify(score.Gate, w.next, &w.gate)
	at := w.gate.Step()
	s := &w.steps[at]
	duration, rest := w.duration(w.gate.DrawIndex)
	rest = rest || s.skip // where all steps are skipped
	w.seekClock(w.local)
	goOnAll(w.byStep)
	heard, notes := score.Tick(0), len(dst)
	if len(w.mods) > 0 {
		heard, w.turnedNow = w.soundsAt(w.local), w.turnedNow[:0]
		w.turnMods()
	}
	if !rest {
		dst = w.act(s, duration, dst)
	}
	if len(dst) > notes {
		w.states[w.trackIndex].strike(w.bars.At(w.next), len(dst)-notes)
		w.states[w.trackIndex].sound(w.next, dst[notes:])
		heard = dst[notes].Start
		w.withNote(heard)
	}
	w.use(w.byStep, w.next, heard)
	if w.ownClock {
		w.local += s.lengths() * duration
	}
	return dst
}

// act decides whether the present step sounds, and appends its notes if it does.
func (w *walker) act(s *step, duration score.Tick, dst []Note) []Note {
	probability, sounds, decided := w.decide(s)
	if !decided {
		return dst
	}
	sounds = sounds && !w.silentChord()
	w.sounded = sounds
	w.states[w.trackIndex].set(w.next, sounds)
	goOnAll(w.byHit)
	goOnAll(w.byStrike)
	if !sounds && w.decided == nil {
		return dst
	}
	notes := len(dst)
	dst, hits := w.strike(s, duration, sounds, dst)
	if len(hits) > 0 {
		sounds := sounds && slices.ContainsFunc(hits, func(h Hit) bool { return h.Sounds })
		w.decided(decision{tick: w.next, step: w.gate.Step(), probability: probability, sounds: sounds, hits: hits})
	}
	if len(dst) > notes { // none where the step is silent, or a realignment comes before it is struck
		w.use(w.byHit, w.next, dst[notes].Start)
	}
	return dst
}
