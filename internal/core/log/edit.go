package log

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Replay is what brings another state of the project to play while a player plays on. Run may take long, and may run
// beside the player.
type Replay struct {
	written *score.Project
	letGo   []stage.Control
	tracks  []int
	// Quick says that no track must be played from the beginning on.
	Quick bool

	pieces   int
	song     score.Tick
	inputs   []midi.Message
	acts     int
	from     *Player // as it is to be, for what it knows alone
	replayed *Performance
	acted    bool // whether what was done was replayed too
}

// Replay returns what brings another state of the project to play that takes some live changes away.
func (p *Player) Replay(written *score.Project, letGo []stage.Control) *Replay {
	r := &Replay{
		written: written, letGo: letGo, Quick: true, pieces: len(p.pieces), song: p.Song(), inputs: p.inputs, acts: len(p.acts),
		from: p.edited(written, letGo),
	}
	for _, patterns := range p.patterns() {
		tracks, quick := play.Replayed(patterns.On(p.written), patterns.On(written))
		r.tracks, r.Quick = append(r.tracks, tracks...), r.Quick && quick
	}
	groups := play.Coupled(written)
	for _, c := range letGo { // as if they had never been
		for id, group := range groups {
			if !c.Silences() && (c.Track == 0 || group == groups[c.Track] && groups[c.Track] > 0) {
				r.tracks, r.Quick = append(r.tracks, id), false
			}
		}
	}
	slices.Sort(r.tracks)
	r.tracks = slices.Compact(r.tracks)
	if len(r.tracks) > 0 && r.from.concern(r.tracks) {
		r.Quick = false
	}
	return r
}

// patterns returns stages on which every pattern plays that has played since the piece began, or is to, and nothing else
// hides what is written: what was played under a live change can have been decided before there was one.
func (p *Player) patterns() []stage.Stage {
	used := map[stage.Control][]int{}
	use := func(c stage.Control, value int) {
		if c.Name == "pattern" && !slices.Contains(used[c], value) {
			used[c] = append(used[c], value)
		}
	}
	for _, change := range p.began.InForce() {
		use(change.Control, change.Value)
	}
	for _, a := range p.acts {
		for _, change := range a.changes() {
			use(change.Control, change.Value)
		}
	}
	stages := []stage.Stage{{}}
	for c, values := range used {
		for i, value := range values {
			if i+1 >= len(stages) {
				stages = append(stages, stage.Stage{})
			}
			stages[i+1] = stages[i+1].With(c, value)
		}
	}
	return stages
}

// edited returns a player as it is after an edit, as far as it is about what is done.
func (p *Player) edited(written *score.Project, letGo []stage.Control) *Player {
	next := &Player{written: written, stage: p.stage, began: p.began, settled: p.settled, pieces: p.pieces, acts: p.acts, pending: p.pending, going: p.going, base: p.base}
	if len(letGo) > 0 {
		next.acts, next.pending = nil, 0
		for i, a := range p.acts {
			rest, left := a.without(letGo)
			if !left {
				continue
			}
			if next.acts = append(next.acts, rest); i < p.pending {
				next.pending++
			}
		}
		for _, c := range letGo {
			next.stage, next.began, next.settled = next.stage.Written(c), next.began.Written(c), next.settled.Written(c)
		}
	}
	next.playing = next.stage.On(written)
	return next
}

// unsettle has acts wait again that count for all tracks but not for some that are replayed, because they look less far ahead.
func (p *Player) unsettle(done int64) {
	if p.pending == 0 || p.acts[p.pending-1].number <= done {
		return
	}
	p.settled, p.pending = p.began, 0
	for p.acts[p.pending].number <= done {
		p.settled = p.acts[p.pending].on(p.settled)
		p.pending++
	}
}

// concern reports whether the piece began with chance going on, or something was done since that decides more about tracks
// than whether they are heard.
func (p *Player) concern(tracks []int) bool {
	if p.going != nil {
		return true
	}
	groups := play.Coupled(p.playing)
	return slices.ContainsFunc(p.acts, func(a act) bool {
		if a.silences() {
			return false
		}
		of := a.tracks(p.written)
		return of == nil || slices.ContainsFunc(tracks, func(id int) bool {
			return slices.ContainsFunc(of, func(other int) bool { return groups[id] == groups[other] })
		})
	})
}

// Run plays the tracks that must be replayed to where they are to go on.
func (r *Replay) Run() {
	if len(r.tracks) == 0 {
		return
	}
	p := r.from
	if !p.concern(r.tracks) {
		r.replayed = perform(p.playing, r.song, play.Past{Inputs: r.inputs, Only: r.tracks})
		return
	}
	r.acted, r.replayed = true, p.beginPiece(r.inputs, r.tracks)
	for _, a := range p.playedActs(p.acts, p.began) {
		r.replayed.player.Act(a)
	}
	r.replayed.skip(r.song)
}

// Edit has what was replayed play from here on, and reports whether it could: not if the song has gone on elsewhere since.
func (p *Player) Edit(r *Replay) bool {
	if len(p.pieces) != r.pieces {
		return false
	}
	next := p.edited(r.written, r.letGo)
	if r.replayed != nil {
		for _, m := range p.inputs[len(r.inputs):] {
			r.replayed.player.Hear(m)
		}
		s := p.began
		for i, a := range p.acts {
			rest, left := a.without(r.letGo)
			if !left {
				continue
			}
			if s = rest.on(s); i >= r.acts {
				r.replayed.player.Act(rest.played(next.written, s))
			}
		}
		r.replayed.skip(p.Song())
		done := r.replayed.player.Done()
		if !r.acted && r.acts > 0 { // it began after those of before
			done = max(done, p.acts[r.acts-1].number)
		}
		next.unsettle(done)
	}
	p.performance = p.performance.change(next.settled.On(r.written), next.playedActs(next.acts[next.pending:], next.settled), p.Song(), r.replayed, r.tracks)
	before, played := p.written, p.playing
	p.written, p.stage, p.began, p.settled, p.playing = next.written, next.stage, next.began, next.settled, next.playing
	p.acts, p.pending, p.played = next.acts, next.pending, playedSoFar{}
	p.missing = p.sent.Missing(p.performance.player.Standing(), nil)
	p.retempo()
	p.remeter(played, p.playing)
	p.replan(before)
	p.editCheckpoints(r.tracks, r.letGo)
	return true
}
