package take

import (
	"maps"
	"slices"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
)

// LastBars returns from where to where the last whole bars of a recording last that ends at a tick: so many of
// them, or all from the beginning if there are fewer; if there is no whole bar, what there is of the first.
func LastBars(end, bar score.Tick, bars int) (from, to score.Tick) {
	if end < bar {
		return 0, end
	}
	to = end / bar * bar
	return max(0, to-score.Tick(bars)*bar), to
}

// Cut returns what is in [from, to) of a take as a take of its own. What instruments were told before, and was
// still in force, is told at its beginning; notes that began before are left out, and those that go on end with
// it.
func Cut(t *Take, from, to score.Tick) *Take {
	cut := *t
	cut.Messages, cut.Tempo, cut.Tracks = nil, nil, append([]Track(nil), t.Tracks...)
	for _, change := range t.Tempo.From(from) {
		change.Tick -= from
		cut.Tempo = append(cut.Tempo, change)
	}
	told := map[setting]play.Message{}
	for _, m := range t.Messages {
		switch {
		case m.Tick < from && (m.Kind == play.NoteOn || m.Kind == play.NoteOff):
		case m.Tick < from:
			m.Tick = 0
			told[settingOf(m)] = m
		case m.Tick < to || m.Tick == to && m.Kind == play.NoteOff:
			m.Tick -= from
			cut.Messages = append(cut.Messages, m)
		}
	}
	before := slices.SortedFunc(maps.Values(told), play.CompareMessages)
	cut.Messages = append(before, cut.Messages...)
	cut.Finish(to - from)
	return &cut
}

// setting is something of an instrument that holds until it is told otherwise.
type setting struct {
	kind    play.Kind
	channel uint8
	number  uint8 // of a controller, or of a key that is tuned
}

func settingOf(m play.Message) setting {
	of := setting{kind: m.Kind, channel: m.Channel}
	if m.Kind != play.Program {
		of.number = m.Key
	}
	return of
}
