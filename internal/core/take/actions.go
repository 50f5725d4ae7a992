package take

import (
	"cmp"
	"fmt"
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Performed is an action of the log of a take.
type Performed struct {
	// Entry is its place in the log, from 0.
	Entry int `json:"entry"`
	// Tick of the take is the one from which it counts; one before 0 counts at its beginning.
	Tick    score.Tick    `json:"tick"`
	Control stage.Control `json:"control"`
	// Value is what the control is given; without it its live change is taken away.
	Value *int `json:"value,omitempty"`
}

// Actions lists what was performed until the take's end, in the order in which it was done.
func (l Logged) Actions() []Performed {
	performed := []Performed{}
	for i, entry := range l.Log.Entries {
		if a := entry.Action; a != nil && a.At < l.To {
			performed = append(performed, Performed{Entry: i, Tick: a.At - l.From, Control: a.Control, Value: a.Value})
		}
	}
	return performed
}

// Mend moves an action of a log, or leaves it out.
type Mend struct {
	// Entry is the place of the action in the log, from 0.
	Entry int `json:"entry" jsonschema:"minimum=0,maximum=1000000"`
	// Tick of the take is the one from which it is to count; without it the action is left out.
	Tick *score.Tick `json:"tick,omitempty"`
	// Value is what it gives to its control instead.
	Value *int `json:"value,omitempty"`
}

// Mended returns the log with actions that are moved or left out. All else is done when it was; an action that is moved comes
// as long before its tick as it did. The error is a *score.FieldError.
func (l Logged) Mended(mends []Mend) (Logged, error) {
	played := *l.Log
	played.Entries = slices.Clone(played.Entries)
	dropped := map[int]bool{}
	for _, mend := range mends {
		if mend.Entry < 0 || mend.Entry >= len(played.Entries) || played.Entries[mend.Entry].Action == nil {
			return l, &score.FieldError{Field: "entry", Got: mend.Entry, Allowed: "the place of an action in the log"}
		}
		if dropped[mend.Entry] = mend.Tick == nil; mend.Tick == nil {
			continue
		}
		if *mend.Tick < -l.From || *mend.Tick >= l.To-l.From {
			return l, &score.FieldError{Field: "tick", Got: *mend.Tick, Allowed: fmt.Sprintf("within the take, up to %d", l.To-l.From-1)}
		}
		entry := &played.Entries[mend.Entry]
		moved := *entry.Action
		early := max(0, moved.At-entry.Tick)
		moved.At = *mend.Tick + l.From
		if mend.Value != nil {
			if err := moved.Control.CheckRange(*mend.Value); err != nil {
				return l, err
			}
			moved.Value = mend.Value
		}
		entry.Action, entry.Tick = &moved, max(0, moved.At-early)
	}
	kept := []log.Entry{}
	for i, entry := range played.Entries {
		if !dropped[i] {
			kept = append(kept, entry)
		}
	}
	slices.SortStableFunc(kept, func(a, b log.Entry) int { return cmp.Compare(a.Tick, b.Tick) })
	played.Entries = kept
	l.Log = &played
	return l, nil
}

// Stage returns the live changes that stand at the take's end.
func (l Logged) Stage() stage.Stage {
	s := l.Log.Stage
	for _, entry := range l.Log.Entries {
		switch {
		case entry.Action != nil && entry.Action.At < l.To:
			s = s.After(entry.Action.Control, entry.Action.Value)
		case entry.Project != nil && entry.Tick < l.To:
			for _, c := range entry.LetGo {
				s = s.Written(c)
			}
		case entry.Jump != nil && entry.Jump.Project != nil && entry.Tick < l.To:
			s = entry.Jump.Staged()
		}
	}
	return s
}
