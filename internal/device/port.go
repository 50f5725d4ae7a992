package device

import (
	"errors"
	"fmt"
	"runtime"
	"sync"
	"time"

	"jettyfog/internal/output"
)

// Clock is what a port goes by.
type Clock interface {
	// Now returns the time of the transport's clock, in nanoseconds.
	Now() int64
	// SleepUntil returns at a time of that clock, as exactly as the machine can; Doze does not before it, and costs nothing.
	SleepUntil(at int64)
	Doze(until int64)
}

// Wire is an open device.
type Wire interface {
	// Write takes as many of the bytes as there is room for at once; none without an error says that there is no room. An error
	// says that the device is gone.
	Write(data []byte) (int, error)
	Close() error
}

// Port plays a device. It implements output.Port.
type Port struct {
	clock Clock
	wire  Wire
	lost  func(error)
	wake  chan struct{}
	ended chan struct{}

	mu     sync.Mutex
	line   *Line
	closes bool
}

// ahead is how long before its time an event is handed over.
const ahead = 40 * time.Millisecond

// How a port waits: for what is near it sleeps on its thread, and then cannot be told of anything else; early before its time it has the
// bytes, so that all that is left to do then is to hand them over; room in a device that has none it looks for again after again, and
// gives up after stuck.
const (
	near  = 3 * time.Millisecond
	early = 150 * time.Microsecond
	again = time.Millisecond
	stuck = 2 * time.Second
)

// most is how many events can wait; of more the device is taken for one that takes nothing any more.
const most = 1 << 15

// closeWithin is how long a port that is closed may take for what ends its notes.
const closeWithin = 200 * time.Millisecond

// ErrStuck is why a port gives up a device that is there and takes nothing.
var ErrStuck = errors.New("it takes no more bytes")

// Open returns a port that plays a device from now on, beginning with what ends the notes that the line may have left there. The function is
// told once, on another goroutine, if the device is lost.
func Open(wire Wire, line *Line, clock Clock, lost func(error)) *Port {
	p := &Port{clock: clock, wire: wire, lost: lost, line: line, wake: make(chan struct{}, 1), ended: make(chan struct{})}
	line.Begin(clock.Now())
	go p.run()
	return p
}

// Ahead implements output.Port.
func (p *Port) Ahead() time.Duration { return ahead }

// Send implements output.Port.
func (p *Port) Send(events []output.Event) { p.tell(func(*Line) { p.line.Push(events) }) }

// Withdraw implements output.Port.
func (p *Port) Withdraw(noteOns []output.Event) { p.tell(func(l *Line) { l.Withdraw(noteOns) }) }

// Release implements output.Port.
func (p *Port) Release() { p.tell(func(l *Line) { l.Release(p.clock.Now()) }) }

// Panic implements output.Port.
func (p *Port) Panic() { p.tell(func(l *Line) { l.Panic(p.clock.Now()) }) }

// Set has settings count from now on.
func (p *Port) Set(s Settings) { p.tell(func(l *Line) { l.Set(s) }) }

// Dropped returns how many values were left out so far.
func (p *Port) Dropped() int {
	p.mu.Lock()
	defer p.mu.Unlock()
	return p.line.Dropped()
}

// Close ends what sounds, lets go of the device and returns once it has.
func (p *Port) Close() {
	p.tell(func(l *Line) {
		l.Release(p.clock.Now())
		p.closes = true
	})
	<-p.ended
}

func (p *Port) tell(do func(*Line)) {
	p.mu.Lock()
	do(p.line)
	p.mu.Unlock()
	select {
	case p.wake <- struct{}{}:
	default:
	}
}

// run lets bytes out at their times until the port is closed or the device is lost.
func (p *Port) run() {
	runtime.LockOSThread() // for good: the thread sleeps by itself, and ends with this function
	err := p.play()
	_ = p.wire.Close() // what could be sent was
	close(p.ended)
	if err != nil {
		p.lost(err)
	}
}

// play returns nil once the port is closed, and what has happened if the device is lost.
func (p *Port) play() error {
	var rest []byte // of a message that is on its way
	var due int64   // when it is to go out
	room := p.clock.Now()
	closing := int64(0) // by when
	for {
		now := p.clock.Now()
		p.mu.Lock()
		at, more := p.line.Next()
		if len(rest) == 0 {
			rest, due = p.line.Take(now+int64(early)), at
		}
		waits, closes := p.line.Waits(), p.closes
		p.mu.Unlock()
		switch {
		case closes && closing == 0:
			closing = now + int64(closeWithin)
		case closes && (now > closing || len(rest) == 0 && waits == 0):
			return nil
		case waits > most:
			return fmt.Errorf("%w: %d messages wait", ErrStuck, waits)
		case len(rest) == 0 && !closes:
			p.sleep(now, at, more)
			room = p.clock.Now()
		case len(rest) == 0:
			p.clock.Doze(min(at-int64(early), closing))
		default:
			p.clock.SleepUntil(due)
			taken, err := p.wire.Write(rest)
			if err != nil {
				return err
			}
			rest = rest[taken:]
			if taken > 0 {
				room = now
			} else if now-room > int64(stuck) {
				return ErrStuck
			} else {
				p.clock.Doze(now + int64(again))
			}
		}
	}
}

// sleep waits until a moment if there is one, or until there is something to look at.
func (p *Port) sleep(now, at int64, known bool) {
	switch far := time.Duration(at - now - int64(near)); {
	case !known:
		<-p.wake
	case far > 0:
		timer := time.NewTimer(far)
		defer timer.Stop()
		select {
		case <-p.wake:
		case <-timer.C:
		}
	default:
		p.clock.Doze(at - int64(early))
	}
}
