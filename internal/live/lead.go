package live

import (
	"slices"
	"time"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// scoutEvery is how often what is to come is looked at for programs, if nothing is done meanwhile.
const scoutEvery = 100 * time.Millisecond

// leading is what is known of programs that are sent before they are due.
type leading struct {
	scouted int64 // when it was looked last; 0 has it looked at once
	planned []early
	sent    []early // that are not due yet
}

// early is a program that is sent at a time by a route.
type early struct {
	log.Coming
	route score.Route
	at    int64
}

// lead sends programs that mod lanes play as long before they are due as their routes ask for, though not while anything of their track
// sounds. What is to come is foreseen as it comes if nothing is done; where something was, and another program comes or none, the
// one that is in force is sent again.
func (t *Transport) lead(now int64) {
	longest := longestLead(t.project)
	if longest == 0 && len(t.leading.sent) == 0 {
		return
	}
	wrong := map[uint32]bool{}
	if l := &t.leading; l.scouted == 0 || now >= l.scouted+int64(scoutEvery) {
		l.scouted = now
		coming := t.foresee(now, longest)
		for _, e := range l.sent {
			if e.Tick >= t.player.Run() && !slices.ContainsFunc(coming, func(c log.Coming) bool { return c.Message == e.Message }) {
				wrong[e.Track] = true
			}
		}
	}
	t.leading.sent = slices.DeleteFunc(t.leading.sent, func(e early) bool { return wrong[e.Track] || e.Tick < t.player.Run() })
	if len(wrong) > 0 {
		inForce := slices.DeleteFunc(t.programsInForce(), func(m midi.Message) bool { return !wrong[m.Track] })
		t.goOut(t.toOutputs(t.outlets.Play(inForce, nil)))
	}
	t.leading.planned = slices.DeleteFunc(t.leading.planned, func(e early) bool {
		if e.at > now+int64(t.ahead()) {
			return false
		}
		events := t.toOutputs(t.outlets.Early(e.Message, e.route, nil))
		for i := range events {
			events[i].At = max(e.at, now) + t.spacing.offset(e.route.Output)
		}
		if len(events) > 0 {
			t.leading.sent = append(t.leading.sent, e)
		}
		t.goOut(events)
		return true
	})
}

// foresee says when programs are sent that are due within the longest lead, and returns them.
func (t *Transport) foresee(now int64, longest time.Duration) []log.Coming {
	before := t.tickAt(now+int64(t.ahead())+int64(longest)+2*int64(scoutEvery)) + 1
	if next, ok := t.nextSeam(); ok {
		before = min(before, next.run)
	}
	t.leading.planned = nil
	coming := t.player.Programs(before)
	for _, c := range coming {
		for _, r := range t.outlets.Routes(c.Track) {
			if at := max(t.timeOf(c.Tick)-int64(leadOf(r)), t.timeOf(c.Rests)); leadOf(r) > 0 && at < t.timeOf(c.Tick) {
				t.leading.planned = append(t.leading.planned, early{c, r, at})
			}
		}
	}
	return coming
}

// longestLead returns the longest lead of routes of tracks that have a mod lane of programs.
func longestLead(p *score.Project) (longest time.Duration) {
	for i := range p.Tracks {
		track := &p.Tracks[i]
		for _, r := range track.RouteList() {
			if lead := leadOf(r); lead > longest && track.PlaysPrograms() {
				longest = lead
			}
		}
	}
	return longest
}

// leadOf returns how long before they are due a route sends the programs of mod lanes.
func leadOf(r score.Route) time.Duration {
	if r.Program > 0 {
		return 0
	}
	return time.Duration(r.Lead) * time.Millisecond
}

// programsInForce returns the programs that tracks have by what was handed over.
func (t *Transport) programsInForce() (programs []midi.Message) {
	var standing midi.Settings
	tick := t.player.Run()
	standing.Note(t.standing.Standing(tick))
	for _, event := range t.waiting {
		standing.Set(event.Message)
	}
	for _, m := range standing.Standing(tick) {
		if m.Kind == midi.Program {
			programs = append(programs, m)
		}
	}
	return programs
}
