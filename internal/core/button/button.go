// Package button tells apart how a button or a pedal is pressed: at once, for a while, or twice.
package button

// Press is a way of pressing.
type Press int

// The ways.
const (
	Usual Press = iota
	Long
	Double
)

// LongAfter is how long a button is down before that is a long press, DoubleWithin how soon after the first press a second one makes a
// double press, in nanoseconds (both common practice).
const (
	LongAfter    = 500_000_000
	DoubleWithin = 300_000_000
)

// Event is a press of a way, or with Released its end.
type Event struct {
	Press    Press
	Released bool
}

// Button is a button. Long and Double say which ways are listened for besides the usual one: a press is only told once it is known to be none
// of them. Times are nanoseconds and do not go back. The zero value is up, and knows the usual press only.
type Button struct {
	Long, Double bool

	down    bool
	since   int64 // when it was pressed last
	decided bool  // what the press is, is known
	press   Press
	waits   bool // it was pressed once and released, and may be pressed again
}

// IsDown reports whether it is down.
func (b *Button) IsDown() bool { return b.down }

// Down says that it is pressed at a time. One that is down already stays so.
func (b *Button) Down(at int64) (events []Event) {
	if b.down {
		return nil
	}
	events = b.Due(at)
	second := b.waits
	b.down, b.since, b.waits, b.decided = true, at, false, false
	switch {
	case second:
		return append(events, b.decide(Double))
	case !b.Long && !b.Double:
		return append(events, b.decide(Usual))
	}
	return events
}

// Up says that it is released at a time.
func (b *Button) Up(at int64) (events []Event) {
	if !b.down {
		return nil
	}
	events = b.Due(at)
	b.down = false
	switch {
	case b.decided:
		return append(events, Event{b.press, true})
	case b.Double:
		b.waits = true
		return events
	}
	return append(events, Event{Usual, false}, Event{Usual, true})
}

// Due says what has become known by a time.
func (b *Button) Due(now int64) (events []Event) {
	held := now - b.since
	switch {
	case b.waits && held >= DoubleWithin:
		b.waits = false
		return []Event{{Usual, false}, {Usual, true}}
	case b.down && !b.decided && b.Long && held >= LongAfter:
		return []Event{b.decide(Long)}
	case b.down && !b.decided && !b.Long && b.Double && held >= DoubleWithin:
		return []Event{b.decide(Usual)}
	}
	return nil
}

func (b *Button) decide(press Press) Event {
	b.decided, b.press = true, press
	return Event{press, false}
}
