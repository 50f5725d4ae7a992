package stage_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

// moving returns a project whose macros have some moves each.
func moving(moves ...[]score.MacroMove) *score.Project {
	p := testkit.Buoy()
	for i, all := range moves {
		p.Macros = append(p.Macros, score.Macro{ID: i + 1, Name: string(rune('A' + i)), Moves: all})
	}
	return p
}

func macro(id int) stage.Control { return stage.Control{Name: stage.Macro, ID: id} }

// A macro adds to what stands as much as it is away from its rest; several add up before anything is rounded and bounded; an absolute one counts in
// place of what stands.
func TestMacrosAddToWhatStands(t *testing.T) {
	probability := score.ControlAddress{Name: "probability", Track: 1}
	by := func(by int, curve score.Curve) []score.MacroMove {
		return []score.MacroMove{{Control: probability, By: by, Curve: curve}}
	}
	absolute := []score.MacroMove{{Control: probability, Absolute: true, From: 80, To: -40}}
	for name, c := range map[string]struct {
		moves     [][]score.MacroMove
		rest      int
		positions []int
		hand      int
		want      int
	}{
		"at rest":                         {[][]score.MacroMove{by(60, "")}, 0, []int{0}, 10, 10},
		"half way":                        {[][]score.MacroMove{by(60, "")}, 0, []int{500}, 10, 40},
		"below its rest":                  {[][]score.MacroMove{by(60, "")}, 1000, []int{0}, 10, -50},
		"slow first":                      {[][]score.MacroMove{by(80, score.SlowStart)}, 0, []int{500}, 0, 20},
		"fast first":                      {[][]score.MacroMove{by(80, score.FastStart)}, 0, []int{500}, 0, 60},
		"slow at both ends":               {[][]score.MacroMove{by(64, score.SCurve)}, 0, []int{250}, 0, 10},
		"bounded":                         {[][]score.MacroMove{by(200, "")}, 0, []int{900}, 50, 100},
		"two halves of one":               {[][]score.MacroMove{by(1, ""), by(1, "")}, 0, []int{500, 500}, 0, 1},
		"bounded after both":              {[][]score.MacroMove{by(200, ""), by(-200, "")}, 0, []int{1000, 1000}, 30, 30},
		"absolute":                        {[][]score.MacroMove{absolute}, 0, []int{250}, 10, 50},
		"absolute, and what another adds": {[][]score.MacroMove{by(-20, ""), absolute}, 0, []int{1000, 250}, 10, 30},
	} {
		t.Run(name, func(t *testing.T) {
			p := moving(c.moves...)
			for i := range p.Macros {
				p.Macros[i].Rest = c.rest
			}
			s := stage.Stage{}.With(stage.Control(probability), c.hand)
			for i, position := range c.positions {
				s = s.With(macro(i+1), position)
			}
			require.NoError(t, p.Validate())
			require.Equal(t, c.want, s.On(p).Track(1).Probability)
			value, there := s.Effective(p, stage.Control(probability))
			require.True(t, there)
			require.Equal(t, c.want, value)
			if moved := s.Moved(p); c.want == c.hand {
				require.Empty(t, moved)
			} else {
				require.Equal(t, []stage.Change{{Control: stage.Control(probability), Value: c.want}}, moved)
			}
			require.Equal(t, c.positions[0], s.On(p).Macros[0].Position)
			stored, any := s.Store(p)
			require.True(t, any)
			after, _, err := score.Apply(p, stored)
			require.NoError(t, err)
			require.Equal(t, c.hand, after.Track(1).Probability, "what a macro adds is not written")
			require.Equal(t, c.want, stage.Stage{}.On(after).Track(1).Probability)
		})
	}
}

// A macro moves nothing that silences, is done once, holds from a bar on or says what plays, nor what is gone; it is about the tracks that it
// moves.
func TestWhatMacrosMove(t *testing.T) {
	gone := score.ControlAddress{Name: "probability", Track: 77}
	p := moving([]score.MacroMove{
		{Control: gone, By: 5}, {Control: score.ControlAddress{Name: "mute", Track: 1}, By: 1}, {Control: score.ControlAddress{Name: "tempo"}, By: 1000},
		{Control: score.ControlAddress{Name: "pattern", Track: 1}, By: 1}, {Control: score.ControlAddress{Name: "macro", ID: 1}, By: 500},
		{Control: score.ControlAddress{Name: "nothing"}, By: 1},
	})
	want := p.Clone()
	want.Macros[0].Position = 1000
	s := stage.Stage{}.With(macro(1), 1000)
	require.Equal(t, want.Tracks, s.On(p).Tracks)
	require.Equal(t, want.Tempo, s.On(p).Tempo)
	require.Equal(t, []int{77}, macro(1).Tracks(p))
	require.Equal(t, []int{}, macro(9).Tracks(p))
	require.ErrorIs(t, macro(9).Check(p, 5), stage.ErrGone)
	require.Error(t, stage.Control{Name: "swing", ID: 1}.Check(p, 500))
	require.Equal(t, "A", macro(1).Words(p))
	p.Macros[0].Moves = append(p.Macros[0].Moves, score.MacroMove{Control: score.ControlAddress{Name: "swing"}, By: 100})
	require.Nil(t, macro(1).Tracks(p), "the swing is of all")
	for _, spec := range stage.Specs() {
		if spec.Movable {
			require.False(t, spec.Once || spec.OfSong || spec.Of == stage.OfMacro, spec.Name)
		}
	}
	require.True(t, stage.SpecOf("push", stage.OfProject).Movable)
}

// A macro that is moved by nothing changes nothing, wherever it rests.
func TestMacrosAtRestChangeNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Macros {
			p.Macros[i].Rest = p.Macros[i].Position
			for k := range p.Macros[i].Moves {
				if move := &p.Macros[i].Moves[k]; move.Absolute {
					move.Absolute, move.From, move.To, move.By = false, 0, 0, math.MaxInt16
				}
			}
		}
		require.NoError(t, p.Validate())
		require.Equal(t, p, stage.Stage{}.On(p))
	})
}
