package conform

import "jettyfog/internal/output"

// Noted is a port of which it is noted what else was asked of it: what is withdrawn and never comes out, and when all was to end. A test tells of
// that behind all that came out.
type Noted struct {
	output.Port
	asked []Outcome
}

// Withdraw implements output.Port.
func (n *Noted) Withdraw(noteOns []output.Event) {
	n.Port.Withdraw(noteOns)
	for _, on := range noteOns {
		n.asked = append(n.asked, Outcome{Withdrawn: &on})
	}
}

// Release implements output.Port.
func (n *Noted) Release() {
	n.Port.Release()
	n.asked = append(n.asked, Outcome{Released: true})
}

// Panic implements output.Port.
func (n *Noted) Panic() {
	n.Port.Panic()
	n.asked = append(n.asked, Outcome{Panicked: true})
}

// Panicked reports whether that was asked since Asked was called last.
func (n *Noted) Panicked() bool {
	for _, outcome := range n.asked {
		if outcome.Panicked {
			return true
		}
	}
	return false
}

// Asked returns what was asked since it was called last.
func (n *Noted) Asked() []Outcome {
	asked := n.asked
	n.asked = nil
	return asked
}
