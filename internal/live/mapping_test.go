package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

var swell = score.ControlAddress{Name: stage.Macro, ID: 1}

// withFader is a project with a macro that moves the probability of its only track, and mappings.
func withFader(t *testing.T, mappings ...score.Mapping) *score.Project {
	p := withInput(score.Input{Switches: true})
	p.Tracks[0].Mute = false
	p.Outputs = []score.Output{{ID: 4, Name: "Lights", Kind: score.BrowserPort}}
	p.Macros = []score.Macro{{ID: 1, Name: "Swell", Moves: []score.MacroMove{{Control: score.ControlAddress{Name: "probability", Track: 1}, By: -100}}}}
	p.Mappings = mappings
	require.NoError(t, p.Validate())
	return p
}

// stands returns the value of the macro once all that came in is done.
func (s *rig) stands() int {
	pass(4 * turnEvery)
	value, _ := s.Performing().Stage.Effective(s.project, stage.Control(swell))
	return value
}

// A fader turns nothing until it passes the value that stands, then follows; where a hand has moved the value it waits again, and says where it is.
func TestAFaderIsTakenOverSoftly(t *testing.T) {
	p := withFader(t, score.Mapping{Message: score.MappedControl, Number: 20, Control: swell, To: 1000})
	onStage(t, p, func(t *testing.T, s *rig) {
		by := func(value int) {
			require.NoError(t, s.Do([]Doing{{Control: stage.Control(swell), Value: &value}}, Now, 0))
		}
		by(500)
		s.in(t, control(20, 0))
		require.Equal(t, 500, s.stands())
		s.in(t, control(20, 50))
		require.Equal(t, 500, s.stands(), "394 is below it still")
		require.Equal(t, []FaderWait{{stage.Control(swell), 394}}, s.Performing().Faders)
		s.in(t, control(20, 70))
		require.Equal(t, 551, s.stands(), "it has passed it")
		require.Empty(t, s.Performing().Faders)
		s.in(t, control(20, 127))
		require.Equal(t, 1000, s.stands())
		s.in(t, midi.Message{Kind: midi.ControlChange, Key: 21, Value: 3})
		require.Equal(t, 1000, s.stands())
		by(200)
		s.in(t, control(20, 60))
		require.Equal(t, 200, s.stands(), "moved by a hand meanwhile")
		s.in(t, control(20, 20))
		require.Equal(t, 157, s.stands())
		s.Gone(winch)
		s.in(t, control(20, 100))
		require.Equal(t, 157, s.stands(), "where it stood before it was unplugged is not known")
		require.NoError(t, s.Back())
		require.Equal(t, 200, s.stands(), "one move is undone as one")
	})
}

func TestHowFadersTurn(t *testing.T) {
	for name, c := range map[string]struct {
		m    score.Mapping
		in   []midi.Message
		want int
	}{
		"at once":                 {score.Mapping{Message: score.MappedControl, Number: 20, To: 1000, Turns: score.Jumps}, []midi.Message{control(20, 64)}, 504},
		"upside down":             {score.Mapping{Message: score.MappedControl, Number: 20, From: 1000, Turns: score.Jumps}, []midi.Message{control(20, 127)}, 0},
		"over a part of it":       {score.Mapping{Message: score.MappedControl, Number: 20, From: 200, To: 300, Turns: score.Jumps}, []midi.Message{control(20, 127)}, 300},
		"slow first":              {score.Mapping{Message: score.MappedControl, Number: 20, To: 1000, Curve: score.SlowStart, Turns: score.Jumps}, []midi.Message{control(20, 64)}, 254},
		"14 bits, coarse alone":   {score.Mapping{Message: score.MappedControl14, Number: 3, To: 1000, Turns: score.Jumps}, []midi.Message{control(3, 64)}, 500},
		"14 bits, fine":           {score.Mapping{Message: score.MappedControl14, Number: 3, To: 1000, Turns: score.Jumps}, []midi.Message{control(3, 64), control(35, 127)}, 508},
		"the bend":                {score.Mapping{Message: score.MappedBend, To: 1000, Turns: score.Jumps}, []midi.Message{{Kind: midi.Bend, Value: 12288}}, 750},
		"the pressure":            {score.Mapping{Message: score.MappedPressure, To: 1000, Turns: score.Jumps}, []midi.Message{{Kind: midi.Pressure, Value: 127}}, 1000},
		"how loud a note is":      {score.Mapping{Message: score.MappedNote, Number: 60, To: 1270, Turns: score.Jumps}, []midi.Message{struck(0, 60)}, 800},
		"of another channel":      {score.Mapping{Message: score.MappedControl, Channel: 2, Number: 20, To: 1000, Turns: score.Jumps}, []midi.Message{control(20, 64)}, 0},
		"by steps from 64":        {score.Mapping{Message: score.MappedControl, Number: 20, To: 1000, Turns: score.OffsetTurns}, []midi.Message{control(20, 74), control(20, 63)}, 71},
		"by steps with a sign":    {score.Mapping{Message: score.MappedControl, Number: 20, To: 1000, Turns: score.SignedTurns}, []midi.Message{control(20, 10), control(20, 65), control(20, 64)}, 71},
		"by two's complement":     {score.Mapping{Message: score.MappedControl, Number: 20, To: 1000, Turns: score.TwosTurns}, []midi.Message{control(20, 10), control(20, 127)}, 71},
		"by steps, bounded":       {score.Mapping{Message: score.MappedControl, Number: 20, From: 100, To: 200, Turns: score.TwosTurns}, []midi.Message{control(20, 63), control(20, 63), control(20, 63)}, 200},
		"by steps of less than 1": {score.Mapping{Message: score.MappedControl, Number: 20, To: 5, Turns: score.TwosTurns}, []midi.Message{control(20, 1), control(20, 1)}, 2},
	} {
		t.Run(name, func(t *testing.T) {
			c.m.Control = swell
			if c.m.To > 1000 {
				c.m.Control = score.ControlAddress{Name: "luck"}
			}
			p := withFader(t, c.m)
			p.Luck.Number = 0
			onStage(t, p, func(t *testing.T, s *rig) {
				for _, m := range c.in {
					s.in(t, m)
				}
				pass(4 * turnEvery)
				value, there := s.Performing().Stage.Effective(s.project, stage.Control(c.m.Control))
				require.True(t, there)
				require.Equal(t, c.want, value)
			})
		})
	}
}

// A flood of messages costs no more than a hand does, the last one counts, and all of it is undone as one; while playing too.
func TestAFloodOfControllers(t *testing.T) {
	p := withFader(t, score.Mapping{Message: score.MappedControl, Number: 20, Control: swell, To: 1000, Turns: score.Jumps},
		score.Mapping{Message: score.MappedControl, Number: 20, Control: score.ControlAddress{Name: "probability", Track: 99}, To: 100})
	for _, plays := range []bool{false, true} {
		onStage(t, p, func(t *testing.T, s *rig) {
			if plays {
				s.Play()
				pass(time.Second)
			}
			told := 0
			s.ListenStage(func(Performing) { told++ })
			for i := range 4000 {
				s.in(t, control(20, uint16(i%127)))
				pass(250 * time.Microsecond)
			}
			s.in(t, control(20, 127))
			require.Equal(t, 1000, s.stands())
			require.Less(t, told, 160, "of 4001 messages")
			require.NoError(t, s.Back())
			pass(200 * time.Millisecond)
			require.Equal(t, 0, s.stands())
			require.ErrorIs(t, s.Back(), ErrNoBack)
		})
	}
}

// What a mapped control stands at goes back to where its fader is, once a value; the fader that has set it is not told.
func TestValuesAreSentBack(t *testing.T) {
	p := withFader(t, score.Mapping{Message: score.MappedControl, Channel: 3, Number: 20, Control: swell, To: 1000, Turns: score.Jumps, SendsTo: 4})
	onStage(t, p, func(t *testing.T, s *rig) {
		sent := func() (values []int) {
			for _, e := range s.listener.events() {
				if e.Output == 4 && e.Kind == midi.ControlChange && e.Key == 20 && e.Channel == 2 {
					values = append(values, int(e.Value))
				}
			}
			return values
		}
		value := 500
		require.NoError(t, s.Do([]Doing{{Control: stage.Control(swell), Value: &value}}, Now, 0))
		require.Equal(t, []int{63}, sent())
		require.NoError(t, s.Do([]Doing{{Control: stage.Control(swell), Value: &value}}, Now, 0))
		s.in(t, midi.Message{Kind: midi.ControlChange, Channel: 2, Key: 20, Value: 100})
		require.Equal(t, 787, s.stands())
		require.Equal(t, []int{63}, sent())
		require.NoError(t, s.Do([]Doing{{Control: stage.Control(swell)}}, Now, 0))
		require.Equal(t, []int{63, 0}, sent())
	})
}

// Programs turn controls by name; what cannot be is refused, and what is gone.
func TestProgramsTurnControls(t *testing.T) {
	onStage(t, withFader(t), func(t *testing.T, s *rig) {
		require.NoError(t, s.Turn(stage.Control(swell), 300))
		require.Equal(t, 300, s.stands())
		require.Error(t, s.Turn(stage.Control(swell), 1001))
		require.ErrorIs(t, s.Turn(stage.Control{Name: stage.Macro, ID: 9}, 5), stage.ErrGone)
		require.Equal(t, 300, s.stands())
	})
}

// The position whose value is nearest leads back to a value, whatever the range and the curve.
func TestPositionsAreThoseOfValues(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := score.Mapping{
			Message: rapid.SampledFrom([]score.MappedMessage{score.MappedControl, score.MappedBend}).Draw(t, "message"),
			From:    rapid.IntRange(-1000, 1000).Draw(t, "from"), To: rapid.IntRange(-1000, 1000).Draw(t, "to"),
			Curve: rapid.SampledFrom(score.Curves()).Draw(t, "curve"),
		}
		position := rapid.IntRange(0, greatest(m)).Draw(t, "position")
		value := valueAt(m, position)
		require.Equal(t, value, valueAt(m, positionOf(m, value)))
		other := rapid.IntRange(-1200, 1200).Draw(t, "other")
		require.LessOrEqual(t, distance(valueAt(m, positionOf(m, other)), other), distance(value, other))
	})
}
