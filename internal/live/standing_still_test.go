package live

import (
	"slices"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/memory"
)

// Where the program itself stands still, what the machine has sent meanwhile comes late and together: the clock is not lost, and playing goes on
// with it. Once it was stopped by hand, it does not begin by that with a clock of notes either, whose first note after a silence is its start.
func TestAClockIsNotLostByStandingStill(t *testing.T) {
	for _, from := range []score.ClockFrom{score.MIDIClock, score.NotePulse} {
		for _, stands := range []time.Duration{300 * time.Millisecond, 700 * time.Millisecond, 3 * time.Second} {
			for _, looksFirst := range []bool{false, true} {
				synctest.Test(t, func(t *testing.T) { stillStands(t, from, stands, looksFirst) })
			}
		}
	}
}

// stillStands has nothing done for a while, before what came is taken, or before it is looked whether anything came. Beats are later than their
// pulses by more than the program stands still at least.
func stillStands(t *testing.T, from score.ClockFrom, stands time.Duration, looksFirst bool) {
	const offset = 150
	p := following(score.ClockIn{From: from, PerQuarter: 24, Number: 60, Offset: offset})
	s := &rig{Transport: New(p, Options{}, NewRecorder(memory.New(p), Reports{}), NewRecorder(memory.New(p), Reports{}))}
	o := s.other(120)
	if o.pulse = (midi.Message{Kind: midi.NoteOn, Key: 60, Velocity: 90}); from == score.MIDIClock {
		o.pulse = midi.Message{Kind: midi.Clock}
		o.start(midi.Message{Kind: midi.Start})
	}
	beats := func(count int) {
		for range 24 * count {
			o.pulses(1)
			s.Transport.pulse()
		}
	}
	standStill := func() {
		time.Sleep(stands)
		if looksFirst {
			s.Transport.pulse()
		}
		o.pulses(1 + int(time.Since(o.due)/o.period))
		s.Transport.pulse()
	}
	beats(8)
	standStill()
	require.Equal(t, ClockLeads, s.Status().Clock.State, "%v", stands)
	before := len(o.came)
	beats(8)
	require.Equal(t, ClockLeads, s.Status().Clock.State, "%v", stands)
	late := o.late(before + 24)
	require.InDelta(t, offset, slices.Min(late), 1, "%v", stands)
	require.InDelta(t, offset, slices.Max(late), 1, "%v", stands)
	s.Stop()
	standStill()
	beats(1)
	require.False(t, s.Status().Playing, "%v", stands)
	for range 100 { // a silence of the machine
		time.Sleep(10 * time.Millisecond)
		s.Transport.pulse()
	}
	o.due = time.Now()
	beats(8)
	require.Equal(t, from == score.NotePulse, s.Status().Playing)
	if from != score.NotePulse {
		return
	}
	time.Sleep(time.Second) // in which the machine falls silent too
	s.Transport.pulse()
	require.True(t, s.Status().Playing, "what came meanwhile is still to be taken")
	for range 11 {
		time.Sleep(10 * time.Millisecond)
		s.Transport.pulse()
	}
	require.False(t, s.Status().Playing, "nothing came")
}
