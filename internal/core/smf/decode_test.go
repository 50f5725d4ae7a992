package smf_test

import (
	"bytes"
	"cmp"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	gomidi "gitlab.com/gomidi/midi/v2"
	gosmf "gitlab.com/gomidi/midi/v2/smf"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// What is written is read again: the same file, and from it the same notes and controllers, exact at 20160
// ticks a quarter and within half a tick of 960.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		recorded := take.Render(testkit.Project(t), rapid.IntRange(1, 3).Draw(t, "bars"))
		options := smf.Options{
			Format:   rapid.IntRange(0, 1).Draw(t, "format"),
			Division: rapid.SampledFrom([]int{smf.DefaultDivision, smf.ExactDivision}).Draw(t, "division"),
		}
		file := fileOf(t, recorded, options)
		data, err := smf.Encode(file)
		require.NoError(t, err)
		read, repairs, err := smf.Decode(data)
		require.NoError(t, err)
		require.Empty(t, repairs)
		again, err := smf.Encode(read)
		require.NoError(t, err)
		require.Equal(t, data, again)

		imported, left := smf.ToTake(read, "Imported")
		require.Empty(t, left)
		for bar := range recorded.Bars().At(recorded.End) { // groups of beats have no place in a file
			want, got := recorded.Bars().Meter(bar), imported.Bars().Meter(bar)
			require.Equal(t, []int{want.Beats, want.Unit}, []int{got.Beats, got.Unit}, "bar %d", bar)
		}
		written := recorded.Messages
		if options.Format == 0 && len(recorded.Sounding()) > 1 {
			var keys route.SharedKeys
			written = keys.Play(written, nil)
		}
		wantOns, wantOffs := byKey(written)
		gotOns, gotOffs := byKey(imported.Messages)
		require.Len(t, gotOns, len(wantOns))
		require.Len(t, gotOffs, len(wantOffs))
		if options.Division == smf.ExactDivision {
			require.Equal(t, wantOns, gotOns)
			require.Equal(t, wantOffs, gotOffs)
			return
		}
		free := map[midi.Message]bool{} // a key is let go before it is struck again, and a note lasts a tick of the file
		for _, off := range gotOffs {
			off.Kind, off.Velocity = midi.NoteOn, 0
			free[off] = true
		}
		for i, want := range wantOns {
			got := gotOns[i]
			got.Velocity, want.Velocity = 0, 0
			if want.Tick-11 <= got.Tick && got.Tick <= want.Tick+11 {
				got.Tick = want.Tick
			}
			require.True(t, got == want || free[got], "%v for %v", got, want)
		}
		for i, off := range gotOffs {
			require.GreaterOrEqual(t, off.Tick, wantOffs[i].Tick-11)
		}
	})
}

// byKey lists note-ons and note-offs by channel and key, in order, whatever their tracks are.
func byKey(messages []midi.Message) (ons, offs []midi.Message) {
	for _, m := range messages {
		of := midi.Message{Tick: m.Tick, Kind: m.Kind, Channel: m.Channel, Key: m.Key, Velocity: m.Velocity}
		switch m.Kind {
		case midi.NoteOn:
			ons = append(ons, of)
		case midi.NoteOff:
			offs = append(offs, of)
		}
	}
	order := func(a, b midi.Message) int {
		return cmp.Or(cmp.Compare(a.Channel, b.Channel), cmp.Compare(a.Key, b.Key), cmp.Compare(a.Tick, b.Tick), cmp.Compare(a.Velocity, b.Velocity))
	}
	slices.SortFunc(ons, order)
	slices.SortFunc(offs, order)
	return ons, offs
}

type note struct {
	what       string
	start, end score.Tick
}

// lasting lists the notes of a take by channel and key, in the order in which they were struck.
func lasting(t *take.Take) (notes []note) {
	played := t.Notes()
	slices.SortStableFunc(played, func(a, b midi.Note) int { return cmp.Or(cmp.Compare(a.Channel, b.Channel), cmp.Compare(a.Key, b.Key)) })
	for _, n := range played {
		notes = append(notes, note{fmt.Sprint(n.Channel, n.Key, n.Velocity), n.Start, n.End})
	}
	return notes
}

// file joins a head of one track at 96 ticks a quarter with a track chunk that holds some bytes.
func file(track ...byte) []byte {
	head := []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00")
	return append(append(head, byte(len(track))), track...)
}

// Files that are wrong in some way and can be read all the same.
func TestForeignFilesAreRead(t *testing.T) {
	played := []byte{0, 0x90, 60, 90, 96, 60, 0, 0, 0xFF, 0x2F, 0}
	whole := file(played...)
	longHead := bytes.Replace(whole, []byte("\x00\x06\x00\x00\x00\x01\x00\x60"), []byte("\x00\x08\x00\x00\x00\x01\x00\x60??"), 1)
	tooLong := bytes.Clone(whole)
	tooLong[21] = 200
	for name, c := range map[string]struct {
		data    []byte
		repairs []string
	}{
		"as it should be":              {whole, nil},
		"a head of more than six":      {longHead, nil},
		"a chunk that nobody knows":    {append(bytes.Clone(whole), "XYZZ\x00\x00\x00\x02??"...), nil},
		"a track without its end":      {file(played[:7]...), []string{"the track at byte 14 has no end of track, and ends with its last event"}},
		"a chunk longer than the file": {tooLong, []string{"the chunk at byte 14 says that it is 200 bytes long, and the file has 11 more"}},
		"bytes after the last chunk":   {append(bytes.Clone(whole), 1, 2, 3), []string{"3 bytes after the last chunk were left out"}},
		"an unknown meta event":        {file(append([]byte{0, 0xFF, 0x60, 2, 1, 2}, played...)...), nil},
	} {
		read, repairs, err := smf.Decode(c.data)
		require.NoError(t, err, name)
		require.Equal(t, c.repairs, repairs, name)
		imported, _ := smf.ToTake(read, "Foreign")
		require.Equal(t, []note{{"0 60 90", 0, score.TicksPerQuarter}}, lasting(imported), name)
	}
}

// Notes that overlap, last no time or never end, times in frames, tempos, meters, keys and names.
func TestWhatFilesSay(t *testing.T) {
	in := func(f smf.File) *take.Take {
		imported, left := smf.ToTake(f, "In")
		require.Empty(t, left)
		return imported
	}
	events := func(events ...smf.Event) smf.File {
		return smf.File{Division: 96, Tracks: []smf.Track{{Events: events, End: 192}}}
	}
	quarter := score.TicksPerQuarter
	on := func(tick uint32, velocity byte) smf.Event {
		return smf.Event{Tick: tick, Data: []byte{0x90, 60, velocity}}
	}
	require.Equal(t, []note{{"0 60 90", 0, quarter}, {"0 60 80", quarter, 2 * quarter}},
		lasting(in(events(on(0, 90), on(96, 80)))), "overlapping, and unfinished")
	require.Equal(t, []note{{"0 60 90", 0, 1}}, lasting(in(events(on(0, 90), on(0, 0)))), "of no length")

	frames := events(on(0, 90), on(100, 0))
	frames.Division, frames.Frames = 4, 25 // 100 ticks a second, and a second is two quarters
	require.Equal(t, []note{{"0 60 90", 0, 2 * quarter}}, lasting(in(frames)))
	frames.Division, frames.Frames = 100, 29
	frames.Tracks[0].Events[1].Tick = 3000 // 30 frames last 1.001 seconds
	require.Equal(t, []note{{"0 60 90", 0, 2 * quarter * 1001 / 1000}}, lasting(in(frames)))

	told := in(events(
		smf.Event{Data: []byte("\xff\x03\x05Winch")}, smf.Event{Data: []byte{0xFF, 0x58, 4, 7, 3, 12, 8}},
		smf.Event{Data: []byte{0xFF, 0x59, 2, 0xFD, 1}}, smf.Event{Tick: 96, Data: []byte{0xFF, 0x51, 3, 0x09, 0x27, 0xC0}}, on(0, 9),
	))
	require.Equal(t, score.Meter{Beats: 7, Unit: 8}, told.Meter)
	require.Equal(t, theory.Key{Root: 0, Scale: "minor"}, told.Key, "three flats, minor")
	require.Equal(t, play.TempoMap{{Tempo: 120_000}, {Tick: quarter, Tempo: 100_000}}, told.Tempo)
	require.Equal(t, []take.Track{{ID: 1, Name: "Channel 1"}}, told.Tracks)

	pieces := events(on(0, 90), on(96, 0))
	pieces.Format, pieces.Tracks = 2, append(pieces.Tracks, pieces.Tracks[0])
	require.Equal(t, []note{{"0 60 90", 0, quarter}, {"0 60 90", 2 * quarter, 3 * quarter}}, lasting(in(pieces)), "one after the other")

	_, left := smf.ToTake(events(smf.Event{Data: []byte{0xA0, 1, 2}}, smf.Event{Data: []byte{0xF0, 1, 0xF7}}), "Left")
	require.Equal(t, []string{"1 messages of polyphonic pressure were left out", "1 system exclusive messages were left out"}, left)
}

// What an independent library writes is read as the same notes.
func TestFilesOfAnIndependentLibraryAreRead(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var track gosmf.Track
		var want []note
		at := score.Tick(0)
		for range rapid.IntRange(1, 20).Draw(t, "notes") {
			rest, length := rapid.Uint32Range(0, 5000).Draw(t, "rest"), rapid.Uint32Range(1, 5000).Draw(t, "length")
			velocity := rapid.Uint8Range(1, 127).Draw(t, "velocity")
			track.Add(rest, gomidi.NoteOn(5, 64, velocity))
			track.Add(length, gomidi.NoteOff(5, 64))
			at += score.Tick(rest)
			want = append(want, note{fmt.Sprint(5, 64, velocity), 21 * at, 21 * (at + score.Tick(length))})
			at += score.Tick(length)
		}
		track.Close(0)
		theirs := gosmf.New()
		theirs.TimeFormat = gosmf.MetricTicks(960)
		require.NoError(t, theirs.Add(track))
		var data bytes.Buffer
		_, err := theirs.WriteTo(&data)
		require.NoError(t, err)
		read, repairs, err := smf.Decode(data.Bytes())
		require.NoError(t, err)
		require.Empty(t, repairs)
		imported, left := smf.ToTake(read, "Theirs")
		require.Empty(t, left)
		require.Equal(t, want, lasting(imported))
	})
}

// A key signature that is read is the one that is written.
func TestKeySignaturesComeBack(t *testing.T) {
	for sharps := -5; sharps <= 6; sharps++ {
		for _, minor := range []bool{false, true} {
			s, m, ok := theory.KeyOfSignature(sharps, minor).Signature()
			require.True(t, ok)
			require.Equal(t, sharps, s)
			require.Equal(t, minor, m)
		}
	}
}

// Corrupt files are refused with a sentence that names the place.
func TestCorruptFilesAreRefusedByPlace(t *testing.T) {
	head := "MThd\x00\x00\x00\x06\x00\x00\x00\x01"
	for want, data := range map[string]string{
		"at byte 0 there is no head of a Standard MIDI File":                     "RIFF????????????",
		"at byte 4 the head is 5 bytes long; it must be 6 or more":               "MThd\x00\x00\x00\x05\x00\x00\x00\x01\x00\x60",
		"at byte 8 the format is 3; it must be 0, 1 or 2":                        "MThd\x00\x00\x00\x06\x00\x03\x00\x01\x00\x60",
		"at byte 12 the division is 0":                                           head + "\x00\x00",
		"at byte 12 there are 12 frames a second":                                head + "\xf4\x04",
		"at byte 14 the file ends, and has no track":                             head + "\x00\x60",
		"at byte 23 there is 0x40, data without a status before it":              string(file(0, 0x40, 1)),
		"at byte 23 there is the status 0xf8, which has no place in a file":      string(file(0, 0xF8)),
		"at byte 25 there is 0x90 in the place of data":                          string(file(0, 0x90, 60, 0x90)[:26]),
		"at byte 24 the track ends in the middle of an event":                    string(file(0, 0x90, 60)),
		"at byte 26 there is a variable-length quantity of more than four bytes": string(file(0x81, 0x81, 0x81, 0x81, 1)),
		"at byte 26 an event is 100 bytes long, and its track ends after 1":      string(file(0, 0xFF, 1, 100, 1)),
	} {
		_, _, err := smf.Decode([]byte(data))
		require.ErrorContains(t, err, want)
		var formatError *smf.FormatError
		require.ErrorAs(t, err, &formatError)
	}
}

// Nothing that comes in makes the reader fail in another way, and what it accepts an independent library reads
// as the same notes, and it reads again what it has written.
func FuzzDecode(f *testing.F) {
	good, err := smf.Encode(fileOf(f, take.Render(testkit.Buoy(), 1), smf.Options{Format: 1, Division: smf.DefaultDivision}))
	require.NoError(f, err)
	f.Add(good)
	f.Add(file(0, 0x90, 60, 90, 96, 60, 0, 0, 0xFF, 0x2F, 0))
	f.Add([]byte("MThd\x00\x00\x00\x06\x00\x02\x00\x01\xe7\x28MTrk\x00\x00\x00\x04\x00\xff\x2f\x00"))
	f.Fuzz(func(t *testing.T, data []byte) {
		read, repairs, err := smf.Decode(data)
		if err != nil {
			var formatError *smf.FormatError
			require.ErrorAs(t, err, &formatError)
			require.LessOrEqual(t, formatError.Offset, len(data)+1)
			return
		}
		imported, _ := smf.ToTake(read, "Fuzz")
		down := map[midi.NoteID]bool{}
		for _, m := range imported.Messages {
			key := m.NoteID()
			if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
				require.Equal(t, m.Kind == midi.NoteOff, down[key])
				down[key] = m.Kind == midi.NoteOn
			}
		}
		if read.Format == 2 || read.Frames != 0 || len(repairs) > 0 || read.Format == 0 && len(read.Tracks) != 1 {
			return
		}
		again, err := smf.Encode(read)
		if err != nil { // a distance that is too long to be written
			return
		}
		twice, _, err := smf.Decode(again)
		require.NoError(t, err)
		require.Equal(t, read, twice)
		requireSameNotes(t, read, again)
	})
}

// requireSameNotes checks that an independent library finds the note-ons of a file in what was written of it.
func requireSameNotes(t *testing.T, f smf.File, data []byte) {
	theirs, err := gosmf.ReadFrom(bytes.NewReader(data))
	if err != nil { // it refuses some meta events that are well-formed but hold nonsense
		return
	}
	count := func(is func(i int) bool, n int) (notes int) {
		for i := range n {
			if is(i) {
				notes++
			}
		}
		return notes
	}
	for i, track := range f.Tracks {
		ours := count(func(n int) bool { d := track.Events[n].Data; return d[0]>>4 == 9 && d[2] > 0 }, len(track.Events))
		other := count(func(n int) bool {
			var channel, key, velocity uint8
			return theirs.Tracks[i][n].Message.GetNoteStart(&channel, &key, &velocity)
		}, len(theirs.Tracks[i]))
		require.Equal(t, ours, other)
	}
}

// fileOf lays a take out as a file that can hold it.
func fileOf(t require.TestingT, recorded *take.Take, options smf.Options) smf.File {
	file, err := smf.FromTake(recorded, options)
	require.NoError(t, err)
	return file
}
