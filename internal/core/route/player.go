package route

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// Player plays a project through its routes, in stretches of any size. The project must be valid and must not be
// changed. It may not be used by two goroutines at once.
type Player struct {
	performer *play.Performer
	router    *router
	keys      Keys
	at        score.Tick
	begins    bool // programs are chosen where playing begins

	notes   []play.Note   // scratch
	routed  []midi.Note   // scratch
	changes []play.Change // scratch
}

// NewPlayer returns a player whose first stretch begins at a tick. What instruments were told before then is told by
// Standing.
func NewPlayer(p *score.Project, tick score.Tick, past play.Past) *Player {
	r := &Player{router: newRouter(p), at: tick, begins: tick == 0}
	past.Passed = r.pass
	r.performer = play.NewPerformerAt(p, tick, past)
	return r
}

// pass routes notes in silence, so that those after them are where they would be.
func (r *Player) pass(notes []play.Note) {
	r.routed = r.router.notes(notes, r.routed[:0])
	r.router.tunings = r.router.tunings[:0]
}

// Advance appends to dst the messages before a tick and after all those that it gave before, in order.
func (r *Player) Advance(to score.Tick, dst []midi.Message) []midi.Message {
	r.notes = r.performer.Advance(to, r.notes[:0])
	r.changes = r.performer.Changes(r.changes[:0])
	r.routed = r.router.notes(r.notes, r.routed[:0])
	r.keys.Cut(r.performer.Cuts())
	changes := r.router.changes(r.changes)
	if r.begins {
		r.begins = false
		changes = midi.Merge(r.router.programs(0), changes, nil)
	}
	r.at = to
	return midi.Merge(r.keys.Play(r.routed, to, nil), changes, dst)
}

// Skip goes on to a tick in silence.
func (r *Player) Skip(to score.Tick) {
	if to <= r.at {
		return
	}
	r.pass(r.performer.Advance(to, nil))
	r.performer.Changes(nil)
	r.performer.Cuts()
	r.at, r.begins = to, false
}

// Hear lets the tracks hear a message that comes in; see play.Performer.Hear.
func (r *Player) Hear(m midi.Message) (at score.Tick, counts bool) { return r.performer.Hear(m) }

// Act has something count that was done; see play.Performer.Act. It may not change where tracks are routed.
func (r *Player) Act(a play.Act) { r.performer.Act(a) }

// Done returns the number up to which all acts count; see play.Performer.Done.
func (r *Player) Done() int64 { return r.performer.Done() }

// Save returns where the tracks stand; see play.Performer.Save.
func (r *Player) Save() *play.State { return r.performer.Save() }

// GoOn has chance go on from where it stood elsewhere; see play.Performer.GoOn.
func (r *Player) GoOn(g *play.Going) { r.performer.GoOn(g) }

// Ahead returns how far ahead of what is handed over the steps of tracks have been done; without any, of all tracks.
func (r *Player) Ahead(tracks []int) score.Tick { return r.performer.Ahead(tracks) }

// NextStep returns when the first step of a track comes that has not been done yet; see play.Performer.NextStep.
func (r *Player) NextStep(track int) (at score.Tick, found bool) { return r.performer.NextStep(track) }

// PassEnd returns when the next whole pass of a track begins of a project before acts that are not
// done; see play.PassEnd.
func (r *Player) PassEnd(p *score.Project, acts []play.Act, track int) (at score.Tick, found bool) {
	return play.PassEnd(p, r.performer.Save(), acts, track)
}

// ChainEnd returns when the passes of a pattern are over of a project before acts that are not done; see play.ChainEnd.
func (r *Player) ChainEnd(p *score.Project, acts []play.Act, q play.Passes) (at score.Tick, base int64, found bool) {
	return play.ChainEnd(p, r.performer.Save(), acts, q)
}

// Standing returns what the instruments need to know to go on from here, in order.
func (r *Player) Standing() []midi.Message { return r.router.standing(r.at, r.performer.Standing(nil)) }

// Lasting returns the note-ons of the notes that are down, and are to be until a tick at least.
func (r *Player) Lasting(until score.Tick) []midi.Message { return r.keys.Lasting(until) }

// Scout returns the notes and the programs that come before a tick if nothing is done meanwhile, and when the last note of each track ends
// that is down. The project is the one before the acts, which are all that are not done.
func (r *Player) Scout(p *score.Project, acts []play.Act, to score.Tick) (notes []play.Note, programs []midi.Message, until func(track uint32) score.Tick) {
	ahead := play.Resume(p, r.performer.Save(), acts, nil)
	notes = ahead.Advance(to, nil)
	for _, c := range ahead.Changes(nil) {
		if c.Kind == midi.Program {
			programs = append(programs, r.router.change(c))
		}
	}
	return notes, programs, r.keys.Until
}

// Release returns the note-offs of all notes that are down, at a tick.
func (r *Player) Release(at score.Tick) []midi.Message { return r.keys.Release(at, nil) }

// Change returns a player of another project that goes on where this one stands. The tracks that play.Replayed names are
// those of another player, which plays only those and stands at the same tick; it can be nil if there are none. The
// project is the one before the acts, which are all that are not done. Watch, if it is set, is told of all moves from there
// on. Neither of the two may be used any more.
func (r *Player) Change(p *score.Project, replayed *Player, tracks []int, acts []play.Act, watch play.Watch) *Player {
	next := &Player{router: newRouter(p), keys: r.keys, at: r.at, begins: r.begins}
	state := r.performer.Save()
	for _, track := range next.router.order {
		before := r
		if slices.Contains(tracks, track.ID) {
			before = replayed
		}
		if was := before.router.tracks[uint32(track.ID)]; was != nil && was.tuner != nil && track.tuner != nil {
			was.tuner.track = track.Track
			track.tuner = was.tuner
		}
	}
	if len(tracks) > 0 {
		state = state.With(replayed.performer.Save(), tracks)
	}
	next.performer = play.Resume(p, state, acts, watch)
	return next
}
