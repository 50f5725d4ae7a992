package osc

import (
	"encoding/binary"
	"errors"
	"fmt"
	"math"
	"slices"
)

// Bounds of packets that come in.
const (
	mostNested    = 8   // bundles within bundles
	mostArguments = 64  // of a message
	mostMessages  = 512 // of a packet
)

var errCut = errors.New("it ends too early")

// Parse reads a packet that came in: a message, or a bundle of messages and bundles, whose time tags are not waited for. Arguments that are neither
// numbers nor strings are refused. The error says why it cannot be read, and then nothing of it counts.
func Parse(packet []byte) (messages []Message, err error) { return parse(packet, nil, 0) }

func parse(packet []byte, messages []Message, depth int) ([]Message, error) {
	if len(packet)%4 != 0 {
		return nil, errors.New("its length is no multiple of four")
	}
	if len(packet) >= 8 && string(packet[:8]) == "#bundle\x00" {
		if depth == mostNested {
			return nil, fmt.Errorf("it has bundles within more than %d bundles", mostNested)
		}
		return parseBundle(packet[8:], messages, depth)
	}
	if len(messages) == mostMessages {
		return nil, fmt.Errorf("it has more than %d messages", mostMessages)
	}
	m, err := parseMessage(packet)
	if err != nil {
		return nil, err
	}
	return append(messages, m), nil
}

// parseBundle reads a bundle from its time tag on.
func parseBundle(rest []byte, messages []Message, depth int) (_ []Message, err error) {
	if len(rest) < 8 {
		return nil, errCut
	}
	for rest = rest[8:]; len(rest) > 0; {
		if len(rest) < 4 {
			return nil, errCut
		}
		length := binary.BigEndian.Uint32(rest)
		if uint64(length) > uint64(len(rest)-4) {
			return nil, errCut
		}
		if messages, err = parse(rest[4:4+length], messages, depth+1); err != nil {
			return nil, err
		}
		rest = rest[4+length:]
	}
	return messages, nil
}

func parseMessage(data []byte) (m Message, err error) {
	if m.Address, data, err = takeString(data); err != nil {
		return m, err
	}
	if len(m.Address) < 2 || m.Address[0] != '/' {
		return m, errors.New("its address does not begin with /")
	}
	tags, data, err := takeString(data)
	if err != nil {
		return m, err
	}
	if tags == "" || tags[0] != ',' {
		return m, errors.New("it has no type tags")
	}
	if len(tags)-1 > mostArguments {
		return m, fmt.Errorf("it has more than %d arguments", mostArguments)
	}
	for _, tag := range tags[1:] {
		if tag == 's' {
			var text string
			if text, data, err = takeString(data); err != nil {
				return m, err
			}
			m.Arguments = append(m.Arguments, text)
			continue
		}
		if tag != 'i' && tag != 'f' {
			return m, fmt.Errorf("it has an argument of the type %q; i, f and s are known", tag)
		}
		if len(data) < 4 {
			return m, errCut
		}
		bits := binary.BigEndian.Uint32(data)
		data = data[4:]
		if tag == 'i' {
			m.Arguments = append(m.Arguments, int32(bits))
		} else {
			m.Arguments = append(m.Arguments, math.Float32frombits(bits))
		}
	}
	return m, nil
}

// takeString takes a string off the beginning of bytes, with what fills it up to four.
func takeString(data []byte) (text string, rest []byte, err error) {
	end := slices.Index(data, 0)
	if end < 0 || end/4*4+4 > len(data) {
		return "", nil, errCut
	}
	return string(data[:end]), data[end/4*4+4:], nil
}
