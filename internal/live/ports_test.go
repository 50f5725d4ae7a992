package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/output"
)

// Each port has its events as long before their times as it needs, and one that needs them late hears what one does that
// needs them early. With none that needs more it is computed 20 ms ahead.
func TestPortsHaveTheirTime(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		device := &listener{now: s.Now, ahead: 25 * time.Millisecond}
		s.Connect(device)
		s.Play()
		pass(10 * time.Second)
		s.Stop()
		require.Greater(t, len(device.sounds), 10)
		require.Equal(t, s.listener.messages()[:len(device.sounds)], device.messages(), "what was to come is dropped")
		for i, event := range device.sounds {
			require.LessOrEqual(t, event.At-device.arrived[i], int64(25*time.Millisecond))
			require.Greater(t, event.At-device.arrived[i], int64(10*time.Millisecond))
		}
		require.Equal(t, 1, device.released)
		s.Disconnect(device)
		require.Equal(t, 2, device.released, "one that is lost releases what sounds")
		s.Disconnect(s.listener)
		s.Play()
		pass(time.Second)
		s.Transport.mu.Lock()
		require.Less(t, s.timeOf(s.player.Run())-s.Now(), int64(120*time.Millisecond))
		s.Transport.mu.Unlock()
		s.Stop()
	})
}

// A port that is connected while something plays is brought up to date: it is told what instruments were told, notes that
// sound for more than a beat longer begin, and all others are those that the rest plays.
func TestAPortIsBroughtUpToDate(t *testing.T) {
	project := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
		track.Program = 5
		part.Lanes.Gate.Length, part.Lanes.Gate.Rate = 2, "1/1"
		part.Lanes.Gate.Steps = append([]int{score.On, score.Off}, part.Lanes.Gate.Steps[2:]...)
		part.Lanes.Length.Steps[0] = 100
	})
	onStage(t, project, func(t *testing.T, s *rig) {
		s.Play()
		pass(time.Second)
		late := &listener{now: s.Now}
		s.Connect(late)
		pass(10 * time.Millisecond)
		begins := late.events()
		require.Equal(t, midi.Program, begins[0].Kind)
		require.Equal(t, midi.NoteOn, begins[1].Kind, "the note that goes on")
		require.LessOrEqual(t, begins[1].At, s.Now())
		pass(1200 * time.Millisecond)
		last := &listener{now: s.Now}
		s.Connect(last)
		pass(10 * time.Millisecond)
		for _, event := range last.events() {
			require.NotEqual(t, midi.NoteOn, event.Kind, "less than a beat is left of the note")
		}
		s.Disconnect(last)
		pass(20 * time.Second)
		s.Stop()
		all, some := s.listener.messages(), late.messages()
		require.Equal(t, all[2:len(some)], some[2:])
	})
}

// What silences at once holds for what has been handed over too: a note that has not begun by then does not, no note is left
// hanging, the take has what was heard, and the log plays the same.
func TestMuteHoldsAtOnce(t *testing.T) {
	project := testkit.Buoy()
	other := project.Tracks[0].Clone()
	other.ID, other.Channel = 2, 1 // on the same keys
	other.Delay = 300
	project.Tracks = append(project.Tracks, other)
	for i := range project.Tracks {
		for step := range score.MaxSteps {
			project.Tracks[i].Parts()[0].Lanes.Gate.Steps[step] = score.On
			project.Tracks[i].Parts()[0].Lanes.Probability.Steps[step] = 100
		}
	}
	onStage(t, project, func(t *testing.T, s *rig) {
		require.NoError(t, s.Record(Recording{}))
		for n := range 40 {
			pass(time.Duration(200+13*n) * time.Millisecond)
			control := stage.Control{Name: []string{"mute", "solo"}[n/2%2], Track: 1 + n/4%2}
			require.NoError(t, s.Do([]Doing{{control, value(1 - n%2)}}, Now, 0))
			s.Transport.mu.Lock()
			now, playing := s.tickAt(s.Now()), s.player.Playing()
			s.Transport.mu.Unlock()
			for _, event := range s.listener.events() {
				if track := playing.Track(int(event.Track)); event.Kind == midi.NoteOn && event.Tick > now {
					require.False(t, playing.Silent(track, &track.Parts()[0]), "at %d, now %d", event.Tick, now)
				}
			}
		}
		pass(time.Second)
		require.Positive(t, s.listener.taken)
		logged, _ := s.Log()
		s.Stop()
		pass(time.Second)
		requireTaken(t, s.disk, &logged, s.ended)
		down := map[[2]uint8]bool{}
		for _, m := range s.listener.messages() {
			key := [2]uint8{m.Channel, m.Key}
			if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
				down[key] = m.Kind == midi.NoteOn
			}
		}
		ends := 0
		for _, is := range down {
			if is {
				ends++
			}
		}
		require.LessOrEqual(t, ends, 4, "only what sounded when it stopped")
	})
}

// Whoever joins those who listen at a port hears all that begins from then on once, however early other ports need it.
func TestWhoJoinsAtAPortHearsAllOnce(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		device := &listener{now: s.Now, ahead: 5 * time.Millisecond}
		s.Connect(device)
		s.Play()
		for range 50 {
			pass(137 * time.Millisecond)
			var heard []output.Event
			var joined int64
			before := 0
			s.Chase(device, func(events []output.Event) { heard, before, joined = events, len(device.sounds), s.Now() })
			pass(200 * time.Millisecond)
			heard = append(heard, device.events()[before:]...)
			began := map[output.Event]int{}
			for _, e := range heard {
				if e.Kind == midi.NoteOn && e.At > joined {
					began[e]++
					require.Equal(t, 1, began[e], "once")
				}
			}
			all := 0
			for _, e := range device.events() {
				if e.Kind == midi.NoteOn && e.At > joined {
					all++
				}
			}
			require.Len(t, began, all)
		}
		s.Stop()
	})
}
