package live

import (
	"slices"
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/output"
)

// How long before its time, as devices are told ahead, and after it a message can come back that was sent to a device of the machine.
const (
	echoEarly = 80 * time.Millisecond
	echoLate  = 500 * time.Millisecond
)

// echo is a message as it comes back, and when it was sent.
type echo struct {
	midi.Message
	at int64
}

// echoOf returns a message as it comes back: without what no cable has.
func echoOf(m midi.Message) midi.Message {
	back := midi.Message{Kind: m.Kind, Channel: m.Channel, Key: m.Key, Velocity: m.Velocity}
	if m.Kind == midi.ControlChange || m.Kind == midi.Bend || m.Kind == midi.Pressure {
		back.Value = m.Value
	}
	return back
}

// rememberSent keeps what goes to devices of the machine, if any is heard.
func (t *Transport) rememberSent(events []output.Event, now int64) {
	if !slices.ContainsFunc(t.project.Inputs, func(i score.Input) bool { return i.Kind == score.DeviceInput }) {
		t.echoes = nil
		return
	}
	t.echoes = slices.DeleteFunc(t.echoes, func(e echo) bool { return e.at < now-int64(echoLate) })
	for _, e := range events {
		if o := t.project.Output(e.Output); o == nil || o.Kind != score.ServerDevice {
			continue
		}
		for _, m := range midi.Split(e.Message) {
			t.echoes = append(t.echoes, echo{echoOf(m), e.At})
		}
	}
}

// isEcho reports whether a message that comes in at a device is one that was sent. Each comes back once.
func (t *Transport) isEcho(in Incoming) bool {
	if in.Source.Kind != score.DeviceInput {
		return false
	}
	at := slices.IndexFunc(t.echoes, func(e echo) bool {
		return e.Message == echoOf(in.Message) && in.At > e.at-int64(echoEarly) && in.At < e.at+int64(echoLate)
	})
	if at >= 0 {
		t.echoes = slices.Delete(t.echoes, at, at+1)
	}
	return at >= 0
}
