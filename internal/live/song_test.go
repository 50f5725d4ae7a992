package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

// sung returns a project with the song of the demo, at a tempo of 240.
func sung() *score.Project {
	p := testkit.Unwired(score.Demo())
	p.Tempo = 240_000
	for i := range p.Song {
		p.Song[i].Tempo = nil
	}
	return p
}

// asLogged requires that what was handed over is what the log plays.
func (s *rig) asLogged(t *testing.T) {
	t.Helper()
	logged, end := s.Log()
	want := []midi.Message{}
	for _, m := range logged.Play(end) {
		if m.Kind == midi.NoteOn {
			want = append(want, m)
		}
	}
	got := []midi.Message{}
	for _, m := range s.listener.messages() {
		if m.Kind == midi.NoteOn && m.Tick < end {
			got = append(got, m)
		}
	}
	require.NotEmpty(t, want)
	require.Equal(t, len(want), len(got))
	for i := range want {
		require.Equal(t, [3]int64{int64(want[i].Tick), int64(want[i].Track), int64(want[i].Key)}, [3]int64{int64(got[i].Tick), int64(got[i].Track), int64(got[i].Key)})
	}
}

// allEnd requires that every note that began has ended.
func (s *rig) allEnd(t *testing.T) {
	t.Helper()
	down := map[midi.NoteID]bool{}
	for _, m := range s.listener.messages() {
		switch m.Kind {
		case midi.NoteOn:
			down[m.NoteID()] = true
		case midi.NoteOff:
			delete(down, m.NoteID())
		}
	}
	require.Empty(t, down)
}

// A song plays section by section, waits to be released, and ends with its last section; the take has a marker for each.
func TestASongPlaysToItsEnd(t *testing.T) {
	onStage(t, sung(), func(t *testing.T, s *rig) {
		require.NoError(t, s.SetSong(true))
		require.NoError(t, s.Record(Recording{}))
		pass(41 * time.Second) // 41 bars of a second
		require.True(t, s.Status().Playing, "the section before the last waits")
		status := s.SongStatus()
		require.True(t, status.Plays)
		require.Zero(t, status.End)
		require.Equal(t, score.Placed{Section: 6, Bar: 32}, status.Sections[5].Placed)
		require.NoError(t, s.Do([]Doing{{stage.Control{Name: stage.Release}, value(1)}}, Now, 0))
		require.Equal(t, s.bars().Start(48), s.SongStatus().End)
		pass(10 * time.Second)
		require.False(t, s.Status().Playing)
		s.asLogged(t)
		s.allEnd(t)
		pass(time.Second)
		recorded, _, _, err := s.disk.Recording(t.Context(), 1)
		require.NoError(t, err)
		var marked []string
		for _, marker := range recorded.Markers {
			marked = append(marked, marker.Text)
		}
		require.Equal(t, []string{"Doors", "Ferry", "Engine room", "Fog signal", "Winches", "Low water", "Lights out"}, marked)
		require.Equal(t, 48*4*score.TicksPerQuarter, recorded.End)
		require.Empty(t, s.Stage().InForce(), "nothing of the song stays")
	})
}

// Sections are gone over to with the next bar, the song is left and begun while it plays, and goes on where it stopped.
func TestSectionsByHand(t *testing.T) {
	bar := 4 * score.TicksPerQuarter
	onStage(t, sung(), func(t *testing.T, s *rig) {
		require.NoError(t, s.SetSong(true))
		s.Play()
		pass(1500 * time.Millisecond)
		require.NoError(t, s.GoOver(1, NextBar, 0))
		pass(2 * time.Second)
		require.Equal(t, score.Placed{Section: 2, Bar: 2, Bars: 8}, s.SongStatus().Sections[1].Placed)
		require.NoError(t, s.GoOver(-5, NextBar, 0), "there is none")
		require.NoError(t, s.GoOver(-1, NextBar, 0))
		pass(2 * time.Second)
		require.Equal(t, 1, s.SongStatus().Sections[2].Section)
		require.NoError(t, s.SetSong(false))
		pass(2 * time.Second)
		last := s.SongStatus().Sections
		require.Zero(t, last[len(last)-1].Section)
		s.Stop()
		s.asLogged(t)

		before := len(s.listener.sounds)
		require.NoError(t, s.SetSong(true))
		s.PlayFrom(6)
		pass(3500 * time.Millisecond)
		require.NoError(t, s.GoOver(1, NextBar, 0))
		pass(2 * time.Second)
		plan := s.SongStatus().Sections
		s.Stop()
		stopped := s.Status().Stopped
		s.GoOn()
		pass(time.Second)
		require.Equal(t, plan, s.SongStatus().Sections, "where it stopped the same sections play")
		require.Equal(t, stopped/bar, s.Status().Tick/bar)
		s.Stop()
		require.Greater(t, len(s.listener.sounds), before)
	})
}

// Where the program ended while it played it goes on with the sections and the live changes that were.
func TestPlayingGoesOnAfterACrash(t *testing.T) {
	var interrupted log.Position
	onStage(t, sung(), func(t *testing.T, s *rig) {
		require.NoError(t, s.SetSong(true))
		s.Play()
		pass(5500 * time.Millisecond)
		_, interrupted = s.Position()
		require.True(t, interrupted.Playing)
		require.Equal(t, 5*4*score.TicksPerQuarter, interrupted.Song)
	})
	onStage(t, sung(), func(t *testing.T, s *rig) {
		s.SetPosition(interrupted)
		require.True(t, s.Status().Interrupted)
		_, kept := s.Position()
		require.True(t, kept.Equal(interrupted), "until it has gone on")
		s.GoOn()
		pass(time.Second)
		require.False(t, s.Status().Interrupted)
		require.Equal(t, interrupted.Plan, log.Plan(s.player.Plan()))
		section, _ := s.player.Plan().At(6)
		require.Equal(t, 2, section.Section)
		s.Stop()
		s.asLogged(t)
		s.SetPosition(log.Position{Song: -1, Playing: true})
		s.SetPosition(log.Position{Plan: log.Plan{{Bar: 5}, {Bar: 2}}, Playing: true})
		require.False(t, s.Status().Interrupted, "what cannot be is left")
	})
}

// The tempo goes to another step by step with each beat; back takes all of it back.
func TestARampOfTheTempo(t *testing.T) {
	project := testkit.Buoy()
	project.Tempo = 120_000
	onStage(t, project, func(t *testing.T, s *rig) {
		s.Play()
		pass(500 * time.Millisecond)
		require.NoError(t, s.Ramp(160_000, 1))
		require.Len(t, s.Performing().Queue, 4)
		require.Equal(t, 4*score.TicksPerQuarter, s.Performing().Queue[0].At)
		pass(5 * time.Second)
		tempos := s.player.Tempo()
		var bpm []score.Tempo
		for _, change := range tempos {
			bpm = append(bpm, change.Tempo)
		}
		require.Equal(t, []score.Tempo{120_000, 130_000, 140_000, 150_000, 160_000}, bpm)
		require.Equal(t, 1, s.Performing().Back)
		require.NoError(t, s.Back())
		pass(time.Second)
		require.Empty(t, s.Stage().Changes())
		require.ErrorContains(t, s.Ramp(160_000, 0), "bars is 0; it must be 1 to 64")
		require.ErrorContains(t, s.Ramp(1, 4), "tempo is 1; it must be 10000 to 400000")
		require.NoError(t, s.Ramp(100_000, 2))
		pass(100 * time.Millisecond)
		require.NoError(t, s.Ramp(130_000, 1), "another one comes in the place of one that waits")
		pass(10 * time.Second)
		value, _ := s.Stage().Value(stage.Control{Name: "tempo"})
		require.Equal(t, 130_000, value)
		s.Stop()
		s.asLogged(t)
	})
}

// A scene is done as one and undone as one; what is gone of it is left out, and counted.
func TestASceneIsDoneAsOne(t *testing.T) {
	project := testkit.Unwired(score.Demo())
	project.Scenes[3].Values = append(project.Scenes[3].Values, score.SceneValue{Control: score.ControlAddress{Name: "mute", Track: 77}, Value: 1},
		score.SceneValue{Control: score.ControlAddress{Name: stage.Section}, Value: 1})
	onStage(t, project, func(t *testing.T, s *rig) {
		_, err := s.DoScene(99, Now, 0)
		require.ErrorIs(t, err, score.ErrUnknownScene)
		s.Play()
		pass(time.Second)
		leftOut, err := s.DoScene(4, NextBar, 0)
		require.NoError(t, err)
		require.Equal(t, 2, leftOut)
		pass(4 * time.Second)
		on := s.Stage().On(project)
		require.Equal(t, []int{2, 1, 0}, []int{on.Tracks[0].Playing, on.Tracks[1].Playing, on.Tracks[2].Playing})
		require.True(t, on.Tracks[2].Mute)
		require.Equal(t, 1, s.Performing().Back)
		require.NoError(t, s.Back())
		pass(time.Second)
		require.Empty(t, s.Stage().Changes())
		s.Stop()
		s.asLogged(t)
	})
}

// A pattern that is deleted while it waits does nothing; what plays plays on, and the clock does not stop.
func TestAPatternIsDeletedWhileItWaits(t *testing.T) {
	project := testkit.Unwired(score.Demo())
	onStage(t, project, func(t *testing.T, s *rig) {
		s.Play()
		pass(time.Second)
		require.NoError(t, s.Do([]Doing{{stage.Control{Name: "pattern", Track: 1}, value(2)}}, NextBars, 2))
		edit := score.RemovePattern{Track: 1, Pattern: 2}
		next, _, err := score.Apply(project, edit)
		require.NoError(t, err)
		s.SetProject(next, Change{Way: edit, New: true})
		pass(10 * time.Second)
		require.Empty(t, s.Performing().Queue)
		require.Zero(t, s.Stage().On(next).Tracks[0].Playing)
		require.True(t, s.Status().Playing)
		s.Stop()
		s.asLogged(t)
	})
}
