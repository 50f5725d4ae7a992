package take

import (
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Logged is what a take is a function of: a stretch of run time of a log. Of a take that was begun in the middle of a bar
// it is from the beginning of the bar on, and Recorded is the first tick of which something was recorded.
type Logged struct {
	Log                *log.Log
	From, Recorded, To score.Tick
}

// Under returns the log under another luck, which then holds from the beginning of playing on, whatever luck was tried meanwhile.
func (l Logged) Under(luck int) Logged {
	played := *l.Log
	control := stage.Control{Name: "luck"}
	played.Stage = played.Stage.With(control, luck)
	played.Entries = slices.DeleteFunc(slices.Clone(played.Entries), func(entry log.Entry) bool {
		return entry.Action != nil && entry.Action.Control == control
	})
	for i := range played.Entries {
		played.Entries[i].LetGo = slices.DeleteFunc(slices.Clone(played.Entries[i].LetGo), func(c stage.Control) bool { return c == control })
	}
	l.Log = &played
	return l
}

// Again returns the take as the log plays it once more.
func (l Logged) Again(name string) *Take {
	played := l.Log
	whole := OfLog(played, l.To)
	t := Cut(whole, l.From, l.To)
	if late := l.Recorded - l.From; late > 0 {
		t.Messages = Cut(whole, l.Recorded, l.To).Messages
		for i := range t.Messages {
			if m := &t.Messages[i]; m.Tick > 0 || m.Kind == midi.NoteOn {
				m.Tick += late
			}
		}
	}
	t.Name = score.CleanName(name)
	t.Project = played.Stage.On(played.Project)
	t.Luck = t.Project.Luck.Number
	return t
}
