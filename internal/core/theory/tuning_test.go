package theory_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// just43 is the just scale of 43 tones and its table of cents as published in Partch, "Genesis of a Music",
// 2nd edition, 1974. From memory; that each ratio r has its mirror 2/r is checked as well.
var just43 = []struct {
	ratio string
	cents float64
}{
	{"81/80", 21.5}, {"33/32", 53.3}, {"21/20", 84.5}, {"16/15", 111.7}, {"12/11", 150.6}, {"11/10", 165.0}, {"10/9", 182.4},
	{"9/8", 203.9}, {"8/7", 231.2}, {"7/6", 266.9}, {"32/27", 294.1}, {"6/5", 315.6}, {"11/9", 347.4}, {"5/4", 386.3},
	{"14/11", 417.5}, {"9/7", 435.1}, {"21/16", 470.8}, {"4/3", 498.0}, {"27/20", 519.6}, {"11/8", 551.3}, {"7/5", 582.5},
	{"10/7", 617.5}, {"16/11", 648.7}, {"40/27", 680.4}, {"3/2", 702.0}, {"32/21", 729.2}, {"14/9", 764.9}, {"11/7", 782.5},
	{"8/5", 813.7}, {"18/11", 852.6}, {"5/3", 884.4}, {"27/16", 905.9}, {"12/7", 933.1}, {"7/4", 968.8}, {"16/9", 996.1},
	{"9/5", 1017.6}, {"20/11", 1035.0}, {"11/6", 1049.4}, {"15/8", 1088.3}, {"40/21", 1115.5}, {"64/33", 1146.7},
	{"160/81", 1178.5}, {"2/1", 1200.0},
}

func TestAPublishedScaleOf43JustTones(t *testing.T) {
	var file strings.Builder
	file.WriteString("! just43.scl\n!\n43 tones of just intonation\n 43\n!\n")
	ratios := map[float64]bool{1: true}
	for i, tone := range just43 {
		fmt.Fprintf(&file, " %s   ! tone %d\n", tone.ratio, i+1)
		var upper, lower float64
		_, err := fmt.Sscanf(tone.ratio, "%f/%f", &upper, &lower)
		require.NoError(t, err)
		ratios[upper/lower] = true
	}
	for ratio := range ratios {
		mirrored := false
		for other := range ratios {
			mirrored = mirrored || math.Abs(ratio*other-2) < 1e-12
		}
		require.True(t, mirrored, ratio)
	}
	tuning, err := theory.ParseScale([]byte(file.String()))
	require.NoError(t, err)
	require.Equal(t, "43 tones of just intonation", tuning.Name)
	pitches := tuning.Ready()
	require.Equal(t, 43, pitches.Notes())
	require.Equal(t, 12*theory.Semitone, pitches.Period())
	for i, tone := range just43 {
		above := pitches.Sounding(60+i+1) - pitches.Sounding(60)
		require.InDelta(t, tone.cents, float64(above)/float64(theory.Cent), 0.0501, tone.ratio)
		require.Equal(t, above+12*theory.Semitone, pitches.Sounding(60+i+1+43)-pitches.Sounding(60))
		require.Equal(t, above-12*theory.Semitone, pitches.Sounding(60+i+1-43)-pitches.Sounding(60))
	}
}

// The examples that the published description of the format gives for pitches, and what it says they are.
func TestPitchesOfTheFormat(t *testing.T) {
	for text, want := range map[string]theory.Cents{
		"81/64":       407_820_003,
		"408.0":       408 * theory.Cent,
		"408.":        408 * theory.Cent,
		"5":           2_786_313_714,
		"-5.0":        -5 * theory.Cent,
		"10/20":       -1200 * theory.Cent,
		"100.0000001": 100 * theory.Cent,
	} {
		got, err := theory.ParsePitch(text)
		require.NoError(t, err, text)
		require.Equal(t, want, got, text)
	}
	for _, text := range []string{"", "$", "5/", "/5", "0/3", "3/0", "-3/2", "1e9.", "NaN.", "cents", strings.Repeat("9", 61)} {
		_, err := theory.ParsePitch(text)
		require.ErrorContains(t, err, "is not a pitch", text)
	}
}

// Without a tuning, and with an equal one of twelve notes, every MIDI note has its published frequency: 440
// Hz times 2 to the power of (note - 69)/12, MIDI Tuning Standard (MMA).
func TestEqualTemperament(t *testing.T) {
	twelve := &theory.Tuning{Name: "twelve"}
	for i := 1; i <= 12; i++ {
		twelve.Pitches = append(twelve.Pitches, fmt.Sprintf("%d.0", 100*i))
	}
	for _, tuning := range []*theory.Tuning{nil, twelve} {
		pitches := tuning.Ready()
		for note := range 128 {
			require.Equal(t, theory.Cents(note)*theory.Semitone, pitches.Sounding(note))
			require.Equal(t, note, pitches.Key(note))
			require.Equal(t, note, pitches.Nearest(note))
		}
	}
	hertz := func(c theory.Cents) float64 { return 440 * math.Exp2((float64(c)/float64(theory.Semitone)-69)/12) }
	ready := twelve.Ready()
	require.InDelta(t, 261.6255653, hertz(ready.Sounding(60)), 1e-6)
	require.InDelta(t, 8.1757989, hertz(ready.Sounding(0)), 1e-6)
	require.InDelta(t, 12543.8539514, hertz(ready.Sounding(127)), 1e-4)
}

// A mapping of seven notes to the white keys, with A at 432 Hz.
const whiteKeys = `! white keys
12
0
127
60
69
432.0
7
! c . d . e f . g . a . b
0
x
1
x
2
3
x
4
x
5
x
6
`

func TestAKeyboardMapping(t *testing.T) {
	keyboard, err := theory.ParseKeyboard([]byte(whiteKeys))
	require.NoError(t, err)
	tuning, err := theory.ParseScale([]byte("!\nseven just tones\n7\n9/8\n5/4\n4/3\n3/2\n5/3\n15/8\n2\n"))
	require.NoError(t, err)
	tuning.Keyboard = keyboard
	require.NoError(t, tuning.Validate())
	pitches := tuning.Ready()
	require.Equal(t, 12, pitches.Span())
	for degree, key := range []int{60, 62, 64, 65, 67, 69, 71, 72, 74} {
		require.Equal(t, key, pitches.Key(60+degree))
	}
	require.Equal(t, 59, pitches.Key(59), "the seventh below")
	hertz := 440 * math.Exp2((float64(pitches.Sounding(65))/float64(theory.Semitone)-69)/12)
	require.InDelta(t, 432, hertz, 1e-6, "the reference key")
}

// What is written is read as the same, in whatever tuning.
func TestScalaFilesRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tuning := testkit.Tuning(t)
		read, err := theory.ParseScale(theory.FormatScale(tuning))
		require.NoError(t, err)
		if tuning.Keyboard != nil {
			read.Keyboard, err = theory.ParseKeyboard(theory.FormatKeyboard(tuning.Keyboard))
			require.NoError(t, err)
		}
		require.Equal(t, tuning, read)
		clone := tuning.Clone()
		clone.Pitches[0] = "1/1"
		require.Equal(t, read, tuning)
	})
}

func TestBadScalaFilesAreRefusedByLine(t *testing.T) {
	for _, c := range []struct{ scale, want string }{
		{"", "ends before the number of notes"},
		{"! only\n! comments\n", "ends before the number of notes"},
		{"name\nmany\n", `line 2: the number of notes is "many"; it must be 1 to 1024`},
		{"name\n0\n", `line 2: the number of notes is "0"`},
		{"name\n2\n! then\n3/2\n", "says that it has 2 notes and ends after 1"},
		{"name\n2\n! then\n3/2\nfog\n", `line 5: "fog" is not a pitch`},
		{"name\n1\n1/1\n", "the last pitch, 1/1, is the period"},
		{strings.Repeat("!\n", theory.MaxScalaFile), "at most 1048576 are read"},
	} {
		_, err := theory.ParseScale([]byte(c.scale))
		require.ErrorContains(t, err, c.want)
	}
	latin, err := theory.ParseScale([]byte("caf\xe9\r\n1\r\n2/1\r\n"))
	require.NoError(t, err)
	require.Equal(t, "café", latin.Name)
	for change, want := range map[string]string{
		"12\n0\n127|12\n0":           "line 6: the number is \"432.0\"",
		"12\n0|500\n0":               "line 2: the mapping has 500 keys",
		"432.0|0.5":                  "line 7: the frequency is \"0.5\"; it must be 1 to 20000 Hz",
		"\n69\n|\n70\n":              "the reference key 70 plays nothing",
		"\n7\n|\n6\n":                "a key plays note 6; it must be 0 to 5",
		"\n0\nx\n1|\n2\nx\n1":        "no key plays note 0",
		"\n127\n|\n128\n":            "the key 128 does not exist",
		"\nx\n6\n|\nfog\n6\n":        `the note of a key is "fog"`,
		whiteKeys[13:] + "|12\n0\n1": "ends after",
	} {
		before, after, _ := strings.Cut(change, "|")
		require.Contains(t, whiteKeys, before)
		_, err := theory.ParseKeyboard([]byte(strings.Replace(whiteKeys, before, after, 1)))
		require.ErrorContains(t, err, want, change)
	}
}

// No file makes the readers panic, and what they accept is written and read as the same.
func FuzzScala(f *testing.F) {
	f.Add([]byte(whiteKeys), []byte("name\n2\n3/2\n2/1\n"))
	f.Add([]byte("0\n0\n127\n60\n69\n440\n0\n"), []byte("\n1\n1200.0 cents\n"))
	f.Fuzz(func(t *testing.T, mapping, scale []byte) {
		tuning, err := theory.ParseScale(scale)
		if err != nil {
			return
		}
		tuning.Keyboard, err = theory.ParseKeyboard(mapping)
		if err != nil {
			tuning.Keyboard = nil
		}
		tuning.Ready()
		again, err := theory.ParseScale(theory.FormatScale(tuning))
		require.NoError(t, err)
		require.Equal(t, tuning.Pitches, again.Pitches)
	})
}
