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
// velocities, even ratchets of up to eight strikes, and chords that have a name. Without a rate the one is found
// that keeps the most notes, and of those the one on whose steps they lie the closest. The error is a
// *score.FieldError.
func ToPattern(t *Take, c Choice, p *score.Project, into *score.Track, rate score.NoteValue) (WrittenPattern, error) {
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

	beyond, crowded, unnamed, foreign, outside, uneven, surplus int
}

func newStepWriter(p *score.Project, into *score.Track, rate score.NoteValue, length score.Tick) *stepWriter {
	w := &stepWriter{project: p, track: into, speller: entry.NewSpeller(p.Key, into.Transpose), rate: rate, step: rate.Ticks()}
	w.steps = int(min(score.MaxSteps, max(1, (length+w.step-1)/w.step)))
	return w
}

// lost counts the notes that are not where they were, or not at all.
func (w *stepWriter) lost() int {
	return w.beyond + w.crowded + w.unnamed + w.foreign + w.surplus
}

// cost is how little the steps say what the notes are, in ticks: a ratchet costs more than a few steps more, and
// many steps more cost more than a ratchet. The weights are a choice.
func (w *stepWriter) cost() score.Tick {
	return w.off + 600*score.Tick(w.extra) + 40*score.Tick(w.steps)
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
	taken := make([]bool, w.steps)
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
		case taken[at]:
			w.crowded += len(onsets[0])
			strikes = 1
		default:
			taken[at] = true
			w.writeStep(part, at, onsets[:strikes])
		}
		onsets = onsets[strikes:]
	}
}

// writeStep writes a step whose strikes are some onsets.
func (w *stepWriter) writeStep(part *score.Part, at int, onsets [][]midi.Note) {
	first, strikes := onsets[0], len(onsets)
	begin := score.Tick(at) * w.step
	nudge := first[0].Start - begin
	w.off += max(nudge, -nudge)
	w.extra += strikes - 1
	set := func(name score.LaneName, value int) {
		if value == w.lane(part, name).Steps[at] {
			return
		}
		lane := w.lane(part, name).Clone()
		lane.Steps[at] = value
		part.Lanes.Set(name, lane)
	}
	set(score.Gate, score.On)
	set(score.Velocity, int(first[0].Velocity))
	set(score.Ratchet, strikes)
	set(score.Nudge, int(rounded(100*nudge, w.step)))
	set(score.Length, w.length(first[0], strikes))
	if w.track.Kind == score.Melodic {
		w.writePitch(first, set)
	}
}

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
	if off := steps*w.step - length; max(off, -off) > w.step/8 {
		w.uneven++
	}
	return score.WholeStep + int(min(steps, score.MaxSteps)) - 1
}

// writePitch writes the pitch of a note, or of a chord of notes.
func (w *stepWriter) writePitch(notes []midi.Note, set func(score.LaneName, int)) {
	root := notes[0]
	for _, n := range notes {
		if n.Key < root.Key {
			root = n
		}
		if n.Detune != 0 {
			w.foreign++
		}
		if int(n.Key) < w.track.Register.Lowest || int(n.Key) > w.track.Register.Highest {
			w.outside++
		}
	}
	var keys []int
	for _, n := range notes {
		keys = append(keys, int(n.Key))
	}
	if chord, ok := w.speller.Chord(keys); ok {
		set(score.Chord, chord)
	} else {
		w.unnamed += len(notes) - 1
		root = slices.MaxFunc(notes, func(a, b midi.Note) int { return cmp.Compare(a.Key, b.Key) })
	}
	degree, alteration, exact := w.speller.Spell(int(root.Key))
	if !exact {
		w.foreign++
	}
	degree, octave := w.speller.Split(degree)
	set(score.Pitch, degree)
	set(score.Octave, octave)
	set(score.Alteration, alteration)
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
	say(w.crowded, "notes would share a step with another, are no even ratchet with it, and were left out")
	say(w.unnamed, "notes of chords that have no name were left out, but for the highest")
	say(w.foreign, "notes have no degree that sounds quite like them")
	say(w.outside, "notes are outside the register of the track and come in it by octaves")
	say(w.uneven, "notes end on a whole step, since they last longer than one")
	say(w.surplus, "notes of keys beyond the 16th were left out")
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
