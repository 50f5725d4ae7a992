package device_test

import (
	"bytes"
	"encoding/json"
	"math/rand/v2"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/device"
	"jettyfog/internal/output"
)

// readByMido has the parser of python3-mido, an independent library, read bytes. A receiver of MIDI 1.0 remembers the last status; that
// parser does not, so it is told again where one is left out, which is the only thing that is done to the bytes.
const readByMido = `
import json, sys, mido
messages, status, left, data = [], None, 0, []
parser = mido.Parser()
lengths = {0x80: 2, 0x90: 2, 0xA0: 2, 0xB0: 2, 0xC0: 1, 0xD0: 1, 0xE0: 2}
for byte in sys.stdin.buffer.read():
    if byte >= 0xF8:
        parser.feed_byte(byte)
        continue
    if byte >= 0x80:
        status, left = byte, lengths[byte & 0xF0]
    else:
        if left == 0:
            parser.feed_byte(status)
            left = lengths[status & 0xF0]
        left -= 1
    parser.feed_byte(byte)
print(json.dumps([m.bytes() for m in parser]))
`

// What a line lets out is what python3-mido reads, message by message, with running status and without.
func TestAnotherLibraryReadsTheBytes(t *testing.T) {
	for _, running := range []bool{false, true} {
		random := rand.New(rand.NewPCG(14, 0))
		l := device.NewLine()
		l.Set(device.Settings{RunningStatus: running, ActiveSensing: true})
		now, down := int64(0), map[[2]uint8]bool{}
		var sent bytes.Buffer
		var want [][]int
		for range 2000 {
			now += random.Int64N(200) * milli
			m := midi.Message{Channel: uint8(random.IntN(2)), Key: uint8(random.IntN(128)), Velocity: uint8(1 + random.IntN(127)), Value: uint16(random.IntN(128))}
			key := [2]uint8{m.Channel, m.Key}
			switch random.IntN(6) {
			case 0, 1:
				if m.Kind = midi.NoteOn; down[key] {
					m.Kind, m.Velocity = midi.NoteOff, 0
				}
				down[key] = !down[key]
			case 2:
				m.Kind = midi.ControlChange
			case 3:
				m.Kind, m.Value = midi.Program, 0
			case 4:
				m.Kind = midi.Pressure
			case 5:
				m.Kind, m.Value = midi.Bend, uint16(random.IntN(16384))
			}
			e := output.Event{Message: m, Output: 1, At: now}
			l.Push([]output.Event{e})
			for at, more := l.Next(); more && at <= now; at, more = l.Next() {
				data := l.Take(at)
				sent.Write(data)
				if data[0] == 0xFE {
					want = append(want, []int{0xFE})
				}
			}
			var whole []int
			for _, b := range e.Bytes()[0] {
				whole = append(whole, int(b))
			}
			want = append(want, whole)
		}
		read := exec.Command("/usr/bin/python3", "-c", readByMido)
		read.Stdin = &sent
		answer, err := read.Output()
		require.NoError(t, err, "`make test-tools` installs python3-mido")
		var got [][]int
		require.NoError(t, json.Unmarshal(answer, &got))
		require.Equal(t, want, got)
	}
}
