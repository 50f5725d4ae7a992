package osc

import (
	"encoding/binary"
	"encoding/hex"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// The two examples of the OSC 1.0 specification, from memory.
func TestExamplesOfTheSpecification(t *testing.T) {
	for want, m := range map[string]Message{
		"2f6f7363 696c6c61 746f722f 342f6672 65717565 6e637900 2c660000 43dc0000": {"/oscillator/4/frequency", []any{float32(440)}},
		"2f666f6f 00000000 2c696973 66660000 000003e8 ffffffff 68656c6c 6f000000 3f9df3b6 40b5b22d": {
			"/foo", []any{int32(1000), int32(-1), "hello", float32(1.234), float32(5.678)},
		},
	} {
		require.Equal(t, strings.ReplaceAll(want, " ", ""), hex.EncodeToString(m.Append(nil)))
	}
}

// A bundle begins with its name and its time tag, seconds since 1900 and fractions, and holds each message after its length; what has no room in
// a packet goes into the next.
func TestBundles(t *testing.T) {
	at := time.Date(2026, 11, 28, 20, 0, 0, 250_000_000, time.UTC)
	packets := Bundles(at, []Message{{"/bar", []any{int32(9)}}, {"/beat", []any{int32(1)}}})
	require.Len(t, packets, 1)
	packet := packets[0]
	require.Equal(t, "#bundle\x00", string(packet[:8]))
	require.Equal(t, uint64(at.Sub(time.Date(1900, 1, 1, 0, 0, 0, 0, time.UTC).Add(0)).Seconds()), uint64(binary.BigEndian.Uint32(packet[8:])))
	require.Equal(t, uint32(1)<<30, binary.BigEndian.Uint32(packet[12:]), "a quarter of a second")
	require.Equal(t, uint32(16), binary.BigEndian.Uint32(packet[16:]))
	require.Equal(t, "/bar\x00\x00\x00\x00,i\x00\x00\x00\x00\x00\x09", string(packet[20:36]))
	require.Equal(t, uint32(16), binary.BigEndian.Uint32(packet[36:]))
	require.Len(t, packet, 56)

	var many []Message
	for range 100 {
		many = append(many, Message{"/track/17/velocity", []any{float32(1)}})
	}
	sizes := 0
	for _, packet := range Bundles(at, many) {
		require.LessOrEqual(t, len(packet), mostBytes)
		sizes += len(packet) - 16
	}
	require.Equal(t, 100*(4+20+4+4), sizes)
	require.Empty(t, Bundles(at, nil))
}

func TestAddresses(t *testing.T) {
	for text, want := range map[string]string{
		"127.0.0.1:9000": "127.0.0.1:9000", " localhost:7777 ": "127.0.0.1:7777", "[::1]:9000": "[::1]:9000", "192.168.1.20:8000": "192.168.1.20:8000",
	} {
		got, err := ParseAddress(text)
		require.NoError(t, err, text)
		require.Equal(t, want, got.String())
	}
	for _, text := range []string{"", "9000", "127.0.0.1", "127.0.0.1:0", "127.0.0.1:70000", "example.org:9000", "0.0.0.0:9000", "osc.udp://127.0.0.1:9000/"} {
		_, err := ParseAddress(text)
		require.ErrorContains(t, err, "write an IP address and a port, as 127.0.0.1:9000", text)
	}
}
