package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/output"
)

// stall lets a time pass in which the transport does nothing, as when the program is suspended.
func (s *rig) stall(d time.Duration) {
	s.Transport.mu.Lock()
	s.epoch = s.epoch.Add(-d)
	s.Transport.mu.Unlock()
	pass(20 * time.Millisecond)
}

// After a stall of five seconds nothing comes in a burst: notes that are more than 200 ms late are left out, with
// their ends; ends of notes that were heard, and what controllers stand at, go out; everything after is as if nothing
// had happened, and both the pages and what is recorded say what was left out.
func TestAStall(t *testing.T) {
	p := testkit.Buoy()
	part := &p.Tracks[0].Parts()[0]
	part.Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Most: 127, Glide: 20_000}}
	part.Lanes.Set(score.Mod1, part.Lanes.Lane(score.Pitch).Clone())
	for step := range part.Lanes.Mod1.Steps {
		part.Lanes.Mod1.Steps[step] = step * 37 % 128
	}
	onStage(t, p, func(t *testing.T, s *rig) {
		require.NoError(t, s.Record(Recording{}))
		pass(6 * time.Second)
		before := len(s.listener.sounds)
		edge := s.edge()
		s.stall(5 * time.Second)
		now := s.Now()
		burst := s.listener.sounds[before:]
		controllers := 0
		for _, sound := range burst {
			switch {
			case sound.Kind == midi.NoteOn:
				require.GreaterOrEqual(t, sound.At, now-int64(lateBy)-int64(20*time.Millisecond))
			case sound.Kind != midi.NoteOff && sound.At < now-int64(lateBy)-int64(20*time.Millisecond):
				controllers++
			}
		}
		require.LessOrEqual(t, controllers, 1)
		require.Less(t, len(burst), 25)
		require.InDelta(t, now, s.timeOf(s.tickAt(s.Now())), float64(20*time.Millisecond))

		resumed := s.edge()
		pass(5 * time.Second)
		s.Stop()
		pass(time.Second)
		all := rendered(p, s.player.Run())
		var want, got []midi.Message
		left := 0
		for _, m := range all {
			if m.Kind == midi.NoteOn && m.Tick >= resumed {
				want = append(want, m)
			}
			if m.Kind == midi.NoteOn && m.Tick >= edge && m.Tick < resumed {
				left++
			}
		}
		down := map[midi.NoteID]bool{}
		for _, m := range s.listener.messages() {
			key := m.NoteID()
			switch m.Kind {
			case midi.NoteOn:
				require.False(t, down[key])
				down[key] = true
				if m.Tick >= edge && m.Tick < resumed {
					left--
				}
				if m.Tick >= resumed {
					got = append(got, m)
				}
			case midi.NoteOff:
				require.True(t, down[key], "an end goes out only with its note")
				delete(down, key)
			}
		}
		require.Equal(t, want, got)
		require.Len(t, s.omitted, 1)
		require.Equal(t, left, s.omitted[0].Late)
		require.Positive(t, left)
		recorded := s.finished(t, 1)
		require.Len(t, recorded.Markers, 1)
		require.Equal(t, s.omitted[0].String(), recorded.Markers[0].Text)
		require.Equal(t, s.omitted[0].Tick, recorded.Markers[0].Tick)
		count := 0
		for _, m := range all {
			if m.Kind == midi.NoteOn && m.Tick <= recorded.End {
				count++
			}
		}
		require.Equal(t, count-left, recorded.Count())
		require.Equal(t, standingOf(all, recorded.End), standingOf(recorded.Messages, recorded.End), "controllers stand where they should")
	})
}

// standingOf returns what controllers stand at after all messages up to a tick.
func standingOf(messages []midi.Message, end score.Tick) []midi.Message {
	var sent midi.Settings
	for _, m := range messages {
		if m.Tick <= end {
			sent.Note([]midi.Message{m})
		}
	}
	return sent.Standing(0)
}

// A project that is denser than can be played, as an old file may have it, is thinned: a tenth of a second never
// has more than there is room for, every note that goes out ends, and that something was left out is told.
func TestWhatIsTooDenseIsThinned(t *testing.T) {
	inFull(t)
	p := dense()
	require.Greater(t, score.EventsPerSecond(p), 10*score.MaxEventsPerSecond)
	onStage(t, p, func(t *testing.T, s *rig) {
		s.Play()
		pass(3 * time.Second)
		s.Stop()
		counts := map[int64]int{}
		down := map[midi.NoteID]bool{}
		for _, sound := range s.listener.sounds {
			key := sound.NoteID()
			switch sound.Kind {
			case midi.NoteOff:
				require.True(t, down[key])
				delete(down, key)
			case midi.NoteOn:
				require.False(t, down[key])
				down[key] = true
				counts[sound.At/int64(tenth)]++
			}
		}
		for _, count := range counts {
			require.LessOrEqual(t, count, mostInTenth)
		}
		require.NotEmpty(t, s.omitted)
		require.Positive(t, s.omitted[0].Crowded)
		require.LessOrEqual(t, len(s.omitted), 4, "it is told once a second")
	})
}

// dense returns a project of 32 tracks that are as dense as one can be.
func dense() *score.Project {
	p := testkit.Buoy()
	p.Tempo = score.MaxTempo
	track := p.Tracks[0]
	p.Tracks = nil
	for i := range 32 {
		one := track.Clone()
		one.ID, one.Channel, one.Speed = i+1, i%16+1, score.Ratio{N: 4, M: 1}
		lanes := &one.Parts()[0].Lanes
		lanes.Ratchet = lanes.Lane(score.Ratchet).Clone()
		for step := range lanes.Gate.Steps {
			lanes.Gate.Steps[step], lanes.Ratchet.Steps[step], lanes.Probability.Steps[step] = score.On, 16, 100
		}
		lanes.Gate.Rate = "1/64"
		p.Tracks = append(p.Tracks, one)
	}
	return p
}

// Whatever comes to the sieve: an end goes out if and only if its note did, nothing is out of order, and after all
// of it every controller stands where the last message put it.
func TestTheSieve(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var s sieve
		var in, out []midi.Message
		down := map[midi.NoteID]bool{}
		at, tick := int64(0), score.Tick(0)
		for range rapid.IntRange(1, 30).Draw(t, "batches") {
			var batch []output.Event
			for range rapid.IntRange(0, 20).Draw(t, "sounds") {
				at += rapid.SampledFrom([]int64{0, 1e6, 5e7}).Draw(t, "later")
				tick++
				m := midi.Message{Tick: tick, Kind: midi.ControlChange, Key: uint8(rapid.IntRange(0, 2).Draw(t, "number")), Value: uint16(rapid.IntRange(0, 127).Draw(t, "value"))}
				if rapid.Bool().Draw(t, "note") {
					m.Kind, m.Velocity, m.Value = midi.NoteOn, 90, 0
					if key := m.NoteID(); down[key] {
						m.Kind, m.Velocity = midi.NoteOff, 0
						delete(down, key)
					} else {
						down[key] = true
					}
				}
				in = append(in, m)
				batch = append(batch, output.Event{Message: m, At: at})
			}
			s.filled = mostInTenth - rapid.IntRange(0, 30).Draw(t, "room")
			for _, sound := range s.pass(batch, at+rapid.SampledFrom([]int64{-1e8, 1e8, 3e8}).Draw(t, "now")) {
				out = append(out, sound.Message)
			}
		}
		struck, last := map[uint8]bool{}, score.Tick(0)
		ons := 0
		for _, m := range out {
			require.GreaterOrEqual(t, m.Tick, last)
			last = m.Tick
			switch m.Kind {
			case midi.NoteOn:
				require.False(t, struck[m.Key])
				struck[m.Key] = true
				ons++
			case midi.NoteOff:
				require.True(t, struck[m.Key])
				delete(struck, m.Key)
			}
		}
		came := (&take.Take{Messages: in}).Count()
		require.Equal(t, came, ons+s.omitted.Late+s.omitted.Crowded)
		require.Equal(t, standingOf(in, tick), standingOf(out, tick))
	})
}

func TestWhatIsLeftOutIsSaid(t *testing.T) {
	require.Equal(t, "1 note too late to be heard", Omission{Late: 1}.String())
	require.Equal(t, "7 notes too late to be heard, 30 notes too many at once to be heard", Omission{Late: 7, Crowded: 30}.String())
}
