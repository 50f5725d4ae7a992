package log

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Player plays what a log says, as it is written. It may not be used by two goroutines at once.
type Player struct {
	written *score.Project
	stage   stage.Stage    // with all actions that were done
	playing *score.Project // written, with the stage put on it

	performance *Performance
	inputs      []midi.Message // what came in, with ticks of the song
	pieces      Pieces
	tempo       play.TempoMap
	timing      play.Timing
	followed    score.Tempo // holds in place of the project's; 0 if none does
	meters      meters
	run         score.Tick     // all before this tick of run time has been handed over
	recent      []midi.Message // note-ons of the last two whole notes, which can still be withdrawn
	withdrawn   map[midi.NoteID]bool
	sent        midi.Settings  // what instruments were told
	missing     []midi.Message // what they must be told before anything else

	base    score.Tick  // of the song, from which the piece was performed, in silence until it began
	began   stage.Stage // at that tick
	going   *play.Going // from which chance went on there; nil if it did not
	acts    []act       // since then
	settled stage.Stage // with those of them that count everywhere
	pending int         // how many of them do
	number  int64       // of the last one, also of those that an edit has let go of

	played playedSoFar // of the acts

	conductor conductor

	keeps       bool
	checkpoints []checkpoint
}

// NewPlayer returns a player at the beginning of a log, whose entries it does not look at. Ready is what plays from there,
// as its Outset has it; nil has it made.
func NewPlayer(l Log, ready *Beginning) *Player {
	if ready == nil {
		ready = l.Outset().Begin()
	}
	p := &Player{}
	p.take(ready, l.From)
	p.tempo, p.meters = shifted(p.At(0), 0, l.From), metersFrom(p.playing, 0, l.From)
	p.retempo()
	if l.From > 0 {
		p.missing = p.performance.player.Standing()
	}
	return p
}

// Run returns the tick of run time before which all has been handed over, Song that of the song.
func (p *Player) Run() score.Tick  { return p.run }
func (p *Player) Song() score.Tick { return p.run + p.later() }

// Written returns the project as it is written, Playing with the live changes put on it, Stage the live changes with all
// actions that were done.
func (p *Player) Written() *score.Project { return p.written }
func (p *Player) Playing() *score.Project { return p.playing }
func (p *Player) Stage() stage.Stage      { return p.stage }

// Pieces relate run time to the song's, Tempo and Bars are the tempos and the bars in run time, and Timing is Tempo to look times up in.
func (p *Player) Pieces() Pieces       { return p.pieces }
func (p *Player) Tempo() play.TempoMap { return p.tempo }
func (p *Player) Timing() play.Timing  { return p.timing }
func (p *Player) Bars() score.Bars     { return score.BarsOf(p.meters) }

// later is how much later in the song a tick is than in run time.
func (p *Player) later() score.Tick { return p.pieces[len(p.pieces)-1].Later() }

// Ahead returns how far ahead of what was handed over it is decided what a control would change, where a project plays.
func Ahead(p *score.Project, c stage.Control) score.Tick { return aheadOf(p, c.Tracks(p)) }

// aheadOf returns how far ahead tracks look; nil is all.
func aheadOf(p *score.Project, tracks []int) score.Tick {
	if tracks != nil && len(tracks) == 0 {
		return 0
	}
	return play.Ahead(p, tracks)
}

// Ahead returns how far ahead of what was handed over it has been decided what a control would change.
func (p *Player) Ahead(c stage.Control) score.Tick {
	return p.performance.player.Ahead(c.Tracks(p.written))
}

// NextStep returns the tick of the song of the next step that a control of a track can change; found is false if that is
// not known.
func (p *Player) NextStep(c stage.Control) (song score.Tick, found bool) {
	return p.performance.player.NextStep(c.Track)
}

// PassEnd returns the tick of the song at which the next whole pass of a control's track begins; see play.PassEnd.
func (p *Player) PassEnd(c stage.Control) (song score.Tick, found bool) {
	if c.Track == 0 {
		return 0, false
	}
	return p.performance.player.PassEnd(p.settled.On(p.written), p.playedActs(p.acts[p.pending:], p.settled), c.Track)
}

// Acted returns the tick of run time from which the last action of a control counts, since the piece began; ok is false if
// there was none.
func (p *Player) Acted(c stage.Control) (run score.Tick, ok bool) {
	for i := len(p.acts) - 1; i >= 0; i-- {
		if p.acts[i].Control == c {
			return p.runOf(p.acts[i].at), true
		}
	}
	return 0, false
}

// Advance returns the messages and the moves of lanes before a tick of run time and after all those that it gave before.
func (p *Player) Advance(to score.Tick) (messages []midi.Message, places []Place) {
	for p.run < to {
		until, silences := to, false
		if due := p.runOf(p.due()); due <= p.run {
			p.conduct()
			continue
		} else if due < until {
			until = due
		}
		for _, a := range p.acts[p.pending:] {
			if at := p.runOf(a.at); a.silences() && at > p.run && at <= until {
				until, silences = at, true
			}
		}
		song := until + p.later()
		played := midi.Merge(p.missing, p.performance.player.Advance(song, nil), nil)
		messages, p.missing = append(messages, p.handed(played)...), nil
		p.run = until
		p.update()
		if silences { // what is heard from here on may not have been told what stands
			p.missing = p.sent.Missing(p.performance.player.Standing(), nil)
		}
	}
	later := p.later()
	for _, place := range p.performance.places {
		place.Tick -= later
		places = append(places, place)
	}
	p.performance.places = nil
	p.check()
	return messages, places
}

func (p *Player) runOf(song score.Tick) score.Tick { return song - p.later() }

// handed remembers messages with ticks of the song that are handed over, and returns them with ticks of run time. The ends
// of notes that were withdrawn are not.
func (p *Player) handed(messages []midi.Message) []midi.Message {
	p.sent.Note(messages)
	kept := messages[:0]
	for _, m := range messages {
		m.Tick -= p.later()
		if m.Kind == midi.NoteOff && p.withdrawn[m.NoteID()] {
			delete(p.withdrawn, m.NoteID())
			continue
		}
		if kept = append(kept, m); m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
			p.recent = append(p.recent, m)
		}
	}
	first := slices.IndexFunc(p.recent, func(m midi.Message) bool { return m.Tick >= p.run-withdrawable })
	p.recent = slices.Delete(p.recent, 0, max(0, first))
	return kept
}

// Do does what an entry says, at the tick to which the player has advanced. It returns what is handed over at once, and
// which note-ons that were handed over are withdrawn; see Act.
func (p *Player) Do(entry Entry) (messages, withdrawn []midi.Message) {
	switch {
	case entry.Input != nil:
		p.Hear(*entry.Input)
	case entry.Action != nil:
		return nil, p.Act(*entry.Action)
	case entry.Passed != nil: // sounds whatever the tracks do
	case entry.Tempo != nil:
		p.Follow(*entry.Tempo)
	case entry.Jump != nil:
		return p.Jump(*entry.Jump, nil), nil
	default:
		replay := p.Replay(entry.Project, entry.LetGo)
		replay.Run()
		p.Edit(replay)
	}
	return nil, nil
}

// Hear lets the tracks hear a message that comes in at a tick of the song; see play.Performer.Hear.
func (p *Player) Hear(m midi.Message) (at score.Tick, counts bool) {
	m.Tick, counts = p.performance.player.Hear(m)
	if counts && len(p.inputs) < maxInputs {
		p.inputs = append(p.inputs, m)
	}
	return m.Tick, counts
}

// maxInputs bounds how many messages that came in are remembered for edits to come: as many as a note on
// every 64th at 120 bpm for nine hours. Later ones are played, but an edit forgets them.
const maxInputs = 1 << 20

// Inputs returns what came in and counts before a tick of the song.
func (p *Player) Inputs(before score.Tick) []midi.Message {
	return slices.DeleteFunc(slices.Clone(p.inputs), func(m midi.Message) bool { return m.Tick >= before })
}

// Act gives a control a value. Where it silences tracks from a tick on that is over, note-ons from there on are withdrawn
// that were handed over, which it returns.
func (p *Player) Act(a Action) (withdrawn []midi.Message) {
	if a.Control.Steers() {
		p.steer(a)
		return nil
	}
	before := p.playing
	p.do(act{Action: a, at: max(a.At, p.run) + p.later()})
	if a.Control.Silences() && a.At <= p.run {
		p.missing = p.sent.Missing(p.performance.player.Standing(), nil)
		withdrawn = p.withdraw(before, a.At)
	}
	p.retempo()
	return withdrawn
}

// Follow has a tempo hold from here on in place of the project's and of all actions; 0 has those hold again. It changes when notes come
// and nothing else: what is in milliseconds goes by the project's tempo.
func (p *Player) Follow(tempo score.Tempo) {
	p.followed = tempo
	p.retempo()
}

// Release returns the note-offs of all notes that are down.
func (p *Player) Release() []midi.Message { return p.handed(p.performance.player.Release(p.Song())) }

// Lasting returns the note-ons of the notes that are down, and are to be until a tick of run time at least, as if they began
// at another. Those that were withdrawn are not.
func (p *Player) Lasting(until, begin score.Tick) (ons []midi.Message) {
	for _, on := range p.performance.player.Lasting(until + p.later()) {
		if !p.withdrawn[on.NoteID()] {
			on.Tick = begin
			ons = append(ons, on)
		}
	}
	return ons
}

// Coming is a program that is to come, and from when on nothing sounds of its track until it does; ticks are of run time.
type Coming struct {
	midi.Message
	Rests score.Tick
}

// Programs returns the programs that come before a tick of run time if nothing is done meanwhile, in order.
func (p *Player) Programs(before score.Tick) (coming []Coming) {
	if before <= p.run {
		return nil
	}
	later := p.later()
	notes, programs, until := p.performance.player.Scout(p.settled.On(p.written), p.playedActs(p.acts[p.pending:], p.settled), before+later)
	for i, m := range programs {
		rests := until(m.Track)
		for _, n := range notes {
			if n.Track == m.Track && n.Start < m.Tick {
				rests = max(rests, n.End)
			}
		}
		for _, earlier := range programs[:i] {
			if earlier.Track == m.Track {
				rests = max(rests, earlier.Tick)
			}
		}
		m.Tick -= later
		coming = append(coming, Coming{m, max(p.run, rests-later)})
	}
	return coming
}

// At returns the project as it plays at a tick of run time by what was done until now.
func (p *Player) At(run score.Tick) *score.Project { return p.StageAt(run).On(p.written) }
