package smf_test

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	gomidi "gitlab.com/gomidi/midi/v2"
	gosmf "gitlab.com/gomidi/midi/v2/smf"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// What we write, an independent Go library reads as the same notes at the same ticks, in both
// formats and both resolutions.
func TestAnIndependentLibraryReadsTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		recorded := take.Render(testkit.Project(t), rapid.IntRange(1, 3).Draw(t, "bars"))
		options := smf.Options{
			Format:   rapid.IntRange(0, 1).Draw(t, "format"),
			Division: rapid.SampledFrom([]int{smf.DefaultDivision, smf.ExactDivision}).Draw(t, "division"),
		}
		data, err := smf.Encode(fileOf(t, recorded, options))
		require.NoError(t, err)
		read, err := gosmf.ReadFrom(bytes.NewReader(data))
		require.NoError(t, err)
		require.Equal(t, gosmf.MetricTicks(options.Division), read.TimeFormat)

		written := notesOf(recorded)
		if options.Format == 0 && len(recorded.Sounding()) > 1 {
			var keys route.SharedKeys
			written = keys.Play(written, nil)
		}
		want := map[string]int{}
		for _, m := range written {
			want[messageName(m.Kind == midi.NoteOn, m.Channel, m.Key, m.Velocity)]++
		}
		got := map[string]int{}
		for _, track := range read.Tracks {
			requirePairs(t, track)
			for _, event := range track {
				var channel, key, velocity uint8
				switch {
				case event.Message.GetNoteOn(&channel, &key, &velocity):
					got[messageName(true, channel, key, velocity)]++
				case event.Message.GetNoteOff(&channel, &key, &velocity):
					got[messageName(false, channel, key, 0)]++
				}
			}
		}
		require.Equal(t, want, got)
		if options.Division == smf.ExactDivision && options.Format == 0 {
			requireSameTicks(t, written, recorded.End, read.Tracks[0])
		}
	})
}

// notesOf returns a take's messages without those of mod lanes and slides.
func notesOf(t *take.Take) []midi.Message {
	var notes []midi.Message
	for _, m := range t.Messages {
		if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
			notes = append(notes, m)
		}
	}
	return notes
}

func messageName(on bool, channel, key, velocity uint8) string {
	return fmt.Sprintf("on %v, channel %d, key %d, velocity %d", on, channel, key, velocity)
}

// requirePairs checks that in the file too every note-on has a later note-off, where one ends the oldest of its key.
func requirePairs(t *rapid.T, track gosmf.Track) {
	started := map[[2]uint8][]int64{}
	var tick int64
	for _, event := range track {
		tick += int64(event.Delta)
		var channel, key, velocity uint8
		if event.Message.GetNoteOn(&channel, &key, &velocity) {
			started[[2]uint8{channel, key}] = append(started[[2]uint8{channel, key}], tick)
		}
		if event.Message.GetNoteOff(&channel, &key, &velocity) {
			down := started[[2]uint8{channel, key}]
			require.NotEmpty(t, down)
			require.Greater(t, tick, down[0], "a note of no length")
			started[[2]uint8{channel, key}] = down[1:]
		}
	}
	for _, down := range started {
		require.Empty(t, down)
	}
}

func requireSameTicks(t *rapid.T, notes []midi.Message, end score.Tick, track gosmf.Track) {
	var tick score.Tick
	next := 0
	for _, event := range track {
		tick += score.Tick(event.Delta)
		if event.Message.Is(gomidi.NoteOnMsg) || event.Message.Is(gomidi.NoteOffMsg) {
			require.Equal(t, notes[next].Tick, tick)
			next++
		}
	}
	require.Equal(t, end, tick)
}

// Debian's midicsv, a converter written in C, reads the head of the file as it was meant.
func TestAConverterInCReadsTheHead(t *testing.T) {
	p := testkit.Buoy()
	p.Key = theory.Key{Root: 4, Scale: "harmonic minor"}
	p.Meter = score.Meter{Beats: 7, Unit: 8}
	p.Tempo = 137_531
	rows := midicsv(t, fileOf(t, take.Render(p, 4), smf.Options{Format: 1, Division: smf.DefaultDivision}))
	require.Equal(t, [][]string{
		{"0", "0", "Header", "1", "2", "960"},
		{"1", "0", "Start_track"},
		{"1", "0", "Title_t", "Night opening"},
		{"1", "0", "Time_signature", "7", "3", "12", "8"},
		{"1", "0", "Key_signature", "1", "minor"},
		{"1", "0", "Tempo", "436265"}, // 60,000,000 / 137.531 = 436,265.3
		{"1", "13440", "End_track"},   // 4 bars of 7 eighths at 480 ticks
		{"2", "0", "Start_track"},
		{"2", "0", "Title_t", "Bell buoy"},
	}, rows[:9])
	require.Equal(t, []string{"2", "13440", "End_track"}, rows[len(rows)-2])
}

// After 1,000 bars an event still stands within half a tick of where it belongs.
func TestRoundingDoesNotAddUp(t *testing.T) {
	p := testkit.Buoy()
	lanes := &p.Tracks[0].Parts()[0].Lanes
	lanes.Gate.Rate = "1/64t" // 840 ticks of 20160 are 40 of 960
	lanes.Gate.Length = 1
	lanes.Gate.Steps[0] = score.On
	lanes.Length.Steps[0] = 1
	recorded := take.Render(p, 1000)
	rows := midicsv(t, fileOf(t, recorded, smf.Options{Format: 0, Division: smf.DefaultDivision}))
	next := 0
	for _, row := range rows {
		if !strings.HasPrefix(row[2], "Note_") {
			continue
		}
		var tick int64
		_, err := fmt.Sscan(row[1], &tick)
		require.NoError(t, err)
		m := recorded.Messages[next]
		next++
		if m.Kind == midi.NoteOn {
			require.Equal(t, int64(m.Tick)/21, tick)
		} else {
			require.InDelta(t, float64(m.Tick)/21, float64(tick), 1)
		}
	}
	require.Equal(t, len(recorded.Messages), next)
}

func midicsv(t *testing.T, f smf.File) [][]string {
	t.Helper()
	data, err := smf.Encode(f)
	require.NoError(t, err)
	command := exec.Command("midicsv")
	command.Stdin = bytes.NewReader(data)
	output, err := command.Output()
	require.NoError(t, err, "midicsv comes from Debian's package of that name; `make test` installs it")
	reader := csv.NewReader(bytes.NewReader(output))
	reader.TrimLeadingSpace, reader.FieldsPerRecord = true, -1
	rows, err := reader.ReadAll()
	require.NoError(t, err)
	return rows
}

// Every kind of channel message is written as MIDI 1.0 has it, by the C converter's reading.
func TestAConverterInCReadsEveryKindOfMessage(t *testing.T) {
	recorded := take.Of(testkit.Buoy(), "Kinds")
	recorded.End = 21
	recorded.Messages = []midi.Message{
		{Track: 1, Kind: midi.Program, Channel: 2, Key: 12},
		{Track: 1, Kind: midi.ControlChange, Channel: 2, Key: 74, Value: 99},
		{Track: 1, Kind: midi.WideControl, Channel: 2, Key: 3, Value: 2<<7 | 5},
		{Track: 1, Kind: midi.Bend, Channel: 2, Value: 8193},
		{Track: 1, Kind: midi.Pressure, Channel: 2, Value: 33},
		{Track: 1, Kind: midi.NoteOn, Channel: 2, Key: 60, Velocity: 90},
		{Tick: 21, Track: 1, Kind: midi.NoteOff, Channel: 2, Key: 60},
	}
	var read [][]string
	for _, row := range midicsv(t, fileOf(t, recorded, smf.Options{Format: 1, Division: smf.DefaultDivision})) {
		if strings.HasSuffix(row[2], "_c") {
			read = append(read, row[1:])
		}
	}
	require.Equal(t, [][]string{
		{"0", "Program_c", "2", "12"},
		{"0", "Control_c", "2", "74", "99"},
		{"0", "Control_c", "2", "3", "2"},
		{"0", "Control_c", "2", "35", "5"},
		{"0", "Pitch_bend_c", "2", "8193"},
		{"0", "Channel_aftertouch_c", "2", "33"},
		{"0", "Note_on_c", "2", "60", "90"},
		{"1", "Note_off_c", "2", "60", "64"},
	}, read)
}

// A bank is chosen before its program (MIDI 1.0: controllers 0 and 32), and a marker stands where it is; both come
// back as they were.
func TestAConverterInCReadsBanksAndMarkers(t *testing.T) {
	recorded := take.Of(testkit.Buoy(), "Banks")
	recorded.End = 2 * score.TicksPerQuarter
	recorded.Markers = []take.Marker{{Tick: score.TicksPerQuarter, Text: "Bell buoy: Ebb"}}
	recorded.Messages = []midi.Message{{Track: 1, Kind: midi.Program, Channel: 2, Key: 12, Value: 1 + 5<<7 + 6}}
	file := fileOf(t, recorded, smf.Options{Format: 1, Division: smf.DefaultDivision})
	var read [][]string
	for _, row := range midicsv(t, file) {
		if strings.HasSuffix(row[2], "_c") || row[2] == "Marker_t" {
			read = append(read, row[1:])
		}
	}
	require.Equal(t, [][]string{
		{"960", "Marker_t", "Bell buoy: Ebb"},
		{"0", "Control_c", "2", "0", "5"}, {"0", "Control_c", "2", "32", "6"}, {"0", "Program_c", "2", "12"},
	}, read)
	imported, left := smf.ToTake(file, "Banks")
	require.Empty(t, left)
	require.Equal(t, recorded.Markers, imported.Markers)
	require.Equal(t, recorded.Messages[0].Value, imported.Messages[0].Value)
	require.Len(t, imported.Messages, 1)
}

// Bend ranges, tuning programs and the MIDI Tuning Standard's single note change are written as MIDI 1.0 and
// its tuning extension have them (registered parameters 0 and 3; universal real-time message 08 02), by the
// C converter's reading. Values of the standards from memory.
func TestAConverterInCReadsWhatTunes(t *testing.T) {
	recorded := take.Of(testkit.Buoy(), "Tuned")
	recorded.End = 21
	recorded.Messages = []midi.Message{
		{Track: 1, Kind: midi.BendRange, Channel: 2, Value: 12},
		{Track: 1, Kind: midi.TuningProgram, Channel: 2, Value: 5},
		{Track: 1, Kind: midi.KeyTuning, Channel: 2, Key: 62, Velocity: 61, Value: 1<<7 | 3},
	}
	var read []string
	for _, row := range midicsv(t, fileOf(t, recorded, smf.Options{Format: 1, Division: smf.DefaultDivision})) {
		if strings.HasSuffix(row[2], "_c") || row[2] == "System_exclusive" {
			read = append(read, strings.Join(row[2:], " "))
		}
	}
	require.Equal(t, []string{
		"Control_c 2 101 0", "Control_c 2 100 0", "Control_c 2 6 12", "Control_c 2 38 0", "Control_c 2 101 127", "Control_c 2 100 127",
		"Control_c 2 101 0", "Control_c 2 100 3", "Control_c 2 6 5", "Control_c 2 38 0", "Control_c 2 101 127", "Control_c 2 100 127",
		"System_exclusive 11 127 127 8 2 2 1 62 61 1 3 247",
	}, read)
}

// Two tracks, and two notes of one track, on one channel and key: in a file of format 1, and in a file of one track, each
// note has the length that the project gives it, read as a note-off that ends the oldest note of its key. In a file
// of format 0 the tracks share the key.
func TestNotesOnOneKeyKeepTheirLengthsInFiles(t *testing.T) {
	p := testkit.Buoy()
	p.Tracks = p.Tracks[:1]
	lanes := &p.Tracks[0].Parts()[0].Lanes
	*lanes = score.NewPart("Part").Lanes
	for step := range lanes.Gate.Steps {
		lanes.Gate.Steps[step], lanes.Length.Steps[step] = score.On, score.WholeStep+1 // two steps
	}
	other := p.Tracks[0].Clone()
	other.ID = 2
	other.Parts()[0].Lanes.Length.Steps[0] = 50
	other.Parts()[0].Lanes.Gate.Length, other.Parts()[0].Lanes.Length.Length = 16, 1
	for step := 1; step < score.MaxSteps; step++ {
		other.Parts()[0].Lanes.Gate.Steps[step] = score.Off
	}
	p.Tracks = append(p.Tracks, other)
	require.NoError(t, p.Validate())
	rendered := take.Render(p, 1)
	read := func(format int, of *take.Take) []gosmf.Track {
		data, err := smf.Encode(fileOf(t, of, smf.Options{Format: format, Division: smf.ExactDivision}))
		require.NoError(t, err)
		file, err := gosmf.ReadFrom(bytes.NewReader(data))
		require.NoError(t, err)
		return file.Tracks
	}
	const step = int64(score.TicksPerQuarter) / 4
	own := [][2]int64{{0, step / 2}}
	var long [][2]int64
	for i := range int64(16) {
		long = append(long, [2]int64{i * step, min(16*step, (i+2)*step)})
	}
	tracks := read(1, rendered)
	require.Equal(t, [][][2]int64{long, own}, [][][2]int64{soundingIn(tracks[1]), soundingIn(tracks[2])})
	require.Equal(t, own, soundingIn(read(0, take.ByTrack(rendered)[1])[0]))
	require.Equal(t, long, soundingIn(read(0, take.ByTrack(rendered)[0])[0]))
	require.Len(t, soundingIn(read(0, rendered)[0]), 16, "two tracks that strike one key together strike it once")
}

// soundingIn returns from when to when the notes of a track sound, in the order of their ends.
func soundingIn(track gosmf.Track) (notes [][2]int64) {
	var tick int64
	down := map[uint8][]int64{}
	for _, event := range track {
		tick += int64(event.Delta)
		var channel, key, velocity uint8
		switch {
		case event.Message.GetNoteOn(&channel, &key, &velocity):
			down[key] = append(down[key], tick)
		case event.Message.GetNoteOff(&channel, &key, &velocity):
			notes = append(notes, [2]int64{down[key][0], tick})
			down[key] = down[key][1:]
		}
	}
	return notes
}
