package smf

import (
	"encoding/binary"
	"fmt"

	"jettyfog/internal/core/midi"
)

const (
	statusMeta     = 0xFF
	metaEndOfTrack = 0x2F
)

// RangeError says which property of a file cannot be written.
type RangeError struct {
	// Property names what is out of range.
	Property string
	// Got is its value; Allowed completes the sentence "it must be …".
	Got     any
	Allowed string
}

func (e *RangeError) Error() string {
	return fmt.Sprintf("%s is %v; it must be %s", e.Property, e.Got, e.Allowed)
}

// Encode writes the file. The error is a *RangeError.
func Encode(f File) ([]byte, error) {
	switch {
	case f.Format != 0 && f.Format != 1:
		return nil, &RangeError{"the format", f.Format, "0 or 1"}
	case f.Format == 0 && len(f.Tracks) != 1:
		return nil, &RangeError{"the number of tracks", len(f.Tracks), "1 in format 0"}
	case len(f.Tracks) < 1 || len(f.Tracks) > 1<<16-1:
		return nil, &RangeError{"the number of tracks", len(f.Tracks), "1 to 65535"}
	case f.Frames != 0:
		return nil, &RangeError{"the number of frames", f.Frames, "0, because only ticks of a quarter note are written"}
	case f.Division < 1 || f.Division > MaxDivision:
		return nil, &RangeError{"the division", f.Division, fmt.Sprintf("1 to %d", MaxDivision)}
	}
	data := append([]byte("MThd"), 0, 0, 0, 6)
	data = binary.BigEndian.AppendUint16(data, uint16(f.Format))
	data = binary.BigEndian.AppendUint16(data, uint16(len(f.Tracks)))
	data = binary.BigEndian.AppendUint16(data, uint16(f.Division))
	for _, track := range f.Tracks {
		var err error
		if data, err = appendTrack(data, track); err != nil {
			return nil, err
		}
	}
	return data, nil
}

func appendTrack(data []byte, track Track) ([]byte, error) {
	data = append(data, "MTrk\x00\x00\x00\x00"...)
	begin := len(data)
	var tick uint32
	var running byte
	for _, event := range track.Events {
		if event.Tick < tick {
			return nil, &RangeError{"the tick of an event", event.Tick, fmt.Sprintf("%d or more", tick)}
		}
		if event.Tick-tick > maxVarLen {
			data, running = bridge(data, &tick, event.Tick), 0
		}
		data = appendVarLen(data, event.Tick-tick)
		tick = event.Tick
		status := event.Data[0]
		if status == running {
			data = append(data, event.Data[1:]...)
			continue
		}
		data = append(data, event.Data...)
		// Meta events and system exclusive messages cancel running status.
		running = 0
		if status < midi.StatusExclusive {
			running = status
		}
	}
	end := max(track.End, tick)
	data = bridge(data, &tick, end)
	data = appendVarLen(data, end-tick)
	data = append(data, statusMeta, metaEndOfTrack, 0)
	binary.BigEndian.PutUint32(data[begin-4:], uint32(len(data)-begin))
	return data, nil
}

// bridge writes texts of no letters until a tick is no further away than a delta time can be.
func bridge(data []byte, tick *uint32, to uint32) []byte {
	for to-*tick > maxVarLen {
		data = append(appendVarLen(data, maxVarLen), text(metaText, "")...)
		*tick += maxVarLen
	}
	return data
}

// maxVarLen is the largest variable-length quantity: four bytes of seven bits.
const maxVarLen = 1<<28 - 1

// appendVarLen writes a variable-length quantity: seven bits a byte, the highest first, with bit 7
// set in all bytes but the last.
func appendVarLen(data []byte, v uint32) []byte {
	for shift := 21; shift > 0; shift -= 7 {
		if v>>shift != 0 {
			data = append(data, byte(v>>shift)|0x80)
		}
	}
	return append(data, byte(v&0x7F))
}
