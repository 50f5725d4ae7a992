package midi

import "bytes"

// Stream reads messages from bytes as they come through a cable (MIDI 1.0): with running status, with messages of one byte between those of
// others, and cut anywhere. System exclusive messages and what is not known are skipped. The zero value is at the beginning.
type Stream struct {
	status byte   // under which data bytes belong; 0 is none
	data   []byte // of the message that is incomplete
}

// Read returns the messages that are complete with more bytes. Those of polyphonic pressure, active sensing and reset are left out.
func (s *Stream) Read(more []byte) (messages []Message) {
	for _, b := range more {
		switch {
		case b >= statusClock: // between any others, which they do not end
			if kind, known := realTime[b]; known {
				messages = append(messages, Message{Kind: kind})
			}
		case b >= statusNoteOff:
			s.status, s.data = b, s.data[:0]
		case s.status == 0: // of what was skipped
		default:
			s.data = append(s.data, b)
			if m, whole := s.message(); whole {
				messages = append(messages, m...)
			}
		}
	}
	return messages
}

var realTime = map[byte]Kind{statusClock: Clock, statusStart: Start, statusContinue: Continue, statusStop: Stop}

// message returns the message that the data bytes complete, if they do.
func (s *Stream) message() (m []Message, whole bool) {
	switch {
	case s.status == statusSongPosition && len(s.data) == 2:
		m = []Message{{Kind: SongPosition, Value: uint16(s.data[1])<<7 | uint16(s.data[0])}}
		s.status = 0
	case s.status == statusSongPosition:
		return nil, false
	case s.status >= StatusExclusive:
		s.data = s.data[:0]
		return nil, false
	case len(s.data) < DataBytes(s.status):
		return nil, false
	default:
		if one, err := Parse(append([]byte{s.status}, s.data...)); err == nil {
			m = []Message{one}
		}
	}
	s.data = s.data[:0]
	return m, true
}

// ReadWhole returns the message that bytes are from their beginning to their end, as a browser hands it over; ok is false where they are
// something that nothing here knows.
func ReadWhole(data []byte) (m Message, ok bool) {
	var s Stream
	messages := s.Read(data)
	if len(messages) != 1 || !bytes.Equal(data, whole(messages[0], data)) {
		return Message{}, false
	}
	return messages[0], true
}

// whole returns the bytes of a message, where a note-off may be written in another way.
func whole(m Message, data []byte) []byte {
	if m.Kind == NoteOff {
		return data
	}
	return Append(nil, m)
}
