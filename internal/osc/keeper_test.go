package osc_test

import (
	"bufio"
	"context"
	"fmt"
	"net"
	"os/exec"
	"regexp"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
	"jettyfog/internal/osc"
	"jettyfog/internal/output"
)

// patience is how long a test waits for what must come.
const patience = 10 * time.Second

// keeping is a keeper that runs, and the ports that it connected.
type keeping struct {
	*osc.Keeper
	began time.Time

	mu        sync.Mutex
	connected []output.Port
	held      bool
}

func keep(t *testing.T, bound map[string]string) *keeping {
	k := &keeping{began: time.Now()}
	change := func(do func()) {
		k.mu.Lock()
		defer k.mu.Unlock()
		do()
	}
	k.Keeper = osc.NewKeeper(osc.Options{
		Now: k.now, Changed: func() {},
		Held: func(int64) (held bool) {
			change(func() { held = k.held })
			return held
		},
		Connect: func(p output.Port, _ ...int) { change(func() { k.connected = append(k.connected, p) }) },
		Disconnect: func(p output.Port) {
			change(func() {
				k.connected = slices.DeleteFunc(k.connected, func(other output.Port) bool { return other == p })
			})
		},
	}, bound)
	ctx, stop := context.WithCancel(context.Background())
	var running sync.WaitGroup
	running.Go(func() { k.Run(ctx) })
	t.Cleanup(func() {
		stop()
		running.Wait()
		require.Empty(t, k.connected)
	})
	return k
}

func (k *keeping) now() int64 { return int64(time.Since(k.began)) }

// stands waits until an output stands so, in words.
func (k *keeping) stands(t *testing.T, words string) {
	t.Helper()
	require.Eventually(t, func() bool {
		return slices.ContainsFunc(k.States(), func(s device.OutputState) bool { return s.Words == words })
	}, patience, time.Millisecond, words)
}

func (k *keeping) play(key uint8) {
	k.Play(5, []output.Event{note(midi.NoteOn, key, k.now()), note(midi.NoteOff, key, k.now()+20*ms)})
}

func freePort(t *testing.T) int {
	conn, err := net.ListenUDP("udp", &net.UDPAddr{IP: net.IPv4(127, 0, 0, 1)})
	require.NoError(t, err)
	defer conn.Close()
	return conn.LocalAddr().(*net.UDPAddr).Port
}

// A program of others reads what is sent, with its time tags (oscdump of liblo). Before it is started nobody hears, which is said, and nothing
// waits for it.
func TestAPeerHears(t *testing.T) {
	port := freePort(t)
	address := fmt.Sprintf("127.0.0.1:%d", port)
	k := keep(t, map[string]string{})
	k.SetOutputs(1, []score.Output{{ID: 4, Name: "Lamp", Kind: score.Voltages}, {ID: 5, Name: "Lantern", Kind: score.OSC}})
	k.stands(t, "no address is given")
	require.False(t, k.Play(5, nil))
	k.Bind("Lantern", address)
	k.stands(t, "sends to "+address)
	require.Eventually(t, func() bool {
		k.play(60)
		k.Look()
		return slices.ContainsFunc(k.States(), func(s device.OutputState) bool {
			return s.Words == "nobody hears "+address+": start what is to listen there"
		})
	}, patience, 30*time.Millisecond)

	dump := exec.Command("stdbuf", "-oL", "oscdump", fmt.Sprint(port))
	out, err := dump.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, dump.Start())
	lines := make(chan string, 1000)
	go func() {
		for reader := bufio.NewScanner(out); reader.Scan(); {
			lines <- reader.Text()
		}
	}()
	t.Cleanup(func() {
		_ = dump.Process.Kill()
		_ = dump.Wait()
	})
	heard := func(pattern string) func() bool {
		return func() bool {
			for {
				select {
				case line := <-lines:
					if regexp.MustCompile(pattern).MatchString(line) {
						return true
					}
				default:
					return false
				}
			}
		}
	}
	require.Eventually(t, func() bool { k.play(69); return heard(`/track/3/pitch ff 440\.000000 0\.750000`)() }, patience, 50*time.Millisecond)
	k.stands(t, "sends to "+address)
	k.play(72)
	require.Eventually(t, heard(`^[0-9a-f]{8}\.[0-9a-f]{8} /track/3/note ii 72 127`), patience, time.Millisecond)
	require.Eventually(t, heard(`/track/3/gate i 0`), patience, time.Millisecond)
}

// A project that came from elsewhere sends nothing before somebody agrees; an output that is given another address, or is removed, ends there.
func TestPortsComeAndGo(t *testing.T) {
	first, second := freePort(t), freePort(t)
	k := keep(t, map[string]string{"Lantern": fmt.Sprintf("127.0.0.1:%d", first)})
	connected := func() (count int) {
		k.mu.Lock()
		defer k.mu.Unlock()
		return len(k.connected)
	}
	k.mu.Lock()
	k.held = true
	k.mu.Unlock()
	k.SetOutputs(1, []score.Output{{ID: 5, Name: "Lantern", Kind: score.OSC}})
	k.stands(t, "not active yet")
	require.Zero(t, connected())
	k.mu.Lock()
	k.held = false
	k.mu.Unlock()
	k.Look()
	k.stands(t, fmt.Sprintf("sends to 127.0.0.1:%d", first))
	require.Equal(t, 1, connected())
	k.Bind("Lantern", fmt.Sprintf("127.0.0.1:%d", second))
	k.stands(t, fmt.Sprintf("sends to 127.0.0.1:%d", second))
	require.Equal(t, 1, connected())
	k.Bind("Lantern", "nowhere")
	k.stands(t, "“nowhere” is no address of a program: write an IP address and a port, as 127.0.0.1:9000")
	k.SetOutputs(1, nil)
	require.Eventually(t, func() bool { return len(k.States()) == 0 && connected() == 0 }, patience, time.Millisecond)
}
