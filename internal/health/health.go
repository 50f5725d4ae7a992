// Package health tells what is wrong at present with the places where things are kept.
//
//	board := health.NewBoard(log)
//	board.Listen(func(problems []string) { … })
//	board.Report(health.Wake, err) // a new problem: logged once, told to all listeners
//	board.Report(health.Wake, nil) // it is over
//
// A Problem is an error that a musician can act on: its sentence says what is wrong, what was kept and what to do.
// Its cause is for the log.
package health

import (
	"errors"
	"log/slog"
	"slices"
	"sync"
)

// Kind is what is wrong with the place where things are kept.
type Kind int

// The kinds.
const (
	Full     Kind = iota // the disk has no room
	Gone                 // the folder or the database was moved, deleted or replaced
	ReadOnly             // nothing may be written
	Damaged              // the database cannot be read
	Newer                // a newer program has written the database
	Busy                 // another program keeps the database locked
	Failing              // the disk or the folder refuses for another reason
)

// Problem is an error with a sentence for a musician.
type Problem struct {
	Kind Kind
	// Sentence says what is wrong, what was kept and what to do, without a full stop.
	Sentence string
	// Cause is what the disk or the database said.
	Cause error
}

func (p *Problem) Error() string { return p.Sentence }

func (p *Problem) Unwrap() error { return p.Cause }

// Source is what a problem is about. Each has one problem at a time.
type Source string

// The sources.
const (
	Folder    Source = "folder"    // the folder of data
	Recording Source = "recording" // the take that is being recorded
	Wake      Source = "wake"
	Takes     Source = "takes" // the list of takes
	Copies    Source = "copies"
	Stage     Source = "stage"    // the live changes
	Position  Source = "position" // where playing is
)

// sources is the order in which problems are told.
var sources = []Source{Folder, Recording, Wake, Takes, Copies, Stage, Position}

// Board holds the problems of the moment. All methods may be called concurrently.
type Board struct {
	log *slog.Logger

	mu        sync.Mutex
	problems  map[Source]string
	listeners []func([]string)
}

// NewBoard returns a board without problems, which notes them in a log as they come and go.
func NewBoard(log *slog.Logger) *Board {
	return &Board{log: log, problems: map[Source]string{}}
}

// Report says what is wrong with a source, or with nil that nothing is. What is known already is passed over, so
// it can be said as often as it is met.
func (b *Board) Report(source Source, problem error) {
	b.mu.Lock()
	defer b.mu.Unlock()
	sentence := ""
	if problem != nil {
		sentence = problem.Error()
	}
	if b.problems[source] == sentence {
		return
	}
	if problem == nil {
		delete(b.problems, source)
		b.log.Info("all is well again", "source", string(source))
	} else {
		b.problems[source] = sentence
		b.log.Error(sentence, "source", string(source), "cause", causeOf(problem))
	}
	for _, listener := range b.listeners {
		listener(b.list())
	}
}

// causeOf returns what the disk or the database said, or else the error itself.
func causeOf(err error) string {
	var p *Problem
	for errors.As(err, &p) && p.Cause != nil {
		err = p.Cause
	}
	return err.Error()
}

// Listen has a function told of the problems whenever they change. It must return quickly and must not call the board.
func (b *Board) Listen(listener func(problems []string)) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.listeners = append(b.listeners, listener)
}

// Problems lists the problems of the moment, each a sentence without its full stop, each once.
func (b *Board) Problems() []string {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.list()
}

func (b *Board) list() []string {
	problems := []string{}
	for _, source := range sources {
		if sentence := b.problems[source]; sentence != "" && !slices.Contains(problems, sentence) {
			problems = append(problems, sentence)
		}
	}
	return problems
}
