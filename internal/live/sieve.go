package live

import (
	"strings"
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// lateBy is how late a note may begin. After a stall those that are later are left out, so that what was missed does
// not come all at once.
const lateBy = 200 * time.Millisecond

// A tenth of a second has room for twice as much as a project may play on average, so that only what cannot be played
// is left out.
const (
	tenth       = 100 * time.Millisecond
	mostInTenth = 2 * score.MaxEventsPerSecond / 10
)

// Omission is what was not played because it came too late, or because too much came at once.
type Omission struct {
	// Late and Crowded count notes.
	Late, Crowded int
	// Tick is that of the first.
	Tick score.Tick
}

// String says it in a few words.
func (o Omission) String() string {
	var parts []string
	if o.Late > 0 {
		parts = append(parts, score.Counted(o.Late, "note")+" too late to be heard")
	}
	if o.Crowded > 0 {
		parts = append(parts, score.Counted(o.Crowded, "note")+" too many at once to be heard")
	}
	return strings.Join(parts, ", ")
}

// sieve leaves out what cannot be played any more, or not all at once: whole notes, never just their ends. Of
// controllers that come too late or too thick the last of each is played, so that instruments stand where they should.
type sieve struct {
	out     midi.Sounding[struct{}] // notes that were left out and have not ended
	at      int64                   // which tenth of a second is being filled
	filled  int
	omitted Omission // since it was told last
}

// pass returns what is to go out of sounds that are ordered by time, at a moment.
func (s *sieve) pass(sounds []output.Event, now int64) []output.Event {
	kept := make([]output.Event, 0, len(sounds))
	var held midi.Settings // controllers that wait for later ones
	release := func(tick score.Tick, at int64) {
		for _, m := range held.Standing(tick) {
			kept = append(kept, output.Event{Message: m, At: at})
		}
		held = midi.Settings{}
	}
	for _, sound := range sounds {
		if sound.Kind == midi.NoteOff {
			if _, out := s.out.End(sound.NoteID()); !out {
				kept = append(kept, sound)
			}
			continue
		}
		late := sound.At < now-int64(lateBy)
		passes := !late && s.fits(sound.At)
		switch {
		case sound.Kind == midi.NoteOn && !passes:
			s.omit(sound.Tick, late)
			s.out.Begin(sound.NoteID(), struct{}{})
		case passes:
			release(sound.Tick, sound.At)
			kept = append(kept, sound)
		default:
			held.Set(sound.Message)
		}
	}
	if len(sounds) > 0 {
		last := sounds[len(sounds)-1]
		release(last.Tick, last.At)
	}
	return kept
}

// fits counts something that is to go out at a time, if there is room for it.
func (s *sieve) fits(at int64) bool {
	if now := at / int64(tenth); now != s.at {
		s.at, s.filled = now, 0
	}
	if s.filled == mostInTenth {
		return false
	}
	s.filled++
	return true
}

func (s *sieve) omit(tick score.Tick, late bool) {
	if s.omitted == (Omission{}) {
		s.omitted.Tick = tick
	}
	if late {
		s.omitted.Late++
	} else {
		s.omitted.Crowded++
	}
}

// takeOmission returns what was left out since it was asked last.
func (s *sieve) takeOmission() Omission {
	omitted := s.omitted
	s.omitted = Omission{}
	return omitted
}
