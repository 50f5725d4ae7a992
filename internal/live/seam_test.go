package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
)

// A jump waits for its moment, plays from there what is played from that bar, and is recorded over; the last of several
// counts, one that is taken back does not, and none is left when playing stops.
func TestTheSongJumps(t *testing.T) {
	onStage(t, changing(), func(t *testing.T, s *rig) {
		p := changing()
		lines := p.Bars()
		s.Play()
		require.NoError(t, s.Record(Recording{}))
		pass(time.Second)
		require.NoError(t, s.JumpTo(9, PatternEnd, 0, false))
		require.NoError(t, s.JumpTo(7, NextBar, 0, false))
		require.Equal(t, &NextJump{At: lines.Start(1), To: lines.Start(7)}, s.Status().Jump)
		pass(6 * time.Second)
		require.Nil(t, s.Status().Jump)
		end := s.edge()
		require.Greater(t, end, lines.Start(2))
		want := append(noteOns(p, 0, lines.Start(1), 0), noteOns(p, lines.Start(7), lines.Start(7)+end-lines.Start(1), lines.Start(1))...)
		require.Equal(t, want, s.listener.noteOns(end))
		require.Greater(t, s.Status().Tick, lines.Start(7)-1)

		require.NoError(t, s.JumpTo(0, NextBar, 0, false))
		s.StayOn()
		s.StayOn()
		require.Nil(t, s.Status().Jump)
		pieces := len(s.player.Pieces())
		pass(6 * time.Second)
		require.Len(t, s.player.Pieces(), pieces)

		require.NoError(t, s.JumpTo(0, NextBars, 64, false))
		s.Stop()
		require.Nil(t, s.Status().Jump)
		requireBalance(t, s.listener.messages())
		logged, _ := s.Log()
		requireTaken(t, s.disk, &logged, s.ended)

		require.NoError(t, s.JumpTo(3, NextBar, 0, false), "while standing still playing begins")
		require.True(t, s.Status().Playing)
		require.Equal(t, lines.Start(3), s.Status().Tick)
	})
}

// A jump at the end of a looped range comes in place of the next pass; out of the range the song goes on, into it the range is
// looped. What is edited while a jump waits is heard after it.
func TestJumpsAndLoops(t *testing.T) {
	onStage(t, changing(), func(t *testing.T, s *rig) {
		lines := changing().Bars()
		require.NoError(t, s.SetLoop(Range{From: 0, To: lines.Start(1), GoesOn: true}))
		s.Play()
		pass(7 * time.Second)
		require.Less(t, s.Status().Tick, lines.Start(1))
		require.NoError(t, s.JumpTo(4, NextBar, 0, false))
		edited := changing()
		edited.Tracks[1].Parts()[0].Lanes.Gate.Steps[1] = score.On
		s.SetProject(edited, Change{})
		pass(4 * time.Second)
		piece, n := s.player.Pieces().At(s.edge())
		require.Equal(t, lines.Start(4), piece.Song)
		require.Greater(t, n, 1)
		var got []midi.Message
		for _, m := range s.listener.noteOns(s.edge()) {
			if m.Tick >= piece.Run {
				got = append(got, m)
			}
		}
		require.Equal(t, noteOns(edited, lines.Start(4), s.edge()+piece.Later(), piece.Run), got)
		require.NoError(t, s.JumpTo(0, Now, 0, true))
		pass(9 * time.Second)
		require.Less(t, s.Status().Tick, lines.Start(1))
		s.Stop()
		requireBalance(t, s.listener.messages())
	})
}

func TestWhichJumpsAreRefused(t *testing.T) {
	onStage(t, changing(), func(t *testing.T, s *rig) {
		require.ErrorContains(t, s.JumpTo(1, "soon", 0, false), `when is "soon"`)
		require.ErrorContains(t, s.JumpTo(1, NextBars, 0, false), "bars is 0; it must be 1 to")
		require.False(t, s.Status().Playing)
	})
}
