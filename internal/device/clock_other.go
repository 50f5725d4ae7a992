//go:build !linux

package device

import "time"

// plainClock sleeps as Go does: no device is played where there is none to be found.
type plainClock struct{ now func() int64 }

// NewClock returns a clock that tells the given time, in nanoseconds.
func NewClock(now func() int64) Clock { return plainClock{now} }

// Now implements Clock.
func (c plainClock) Now() int64 { return c.now() }

// SleepUntil implements Clock.
func (c plainClock) SleepUntil(at int64) { time.Sleep(time.Duration(at - c.now())) }

// Doze implements Clock.
func (c plainClock) Doze(until int64) { c.SleepUntil(until) }
