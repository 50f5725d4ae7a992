package device

import (
	"errors"

	"golang.org/x/sys/unix"
)

// spin is how long before a moment a thread stops sleeping and looks at the clock only, in nanoseconds: sleeping ends late by that as
// a rule. It costs that much of a core for each moment.
const spin = 150_000

// exactClock sleeps by the kernel's clock, on the thread that calls, to a moment instead of for a time, so that whatever holds the
// thread up before does not count.
type exactClock struct{ now func() int64 }

// NewClock returns a clock that tells the given time, in nanoseconds, which must pass as the machine's monotonic clock does.
func NewClock(now func() int64) Clock { return exactClock{now} }

// Now implements Clock.
func (c exactClock) Now() int64 { return c.now() }

// SleepUntil implements Clock.
func (c exactClock) SleepUntil(at int64) {
	c.Doze(at - spin)
	for c.now() < at {
	}
}

// Doze implements Clock.
func (c exactClock) Doze(until int64) {
	if left := until - c.now(); left > 0 {
		var kernel unix.Timespec
		if unix.ClockGettime(unix.CLOCK_MONOTONIC, &kernel) != nil {
			return // which no Linux does
		}
		end := unix.NsecToTimespec(kernel.Nano() + left)
		for errors.Is(unix.ClockNanosleep(unix.CLOCK_MONOTONIC, unix.TIMER_ABSTIME, &end, nil), unix.EINTR) {
		}
	}
}
