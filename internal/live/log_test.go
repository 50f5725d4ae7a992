package live

import (
	"slices"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/memory"
)

// endless returns a project whose song does not end, if it has one: its last section waits for being released.
func endless(p *score.Project) *score.Project {
	if len(p.Song) == 0 {
		return p
	}
	waits := *p
	waits.Song = slices.Clone(p.Song)
	waits.Song[len(p.Song)-1].Repeats = 0
	return &waits
}

// What is played live is what its log plays, event for event, whatever is edited, comes in, is looped and is jumped to
// while it plays, and whenever.
func TestLiveIsItsLog(t *testing.T) {
	projects := rapid.Custom(testkit.Project)
	events, entries, done := 0, 0, 0
	for seed := range seeds(100) {
		synctest.Test(t, func(t *testing.T) {
			act := rapid.Custom(func(t *rapid.T) int { return rapid.IntRange(0, 9).Draw(t, "act") })
			project := endless(ofOneOutput(projects.Example(seed)))
			disk := memory.New(project)
			recorder, wake := NewRecorder(disk, Reports{}), NewRecorder(memory.New(project), Reports{})
			transport := New(project, Options{}, recorder, wake)
			go recorder.Run(t.Context())
			heard := &listener{now: transport.Now}
			transport.Connect(heard)
			transport.Connect(heard)
			transport.Attach(heard)
			go transport.Run(t.Context())
			require.NoError(t, transport.SetSong(seed%2 == 1))
			transport.PlayFrom(int64(seed % 3))
			require.NoError(t, transport.Record(Recording{}))
			for n := range 12 {
				switch act.Example(100*seed + n) {
				case 0, 1:
					before := project
					edit := rapid.Custom(func(t *rapid.T) score.Edit { return testkit.Edit(t, before) }).Example(100*seed + n)
					next, _, err := score.Apply(project, edit)
					require.NoError(t, err)
					project = endless(ofOneOutput(next))
					transport.SetProject(project, Change{Way: edit, New: true})
				case 2:
					require.NoError(t, transport.Hear(Incoming{Message: rapid.Custom(func(t *rapid.T) midi.Message { return testkit.Input(t, 0) }).Example(100*seed + n)}))
				case 3:
					bars := project.Bars()
					from := int64(n % 2)
					require.NoError(t, transport.SetLoop(Range{From: bars.Start(from), To: bars.Start(from + 1), GoesOn: n%3 > 0}))
				case 4:
					require.NoError(t, transport.SetLoop(Range{}))
					if n%2 == 0 {
						require.NoError(t, transport.SetSong(n%4 == 0))
					}
				case 5, 6, 7:
					change := rapid.Custom(func(t *rapid.T) stage.Change { return testkit.Change(t, project) }).Example(100*seed + n)
					when := Moments()[n%len(Moments())]
					doing := Doing{Control: change.Control, Value: &change.Value}
					if n%5 == 4 {
						doing.Value = nil
					}
					if err := transport.Do([]Doing{doing}, when, 1+n%3); err == nil {
						done++
					}
				case 9:
					if n%2 == 0 {
						transport.StayOn()
					}
					go func() { // which waits until what plays there is known
						_ = transport.JumpTo(int64(n%4), Moments()[n%len(Moments())], 1+n%2, n%3 == 0)
					}()
				case 8:
					if n%3 == 0 {
						transport.Reset()
					} else if err := transport.Back(); err != nil {
						require.ErrorIs(t, err, ErrNoBack)
					}
				}
				pass(time.Duration(50+137*n) * time.Millisecond)
			}
			transport.mu.Lock()
			end, logged := transport.player.Run(), transport.log
			transport.mu.Unlock()
			got := heard.messages()
			transport.Stop()
			requireTaken(t, disk, &logged, transport.ended)
			var shared route.SharedKeys
			var told midi.Settings // programs go out where they are others
			want := slices.DeleteFunc(shared.Play(logged.Play(end), nil), func(m midi.Message) bool { return m.Kind == midi.Program && !told.Set(m) })
			events, entries = events+len(got), entries+len(logged.Entries)
			require.Equal(t, append([]midi.Message{}, want...), got, "seed %d, %d entries", seed, len(logged.Entries))
		})
	}
	require.Greater(t, events, seeds(500))
	require.Greater(t, entries, seeds(200))
	require.Greater(t, done, seeds(100))
}

// ofOneOutput returns the project with all tracks going to the built-in sound.
func ofOneOutput(p *score.Project) *score.Project {
	p = p.Clone()
	p.Outputs = nil
	for i := range p.Tracks {
		p.Tracks[i].Routes, p.Tracks[i].MuteCuts = nil, false
	}
	return p
}

// requireTaken checks that a take has what a log plays until playing stopped, over seams too. Its tracks can have other ids.
func requireTaken(t *testing.T, disk *memory.Store, logged *log.Log, end score.Tick) {
	pass(time.Second)
	taken, _, _, err := disk.Recording(t.Context(), 1)
	require.NoError(t, err)
	before := func(messages []midi.Message) []midi.Message {
		kept := []midi.Message{}
		for _, m := range messages {
			if m.Tick < end {
				m.Track = 0
				kept = append(kept, m)
			}
		}
		return kept
	}
	require.Equal(t, before(logged.Play(end)), before(taken.Messages))
	kept, err := disk.Log(t.Context(), 1)
	require.NoError(t, err)
	require.Equal(t, logged.Entries, kept.Log.Entries, "it keeps its log")
	require.Equal(t, end, kept.To)
	heard := logged.Hear(end)
	require.Equal(t, heard.Tempo.Until(end), taken.Tempo)
	for bar := range heard.Bars.At(end) {
		require.Equal(t, heard.Bars.Start(bar), taken.Bars().Start(bar), "bar %d", bar)
	}
}

// A log is bounded: of what is edited without end there is none, until playing begins anew.
func TestALogIsBounded(t *testing.T) {
	inFull(t)
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		s.Play()
		require.NoError(t, s.Record(Recording{}))
		pass(time.Second)
		_, err := s.disk.Log(t.Context(), 1)
		require.NoError(t, err, "it is kept while it grows")
		for n := range maxLogged + 1 {
			edited := testkit.Buoy()
			edited.Tracks[0].Mute = n%2 == 0
			s.SetProject(edited, Change{})
		}
		logged, _ := s.Log()
		require.Nil(t, logged.Project)
		require.Empty(t, logged.Entries)
		s.Stop()
		pass(time.Second)
		_, err = s.disk.Log(t.Context(), 1)
		require.ErrorIs(t, err, take.ErrNoLog)
		s.Play()
		logged, _ = s.Log()
		require.NotNil(t, logged.Project)
	})
}
