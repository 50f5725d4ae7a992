package play

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// walker goes along the gate lane of one part, step by step. Its own time, local, is counted in ticks
// at the speed of the track since the lanes were aligned last.
type walker struct {
	project *score.Project
	track   *score.Track
	part    *score.Part
	order   int // of the track in the project
	index   int // of the part in its track

	speed    score.Ratio
	spelling theory.Spelling
	jitter   score.Tick
	swing    score.Tick
	bar      score.Tick
	details  [score.MaxSteps]score.StepDetail
	chance   chance.Address

	gate                                                                       mover
	pitch, octave, chord, velocity, length, ratchet, probability, nudge, slide value

	triggers  []score.Tick // of a track that follows another's notes, when it goes on, ascending
	triggered int64        // how many notes it could have gone on by

	aligned score.Tick // when the lanes were aligned last
	local   score.Tick // the next step's time since then
	luckBar int64      // how many holds have gone by
	next    score.Tick // when the next step comes, before swing, nudge, jitter and delay
	sounded bool       // whether the part's last step that was on sounded

	// The lanes with a loop of their own, by what moves them.
	byClock, byStep, byHit, byStrike []namedValue
	evolving                         []*value
	all, mods                        []namedValue
	controls                         []pendingControl // not yet handed over
	sliding, portamento              bool             // whether the last note slides, and what was sent of it

	watch func(lane score.LaneName, move Move)
}

func newWalker(p *score.Project, track, part int) *walker {
	t := &p.Tracks[track]
	w := &walker{
		project: p, track: t, part: &t.Parts()[part], order: track, index: part, speed: t.Speed,
		spelling: p.Key.Spelling(), bar: p.Meter.Bar(), swing: score.Tick(p.Swing),
		chance: chance.Address{Luck: uint64(p.Luck.Number), Track: uint32(t.ID), Part: uint8(part)},
	}
	if t.Luck != score.FollowLuck {
		w.chance.Luck = uint64(t.Luck)
	}
	if t.Swing != 0 {
		w.swing = score.Tick(t.Swing)
	}
	// A millisecond lasts tempo·ticks per quarter / (60 s · 1000) ticks.
	w.jitter = score.Tick(t.Jitter) * score.Tick(p.Tempo) * score.TicksPerQuarter / 60_000_000
	for step, detail := range w.part.Details {
		w.details[step] = detail
	}
	w.gate = newMover(gateLane(w.part), w.chance)
	if w.follows() {
		w.swing, w.speed, w.next = 50, score.Ratio{N: 1, M: 1}, never
	}
	w.all = w.lanes()
	for _, v := range w.all {
		*v.value = newValue(&w.part.Lanes, v.name.Spec(), w.chance)
		if v.value.evolved != nil {
			w.evolving = append(w.evolving, v.value)
		}
		if v.value.linked || v.value.fixed {
			continue
		}
		switch v.value.lane.Moves {
		case score.ByClock:
			w.byClock = append(w.byClock, v)
		case score.ByStep:
			w.byStep = append(w.byStep, v)
		case score.ByHit:
			w.byHit = append(w.byHit, v)
		case score.ByStrike:
			w.byStrike = append(w.byStrike, v)
		}
	}
	return w
}

// real converts the walker's own time to the project's.
func (w *walker) real(local score.Tick) score.Tick {
	if w.speed.N == w.speed.M {
		return w.aligned + local
	}
	return w.aligned + local*score.Tick(w.speed.M)/score.Tick(w.speed.N)
}

// ahead returns how much earlier than its step a note can start.
func (w *walker) ahead() score.Tick {
	return w.gate.rate*score.Tick(w.speed.M)/score.Tick(w.speed.N) + w.jitter + max(0, -w.track.Delay)
}

// decision is what became of a step that was on, or filled.
type decision struct {
	tick        score.Tick
	step        int
	probability int
	sounds      bool
	first       Note // the first note that it has or would have
}

// walk does the next step: it appends the notes to dst, and returns what was decided if the step was on.
func (w *walker) walk(trackSounded []bool, dst []Note) ([]Note, decision, bool) {
	// Lanes go on to just before the step first, however long ago they were looked at, so that whatever
	// begins anew with the step does so for all alike.
	w.seekTo(w.next)
	if w.follows() {
		w.local = w.next - w.aligned
	}
	w.cross()
	w.passOver()
	w.tell(score.Gate, w.next, &w.gate)
	step := w.gate.step()
	detail := w.details[step]
	stretch := score.Tick(max(1, detail.Stretch))
	w.seekClock(w.local)
	w.turnMods()
	d := decision{tick: w.next, step: step}
	decided := w.decide(&d, detail, trackSounded)
	if decided {
		w.sounded = d.sounds
		notes := len(dst)
		dst = w.strike(d.sounds, detail, dst)
		d.first = dst[notes]
		if !d.sounds {
			dst = dst[:notes]
		}
		if d.sounds {
			w.use(w.byHit, w.next)
		}
	}
	w.use(w.byStep, w.next)
	w.local += stretch * w.gate.rate
	w.gate.advance()
	if w.follows() {
		w.triggers = w.triggers[1:]
		w.findTrigger()
	} else {
		w.findNext()
	}
	return dst, d, decided
}

// cross starts the luck anew where a hold ends, and lets the lanes evolve where it is time.
func (w *walker) cross() {
	if hold := score.Tick(w.track.Hold) * w.bar; hold > 0 {
		if holds := int64(w.next / hold); holds != w.luckBar {
			w.luckBar = holds
			w.gate.drawn = 0
			for _, v := range w.all {
				v.value.drawn = 0
			}
		}
	}
	for _, v := range w.evolving {
		v.evolveTo(int64(w.next / (score.Tick(v.lane.Evolve.Every) * w.bar)))
	}
	if w.local == 0 && w.watch != nil {
		for _, v := range w.byClock {
			w.tell(v.name, w.next, &v.value.mover)
		}
	}
}

// passOver goes past steps that are skipped, in no time; a loop of nothing else plays on in silence.
func (w *walker) passOver() {
	for range score.MaxSteps {
		if !w.details[w.gate.step()].Skip {
			return
		}
		w.gate.advance()
	}
}

// findNext finds when the next step comes, which may be the moment at which the lanes are aligned.
func (w *walker) findNext() {
	w.next = w.real(w.local)
	if boundary := w.boundary(); boundary > 0 && w.next >= boundary {
		w.seekTo(boundary)
		w.align(boundary)
		w.local, w.next = 0, boundary
	}
}

// boundary returns when the lanes are aligned next, or 0 if they never are.
func (w *walker) boundary() score.Tick {
	every := score.Tick(w.track.Realign) * w.bar
	if every == 0 {
		return 0
	}
	return (w.aligned/every + 1) * every
}
