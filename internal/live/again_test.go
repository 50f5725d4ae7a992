package live

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

// A take is played again as it was recorded, message for message, though it began in the middle of what was performed,
// edited and looped.
func TestATakeIsPlayedAgain(t *testing.T) {
	projects := rapid.Custom(testkit.Project)
	notes := 0
	for seed := range seeds(40) {
		project := projects.Example(seed)
		testkit.MakeAudible(project)
		onStage(t, project, func(t *testing.T, s *rig) {
			bars := project.Bars()
			s.PlayFrom(int64(seed % 2))
			for n := range 9 {
				switch {
				case n == 3:
					require.NoError(t, s.Record(Recording{}))
				case n == 7:
					s.EndRecording()
				case n == 5 && seed%3 == 0:
					require.NoError(t, s.SetLoop(Range{From: bars.Start(1), To: bars.Start(2)}))
				case n%2 == 0:
					change := rapid.Custom(func(t *rapid.T) stage.Change { return testkit.Change(t, project) }).Example(100*seed + n)
					_ = s.Do([]Doing{{change.Control, &change.Value}}, Moments()[n%3], 0) // what is too dense is refused
				default:
					edit := rapid.Custom(func(t *rapid.T) score.Edit { return testkit.Edit(t, project) }).Example(100*seed + n)
					next, _, err := score.Apply(project, edit)
					require.NoError(t, err)
					project = next
					s.SetProject(project, Change{Way: edit, New: true})
				}
				pass(time.Duration(1000+270*n) * time.Millisecond)
			}
			s.Stop()
			pass(time.Second)
			recorded, _, _, err := s.disk.Recording(t.Context(), 1)
			require.NoError(t, err)
			logged, err := s.disk.Log(t.Context(), 1)
			require.NoError(t, err)
			again := logged.Again("again")
			require.Equal(t, messagesOf(recorded), messagesOf(again), "seed %d", seed)
			require.Equal(t, recorded.Tempo.Until(recorded.End), again.Tempo.Until(again.End))
			require.Equal(t, recorded.End, again.End)
			for bar := range recorded.Bars().At(recorded.End) {
				require.Equal(t, recorded.Bars().Start(bar), again.Bars().Start(bar))
			}
			notes += recorded.Count()
			luck := 7
			other := logged.Under(luck).Again("other")
			require.Equal(t, 7, other.Luck)
			require.Equal(t, messagesOf(other), messagesOf(logged.Under(luck).Again("other")))
			require.Equal(t, messagesOf(recorded), messagesOf(logged.Again("again")), "the log stays as it was")
		})
	}
	require.Greater(t, notes, seeds(60))
}

// messagesOf returns what a take has in order, without the ids of its tracks, which a recording gives anew, and the numbers
// of notes, which count from the beginning of playing.
func messagesOf(t *take.Take) (messages []midi.Message) {
	for _, m := range t.Messages {
		if m.Track = 0; m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
			m.Value = 0
		}
		messages = append(messages, m)
	}
	return messages
}
