package take

import "errors"

// ErrUnknown is returned for a take that does not exist.
var ErrUnknown = errors.New("there is no such take")

// Summary is a line in the list of takes.
type Summary struct {
	ID int64 `json:"id"`
	// Name is the take's name.
	Name string `json:"name"`
	// Created is when its recording began, in Unix seconds.
	Created int64 `json:"created"`
	// Luck and Revision tell what the project was when its recording began.
	Luck     int   `json:"luck"`
	Revision int64 `json:"revision"`
	// Bars is its length in bars of its meter, Seconds in seconds.
	Bars    float64 `json:"bars"`
	Seconds float64 `json:"seconds"`
	// Notes is how many notes it has.
	Notes int `json:"notes"`
}
