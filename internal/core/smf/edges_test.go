package smf_test

import (
	"bytes"
	"encoding/binary"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	gosmf "gitlab.com/gomidi/midi/v2/smf"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
)

// A take of a day in silence with a note at each end has more room between them than a delta time holds: what is
// written in between is read by the reference as the same two notes at their ticks.
func TestALongSilenceIsBridged(t *testing.T) {
	const day = 24 * 60 * 120 * score.TicksPerQuarter
	recorded := &take.Take{
		Name: "Night", Meter: score.Meter{Beats: 4, Unit: 4}, Tempo: play.TempoMap{{Tempo: 120_000}}, End: day + 100_000_000,
		Tracks: []take.Track{{ID: 1, Name: "Bell"}},
	}
	for _, at := range []score.Tick{0, day} {
		recorded.Messages = append(recorded.Messages,
			midi.Message{Tick: at, Track: 1, Kind: midi.NoteOn, Key: 60, Velocity: 90}, midi.Message{Tick: at + 20160, Track: 1, Key: 60})
	}
	for _, options := range []smf.Options{{Format: 1, Division: smf.ExactDivision}, {Format: 0, Division: smf.ExactDivision}} {
		data, err := smf.Encode(fileOf(t, recorded, options))
		require.NoError(t, err)
		reference, err := gosmf.ReadFrom(bytes.NewReader(data))
		require.NoError(t, err)
		var ticks []int64
		for _, track := range reference.Tracks {
			at := int64(0)
			for _, event := range track {
				at += int64(event.Delta)
				var channel, key, velocity uint8
				if event.Message.GetNoteStart(&channel, &key, &velocity) {
					ticks = append(ticks, at)
				}
			}
			require.Equal(t, int64(recorded.End), at)
		}
		require.Equal(t, []int64{0, int64(day)}, ticks)
		file, _, err := smf.Decode(data)
		require.NoError(t, err)
		again, left := smf.ToTake(file, "again")
		require.Empty(t, left)
		require.Equal(t, recorded.End, again.End)
		require.Equal(t, recorded.Notes(), func() []midi.Note {
			notes := again.Notes()
			for i := range notes {
				notes[i].Track = 1
			}
			return notes
		}())
	}
}

// A take that is longer than a file can be is refused, with what to cut.
func TestATakeThatIsTooLongForAFile(t *testing.T) {
	far := &take.Take{Meter: score.Meter{Beats: 4, Unit: 4}, Tempo: play.TempoMap{{Tempo: 120_000}}, End: score.LastTick}
	_, err := smf.FromTake(far, smf.Options{Format: 1, Division: smf.DefaultDivision})
	var refused *smf.RangeError
	require.ErrorAs(t, err, &refused)
	require.EqualError(t, err, "the length of the take is 10000000 bars; it must be at most 1118481 for a MIDI file of 960 ticks a quarter note: cut off what lies beyond, or choose fewer bars")
	far.End = score.Tick(1118481) * far.Meter.Bar()
	_, err = smf.Encode(fileOf(t, far, smf.Options{Format: 0, Division: smf.DefaultDivision}))
	require.NoError(t, err)
}

// A file whose last note is at the last moment of all, or beyond, or strikes it again and again, becomes a take that
// is whole and can be edited.
func TestNotesAtTheEndOfTime(t *testing.T) {
	for _, tick := range []uint32{math.MaxUint32, 39_999_999, 40_000_000} {
		head := []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x01") // a tick a quarter note
		var body []byte
		for left := tick; ; left -= 1<<28 - 1 {
			if left <= 1<<28-1 {
				body = append(body, byte(left>>21)|0x80, byte(left>>14)|0x80, byte(left>>7)|0x80, byte(left&0x7F))
				break
			}
			body = append(body, 0xFF, 0xFF, 0xFF, 0x7F, 0xFF, 0x01, 0x00)
		}
		body = append(body, 0x90, 60, 90, 0, 60, 91, 0, 60, 92, 0, 0xFF, 0x2F, 0)
		data := append(head, "MTrk"...)
		data = append(binary.BigEndian.AppendUint32(data, uint32(len(body))), body...)
		file, _, err := smf.Decode(data)
		require.NoError(t, err)
		far, left := smf.ToTake(file, "far")
		require.LessOrEqual(t, far.End, score.LastTick)
		require.Equal(t, far.Count(), len(far.Notes()))
		if tick == 39_999_999 {
			require.Equal(t, 3, far.Count())
		} else {
			require.Zero(t, far.Count())
			require.NotEmpty(t, left)
		}
		_, err = take.Apply(far, take.MoveNotes{Ticks: 1})
		require.NoError(t, err)
	}
}

// A bank belongs to the program that comes after it in the same track of the file, and to none in another.
func TestABankStaysInItsTrack(t *testing.T) {
	bank := []smf.Event{{Data: []byte{0xB0, 0, 1}}, {Data: []byte{0xB0, 32, 2}}}
	program := smf.Event{Data: []byte{0xC0, 7}}
	for name, test := range map[string]struct {
		tracks  []smf.Track
		numbers []uint16
		tracked []uint32
	}{
		"the same track": {[]smf.Track{{Events: append(bank, program)}}, []uint16{1<<7 + 2 + 1}, []uint32{1}},
		"a lone CC 32":   {[]smf.Track{{Events: []smf.Event{{Data: []byte{0xB0, 7, 9}}, bank[1], program}}}, []uint16{9, 2, 0}, []uint32{1, 1, 1}},
		"another track":  {[]smf.Track{{Events: bank}, {Events: []smf.Event{program}}}, []uint16{1, 2, 0}, []uint32{1, 1, 2}},
	} {
		t.Run(name, func(t *testing.T) {
			imported, left := smf.ToTake(smf.File{Format: 1, Division: 480, Tracks: test.tracks}, "Banks")
			require.Empty(t, left)
			var numbers []uint16
			var tracked []uint32
			for _, m := range imported.Messages {
				numbers, tracked = append(numbers, m.Value), append(tracked, m.Track)
			}
			require.Equal(t, test.numbers, numbers)
			require.Equal(t, test.tracked, tracked)
		})
	}
}

// A tempo is written in whole microseconds a quarter note (Standard MIDI File 1.0) and read in thousandths of a beat a
// minute, each the nearest: what is read is written as it stood.
func TestTemposAreRounded(t *testing.T) {
	for tempo := score.MinTempo; tempo <= score.MaxTempo; tempo += 1237 {
		one := &take.Take{Meter: score.Meter{Beats: 4, Unit: 4}, Tempo: play.TempoMap{{Tempo: tempo}}, End: 1}
		file, err := smf.FromTake(one, smf.Options{Division: 960})
		require.NoError(t, err)
		micros := math.Round(60e9 / float64(tempo))
		back, _ := smf.ToTake(file, "")
		require.Equal(t, score.Tempo(math.Round(60e9/micros)), back.Tempo[0].Tempo)
		again, err := smf.FromTake(back, smf.Options{Division: 960})
		require.NoError(t, err)
		require.Equal(t, file.Tracks[0].Events[0], again.Tracks[0].Events[0])
	}
}
