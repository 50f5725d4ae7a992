package take

import "errors"

// ErrUnknown is returned for a take that does not exist.
var ErrUnknown = errors.New("there is no such take")

// ErrNoLog is returned for the log of a take that has none.
var ErrNoLog = errors.New("what was done while this take was recorded is not known, so it cannot be played again: it came from a file or from before logs were kept, or more was edited than a log keeps")

// Summary is a line in the list of takes.
type Summary struct {
	ID int64 `json:"id"`
	// Name is the take's name.
	Name string `json:"name"`
	// Created is when its recording began, in Unix seconds.
	Created int64 `json:"created"`
	// Luck and Revision tell what the project was when its recording began; a take that no project has made,
	// as an imported one, has the revision 0.
	Luck     int   `json:"luck"`
	Revision int64 `json:"revision"`
	// Bars is its length in bars of its meter, Seconds in seconds.
	Bars    float64 `json:"bars"`
	Seconds float64 `json:"seconds"`
	// Notes is how many notes it has.
	Notes int `json:"notes"`
	// Version counts the changes of the take since it was kept, undo and redo among them.
	Version int `json:"version"`
	// Position is how many of its edits are in force. Undo and Redo name the edits that would be undone and
	// redone; empty if there is none.
	Position int    `json:"position"`
	Undo     string `json:"undo"`
	Redo     string `json:"redo"`
	// Deleted takes are out of the way, and can be brought back.
	Deleted bool `json:"deleted"`
}

// SummaryOf returns the summary of a take as it is now: all but what the take does not know of itself.
func SummaryOf(t *Take) Summary {
	return Summary{
		Name: t.Name, Luck: t.Luck, Notes: t.Count(),
		Bars:    barsIn(t),
		Seconds: float64(t.Nanos()) / 1e9,
	}
}

// barsIn returns how many bars a take has, the last of them in part.
func barsIn(t *Take) float64 {
	bars := t.Bars()
	last := bars.At(t.End)
	return float64(last) + float64(t.End-bars.Start(last))/float64(bars.Meter(last).Bar())
}
