package osc_test

import (
	"encoding/binary"
	"fmt"
	"math"
	"slices"
	"strings"
	"sync"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/osc"
	"jettyfog/internal/output"
	"jettyfog/internal/output/conform"
)

// heard is a message as a peer has it: when its packet came, at what time it is to be heard, and its address with its arguments.
type heard struct {
	came, at int64
	text     string
}

// peer notes what it is sent.
type peer struct {
	began time.Time

	mu    sync.Mutex
	heard []heard
}

func (p *peer) now() int64 { return int64(time.Since(p.began)) }

// send reads a packet as OSC 1.0 has it.
func (p *peer) send(packet []byte) {
	p.mu.Lock()
	defer p.mu.Unlock()
	tag := binary.BigEndian.Uint64(packet[8:])
	seconds, fraction := int64(tag>>32)-2_208_988_800, int64(math.Round(float64(tag&math.MaxUint32)*1e9/(1<<32)))
	at := int64(time.Unix(seconds, fraction).Sub(p.began))
	for rest := packet[16:]; len(rest) > 0; {
		length := binary.BigEndian.Uint32(rest)
		p.heard = append(p.heard, heard{p.now(), at, words(rest[4 : 4+length])})
		rest = rest[4+length:]
	}
}

// words returns a message as text.
func words(data []byte) string {
	take := func() string {
		end := slices.Index(data, 0)
		text := string(data[:end])
		data = data[end/4*4+4:]
		return text
	}
	text, tags := take(), take()
	for _, tag := range strings.TrimPrefix(tags, ",") {
		bits := binary.BigEndian.Uint32(data)
		data = data[4:]
		if tag == 'f' {
			text += fmt.Sprintf(" %.3f", math.Float32frombits(bits))
		} else {
			text += fmt.Sprintf(" %d", int32(bits))
		}
	}
	return text
}

func (p *peer) take() []heard {
	p.mu.Lock()
	defer p.mu.Unlock()
	all := p.heard
	p.heard = nil
	return all
}

func texts(all []heard) (lines []string) {
	for _, h := range all {
		lines = append(lines, h.text)
	}
	return lines
}

func pass(d time.Duration) {
	time.Sleep(d)
	synctest.Wait()
}

// inBubble runs a test of a port in a bubble, where time passes by itself.
func inBubble(t *testing.T, o score.Output, do func(*osc.Port, *peer)) {
	synctest.Test(t, func(t *testing.T) {
		p := &peer{began: time.Now()}
		port := osc.Open(o, p.now, p.send)
		defer port.Close()
		do(port, p)
	})
}

const ms = int64(time.Millisecond)

func note(kind midi.Kind, key uint8, at int64) output.Event {
	return output.Event{Message: midi.Message{Track: 3, Kind: kind, Key: key, Velocity: 127}, At: at}
}

// A note is its pitch in hertz (A4 = 440 Hz, ISO 16) and volts, its velocity, its key, and a gate that stays up as long as any note is down; all
// of one moment is one bundle with its time tag, which leaves at its time, or earlier by the lead.
func TestNotesAsMessages(t *testing.T) {
	for _, lead := range []int{0, 100} {
		inBubble(t, score.Output{ID: 1, Kind: score.OSC, TagLead: lead}, func(port *osc.Port, p *peer) {
			at := 300 * ms
			port.Send([]output.Event{note(midi.NoteOn, 69, at), note(midi.NoteOn, 72, at+50*ms), note(midi.NoteOff, 69, at+100*ms), note(midi.NoteOff, 72, at+150*ms)})
			pass(time.Second)
			all := p.take()
			require.Equal(t, []string{
				"/track/3/pitch 440.000 0.750", "/track/3/velocity 1.000", "/track/3/note 69 127", "/track/3/gate 1",
				"/track/3/pitch 523.251 1.000", "/track/3/velocity 1.000", "/track/3/note 72 127", "/track/3/gate 1",
				"/track/3/note 69 0", "/track/3/note 72 0", "/track/3/gate 0",
			}, texts(all))
			for i, moment := range []int64{at, at + 50*ms, at + 100*ms, at + 150*ms} {
				h := all[[]int{0, 4, 8, 9}[i]]
				require.InDelta(t, moment, h.at, 2, "the time tag, in nanoseconds")
				require.Equal(t, moment-int64(lead)*ms, h.came)
			}
		})
	}
}

// Bars, beats and run go with time, mods with their share; a stop ends what sounds, drops what waits, and says so.
func TestTimeAndModsAsMessages(t *testing.T) {
	p := score.Blank()
	p.Tracks[0].ID = 3
	p.Tracks[0].Parts()[0].Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Most: 127}}
	inBubble(t, score.Output{ID: 1, Kind: score.OSC}, func(port *osc.Port, peer *peer) {
		quarter := play.TempoMapOf(p).Nanos(score.TicksPerQuarter)
		timeline := func(until score.Tick) output.Timeline {
			return output.Timeline{Project: p, Started: 200 * ms, Tempo: play.Timing{}.Changed(play.TempoMapOf(p)), Until: until, Beats: func(from, until score.Tick) (beats []output.Beat) {
				for n := range 8 {
					if tick := score.Tick(n) * score.TicksPerQuarter; tick >= from && tick < until {
						beats = append(beats, output.Beat{Tick: tick, Bar: int64(n / 4), Beat: n % 4})
					}
				}
				return beats
			}}
		}
		port.Time(timeline(2 * score.TicksPerQuarter))
		port.Time(timeline(5 * score.TicksPerQuarter))
		port.Send([]output.Event{
			note(midi.NoteOn, 60, 210*ms), {Message: midi.Message{Track: 3, Kind: midi.ControlChange, Key: 74, Value: 127}, At: 215 * ms},
			{Message: midi.Message{Track: 3, Kind: midi.ControlChange, Key: 75, Value: 127}, At: 216 * ms}, note(midi.NoteOn, 62, 10_000*ms),
		})
		pass(time.Duration(200*ms + 4*quarter + ms))
		require.Equal(t, []string{
			"/run 1", "/bar 1", "/beat 1", "/track/3/pitch 261.626 0.000", "/track/3/velocity 1.000", "/track/3/note 60 127", "/track/3/gate 1",
			"/track/3/mod/1 1.000", "/beat 2", "/beat 3", "/beat 4", "/bar 2", "/beat 1",
		}, texts(peer.take()))
		port.Release()
		require.Equal(t, []string{"/track/3/note 60 0", "/track/3/gate 0", "/run 0"}, texts(peer.take()))
		port.Panic()
		require.Equal(t, []string{"/track/3/gate 0"}, texts(peer.take()))
		pass(time.Minute)
		require.Empty(t, peer.take())
	})
}

// checked is a port as the conformance test sees it: what is withdrawn and never sent is told of behind all else.
type checked struct {
	conform.Noted
	peer   *peer
	coming []conform.Outcome
}

func (c *checked) next(t *testing.T) conform.Outcome {
	if len(c.coming) == 0 {
		pass(time.Second)
		for _, h := range c.peer.take() {
			var track, key, velocity int
			if n, _ := fmt.Sscanf(h.text, "/track/%d/note %d %d", &track, &key, &velocity); n < 3 {
				continue
			}
			kind := midi.NoteOn
			if velocity == 0 {
				kind = midi.NoteOff
			}
			c.coming = append(c.coming, conform.Outcome{Event: &output.Event{Message: midi.Message{Kind: kind, Channel: 2, Key: uint8(key)}, At: h.came}})
		}
		c.coming = append(c.coming, c.Asked()...)
	}
	require.NotEmpty(t, c.coming, "nothing comes out")
	first := c.coming[0]
	c.coming = c.coming[1:]
	return first
}

func TestAProgramIsAPort(t *testing.T) {
	inBubble(t, score.Output{ID: 1, Kind: score.OSC}, func(port *osc.Port, p *peer) {
		c := &checked{Noted: conform.Noted{Port: port}, peer: p}
		conform.Check(t, conform.Harness{Port: c, Now: p.now, Next: func() conform.Outcome { return c.next(t) }, Stall: func() {}})
	})
}
