package score

import "fmt"

// MaxEventsPerSecond is how many events a second a project may play by its own estimate, see EventsPerSecond. It was
// measured: a machine of two cores played as many live, journaled them, and sent them to a page with time to spare; a
// MIDI port of 31,250 baud carries about a thousand (MIDI 1.0).
const MaxEventsPerSecond = 10_000

// inputSteps is how many steps a second a track is taken to make that goes on by what comes in.
const inputSteps = 20

// heldNotes is how many notes a chord is taken to have that is held or that another track plays.
const heldNotes = 4

// EventsPerSecond estimates how many events a second a project plays: notes, each of which is two, and controllers,
// on average over the loops, at its fastest tempo, if every probability and condition lets them sound, and with the
// busiest pattern of each track. Where chance draws values the highest count.
func EventsPerSecond(p *Project) int {
	d := densities{project: p, quarters: float64(p.Tempo) / 60_000, strikes: map[int]float64{}}
	for _, change := range p.TempoChanges {
		d.quarters = max(d.quarters, float64(change.Tempo)/60_000)
	}
	sum := 0.0
	for i := range p.Tracks {
		sum += d.track(&p.Tracks[i])
	}
	return int(sum)
}

// CheckDensity refuses a project that is denser than can be played, unless it is no denser than the one before it. The
// error is a *FieldError.
func CheckDensity(before, after *Project) error {
	now := EventsPerSecond(after)
	if now <= MaxEventsPerSecond || now <= EventsPerSecond(before) {
		return nil
	}
	return &FieldError{
		Field: "the number of events a second that the project plays", Got: fmt.Sprintf("about %d", now),
		Allowed: fmt.Sprintf("at most %d, so that it can be played live: use fewer ratchets, longer steps or a lower tempo", MaxEventsPerSecond),
	}
}

// densities estimates tracks that hear each other.
type densities struct {
	project  *Project
	quarters float64         // a second
	strikes  map[int]float64 // a second, by the id of a track
}

func (d *densities) track(t *Track) (events float64) {
	for i := range t.Patterns {
		sum := 0.0
		for part := range t.Patterns[i].Parts {
			sum += d.part(t, &t.Patterns[i].Parts[part])
		}
		events = max(events, sum)
	}
	if t.Loop != nil {
		perQuarter := 2 * float64(len(t.Loop.Notes)) * float64(TicksPerQuarter) / float64(t.Loop.Length)
		events = max(events, d.quarters*perQuarter)
	}
	return events + d.curves(t)
}

// curves returns how many values of modulators a track sends in a second.
func (d *densities) curves(t *Track) float64 {
	sends := 0
	for i := range d.project.Modulators {
		for _, send := range d.project.Modulators[i].Sends {
			if send.Track == t.ID {
				sends++
			}
		}
	}
	return float64(min(sends, MaxTrackSends)) * glideSteps * d.quarters
}

func (d *densities) part(t *Track, part *Part) float64 {
	steps, strikes, notes := d.hits(t, part)
	perNote := 2.0
	if t.Retunes() {
		perNote++
	}
	events := perNote * notes
	for i, mod := range part.Mods {
		events += d.mod(t, part, ModLanes()[i], mod, steps, strikes)
	}
	if part.Lanes.Has(Slide) {
		events += 2 * steps
	}
	return events
}

// hits returns how many steps, strikes and notes a second a part makes.
func (d *densities) hits(t *Track, part *Part) (steps, strikes, notes float64) {
	count, length, struck, played := d.loop(t, part)
	if count == 0 {
		return 0, 0, 0
	}
	if part.Field != nil {
		return d.hitsOfField(t, part.Field, struck/count, played/count)
	}
	lengths := d.stepLengths(t, part) / length // loops a second
	return count * lengths, struck * lengths, played * lengths
}

// loop returns how many steps, step lengths, strikes and notes a loop of a part's gate has.
func (d *densities) loop(t *Track, part *Part) (count, length, struck, played float64) {
	gate := part.GateLane()
	for _, step := range steppedOn(gate) {
		detail := part.Details[step]
		if detail.Skip {
			continue
		}
		count++
		stretch := float64(max(1, detail.Stretch))
		length += stretch
		if gate.Steps[step] != On && d.project.FillOf(part) == 0 && !gate.drawn() {
			continue
		}
		hits := ratchets(part, step)
		for i, length := range detail.Struck() {
			if i > 0 && length == On {
				hits += ratchets(part, step)
			}
		}
		struck += hits
		played += hits * d.chordNotes(t, part, step)
	}
	return count, length, struck, played
}

// stepLengths returns how many step lengths of a part there are in a second.
func (d *densities) stepLengths(t *Track, part *Part) float64 {
	switch {
	case t.Source.FollowsTrack():
		return d.strikesOf(t.Source.Track)
	case t.Source.Kind != OwnClock:
		return inputSteps
	}
	rate := part.Lanes.Lane(Gate).Rate.Ticks()
	for _, drawn := range part.Durations {
		if drawn.Weight > 0 {
			rate = min(rate, drawn.Value.Ticks())
		}
	}
	return d.perSecond(t, rate)
}

// perSecond returns how many steps of a rate a track makes in a second.
func (d *densities) perSecond(t *Track, rate Tick) float64 {
	return d.quarters * float64(TicksPerQuarter) / float64(rate) * float64(t.Speed.N) / float64(t.Speed.M)
}

// strikesOf returns how many strikes a second a track makes, by which others go on.
func (d *densities) strikesOf(id int) float64 {
	if known, ok := d.strikes[id]; ok {
		return known
	}
	t := d.project.Track(id)
	most := 0.0
	for i := range t.Patterns {
		sum := 0.0
		for part := range t.Patterns[i].Parts {
			_, strikes, _ := d.hits(t, &t.Patterns[i].Parts[part])
			sum += strikes
		}
		most = max(most, sum)
	}
	d.strikes[id] = most
	return most
}

// glideSteps is how often a quarter note a controller is sent at most while it glides, and where a modulator is sent.
const glideSteps = 24

func (d *densities) mod(t *Track, part *Part, name LaneName, mod Mod, steps, strikes float64) float64 {
	if mod.Glide > 0 {
		return glideSteps * d.quarters
	}
	lane := part.Lanes.Lane(name)
	switch {
	case lane.Linked || lane.Moves == ByStep:
		return steps
	case lane.Moves == ByClock:
		return d.perSecond(t, lane.Rate.Ticks())
	}
	return strikes
}

// steppedOn lists the steps of a lane's loop, each as often as it comes.
func steppedOn(lane *Lane) []int {
	if lane.Order != Path || len(lane.Path) == 0 {
		return lane.LoopSteps()
	}
	steps := make([]int, len(lane.Path))
	for i, step := range lane.Path {
		steps[i] = lane.StepAt(step % lane.Length)
	}
	return steps
}

// drawn reports whether chance draws values of the lane.
func (l *Lane) drawn() bool {
	for _, own := range l.Own {
		if own.Varies() {
			return true
		}
	}
	return len(l.Weights) > 0 || l.Evolve != nil || l.Spread.varies()
}

// ratchets returns how many strikes a step of the gate lane has.
func ratchets(part *Part, step int) float64 {
	if own := part.Details[step].Ratchet; own != nil && own.CountsTotal() > 0 {
		hits := 0
		for i, weight := range own.Counts {
			hits += (i + 1) * weight
		}
		return float64(hits) / float64(own.CountsTotal())
	}
	return average(part, Ratchet, step, func(value int) float64 { return float64(value) })
}

// chordNotes returns how many notes are struck together at a step of the gate lane.
func (d *densities) chordNotes(t *Track, part *Part, step int) float64 {
	if t.Pitches.AtOnce() {
		return d.soundsAtOnce(t.Pitches)
	}
	named := average(part, Chord, step, func(value int) float64 {
		return float64(max(1, len(chords[value].Degrees)+len(chords[value].Semitones)))
	})
	pitch := part.Lanes.Lane(Pitch)
	if pitch.Linked {
		return max(named, float64(len(pitch.Own[step].Notes)))
	}
	most := 0
	for _, own := range pitch.Own {
		most = max(most, len(own.Notes))
	}
	return max(named, float64(most))
}

// soundsAtOnce returns how many notes a chord has that is struck all at once.
func (d *densities) soundsAtOnce(s *PitchSource) float64 {
	notes := heldNotes
	if m := d.project.ChordMap(s.Map); s.Kind == MapPitches && m != nil {
		notes = 0
		for _, chord := range m.Chords {
			notes = max(notes, len(chord.Keys))
		}
	}
	return float64(notes * max(1, s.Octaves))
}

// average returns what a lane gives at a step of the gate lane: of a linked lane its value there, of one with a loop
// of its own the mean of the loop, and of one from which chance draws the most that there can be.
func average(part *Part, name LaneName, step int, of func(value int) float64) (result float64) {
	lane := part.Lanes.Lane(name)
	if lane.drawn() {
		spec := name.Spec()
		for value := spec.Least; value <= spec.Most; value++ {
			result = max(result, of(value))
		}
		return result
	}
	if lane.Linked {
		return of(lane.Steps[step])
	}
	steps := steppedOn(lane)
	for _, own := range steps {
		result += of(lane.Steps[own])
	}
	return result / float64(len(steps))
}
