package smf

import (
	"encoding/binary"
	"fmt"
	"math"

	"jettyfog/internal/core/midi"
)

// MaxEvents bounds how many events are read from a file.
const MaxEvents = 1 << 20

// FormatError says where a file cannot be read, and why.
type FormatError struct {
	// Offset is the place in the file, in bytes from its beginning.
	Offset int
	// What completes the sentence "at byte N …".
	What string
}

func (e *FormatError) Error() string { return fmt.Sprintf("at byte %d %s", e.Offset, e.What) }

// Decode reads a file. It passes over chunks that it does not know. Where a chunk claims to be longer than
// the file, or ends without an end of track, it reads what is there; repairs say so, each a sentence without
// its full stop. The error is a *FormatError. Memory stays within a small multiple of the file's size.
func Decode(data []byte) (f File, repairs []string, err error) {
	r := &reader{data: data}
	f, tracks, err := r.header()
	if err != nil {
		return File{}, nil, err
	}
	for r.at < len(data) {
		if len(data)-r.at < chunkHead {
			repairs = append(repairs, fmt.Sprintf("%d bytes after the last chunk were left out", len(data)-r.at))
			break
		}
		name, begin := string(data[r.at:r.at+4]), r.at
		length := uint64(binary.BigEndian.Uint32(data[r.at+4:]))
		r.at += chunkHead
		if rest := uint64(len(data) - r.at); length > rest {
			repairs = append(repairs, fmt.Sprintf("the chunk at byte %d says that it is %d bytes long, and the file has %d more", begin, length, rest))
			length = rest
		}
		end := r.at + int(length)
		if name == "MTrk" {
			track, ended, err := r.track(end)
			if err != nil {
				return File{}, nil, err
			}
			if !ended {
				repairs = append(repairs, fmt.Sprintf("the track at byte %d has no end of track, and ends with its last event", begin))
			}
			f.Tracks = append(f.Tracks, track)
		}
		r.at = end
	}
	if len(f.Tracks) == 0 {
		return File{}, nil, &FormatError{len(data), "the file ends, and has no track"}
	}
	if len(f.Tracks) != tracks {
		repairs = append(repairs, fmt.Sprintf("the head says that there are %d tracks, and there are %d", tracks, len(f.Tracks)))
	}
	return f, repairs, nil
}

// chunkHead is how long the name and the length of a chunk are.
const chunkHead = 8

// reader goes through a file.
type reader struct {
	data   []byte
	at     int
	events int // that were read
}

func (r *reader) fail(what string) error { return &FormatError{r.at, what} }

// header reads the head of the file, and how many tracks it says there are.
func (r *reader) header() (f File, tracks int, err error) {
	if len(r.data) < chunkHead+6 || string(r.data[:4]) != "MThd" {
		return f, 0, r.fail("there is no head of a Standard MIDI File")
	}
	length := uint64(binary.BigEndian.Uint32(r.data[4:]))
	if length < 6 || length > uint64(len(r.data)-chunkHead) {
		r.at = 4
		return f, 0, r.fail(fmt.Sprintf("the head is %d bytes long; it must be 6 or more, and within the file", length))
	}
	head := r.data[chunkHead:]
	f.Format = int(binary.BigEndian.Uint16(head))
	tracks = int(binary.BigEndian.Uint16(head[2:]))
	division := binary.BigEndian.Uint16(head[4:])
	f.Division = int(division)
	if f.Format > 2 {
		r.at = 8
		return f, 0, r.fail(fmt.Sprintf("the format is %d; it must be 0, 1 or 2", f.Format))
	}
	if division>>15 == 1 { // SMPTE: the number of frames a second is negative
		f.Frames, f.Division = -int(int8(division>>8)), int(division&0xFF)
		switch f.Frames {
		case 24, 25, 29, 30:
		default:
			r.at = 12
			return f, 0, r.fail(fmt.Sprintf("there are %d frames a second; it must be 24, 25, 29 or 30", f.Frames))
		}
	}
	if f.Division == 0 {
		r.at = 12
		return f, 0, r.fail("the division is 0; it must be 1 or more")
	}
	r.at = chunkHead + int(length)
	return f, tracks, nil
}

// track reads the events of a track chunk that ends at a place.
func (r *reader) track(end int) (track Track, ended bool, err error) {
	// An event of running status takes two bytes or more of the file and one byte more here.
	buffer := make([]byte, 0, 2*(end-r.at))
	var tick uint64
	var running byte
	for r.at < end && !ended {
		delta, err := r.varLen(end)
		if err != nil {
			return track, false, err
		}
		if tick += uint64(delta); tick > math.MaxUint32 {
			return track, false, r.fail(fmt.Sprintf("the time is %d ticks; it must be at most %d", tick, uint32(math.MaxUint32)))
		}
		begin := len(buffer)
		if buffer, err = r.event(buffer, &running, end); err != nil {
			return track, false, err
		}
		event := buffer[begin:len(buffer):len(buffer)]
		if event[0] == statusMeta && event[1] == metaEndOfTrack {
			ended = true
			break
		}
		if r.events++; r.events > MaxEvents {
			return track, false, r.fail(fmt.Sprintf("there are more than %d events", MaxEvents))
		}
		track.Events = append(track.Events, Event{Tick: uint32(tick), Data: event})
	}
	track.End = uint32(tick)
	return track, ended, nil
}

// event appends the next event to dst, whole and with its status.
func (r *reader) event(dst []byte, running *byte, end int) ([]byte, error) {
	if r.at >= end {
		return nil, r.fail("the track ends in the middle of an event")
	}
	status := r.data[r.at]
	switch {
	case status < 0x80: // running status: the data comes at once
		if *running == 0 {
			return nil, r.fail(fmt.Sprintf("there is %#02x, data without a status before it", status))
		}
		status = *running
	case status < midi.StatusExclusive:
		*running = status
		r.at++
	case status == statusMeta:
		*running = 0
		return r.meta(dst, end)
	case status == midi.StatusExclusive || status == midi.EndOfExclusive:
		*running = 0
		begin := r.at
		r.at++
		if err := r.passOver(end); err != nil {
			return nil, err
		}
		return append(dst, r.data[begin:r.at]...), nil
	default:
		return nil, r.fail(fmt.Sprintf("there is the status %#02x, which has no place in a file", status))
	}
	count := midi.DataBytes(status)
	if r.at+count > end {
		return nil, r.fail("the track ends in the middle of an event")
	}
	dst = append(dst, status)
	for range count {
		b := r.data[r.at]
		if b > 0x7F {
			return nil, r.fail(fmt.Sprintf("there is %#02x in the place of data, which is at most 0x7f", b))
		}
		dst = append(dst, b)
		r.at++
	}
	return dst, nil
}

// meta appends a meta event, whose FF comes next, to dst.
func (r *reader) meta(dst []byte, end int) ([]byte, error) {
	begin := r.at
	if r.at += 2; r.at > end {
		return nil, r.fail("the track ends in the middle of an event")
	}
	if err := r.passOver(end); err != nil {
		return nil, err
	}
	return append(dst, r.data[begin:r.at]...), nil
}

// passOver goes past a length and as many bytes.
func (r *reader) passOver(end int) error {
	length, err := r.varLen(end)
	if err != nil {
		return err
	}
	if uint64(length) > uint64(end-r.at) {
		return r.fail(fmt.Sprintf("an event is %d bytes long, and its track ends after %d", length, end-r.at))
	}
	r.at += int(length)
	return nil
}

// varLen reads a variable-length quantity.
func (r *reader) varLen(end int) (uint32, error) {
	var value uint32
	for range 4 {
		if r.at >= end {
			return 0, r.fail("the track ends in the middle of an event")
		}
		b := r.data[r.at]
		r.at++
		value = value<<7 | uint32(b&0x7F)
		if b < 0x80 {
			return value, nil
		}
	}
	return 0, r.fail("there is a variable-length quantity of more than four bytes")
}
