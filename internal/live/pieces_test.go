package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// changing is a project whose tempo and meter change, and whose first track goes at random and by hits.
func changing() *score.Project {
	p := slowProject()
	p.MeterChanges = []score.MeterChange{{Bar: 3, Meter: score.Meter{Beats: 3, Unit: 4}}}
	p.TempoChanges = []score.TempoChange{{Tick: p.Bars().Start(4) + 77, Tempo: 150_000}}
	p.Tracks[0].Parts()[0].Lanes.Pitch.Order = score.Drift
	p.Tracks[0].Program, p.Tracks[1].Program = 7, 9
	return p
}

// noteOns returns the note-ons of a project in [from, to) of the song, at the ticks of run time of a piece.
func noteOns(p *score.Project, from, to, run score.Tick) (ons []midi.Message) {
	for _, m := range route.NewPlayer(p, from, play.Past{}).Advance(to, nil) {
		if m.Kind == midi.NoteOn {
			m.Tick += run - from
			m.Value = 0
			ons = append(ons, m)
		}
	}
	return ons
}

func (l *listener) noteOns(before score.Tick) (ons []midi.Message) {
	for _, m := range l.messages() {
		if m.Kind == midi.NoteOn && m.Tick < before {
			m.Value = 0
			ons = append(ons, m)
		}
	}
	return ons
}

// requireBalance checks that every note that began has ended, each key in its turn.
func requireBalance(t *testing.T, messages []midi.Message) {
	t.Helper()
	down := map[midi.NoteID]bool{}
	for _, m := range messages {
		if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
			key := midi.NoteID{Channel: m.Channel, Key: m.Key}
			require.Equal(t, m.Kind == midi.NoteOff, down[key], "%+v", m)
			down[key] = m.Kind == midi.NoteOn
		}
	}
}

// Played from a bar, a project plays what it plays there when it is played from the beginning, at the tempo that holds
// there, and instruments are told first what they would have been told by then. A take begins with that bar.
func TestPlayingFromABar(t *testing.T) {
	for _, bar := range []int64{0, 1, 3, 5, 40} {
		onStage(t, changing(), func(t *testing.T, s *rig) {
			from := changing().Bars().Start(bar)
			s.PlayFrom(bar)
			require.Equal(t, from, s.Status().Tick)
			require.NoError(t, s.Record(Recording{}))
			pass(10 * time.Second)
			end := s.edge()
			require.Equal(t, noteOns(changing(), from, from+end, 0), s.listener.noteOns(end))
			require.Equal(t, []midi.Kind{midi.Program, midi.Program}, []midi.Kind{s.listener.messages()[0].Kind, s.listener.messages()[1].Kind})
			tempo := play.TempoMapOf(changing())
			for _, sound := range s.listener.sounds {
				require.InDelta(t, s.started+tempo.Nanos(from+sound.Tick)-tempo.Nanos(from), sound.At, 2)
			}
			s.Stop()
			pass(time.Second)
			taken, _, _, err := s.disk.Recording(t.Context(), 1)
			require.NoError(t, err)
			require.Equal(t, changing().Bars().Meter(bar), taken.Meter)
			require.Equal(t, tempo.At(from), taken.Tempo[0].Tempo)
			requireBalance(t, s.listener.messages())
		})
	}
}

// Playing goes on with the bar in which it stopped.
func TestPlayingGoesOnWhereItStopped(t *testing.T) {
	onStage(t, changing(), func(t *testing.T, s *rig) {
		s.PlayFrom(2)
		pass(6 * time.Second)
		s.Stop()
		stopped := s.Status().Stopped
		require.Greater(t, stopped, changing().Bars().Start(3))
		s.GoOn()
		require.Equal(t, changing().Bars().Floor(stopped), s.Status().Tick)
	})
}

// A range that is looped plays the same in every pass, to the tick, whatever chance and hits do; what sounds at its end
// is released, takes know nothing of the jump, and an edit is heard in the pass after it. Without the range the song goes on.
func TestARangeIsLooped(t *testing.T) {
	onStage(t, changing(), func(t *testing.T, s *rig) {
		p := changing()
		from, to := p.Bars().Start(2), p.Bars().Start(5)
		require.ErrorIs(t, s.SetLoop(Range{From: to, To: from}), ErrRange)
		require.NoError(t, s.SetLoop(Range{From: from, To: to}))
		s.PlayFrom(1)
		start := p.Bars().Start(1)
		first, pass1 := to-start, to-from
		pass(40 * time.Second)
		require.Greater(t, s.edge(), first+3*pass1)
		want := noteOns(p, start, to, 0)
		for n := range score.Tick(3) {
			want = append(want, noteOns(p, from, to, first+n*pass1)...)
		}
		require.Equal(t, want, s.listener.noteOns(first+3*pass1))
		require.Less(t, s.Status().Tick, to)

		edited := changing()
		edited.Tracks[1].Parts()[0].Lanes.Gate.Steps[1] = score.On
		edge := s.edge()
		s.SetProject(edited, Change{})
		pass(20 * time.Second)
		next := edge + pass1 - (edge-first)%pass1 // the first seam after the edit
		require.Greater(t, s.edge(), next+pass1)
		var got []midi.Message
		for _, m := range s.listener.noteOns(next + pass1) {
			if m.Tick >= next {
				got = append(got, m)
			}
		}
		require.Equal(t, noteOns(edited, from, to, next), got)

		require.NoError(t, s.SetLoop(Range{}))
		pass(20 * time.Second)
		require.Greater(t, s.Status().Tick+s.edge(), to)
		require.Greater(t, s.player.Pieces().Song(s.edge()), to)
		s.Stop()
		requireBalance(t, s.listener.messages())
		for i := 1; i < len(s.listener.sounds); i++ {
			require.GreaterOrEqual(t, s.listener.sounds[i].Tick, s.listener.sounds[i-1].Tick, "run time never jumps")
		}
	})
}

// Recording that has to begin to play starts at the bar that is chosen, after bars of its meter at its tempo.
func TestRecordingStartsAtABar(t *testing.T) {
	onStage(t, changing(), func(t *testing.T, s *rig) {
		require.NoError(t, s.Record(Recording{Start: 11, CountIn: 1, Bars: 2}))
		pass(10 * time.Second)
		s.Stop()
		pass(time.Second)
		from, to := changing().Bars().Start(10), changing().Bars().Start(12)
		taken, _, _, err := s.disk.Recording(t.Context(), 1)
		require.NoError(t, err)
		require.Equal(t, to-from, taken.End)
		var got []midi.Message
		for _, m := range taken.Messages {
			if m.Kind == midi.NoteOn {
				m.Value = 0
				got = append(got, m)
			}
		}
		require.Equal(t, noteOns(changing(), from, to, 0), got)
		require.Len(t, s.listener.clicks, 3, "three quarters of a bar of 3/4")
		require.Equal(t, int64(400*time.Millisecond), s.listener.clicks[1].At-s.listener.clicks[0].At, "at 150")
	})
}
