package wav_test

import (
	"bytes"
	"crypto/sha256"
	"encoding/binary"
	"encoding/hex"
	"encoding/json"
	"errors"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/wav"
)

func demo(t *testing.T, bars int) (*take.Take, *cv.Voltages) {
	t.Helper()
	taken := take.Render(score.Demo(), bars)
	voltages, err := cv.Of(taken, score.Demo().Outputs[0])
	require.NoError(t, err)
	return taken, voltages
}

// The file is what sox takes it to be, and the edges of the bass's gate are those of its notes, to the sample.
func TestTheFileIsWhatSoxReads(t *testing.T) {
	taken, voltages := demo(t, 4)
	var file bytes.Buffer
	require.NoError(t, wav.Write(&file, voltages, 44100))
	path := filepath.Join(t.TempDir(), "demo.wav")
	require.NoError(t, os.WriteFile(path, file.Bytes(), 0o600))
	ask := func(command string, arguments ...string) string {
		said, err := exec.Command(command, arguments...).CombinedOutput()
		require.NoError(t, err, string(said))
		return strings.TrimSpace(string(said))
	}
	require.Equal(t, "9", ask("soxi", "-c", path))
	require.Equal(t, "44100", ask("soxi", "-r", path))
	require.Equal(t, "441001", ask("soxi", "-s", path), "four bars of 4/4 at 96 bpm are ten seconds")
	require.Equal(t, "Floating Point PCM", ask("soxi", "-e", path))
	raw := filepath.Join(t.TempDir(), "gate.raw")
	require.Empty(t, ask("sox", path, "-t", "f32", raw, "remix", "2"), "nothing to warn of")
	data, err := os.ReadFile(raw)
	require.NoError(t, err)
	var edges []int64
	before := float32(0)
	for i := 0; i < len(data); i += 4 {
		sample := math.Float32frombits(binary.LittleEndian.Uint32(data[i:]))
		if sample > before {
			require.Equal(t, float32(0.5), sample, "5 of 10 V")
			edges = append(edges, int64(i/4))
		}
		before = sample
	}
	var starts []int64
	for _, m := range taken.Messages {
		if m.Track == 2 && m.Kind == midi.NoteOn {
			starts = append(starts, (taken.Tempo.Nanos(m.Tick)*44100+999_999_999)/1_000_000_000)
		}
	}
	require.Equal(t, starts, edges)
}

// The demo's file stays as it was: of two bars at 48 kHz.
func TestTheDemosFile(t *testing.T) {
	_, voltages := demo(t, 2)
	var file bytes.Buffer
	require.NoError(t, wav.Write(&file, voltages, 48000))
	sum := sha256.Sum256(file.Bytes())
	require.Equal(t, "38c056c7cb14f2b791d8d02d2c472d6e82452a493c70582d2c80c30e5f96a2ec", hex.EncodeToString(sum[:]))
	described, err := json.Marshal(wav.Channels(score.Demo(), voltages)[:4])
	require.NoError(t, err)
	require.JSONEq(t, `[
		{"channel":1,"interface":3,"signal":"pitch","track":2,"voice":1,"name":"Tide bass","fullScale":10,"zero":60},
		{"channel":2,"interface":4,"signal":"gate","track":2,"voice":1,"name":"Tide bass","fullScale":10},
		{"channel":3,"interface":5,"signal":"velocity","track":2,"voice":1,"name":"Tide bass","fullScale":10},
		{"channel":4,"interface":6,"signal":"trigger","track":3,"part":0,"name":"Hull kit","fullScale":10}
	]`, string(described))
}

// What a .wav cannot hold is refused before anything is written, with how much it holds; a disk that is full is said.
func TestFilesThatCannotBe(t *testing.T) {
	_, voltages := demo(t, 1)
	voltages.End = 3 * 3600 * 1_000_000_000
	var file bytes.Buffer
	err := wav.Write(&file, voltages, 48000)
	var long *wav.TooLongError
	require.ErrorAs(t, err, &long)
	require.Equal(t, "the .wav would have 17.4 GiB, and holds 4 at most: render 2485 seconds at most, fewer channels, or at a lower rate", err.Error())
	require.Zero(t, file.Len())
	_, voltages = demo(t, 1)
	for _, after := range []int{0, 1} {
		require.ErrorIs(t, wav.Write(&full{after}, voltages, 48000), errFull)
	}
}

var errFull = errors.New("no space left on the disk")

// full is a disk that takes so many writes.
type full struct{ left int }

func (f *full) Write(data []byte) (int, error) {
	if f.left--; f.left < 0 {
		return 0, errFull
	}
	return len(data), nil
}

// BenchmarkVoltages writes a second of 32 channels at 48 kHz, of which the pitches slide all the time, beside as many plain floats; the
// ratio is of the two.
func BenchmarkVoltages(b *testing.B) {
	taken := take.Render(score.Demo(), 1)
	output := score.Output{ID: 9, Name: "Modular", Kind: score.Voltages, Voltages: &score.VoltageSetup{FullScale: 10_000}}
	for i := range 32 {
		c := score.NewVoltageChannel(i+1, score.Signals()[i%5])
		c.Track, c.Smooth, c.Slew = 2+i%2, true, 500
		output.Voltages.Channels = append(output.Voltages.Channels, c)
	}
	voltages, err := cv.Of(taken, output)
	require.NoError(b, err)
	seconds := float64(wav.Frames(voltages, 48000)) / 48000
	plain := make([]float32, 32*48000)
	var ours, floor time.Duration
	for b.Loop() {
		began := time.Now()
		require.NoError(b, wav.Write(io.Discard, voltages, 48000))
		ours += time.Since(began)
		began = time.Now()
		for range int(seconds) {
			for i := range plain {
				plain[i] = float32(i) / 10
			}
			require.NoError(b, binary.Write(io.Discard, binary.LittleEndian, plain))
		}
		floor += time.Since(began)
	}
	b.ReportMetric(ours.Seconds()/float64(b.N)/seconds*1000, "ms/s")
	b.ReportMetric(ours.Seconds()/floor.Seconds(), "ratio")
}
