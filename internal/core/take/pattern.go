package take

import (
	"cmp"
	"fmt"
	"slices"

	"jettyfog/internal/core/entry"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// WrittenPattern is a pattern that plays what a take has, as closely as steps allow.
type WrittenPattern struct {
	Pattern score.Pattern
	// Remarks say what could not be kept, each a sentence without its full stop.
	Remarks []string
}

// ToPattern writes the chosen notes of a take into steps for a track of a project: their lengths, nudges and
// velocities to the tick, even ratchets of up to eight strikes, and chords, by name where that says all. Without a rate the one is found
// that keeps the most notes, and of those the one on whose steps they lie the closest. The error is a
// *score.FieldError.
func ToPattern(t *Take, c Choice, p *score.Project, into *score.Track, rate score.NoteValue) (WrittenPattern, error) {
	if into.Kind == score.FieldKind {
		return WrittenPattern{}, &score.FieldError{Field: "track", Got: into.Name, Allowed: "one with steps: a field has none into which to write"}
	}
	to := c.To
	if to == 0 {
		to = t.End
	}
	if c.From < 0 || c.From >= to {
		return WrittenPattern{}, &score.FieldError{Field: "from", Got: int(c.From), Allowed: fmt.Sprintf("0 to %d", to-1)}
	}
	notes := t.Notes()
	chosen, err := c.of(notes)
	if err != nil {
		return WrittenPattern{}, err
	}
	var written []midi.Note
	for i, n := range notes {
		if chosen[i] && n.Start >= c.From && n.Start < to {
			n.Start, n.End = n.Start-c.From, n.End-c.From
			written = append(written, n)
		}
	}
	if len(written) == 0 {
		return WrittenPattern{}, &score.FieldError{Field: "the number of notes", Got: 0, Allowed: "1 at least, so that there is something to write"}
	}
	rates := []score.NoteValue{"1/4", "1/8", "1/8t", "1/16", "1/16t", "1/32", "1/32t", "1/64"}
	if rate != "" {
		if rate.Ticks() == 0 {
			return WrittenPattern{}, &score.FieldError{Field: "rate", Got: fmt.Sprintf("%.20q", rate), Allowed: "a note value"}
		}
		rates = []score.NoteValue{rate}
	}
	var best *stepWriter
	for _, rate := range rates {
		w := newStepWriter(p, into, rate, to-c.From)
		w.write(written)
		if best == nil || cmp.Or(cmp.Compare(w.lost(), best.lost()), cmp.Compare(w.cost(), best.cost())) < 0 {
			best = w
		}
	}
	return WrittenPattern{Pattern: best.pattern(t.Name), Remarks: best.remarks()}, nil
}

// ratchets is how many strikes of a step are recognised.
const ratchets = 8

// stepWriter writes notes into steps of one rate.
type stepWriter struct {
	project *score.Project
	track   *score.Track
	speller entry.Speller
	rate    score.NoteValue
	step    score.Tick
	steps   int // how many the loop has

	parts []score.Part
	off   score.Tick // how far all notes together lie off their steps
	extra int        // how many strikes there are beside the first ones of steps

	apart score.Tick // how much later notes of steps start than the first of theirs

	beyond, crowded, foreign, outside, uneven, surplus int
}

func newStepWriter(p *score.Project, into *score.Track, rate score.NoteValue, length score.Tick) *stepWriter {
	w := &stepWriter{project: p, track: into, speller: entry.NewSpeller(p.Key, into.Transpose), rate: rate, step: rate.Ticks()}
	w.steps = int(min(score.MaxSteps, max(1, (length+w.step-1)/w.step)))
	return w
}

// lost counts the notes that are not where they were, or not at all.
func (w *stepWriter) lost() int {
	return w.beyond + w.crowded + w.foreign + w.surplus
}

// cost is how little the steps say what the notes are, in ticks: a ratchet costs more than a few steps more, many steps more cost more than a ratchet,
// and notes that share a step cost the more the later they start than the first, so that a rolled chord is one and a line is not. The weights are a choice.
func (w *stepWriter) cost() score.Tick {
	return w.off + 600*score.Tick(w.extra) + 40*score.Tick(w.steps) + w.apart/8
}

func (w *stepWriter) write(notes []midi.Note) {
	if w.track.Kind == score.Melodic {
		w.parts = []score.Part{score.NewPart("Part 1")}
		w.writePart(&w.parts[0], notes)
		return
	}
	byKey := map[uint8][]midi.Note{}
	for _, n := range notes {
		byKey[n.Key] = append(byKey[n.Key], n)
	}
	for key := range uint8(theory.HighestNote + 1) {
		if len(byKey[key]) == 0 {
			continue
		}
		if len(w.parts) == score.MaxParts {
			w.surplus += len(byKey[key])
			continue
		}
		part := score.NewKitPart(int(key))
		part.ID = len(w.parts)
		w.writePart(&part, byKey[key])
		w.parts = append(w.parts, part)
	}
}

func (w *stepWriter) writePart(part *score.Part, notes []midi.Note) {
	gate := part.Lanes.Gate
	gate.Length, gate.Rate = w.steps, w.rate
	if swing := w.track.Swing; swing > score.Straight || swing == 0 && w.project.Swing != score.Straight {
		// The notes lie where they lie; no swing is added to them.
		w.fill(part, score.Swing, 0)
	}
	notes = slices.Clone(notes)
	slices.SortStableFunc(notes, func(a, b midi.Note) int { return cmp.Or(cmp.Compare(a.Start, b.Start), cmp.Compare(a.Key, b.Key)) })
	end := score.Tick(w.steps) * w.step
	taken := make([]*filled, w.steps)
	for onsets := together(notes, w.step/(4*ratchets)); len(onsets) > 0; {
		strikes := w.ratchet(onsets)
		first := onsets[0][0].Start
		at := int((first + w.step/2) / w.step)
		if at == w.steps && first < end {
			// Just before the loop begins anew: an early first step.
			for _, onset := range onsets[:strikes] {
				for i := range onset {
					onset[i].Start, onset[i].End = onset[i].Start-end, onset[i].End-end
				}
			}
			at = 0
		}
		switch {
		case at >= w.steps:
			w.beyond += len(onsets[0])
			strikes = 1
		case taken[at] != nil:
			strikes = 1
			w.join(taken[at], onsets[0])
		default:
			taken[at] = &filled{notes: onsets[0], strikes: strikes}
		}
		onsets = onsets[strikes:]
	}
	for at, step := range taken {
		if step != nil {
			w.writeStep(part, at, step)
		}
	}
}

// filled is what a step has to play: the notes of its first strike, some of which can start later by themselves, and how many strikes there are.
type filled struct {
	notes   []midi.Note
	strikes int
}

// join adds notes to a step in which others start, as when the fingers of a chord do not fall together. Those whose key the step has already are left out, as are
// those beside a ratchet, and those of a kit, whose parts have one key each.
func (w *stepWriter) join(step *filled, notes []midi.Note) {
	for _, n := range notes {
		has := slices.ContainsFunc(step.notes, func(other midi.Note) bool { return other.Key == n.Key })
		if w.track.Kind == score.Kit || has || step.strikes > 1 {
			w.crowded++
			continue
		}
		w.apart += n.Start - step.notes[0].Start
		step.notes = append(slices.Clip(step.notes), n)
	}
}

// writeStep writes a step.
func (w *stepWriter) writeStep(part *score.Part, at int, step *filled) {
	first := step.notes[0]
	begin := score.Tick(at) * w.step
	nudge := first.Start - begin
	w.off += max(nudge, -nudge)
	w.extra += step.strikes - 1
	set := func(name score.LaneName, value int) {
		if value == w.lane(part, name).Steps[at] {
			return
		}
		lane := w.lane(part, name).Clone()
		lane.Steps[at] = value
		part.Lanes.Set(name, lane)
	}
	if extra := len(step.notes) - score.MaxStepNotes; extra > 0 {
		w.surplus += extra
		step.notes = step.notes[:score.MaxStepNotes]
	}
	velocity := uint8(0)
	for _, n := range step.notes {
		velocity = max(velocity, n.Velocity)
	}
	percent, length := rounded(100*nudge, w.step), w.length(first, step.strikes)
	set(score.Gate, score.On)
	set(score.Velocity, int(velocity))
	set(score.Ratchet, step.strikes)
	set(score.Nudge, int(percent))
	set(score.Length, length)
	if w.track.Kind == score.Melodic {
		written := w.pitches(step, int(velocity), w.usual(begin, percent, length))
		set(score.Pitch, written.Pitch)
		set(score.Octave, written.Octave)
		set(score.Alteration, written.Alteration)
		set(score.Chord, written.Chord)
		if len(written.Notes) > 0 {
			if part.Lanes.Pitch.Own == nil {
				part.Lanes.Pitch.Own = map[int]score.StepOwn{}
			}
			part.Lanes.Pitch.Own[at] = score.StepOwn{Notes: written.Notes}
		}
	} else if length > score.WholeStep && first.End-first.Start != w.usual(begin, percent, length).lasts {
		w.uneven++
	}
}

// span is when a note starts and how long it lasts.
type span struct{ start, lasts score.Tick }

// usual returns when a note sounds by the lanes alone, of a step that begins at a tick, with a nudge in percent and a value of the length lane.
func (w *stepWriter) usual(begin, nudge score.Tick, length int) span {
	lasts := score.Tick(length) // in hundredths of a step
	if length > score.WholeStep {
		lasts = 100 * score.Tick(length-score.WholeStep+1)
	}
	start := 100*begin + nudge*w.step
	return span{floorOf100(start), floorOf100(start+lasts*w.step) - floorOf100(start)}
}

// floorOf100 returns a hundredth of a number, rounded down.
func floorOf100(number score.Tick) score.Tick { return (number - ((number%100)+100)%100) / 100 }

// lane returns a lane of a part, which must not be changed.
func (w *stepWriter) lane(part *score.Part, name score.LaneName) *score.Lane {
	return part.Lanes.Lane(name)
}

func (w *stepWriter) fill(part *score.Part, name score.LaneName, value int) {
	lane := part.Lanes.Lane(name).Clone()
	for i := range lane.Steps {
		lane.Steps[i] = value
	}
	part.Lanes.Set(name, lane)
}

// together groups notes that start within so many ticks of the first of a group.
func together(notes []midi.Note, within score.Tick) (groups [][]midi.Note) {
	for _, n := range notes {
		if last := len(groups) - 1; last >= 0 && n.Start-groups[last][0].Start <= within {
			groups[last] = append(groups[last], n)
			continue
		}
		groups = append(groups, []midi.Note{n})
	}
	return groups
}

// ratchet returns how many of the first onsets are the even strikes of one step, the most there can be; 1 where
// they are none.
func (w *stepWriter) ratchet(onsets [][]midi.Note) int {
	for strikes := min(ratchets, len(onsets)); strikes > 1; strikes-- {
		if w.even(onsets[:strikes]) {
			return strikes
		}
	}
	return 1
}

// even reports whether onsets are alike and divide a step evenly.
func (w *stepWriter) even(onsets [][]midi.Note) bool {
	first, strikes := onsets[0], score.Tick(len(onsets))
	for i, onset := range onsets {
		late := onset[0].Start - first[0].Start - w.step*score.Tick(i)/strikes
		if max(late, -late) > w.step/(8*strikes) || len(onset) != len(first) || onset[0].Key != first[0].Key {
			return false
		}
	}
	return true
}

// length returns the value of the length lane for the first strike of a step; the last one can have been cut
// short by the next step.
func (w *stepWriter) length(n midi.Note, strikes int) int {
	room := w.step / score.Tick(strikes)
	length := n.End - n.Start
	if percent := rounded(100*length, room); percent <= score.WholeStep {
		return int(max(1, percent))
	}
	steps := max(2, rounded(length, w.step))
	return score.WholeStep + int(min(steps, score.MaxSteps)) - 1
}

// pitches spells the notes of a step, which sound so by its lanes alone; what is missing to the tick each of them has by itself. In a ratchet all sound as
// long as the lanes have it.
func (w *stepWriter) pitches(step *filled, velocity int, usual span) entry.Written {
	var struck []entry.Struck
	for _, n := range step.notes {
		if n.Detune != 0 {
			w.foreign++
		}
		if int(n.Key) < w.track.Register.Lowest || int(n.Key) > w.track.Register.Highest {
			w.outside++
		}
		s := entry.Struck{Key: int(n.Key), Velocity: int(n.Velocity), Late: n.Start - usual.start, Length: n.End - n.Start}
		if s.Length == usual.lasts || step.strikes > 1 {
			s.Length = 0
		}
		struck = append(struck, s)
	}
	written := w.speller.Write(struck, velocity)
	w.foreign += written.Off
	return written
}

func (w *stepWriter) pattern(name string) score.Pattern {
	return score.Pattern{Name: cmp.Or(score.CleanName(name), "Taken"), Parts: w.parts}
}

func (w *stepWriter) remarks() []string {
	remarks := []string{fmt.Sprintf("It has %s of %s", score.Counted(w.steps, "step"), w.rate)}
	say := func(count int, what string) {
		if count > 0 {
			remarks = append(remarks, fmt.Sprintf("%d %s", count, what))
		}
	}
	say(w.beyond, "notes came after the 64th step and were left out")
	say(w.crowded, "notes would share a step with another of their key, are no even ratchet with it, and were left out")
	say(w.foreign, "notes have no degree that sounds quite like them")
	say(w.outside, "notes are outside the register of the track and come in it by octaves")
	say(w.uneven, "notes end on a whole step, since they last longer than one")
	say(w.surplus, "notes beyond the 8th of a step, or of keys beyond the 16th of a kit, were left out")
	if w.track.Speed.N != w.track.Speed.M || w.track.Delay != 0 || w.track.Jitter != 0 || len(w.track.Shifts) > 0 {
		remarks = append(remarks, "The track's own speed, delay and jitter come on top")
	}
	return remarks
}

// rounded returns a/b to the nearest whole number; b is above 0.
func rounded(a, b score.Tick) score.Tick {
	if a < 0 {
		return -rounded(-a, b)
	}
	return (2*a + b) / (2 * b)
}
