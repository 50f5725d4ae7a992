package osc

import (
	"encoding/binary"
	"math"
	"time"
)

// Message is a message of OSC 1.0. Its arguments are int32, float32 or string.
type Message struct {
	Address   string
	Arguments []any
}

// Append appends the message as bytes: its address, its type tags and its arguments, each filled up to four bytes.
func (m Message) Append(dst []byte) []byte {
	dst = appendString(dst, m.Address)
	tags := ","
	for _, argument := range m.Arguments {
		switch argument.(type) {
		case int32:
			tags += "i"
		case float32:
			tags += "f"
		case string:
			tags += "s"
		}
	}
	dst = appendString(dst, tags)
	for _, argument := range m.Arguments {
		switch a := argument.(type) {
		case int32:
			dst = binary.BigEndian.AppendUint32(dst, uint32(a))
		case float32:
			dst = binary.BigEndian.AppendUint32(dst, math.Float32bits(a))
		case string:
			dst = appendString(dst, a)
		}
	}
	return dst
}

// appendString appends a string, the null byte that ends it, and as many more as it takes to fill four.
func appendString(dst []byte, s string) []byte {
	dst = append(dst, s...)
	for range 4 - len(s)%4 {
		dst = append(dst, 0)
	}
	return dst
}

// mostBytes is how long a packet is at most, so that networks carry it whole.
const mostBytes = 1400

// Bundles returns messages of one moment as packets, as few as there can be.
func Bundles(at time.Time, messages []Message) (packets [][]byte) {
	var packet []byte
	for _, m := range messages {
		data := m.Append(nil)
		if packet == nil || len(packet)+4+len(data) > mostBytes {
			if packet != nil {
				packets = append(packets, packet)
			}
			packet = binary.BigEndian.AppendUint64(appendString(nil, "#bundle"), timeTag(at))
		}
		packet = append(binary.BigEndian.AppendUint32(packet, uint32(len(data))), data...)
	}
	if packet != nil {
		packets = append(packets, packet)
	}
	return packets
}

// timeTag returns a moment as OSC has it, like NTP: the seconds since the beginning of 1900, and the fraction of one in 2⁻³² s.
func timeTag(at time.Time) uint64 {
	const toUnix = 2_208_988_800
	return uint64(at.Unix()+toUnix)<<32 | uint64(at.Nanosecond())<<32/1_000_000_000
}
