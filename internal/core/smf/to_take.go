package smf

import (
	"cmp"
	"fmt"
	"reflect"
	"slices"
	"unicode/utf8"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/theory"
)

// ToTake makes a take of a file: its notes and controllers, its tempo, its first meter and key, and its names.
// A file of format 0 becomes a track for each channel; the pieces of format 2 follow each other. A time in
// frames is kept as it lasts, at 120 beats a minute. Notes of one key that overlap end where the next begins,
// and those that never end do so with the file. What could not be kept is said, each a sentence without its
// full stop.
func ToTake(f File, name string) (t *take.Take, left []string) {
	im := &importer{file: f, known: map[uint32]bool{}, t: &take.Take{Name: name, Meter: score.Meter{Beats: 4, Unit: 4}, Key: theory.Key{Scale: theory.Chromatic}}}
	im.tempo = play.TempoMap{{Tempo: standardTempo}}
	var offset score.Tick
	for i, track := range f.Tracks {
		im.track(i, track, offset)
		if f.Format == 2 {
			offset += im.tick(track.End)
		}
		im.end = max(im.end, offset, im.tick(track.End))
	}
	slices.SortStableFunc(im.messages, func(a, b midi.Message) int { return cmp.Compare(a.Tick, b.Tick) })
	im.t.Messages = im.withinTime(pairNotes(im.messages))
	slices.SortStableFunc(im.t.Markers, func(a, b take.Marker) int { return cmp.Compare(a.Tick, b.Tick) })
	im.t.Tempo = im.tempos()
	im.setMeters()
	im.t.Finish(min(im.end, score.LastTick))
	return im.t, im.left()
}

// maxMarkers bounds how many markers of a file are kept.
const maxMarkers = 10_000

// standardTempo is what holds in a file that names none.
const standardTempo score.Tempo = 120_000

type importer struct {
	file     File
	t        *take.Take
	messages []midi.Message
	tempo    play.TempoMap
	end      score.Tick
	meters   []take.MeterAt
	keyed    bool
	known    map[uint32]bool // the tracks that have a name
	first    int             // the first message of the present track of the file

	unknown, exclusive, slowOrFast, late int
}

// tick converts a tick of the file to one of the core, halves upwards.
func (im *importer) tick(t uint32) score.Tick {
	// A second is two quarter notes at standardTempo.
	quarters, per := int64(score.TicksPerQuarter), int64(im.file.Division)
	switch im.file.Frames {
	case 0:
	case 29: // 30 frames in 1.001 seconds
		quarters, per = 2*1001*quarters, 30*1000*per
	default:
		quarters, per = 2*quarters, int64(im.file.Frames)*per
	}
	return score.Tick((2*int64(t)*quarters + per) / (2 * per))
}

// drums is the channel of percussion, 10 (General MIDI), counted from 0.
const drums = 9

func (im *importer) track(index int, track Track, offset score.Tick) {
	name := fmt.Sprintf("Track %d", index+1)
	im.first = len(im.messages)
	for _, event := range track.Events {
		at := offset + im.tick(event.Tick)
		if at > score.LastTick {
			im.late++
			continue
		}
		switch status := event.Data[0]; {
		case status == statusMeta:
			name = im.meta(event.Data, at, name)
		case status >= midi.StatusExclusive:
			im.tuning(event.Data, at)
		case midi.IsKeyPressure(event.Data):
			im.unknown++
		default:
			if m, err := midi.Parse(event.Data); err == nil {
				m.Tick = at
				im.add(m)
			}
		}
	}
	mine := im.messages[im.first:]
	if im.file.Format == 0 {
		for i := range mine {
			mine[i].Track = uint32(mine[i].Channel) + 1
			im.addTrack(take.Track{ID: mine[i].Track, Name: fmt.Sprintf("Channel %d", mine[i].Track), Kit: mine[i].Channel == drums})
		}
		return
	}
	kit := !slices.ContainsFunc(mine, func(m midi.Message) bool { return m.Kind == midi.NoteOn && m.Channel != drums })
	for i := range mine {
		mine[i].Track = uint32(index) + 1
		im.addTrack(take.Track{ID: mine[i].Track, Name: name, Kit: kit})
	}
}

// withinTime leaves out what would last longer than a take can: notes that begin at its last moment.
func (im *importer) withinTime(messages []midi.Message) []midi.Message {
	return slices.DeleteFunc(messages, func(m midi.Message) bool {
		late := m.Tick >= score.LastTick && (m.Kind == midi.NoteOn || m.Tick > score.LastTick)
		if late && m.Kind != midi.NoteOff {
			im.late++
		}
		return late
	})
}

// add appends a message. A bank that was chosen just before a program in the same track of the file is kept with it.
func (im *importer) add(m midi.Message) {
	if last := len(im.messages) - 2; m.Kind == midi.Program && last >= im.first {
		isBank := func(i int, number uint8) bool {
			b := im.messages[i]
			return b.Kind == midi.ControlChange && b.Key == number && b.Channel == m.Channel && b.Tick == m.Tick
		}
		if isBank(last, midi.BankSelect) && isBank(last+1, midi.BankSelect+midi.LSBOffset) {
			m.Value = im.messages[last].Value<<7 + im.messages[last+1].Value + 1
			im.messages = im.messages[:last]
		}
	}
	im.messages = append(im.messages, m)
}

func (im *importer) addTrack(track take.Track) {
	if !im.known[track.ID] {
		im.known[track.ID] = true
		im.t.Tracks = append(im.t.Tracks, track)
	}
}

// meta reads a meta event, and returns the name of the track after it.
func (im *importer) meta(data []byte, at score.Tick, name string) string {
	lengthBytes := 1
	for ; data[1+lengthBytes] >= 0x80; lengthBytes++ {
	}
	value := data[2+lengthBytes:]
	switch kind := data[1]; {
	case kind == metaTrackName:
		if text := cleanName(value); text != "" {
			return text
		}
	case kind == metaMarker:
		if text := cleanName(value); text != "" && len(im.t.Markers) < maxMarkers {
			im.t.Markers = append(im.t.Markers, take.Marker{Tick: at, Text: text})
		}
	case kind == metaSetTempo && len(value) == 3 && im.file.Frames == 0:
		micros := int64(value[0])<<16 | int64(value[1])<<8 | int64(value[2])
		const minute = 60_000_000 * 1000
		tempo := score.Tempo((minute + micros/2) / max(1, micros))
		if tempo < score.MinTempo || tempo > score.MaxTempo {
			im.slowOrFast++
		}
		im.tempo = append(im.tempo, score.TempoChange{Tick: at, Tempo: min(score.MaxTempo, max(score.MinTempo, tempo))})
	case kind == metaTimeSignature && len(value) == 4:
		if meter := (score.Meter{Beats: int(value[0]), Unit: 1 << min(8, value[1])}); meter.Valid() && len(im.meters) < score.MaxMeterChanges {
			im.meters = append(im.meters, take.MeterAt{Tick: at, Meter: meter})
		}
	case kind == metaKeySignature && len(value) == 2 && !im.keyed:
		im.t.Key, im.keyed = theory.KeyOfSignature(int(int8(value[0])), value[1] == 1), true
	}
	return name
}

// tuning reads a single note change of the MIDI Tuning Standard. In a file the length of a system exclusive message
// stands after its first byte.
func (im *importer) tuning(data []byte, at score.Tick) {
	m, ok := midi.Message{}, false
	if len(data) > 2 && data[0] == midi.StatusExclusive {
		m, ok = midi.ParseKeyTuning(append([]byte{midi.StatusExclusive}, data[2:]...))
	}
	if !ok {
		im.exclusive++
		return
	}
	m.Tick = at
	im.messages = append(im.messages, m)
}

// tempos returns the tempo map: in order, the last of several at one tick, and none that changes nothing.
func (im *importer) tempos() play.TempoMap {
	slices.SortStableFunc(im.tempo, func(a, b score.TempoChange) int { return cmp.Compare(a.Tick, b.Tick) })
	var tempos play.TempoMap
	for _, change := range im.tempo {
		last := len(tempos) - 1
		switch {
		case last >= 0 && tempos[last].Tick == change.Tick:
			tempos[last] = change
		case last < 0 || tempos[last].Tempo != change.Tempo:
			tempos = append(tempos, change)
		}
	}
	return tempos
}

// setMeters gives the take its meters: 4/4 until the first (as the specification has it), the last of several at one
// tick, and none that changes nothing.
func (im *importer) setMeters() {
	slices.SortStableFunc(im.meters, func(a, b take.MeterAt) int { return cmp.Compare(a.Tick, b.Tick) })
	t := im.t
	for i, change := range im.meters {
		later := i+1 < len(im.meters) && im.meters[i+1].Tick == change.Tick
		switch same := reflect.DeepEqual(t.Bars().Last(), change.Meter); {
		case later:
		case change.Tick == 0:
			t.Meter = change.Meter
		case !same:
			t.Meters = append(t.Meters, change)
		}
	}
}

func (im *importer) left() (left []string) {
	say := func(count int, what string) {
		if count > 0 {
			left = append(left, fmt.Sprintf("%d %s", count, what))
		}
	}
	say(im.unknown, "messages of polyphonic pressure were left out")
	say(im.exclusive, "system exclusive messages were left out")
	say(im.late, "events after the last moment that a take can have were left out")
	say(im.slowOrFast, "tempos were brought to 10 to 400 beats a minute")
	return left
}

// cleanName makes a name of a text; the specification leaves its characters open, and Latin-1 is common
// practice where it is not UTF-8.
func cleanName(text []byte) string {
	if utf8.Valid(text) {
		return score.CleanName(string(text))
	}
	runes := make([]rune, len(text))
	for i, b := range text {
		runes[i] = rune(b)
	}
	return score.CleanName(string(runes))
}
