package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

// A switch is pressed by its message alone: by a note that is struck, a program, and a controller that comes up, once. It counts from
// its moment on, at once while standing still, and Back undoes it.
func TestSwitches(t *testing.T) {
	at := func(name string, track int) score.ControlAddress {
		return score.ControlAddress{Name: name, Track: track}
	}
	project := testkit.Buoy()
	project.Scenes = []score.Scene{{ID: 4, Name: "Fog", Values: []score.SceneValue{{Control: at("mute", 1), Value: 1}, {Control: at("degrees", 1), Value: 2}}}}
	project.Switches = []score.Switch{
		{Message: score.NoteSwitch, Channel: 10, Number: 36, Control: at("scene", 0), Value: 4, When: "bar"},
		{Message: score.ControlSwitch, Number: 64, Control: at("semitones", 1), Value: 7, When: "now"},
		{Message: score.ProgramSwitch, Channel: 16, Number: 127, Control: at("pattern", 9), Value: 3, When: "now"},
		{Message: score.ProgramSwitch, Channel: 16, Number: 1, Control: at("scene", 0), Value: 9, When: "now"},
	}
	require.NoError(t, project.Validate())
	note := midi.Message{Kind: midi.NoteOn, Channel: 9, Key: 36, Velocity: 1}
	pedal := func(value uint16) midi.Message {
		return midi.Message{Kind: midi.ControlChange, Channel: 3, Key: 64, Value: value}
	}
	onStage(t, project, func(t *testing.T, s *rig) {
		changes := func() int { return len(s.Performing().Stage.Changes()) }
		for _, other := range []midi.Message{
			{Kind: midi.NoteOn, Channel: 8, Key: 36, Velocity: 90}, {Kind: midi.NoteOn, Channel: 9, Key: 37, Velocity: 90}, {Kind: midi.NoteOff, Channel: 9, Key: 36},
			{Kind: midi.Program, Channel: 9, Key: 36}, {Kind: midi.ControlChange, Channel: 9, Key: 36, Value: 127}, pedal(63), {Kind: midi.Pressure, Channel: 9, Value: 64},
		} {
			require.NoError(t, s.Hear(Incoming{Message: other}))
			require.Zero(t, changes(), other)
		}
		require.NoError(t, s.Hear(Incoming{Message: pedal(64)}))
		require.Equal(t, 1, changes(), "standing still it counts at once")
		require.NoError(t, s.Back())
		require.Zero(t, changes())
		require.NoError(t, s.Hear(Incoming{Message: pedal(127)}))
		require.Zero(t, changes(), "it is still down")
		require.NoError(t, s.Hear(Incoming{Message: pedal(0)}))
		require.NoError(t, s.Hear(Incoming{Message: pedal(127)}))
		require.Equal(t, 1, changes())

		s.Play()
		pass(100 * time.Millisecond)
		require.NoError(t, s.Hear(Incoming{Message: note}))
		queue := s.Performing().Queue
		require.Len(t, queue, 3, "all that the scene names, and that it is on")
		for _, queued := range queue {
			require.Equal(t, 4*score.TicksPerQuarter, queued.At)
		}
		require.ErrorIs(t, s.Hear(Incoming{Message: midi.Message{Kind: midi.Program, Channel: 15, Key: 127}}), stage.ErrGone)
		require.ErrorIs(t, s.Hear(Incoming{Message: midi.Message{Kind: midi.Program, Channel: 15, Key: 1}}), score.ErrUnknownScene)
		require.Len(t, s.Performing().Queue, 3, "what is gone changes nothing")
		require.True(t, s.Status().Playing)
	})
}
