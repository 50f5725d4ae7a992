package osc

import (
	"context"
	"errors"
	"fmt"
	"net"
	"time"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/stage"
)

// Listener hears OSC that comes from programs of this machine.
type Listener struct {
	conn *net.UDPConn
	to   Hearer

	second int64 // which one heard counts
	heard  int
	told   time.Time
}

const (
	// mostASecond is how many messages are heard in a second; of more the rest is left out.
	mostASecond = 2000
	// tellEvery is how long passes at least until somebody is told again of what was left out.
	tellEvery = 10 * time.Second
	// mostPacket is how long a packet of UDP can be.
	mostPacket = 1 << 16
)

// Listen opens a port of this machine; 0 is one that is free.
func Listen(port int) (*Listener, error) {
	conn, err := net.ListenUDP("udp", &net.UDPAddr{IP: net.IPv4(127, 0, 0, 1), Port: port})
	if err != nil {
		return nil, err
	}
	return &Listener{conn: conn}, nil
}

// Address returns where it listens.
func (l *Listener) Address() string { return l.conn.LocalAddr().String() }

// Hearer is who is given what comes in.
type Hearer struct {
	// Hear is given each message that could be one of MIDI, Turn each value of a control.
	Hear func(midi.Message) error
	Turn func(c stage.Control, value int) error
	// Notice is told, in a whole sentence and now and then, what was left out and why.
	Notice func(string)
}

// Run hears what comes in until the context ends.
func (l *Listener) Run(ctx context.Context, to Hearer) {
	l.to = to
	stop := context.AfterFunc(ctx, func() { _ = l.conn.Close() })
	defer stop()
	packet := make([]byte, mostPacket)
	for {
		n, err := l.conn.Read(packet)
		switch {
		case errors.Is(err, net.ErrClosed):
			return
		case err != nil:
			continue // of a single packet
		}
		l.take(packet[:n])
	}
}

// take hears the messages of a packet.
func (l *Listener) take(packet []byte) {
	messages, err := Parse(packet)
	if err != nil {
		l.leftOut(fmt.Errorf("a packet cannot be read: %w", err))
		return
	}
	for _, m := range messages {
		if err := l.pass(m); err != nil {
			l.leftOut(err)
		}
	}
}

// pass hands a message on, if it is not one too many.
func (l *Listener) pass(m Message) error {
	if second := time.Now().Unix(); second != l.second {
		l.second, l.heard = second, 0
	}
	if l.heard++; l.heard > mostASecond {
		return fmt.Errorf("more than %d messages come in a second", mostASecond)
	}
	if c, value, turns, err := Turned(m); err != nil {
		return err
	} else if turns {
		return l.to.Turn(c, value)
	}
	heard, err := Heard(m)
	if err != nil {
		return err
	}
	return l.to.Hear(heard)
}

// leftOut tells why something was left out, unless that was told just now.
func (l *Listener) leftOut(why error) {
	if now := time.Now(); now.Sub(l.told) >= tellEvery {
		l.told = now
		l.to.Notice(fmt.Sprintf("Of OSC that came in some was left out: %s.", why))
	}
}
