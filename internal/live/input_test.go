package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/output"
)

var winch = Source{score.DeviceInput, 7}

// in has a message come in at the device of input 7.
func (s *rig) in(t *testing.T, m midi.Message) {
	t.Helper()
	require.NoError(t, s.Hear(Incoming{Source: winch, Message: m, At: s.Now()}))
}

func struck(channel, key uint8) midi.Message {
	return midi.Message{Kind: midi.NoteOn, Channel: channel, Key: key, Velocity: 80}
}

func released(channel, key uint8) midi.Message {
	return midi.Message{Kind: midi.NoteOff, Channel: channel, Key: key}
}

func control(number uint8, value uint16) midi.Message {
	return midi.Message{Kind: midi.ControlChange, Key: number, Value: value}
}

// withInput is a project with an input, and its only track muted, so that nothing else sounds.
func withInput(input score.Input) *score.Project {
	p := testkit.Buoy()
	p.Tracks[0].Mute = true
	input.ID, input.Name, input.Kind = 7, "Winch", score.DeviceInput
	p.Inputs = []score.Input{input}
	return p
}

// notes returns the notes that went out, with velocity 0 for their ends.
func notes(events []output.Event) (notes [][2]int) {
	for _, e := range events {
		if e.Kind == midi.NoteOn || e.Kind == midi.NoteOff {
			notes = append(notes, [2]int{int(e.Key), int(e.Velocity)})
		}
	}
	return notes
}

// Notes go on at once to the outputs of a track, by its routes, while something plays or not; what plays is recorded as the track's, and
// played again.
func TestNotesArePassedOn(t *testing.T) {
	p := withInput(score.Input{PassesTo: []score.Passage{{Channel: 3, Track: 1}, {Track: 99}}})
	route := score.WholeRoute(score.BuiltIn)
	route.Octave, route.Channel = 1, 9
	p.Tracks[0].Routes = &[]score.Route{route}
	require.NoError(t, p.Validate())
	onStage(t, p, func(t *testing.T, s *rig) {
		s.in(t, struck(2, 60))
		s.in(t, struck(4, 65)) // of another channel
		require.Equal(t, [][2]int{{72, 80}}, notes(s.listener.events()), "an octave higher, by the route")
		require.Equal(t, uint8(8), s.listener.events()[0].Channel)
		require.Equal(t, s.Now(), s.listener.arrived[0], "at once")
		s.in(t, released(2, 60))
		require.Equal(t, [][2]int{{72, 80}, {72, 0}}, notes(s.listener.events()))

		require.NoError(t, s.Record(Recording{}))
		pass(500 * time.Millisecond)
		s.in(t, struck(2, 61))
		pass(300 * time.Millisecond)
		s.in(t, released(2, 61))
		s.in(t, struck(2, 62))
		pass(300 * time.Millisecond)
		s.Stop()
		s.in(t, released(2, 62))
		require.Equal(t, [][2]int{{73, 80}, {73, 0}, {74, 80}}, notes(s.listener.events())[2:5])
		logged, end := s.Log()
		pass(time.Second)
		taken, _, _, err := s.disk.Recording(t.Context(), 1)
		require.NoError(t, err)
		require.Len(t, taken.Notes(), 2)
		require.Equal(t, take.OfLog(&logged, end).Notes(), taken.Notes(), "as the log plays it again")
		require.Equal(t, uint8(61), taken.Notes()[0].Key)
		require.InDelta(t, 0.3*1.6*float64(score.TicksPerQuarter), float64(taken.Notes()[0].End-taken.Notes()[0].Start), 200)
	})
}

// A key that was struck before playing begins ends with its release, while it plays.
func TestAKeyThatIsDownAsPlayingBegins(t *testing.T) {
	onStage(t, withInput(score.Input{PassesTo: []score.Passage{{Track: 1}}}), func(t *testing.T, s *rig) {
		s.in(t, struck(0, 67))
		s.Play()
		pass(time.Second)
		s.in(t, released(0, 67))
		require.Equal(t, [][2]int{{67, 80}, {67, 0}}, notes(s.listener.events()))
	})
}

// Whatever a key has begun ends with it, also where its input was told meanwhile to do nothing of it any more, or is not listed.
func TestAnEditWhileAKeyIsDown(t *testing.T) {
	for name, change := range map[string]func(*score.Project){
		"to no track":        func(p *score.Project) { p.Inputs[0].PassesTo, p.Inputs[0].Transposes = nil, nil },
		"of another channel": func(p *score.Project) { p.Inputs[0].Channel = 9 },
		"not listed":         func(p *score.Project) { p.Inputs = nil },
	} {
		p := withInput(score.Input{PassesTo: []score.Passage{{Track: 1}}, Transposes: &score.Transposing{Tracks: []int{1}, Root: 60}})
		onStage(t, p, func(t *testing.T, s *rig) {
			s.in(t, struck(0, 67))
			require.Len(t, s.Performing().Stage.Changes(), 1)
			edited := p.Clone()
			change(edited)
			s.SetProject(edited, Change{})
			s.in(t, struck(0, 70))
			s.in(t, released(0, 67))
			require.Equal(t, [][2]int{{67, 80}, {67, 0}}, notes(s.listener.events()), name)
			require.Empty(t, s.Performing().Stage.Changes(), name)
		})
	}
}

// A device that sends back what it is sent is not played in by that, though it is by a hand that plays the same once more.
func TestWhatWasSentIsNoInput(t *testing.T) {
	p := withInput(score.Input{PassesTo: []score.Passage{{Track: 1}}})
	p.Outputs = []score.Output{{ID: 1, Name: "Bass", Kind: score.ServerDevice}}
	p.Tracks[0].Routes = &[]score.Route{score.WholeRoute(1)}
	p.Tracks[0].Channel = 1
	onStage(t, p, func(t *testing.T, s *rig) {
		s.in(t, struck(0, 60))
		require.Len(t, s.listener.events(), 1)
		pass(3 * time.Millisecond)
		s.in(t, struck(0, 60)) // comes back
		require.Len(t, s.listener.events(), 1)
		s.in(t, released(0, 60))
		s.in(t, released(0, 60))
		require.Len(t, s.listener.events(), 2)
		s.in(t, struck(0, 60))
		require.Len(t, s.listener.events(), 3)
		pass(time.Second)
		s.in(t, struck(0, 60))
		require.Len(t, s.listener.events(), 5, "the key is struck anew")
	})
}

// The pedal holds what is passed on, and an input that is gone has nothing down any more.
func TestPassedNotesAreHeld(t *testing.T) {
	onStage(t, withInput(score.Input{PassesTo: []score.Passage{{Track: 1}}, Holds: score.PedalHold}), func(t *testing.T, s *rig) {
		s.in(t, control(64, 127))
		s.in(t, struck(0, 60))
		s.in(t, released(0, 60))
		require.Equal(t, [][2]int{{60, 80}}, notes(s.listener.events()))
		s.in(t, control(64, 0))
		require.Equal(t, [][2]int{{60, 80}, {60, 0}}, notes(s.listener.events()))
		s.in(t, control(64, 127))
		s.in(t, struck(0, 62))
		s.in(t, released(0, 62))
		s.in(t, struck(0, 64))
		s.Gone(Source{score.DeviceInput, 8})
		require.Len(t, s.listener.events(), 4, "another one is gone")
		s.Gone(winch)
		require.ElementsMatch(t, [][2]int{{62, 0}, {64, 0}}, notes(s.listener.events())[4:])
		s.in(t, struck(0, 60))
		s.in(t, released(0, 60))
		require.Len(t, s.listener.events(), 8, "the pedal is up")
	})
}

// Keys transpose tracks while they are down, the last one counting; latched they stay. What is too far is fewer octaves. None is undone by Back.
func TestKeysTranspose(t *testing.T) {
	semitones := stage.Control{Name: "semitones", Track: 1}
	value := func(s *rig) int {
		value, _ := s.Performing().Stage.Value(semitones)
		return value
	}
	p := withInput(score.Input{Transposes: &score.Transposing{Tracks: []int{1, 99}, Root: 60}})
	onStage(t, p, func(t *testing.T, s *rig) {
		s.in(t, struck(0, 67))
		require.Equal(t, 7, value(s))
		s.in(t, struck(0, 55))
		require.Equal(t, -5, value(s))
		s.in(t, released(0, 55))
		require.Equal(t, 7, value(s), "the one before is down still")
		s.in(t, released(0, 67))
		require.Empty(t, s.Performing().Stage.Changes())
		s.Play()
		pass(time.Second)
		s.in(t, struck(0, 127))
		pass(100 * time.Millisecond)
		require.Equal(t, (127-60)%12+36, value(s))
		require.Zero(t, s.Performing().Back)
		s.Gone(winch)
		pass(100 * time.Millisecond)
		require.Empty(t, s.Performing().Stage.Changes())
	})
	p = p.Clone()
	p.Inputs[0].Transposes.Lowest = true
	onStage(t, p, func(t *testing.T, s *rig) {
		s.in(t, struck(0, 64))
		s.in(t, struck(0, 67))
		require.Equal(t, 4, value(s), "the lowest, though another is pressed")
		s.in(t, struck(0, 55))
		require.Equal(t, -5, value(s))
		s.in(t, released(0, 55))
		s.in(t, released(0, 64))
		require.Equal(t, 7, value(s))
		s.in(t, released(0, 67))
		require.Empty(t, s.Performing().Stage.Changes())
	})
	p = p.Clone()
	p.Inputs[0].Transposes.Latches = true
	onStage(t, p, func(t *testing.T, s *rig) {
		s.in(t, struck(0, 67))
		s.in(t, released(0, 67))
		require.Equal(t, 7, value(s))
		s.in(t, struck(0, 60))
		require.Empty(t, s.Performing().Stage.Changes())
	})
}

// Pedals and buttons: inverted, for a while and twice, until they are released or pressed again, and what is no value of a control. One that is
// unplugged while down is released.
func TestPedalsAndButtons(t *testing.T) {
	p := withInput(score.Input{Switches: true, Channel: 1})
	p.Tracks[0].Mute = false
	fill := score.ControlAddress{Name: "fill"}
	p.Switches = []score.Switch{
		{Message: score.ControlSwitch, Number: 64, Inverted: true, Way: score.Momentary, Control: fill, Value: 1, When: "now"},
		{Message: score.ControlSwitch, Number: 67, Way: score.Latching, Control: score.ControlAddress{Name: "mute", Track: 1}, Value: 1, When: "now"},
		{Message: score.NoteSwitch, Number: 36, Do: score.DoPlay, Control: score.ControlAddress{Name: "play"}, When: "now"},
		{Message: score.NoteSwitch, Number: 36, Press: score.LongPress, Do: score.DoKeep, Value: 4, Control: score.ControlAddress{Name: "keep"}, When: "now"},
		{Message: score.NoteSwitch, Number: 36, Press: score.DoublePress, Do: score.DoRecord, Control: score.ControlAddress{Name: "record"}, When: "now"},
		{Message: score.NoteSwitch, Number: 37, Do: score.DoTap, Control: score.ControlAddress{Name: "tap"}, When: "now"},
		{Message: score.NoteSwitch, Number: 38, Do: score.DoBack, Control: score.ControlAddress{Name: "back"}, When: "now"},
		{Message: score.KeySwitch, Key: "F9", Do: score.DoPanic, Control: score.ControlAddress{Name: "panic"}, When: "now"},
		{Message: score.NoteSwitch, Number: 40, Do: score.DoLuck, Control: score.ControlAddress{Name: "luck"}, When: "now"},
		{Message: score.NoteSwitch, Number: 39, Do: score.DoPanic, Control: score.ControlAddress{Name: "panic"}, When: "now"},
	}
	require.NoError(t, p.Validate())
	onStage(t, p, func(t *testing.T, s *rig) {
		kept := 0
		s.options.Keep = func(bars int) { kept = bars }
		is := func(name string, track int) bool {
			_, changed := s.Performing().Stage.Value(stage.Control{Name: name, Track: track})
			return changed
		}
		press := func(key uint8, held time.Duration) {
			s.in(t, struck(0, key))
			pass(held)
			s.in(t, released(0, key))
		}
		s.in(t, control(64, 127))
		require.False(t, is("fill", 0), "it is up")
		s.in(t, control(64, 0))
		require.True(t, is("fill", 0))
		s.in(t, control(64, 127))
		require.False(t, is("fill", 0))
		s.in(t, control(64, 0))
		s.Gone(winch)
		require.False(t, is("fill", 0), "unplugged while down")

		s.in(t, control(67, 127))
		s.in(t, control(67, 0))
		require.True(t, is("mute", 1))
		s.in(t, control(67, 127))
		require.False(t, is("mute", 1))
		s.in(t, midi.Message{Kind: midi.ControlChange, Channel: 1, Key: 67, Value: 127})
		require.False(t, is("mute", 1), "of another channel")

		s.in(t, struck(0, 40))
		require.True(t, is("luck", 0))
		require.NoError(t, s.Back())

		press(36, 100*time.Millisecond)
		require.False(t, s.Status().Playing, "it can be pressed again")
		pass(300 * time.Millisecond)
		require.True(t, s.Status().Playing)
		press(36, 600*time.Millisecond)
		require.Equal(t, 4, kept)
		press(36, 100*time.Millisecond)
		press(36, 100*time.Millisecond)
		require.True(t, s.Status().Recording)
		press(36, 10*time.Millisecond)
		pass(300 * time.Millisecond)
		require.False(t, s.Status().Playing, "it plays, or stops")

		for range 4 {
			press(37, 10*time.Millisecond)
			pass(390 * time.Millisecond)
		}
		tempo, _ := s.Performing().Stage.Value(stage.Control{Name: "tempo"})
		require.Equal(t, 150_000, tempo)
		for range 3 {
			press(38, 0)
		}
		require.Empty(t, s.Performing().Stage.Changes(), "and one press more does nothing")
		press(39, 0)
		require.Equal(t, 1, s.listener.panicked)
		require.NoError(t, s.Press("F9", true, s.Now()))
		require.NoError(t, s.Press("F9", true, s.Now()))
		require.NoError(t, s.Press("F8", true, s.Now()))
		require.Equal(t, 2, s.listener.panicked)
	})
}

// What a project does not say of an input is usual: it is played in and presses switches. A clock that nobody follows does nothing.
func TestInputsThatAreNotListed(t *testing.T) {
	p := testkit.Buoy()
	p.Switches = []score.Switch{{Message: score.NoteSwitch, Number: 36, Control: score.ControlAddress{Name: "fill"}, Value: 1, When: "now"}}
	p.Inputs = []score.Input{{ID: 7, Name: "Winch", Kind: score.DeviceInput}, {ID: 2, Name: "Keys", Kind: score.ScreenInput, PlaysIn: true}}
	onStage(t, p, func(t *testing.T, s *rig) {
		for _, of := range []struct {
			from    Source
			presses bool
		}{{winch, false}, {Source{Kind: score.ScreenInput}, false}, {Source{score.PortInput, 7}, true}, {Source{Kind: score.ProgramInput}, true}} {
			require.NoError(t, s.Hear(Incoming{Source: of.from, Message: struck(0, 36), At: s.Now()}))
			require.Equal(t, of.presses, len(s.Performing().Stage.Changes()) > 0, of.from)
			s.Reset()
			for _, kind := range []midi.Kind{midi.Start, midi.Clock, midi.SongPosition, midi.Continue, midi.Stop} {
				require.NoError(t, s.Hear(Incoming{Source: of.from, Message: midi.Message{Kind: kind}, At: s.Now()}))
			}
			require.False(t, s.Status().Playing)
			require.Nil(t, s.Status().Clock)
		}
	})
}
