package server

import (
	"sync"

	"jettyfog/internal/core/score"
	"jettyfog/internal/live"
)

// trialLuck is a luck that is heard in place of the project's, until it is taken or let go. The project stays
// as it is.
type trialLuck struct {
	mu     sync.Mutex
	number *int
}

// set has the transport play under a luck, or with nil under the project's own again.
func (l *trialLuck) set(transport *live.Transport, project *score.Project, number *int) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.number = number
	l.tell(transport, project)
}

// play has the transport play a project, under the luck on trial if there is one.
func (l *trialLuck) play(transport *live.Transport, project *score.Project) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.tell(transport, project)
}

func (l *trialLuck) tell(transport *live.Transport, project *score.Project) {
	if l.number != nil {
		project = withLuck(project, *l.number)
	}
	transport.SetProject(project)
}
