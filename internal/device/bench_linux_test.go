package device_test

import (
	"context"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/device"
	"jettyfog/internal/live"
	"jettyfog/internal/memory"
)

// timed is a clock that remembers until when it slept last, and a wire that measures how long after that it begins to be written to: of
// messages at one time the first.
type timed struct {
	device.Clock
	device.Wire
	until int64
	late  []float64 // µs
}

func (t *timed) SleepUntil(at int64) {
	t.Clock.SleepUntil(at)
	t.until = at
}

func (t *timed) Write(data []byte) (int, error) {
	if t.until > 0 {
		t.late = append(t.late, float64(t.Now()-t.until)/1e3)
	}
	t.until = 0
	return t.Wire.Write(data)
}

// sixteen returns a project of 16 tracks that all play the output of a device.
func sixteen(b *testing.B) *score.Project {
	p := testkit.Buoy()
	for len(p.Tracks) < 16 {
		next, _, err := score.Apply(p, score.AddTrack{At: len(p.Tracks), Copy: p.Tracks[0].ID})
		require.NoError(b, err)
		p = next
	}
	p.Outputs = []score.Output{{ID: 1, Name: "Synth", Kind: score.ServerDevice}}
	for i := range p.Tracks {
		p.Tracks[i].Delay = score.Tick(i * 211) // so that hardly two notes are at one time
		p.Tracks[i].Routes = &[]score.Route{score.WholeRoute(1)}
	}
	return p
}

// BenchmarkDevice plays 16 tracks on a FIFO for five seconds a round, and then sleeps for as long by a bare loop on a locked thread to
// moments 5 ms apart, by the same clock: lateness in µs of both, medians of the rounds, the share of time that other machines took (steal),
// and how much of a core the loop's thread took for each moment.
func BenchmarkDevice(b *testing.B) {
	const round = 5 * time.Second
	var p50, p99, floor50, floor99, ratios []float64
	var cost time.Duration
	moments := 0
	before := steal(b)
	for b.Loop() {
		ours := playRound(b, round)
		bare, spent := bareRound(round)
		p50, p99 = append(p50, share(ours, 50)), append(p99, share(ours, 99))
		floor50, floor99 = append(floor50, share(bare, 50)), append(floor99, share(bare, 99))
		ratios = append(ratios, share(ours, 99)/share(bare, 99))
		cost, moments = cost+spent, moments+len(bare)
	}
	for name, values := range map[string][]float64{"p50-µs": p50, "p99-µs": p99, "floor-p50-µs": floor50, "floor-p99-µs": floor99, "p99-ratio": ratios} {
		b.ReportMetric(share(values, 50), name)
	}
	b.ReportMetric(float64(cost.Microseconds())/float64(moments), "cpu-µs/moment")
	b.ReportMetric((steal(b)-before)/float64(b.N), "steal-ms/round")
}

// share returns the value below which so many percent are.
func share(values []float64, percent int) float64 {
	slices.Sort(values)
	return values[len(values)*percent/100]
}

func playRound(b *testing.B, round time.Duration) []float64 {
	measured := &timed{}
	play(b, sixteen(b), round, func(clock device.Clock, wire device.Wire) (device.Clock, device.Wire) {
		measured.Clock, measured.Wire = clock, wire
		return measured, measured
	}, func(*live.Transport) {})
	return measured.late
}

// play plays a project for some time on a FIFO that is read, and does something meanwhile. The clock and the wire to the FIFO can be
// put in others.
func play(b *testing.B, project *score.Project, round time.Duration, wrap func(device.Clock, device.Wire) (device.Clock, device.Wire), meanwhile func(*live.Transport)) {
	path := filepath.Join(b.TempDir(), "quay")
	found, err := device.StandIn(path)
	require.NoError(b, err)
	reader, err := os.OpenFile(path, os.O_RDWR, 0)
	require.NoError(b, err)
	go func() {
		data := make([]byte, 4096)
		for {
			if _, err := reader.Read(data); err != nil {
				return
			}
		}
	}()
	file, err := unix.Open(path, unix.O_WRONLY|unix.O_NONBLOCK, 0)
	require.NoError(b, err)
	transport := live.New(project, live.Options{}, live.NewRecorder(memory.New(project), live.Reports{}), live.NewRecorder(memory.New(project), live.Reports{}))
	clock, wire := wrap(device.NewClock(transport.Now), fileWire(file))
	rack := device.NewRack(device.Options{
		List: func() ([]device.Device, error) { return []device.Device{found}, nil }, Open: func(device.Device) (device.Wire, error) { return wire, nil },
		Clock: clock, Connect: transport.Connect, Disconnect: transport.Disconnect, Held: func(int64) bool { return false },
		Changed: func(device.State) {}, Notice: func(text string) { b.Error(text) },
	}, map[string]string{"Synth": found.Name})
	transport.ListenOutputs(rack.SetOutputs)
	ctx, stop := context.WithTimeout(b.Context(), round)
	defer stop()
	var running sync.WaitGroup
	running.Go(func() { rack.Run(ctx) })
	running.Go(func() { transport.Run(ctx) })
	transport.Play()
	meanwhile(transport)
	running.Wait()
	require.NoError(b, reader.Close())
}

// fileWire is a file that is always written whole.
type fileWire int

func (f fileWire) Write(data []byte) (int, error) { return unix.Write(int(f), data) }
func (f fileWire) Close() error                   { return unix.Close(int(f)) }

func bareRound(round time.Duration) (late []float64, spent time.Duration) {
	done := make(chan struct{})
	go func() {
		runtime.LockOSThread()
		began := time.Now()
		clock := device.NewClock(func() int64 { return int64(time.Since(began)) })
		for at := int64(5 * milli); at < int64(round); at += 5 * milli {
			clock.SleepUntil(at)
			late = append(late, float64(clock.Now()-at)/1e3)
		}
		var usage unix.Rusage
		if unix.Getrusage(unix.RUSAGE_THREAD, &usage) == nil {
			spent = time.Duration(usage.Utime.Nano() + usage.Stime.Nano())
		}
		close(done)
	}()
	<-done
	return late, spent
}

// steal returns how long other machines were given this one's cores so far, in milliseconds, of all cores together.
func steal(b *testing.B) float64 {
	data, err := os.ReadFile("/proc/stat")
	require.NoError(b, err)
	ticks, err := strconv.ParseFloat(strings.Fields(string(data))[8], 64)
	require.NoError(b, err)
	return ticks * 10
}
