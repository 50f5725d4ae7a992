package take

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// Stretch is a piece of the journal of everything that was played, from a start of playing to its stop.
type Stretch struct {
	// ID names the stretch; Before and After are those next to it, 0 if there is none.
	ID, Before, After int64
	// From and To bound the piece, in ticks since playing began.
	From, To score.Tick
	// Bar is the bar of From, from 0.
	Bar int64
	// Revision is that of the project at From.
	Revision int64
	// Take is the piece, without a name.
	Take *Take
}

// LastBars returns from where to where the last whole bars of a recording last that ends at a tick: so many of
// them, or all from the beginning if there are fewer; if there is no whole bar, what there is of the first.
func LastBars(end score.Tick, bars score.Bars, count int) (from, to score.Tick) {
	last := bars.At(end)
	if last == 0 {
		return 0, end
	}
	return bars.Start(max(0, last-int64(count))), bars.Start(last)
}

// delay has all that a take holds come later, but the tempo of its beginning.
func (t *Take) delay(by score.Tick) {
	for i := range t.Messages {
		t.Messages[i].Tick += by
	}
	for i := range t.Markers {
		t.Markers[i].Tick += by
	}
	for i := range t.Meters {
		t.Meters[i].Tick += by
	}
	for i := range t.Tempo {
		if t.Tempo[i].Tick > 0 {
			t.Tempo[i].Tick += by
		}
	}
	t.End += by
}

// Cut returns what is in [from, to) of a take as a take of its own. What instruments were told before, and was
// still in force, is told at its beginning; notes that began before are left out, and those that go on end with
// it.
func Cut(t *Take, from, to score.Tick) *Take {
	cut := *t
	cut.SetMeters(t.Bars(), from)
	cut.Messages, cut.Tempo, cut.Markers, cut.Tracks = nil, nil, nil, append([]Track(nil), t.Tracks...)
	for _, marker := range t.Markers {
		if marker.Tick >= from && marker.Tick < to {
			marker.Tick -= from
			cut.Markers = append(cut.Markers, marker)
		}
	}
	for _, change := range t.Tempo.From(from) {
		change.Tick -= from
		cut.Tempo = append(cut.Tempo, change)
	}
	var told midi.Settings
	for _, m := range t.Messages {
		switch {
		case m.Tick < from:
			told.Note([]midi.Message{m})
		case m.Tick < to || m.Tick == to && m.Kind == midi.NoteOff:
			m.Tick -= from
			cut.Messages = append(cut.Messages, m)
		}
	}
	cut.Messages = append(told.Standing(0), cut.Messages...)
	cut.Finish(to - from)
	return &cut
}
