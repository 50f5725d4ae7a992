package smf

import (
	"encoding/hex"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// The table of variable-length quantities in the Standard MIDI Files 1.0 specification (RP-001),
// written here from memory.
func TestVarLenMatchesTheTableOfTheSpecification(t *testing.T) {
	for value, want := range map[uint32]string{
		0x00000000: "00", 0x00000040: "40", 0x0000007F: "7f",
		0x00000080: "8100", 0x00002000: "c000", 0x00003FFF: "ff7f",
		0x00004000: "818000", 0x00100000: "c08000", 0x001FFFFF: "ffff7f",
		0x00200000: "81808000", 0x08000000: "c0808000", 0x0FFFFFFF: "ffffff7f",
	} {
		require.Equal(t, want, hex.EncodeToString(appendVarLen(nil, value)), "%#x", value)
	}
}

// The two example files of the specification (RP-001), format 0 and format 1, written here from
// memory: three channels, 96 ticks a quarter note, byte for byte.
func TestTheExampleFilesOfTheSpecification(t *testing.T) {
	timeSignature := event(0, "ff 58 04 04 02 18 08")
	tempo := event(0, "ff 51 03 07 a1 20")
	for _, c := range []struct {
		name string
		file File
		want string
	}{
		{"format 0", File{Format: 0, Division: 96, Tracks: []Track{{End: 384, Events: []Event{
			timeSignature, tempo,
			event(0, "c0 05"), event(0, "c1 2e"), event(0, "c2 46"),
			event(0, "92 30 60"), event(0, "92 3c 60"), event(96, "91 43 40"), event(192, "90 4c 20"),
			event(384, "82 30 40"), event(384, "82 3c 40"), event(384, "81 43 40"), event(384, "80 4c 40"),
		}}}}, `
			4d 54 68 64 00 00 00 06 00 00 00 01 00 60
			4d 54 72 6b 00 00 00 3b
			00 ff 58 04 04 02 18 08
			00 ff 51 03 07 a1 20
			00 c0 05 00 c1 2e 00 c2 46
			00 92 30 60 00 3c 60 60 91 43 40 60 90 4c 20
			81 40 82 30 40 00 3c 40 00 81 43 40 00 80 4c 40
			00 ff 2f 00`},
		{"format 1", File{Format: 1, Division: 96, Tracks: []Track{
			{End: 384, Events: []Event{timeSignature, tempo}},
			{End: 384, Events: []Event{event(0, "c0 05"), event(192, "90 4c 20"), event(384, "90 4c 00")}},
			{End: 384, Events: []Event{event(0, "c1 2e"), event(96, "91 43 40"), event(384, "91 43 00")}},
			{End: 384, Events: []Event{event(0, "c2 46"), event(0, "92 30 60"), event(0, "92 3c 60"),
				event(384, "92 30 00"), event(384, "92 3c 00")}},
		}}, `
			4d 54 68 64 00 00 00 06 00 01 00 04 00 60
			4d 54 72 6b 00 00 00 14
			00 ff 58 04 04 02 18 08 00 ff 51 03 07 a1 20 83 00 ff 2f 00
			4d 54 72 6b 00 00 00 10
			00 c0 05 81 40 90 4c 20 81 40 4c 00 00 ff 2f 00
			4d 54 72 6b 00 00 00 0f
			00 c1 2e 60 91 43 40 82 20 43 00 00 ff 2f 00
			4d 54 72 6b 00 00 00 15
			00 c2 46 00 92 30 60 00 3c 60 83 00 30 00 00 3c 00 00 ff 2f 00`},
	} {
		t.Run(c.name, func(t *testing.T) {
			got, err := Encode(c.file)
			require.NoError(t, err)
			require.Equal(t, hex.EncodeToString(parseHex(c.want)), hex.EncodeToString(got))
		})
	}
}

func event(tick uint32, data string) Event { return Event{Tick: tick, Data: parseHex(data)} }

func parseHex(s string) []byte {
	data, err := hex.DecodeString(strings.Join(strings.Fields(s), ""))
	if err != nil {
		panic(err)
	}
	return data
}

func TestWhatAFileHasNoRoomForIsRefused(t *testing.T) {
	one := []Track{{}}
	for _, c := range []struct {
		file File
		want string
	}{
		{File{Format: 2, Division: 96, Tracks: one}, "the format is 2; it must be 0 or 1"},
		{File{Format: 0, Division: 96, Tracks: []Track{{}, {}}}, "the number of tracks is 2; it must be 1 in format 0"},
		{File{Format: 1, Division: 96}, "the number of tracks is 0"},
		{File{Format: 1, Division: 0, Tracks: one}, "the division is 0; it must be 1 to 32767"},
		{File{Format: 1, Division: 1 << 15, Tracks: one}, "the division is 32768"},
		{File{Format: 1, Division: 96, Tracks: []Track{{Events: []Event{event(5, "90 40 40"), event(4, "80 40 40")}}}},
			"the tick of an event is 4; it must be 5 or more"},
	} {
		_, err := Encode(c.file)
		var rangeError *RangeError
		require.ErrorAs(t, err, &rangeError)
		require.ErrorContains(t, err, c.want)
	}
}
