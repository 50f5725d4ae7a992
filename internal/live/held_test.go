package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// arpeggiating is a project with a track of 16ths that arpeggiates what is held at input 7.
func arpeggiating(latched bool) *score.Project {
	p := testkit.Buoy()
	p.Inputs = []score.Input{{ID: 7, Name: "Winch", Kind: score.DeviceInput, PlaysIn: true}}
	track := &p.Tracks[0]
	track.Register = theory.Register{Lowest: 0, Highest: 127}
	track.Pitches = &score.PitchSource{Kind: score.HeldPitches, Highest: 127, Order: score.Up, Latched: latched}
	part := &track.Parts()[0]
	gate := *part.Lanes.Gate
	gate.First, gate.Length, gate.Steps = 0, 16, make([]int, score.MaxSteps)
	for i := range gate.Steps {
		gate.Steps[i] = score.On
	}
	part.Lanes.Gate, part.Lanes.Probability = &gate, nil
	part.Details = nil
	return p
}

// keys returns which keys were struck in a stretch of the clock.
func (s *rig) keys(from, to score.Tick) map[int]bool {
	keys := map[int]bool{}
	for _, m := range s.listener.messages() {
		if m.Kind == midi.NoteOn && m.Tick >= from && m.Tick < to {
			keys[int(m.Key)%12] = true
		}
	}
	return keys
}

// A chord that is held already as playing begins is arpeggiated from the first step on, over the seam of a loop too, and ends where its input is unplugged.
func TestAHeldChordIsArpeggiated(t *testing.T) {
	p := arpeggiating(false)
	onStage(t, p, func(t *testing.T, s *rig) {
		bar := p.Meter.Bar()
		for _, key := range []uint8{60, 64, 67} {
			s.in(t, struck(0, key))
		}
		require.NoError(t, s.SetLoop(Range{From: 0, To: bar}))
		s.Play()
		long := time.Duration(play.TempoMapOf(p).Nanos(bar))
		pass(long / 2)
		s.in(t, released(0, 60))
		s.in(t, struck(0, 62))
		pass(3 * long)
		s.Gone(winch)
		edge := s.edge()
		pass(2 * long)
		require.Equal(t, map[int]bool{0: true, 4: true, 7: true}, s.keys(0, bar/2-1))
		require.Equal(t, map[int]bool{2: true, 4: true, 7: true}, s.keys(bar, 3*bar), "beyond the seams")
		require.Empty(t, s.keys(edge+bar/4, 10*bar), "what an input held is released when it is gone")
		s.Stop()
		s.allEnd(t)
		s.asLogged(t)
	})
}

// A chord that was latched is there again when playing begins anew.
func TestALatchedChordStays(t *testing.T) {
	p := arpeggiating(true)
	onStage(t, p, func(t *testing.T, s *rig) {
		for _, key := range []uint8{60, 65} {
			s.in(t, struck(0, key))
		}
		s.in(t, released(0, 60))
		s.in(t, released(0, 65))
		s.Play()
		pass(3 * time.Second)
		require.Equal(t, map[int]bool{0: true, 5: true}, s.keys(0, p.Meter.Bar()))
		s.Stop()
		s.asLogged(t)
	})
}

// What is held over the seam of a loop is not struck there again: a track that goes on by notes that come in goes on by those that were pressed alone.
func TestHeldKeysAreNotStruckAgain(t *testing.T) {
	p := arpeggiating(false)
	steps := p.Tracks[0].Clone()
	steps.ID, steps.Name, steps.Channel, steps.Pitches = 2, "Steps", 2, nil
	steps.Source = score.Source{Kind: score.InputNotes, Highest: 127, Odds: 100}
	p.Tracks = append(p.Tracks, steps)
	onStage(t, p, func(t *testing.T, s *rig) {
		require.NoError(t, s.SetLoop(Range{From: 0, To: p.Meter.Bar()}))
		s.Play()
		for _, key := range []uint8{60, 64, 67} {
			pass(time.Second)
			s.in(t, struck(0, key))
		}
		pass(12 * time.Second)
		s.Stop()
		struck := map[uint32]int{}
		for _, m := range s.listener.messages() {
			if m.Kind == midi.NoteOn {
				struck[m.Track]++
			}
		}
		require.Equal(t, 3, struck[2])
		require.Greater(t, struck[1], 30)
		s.asLogged(t)
	})
}
