package device_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/device"
	"jettyfog/internal/output"
)

const milli = 1_000_000

func event(at int64, output_ int, m midi.Message) output.Event {
	return output.Event{Message: m, Output: output_, At: at}
}

func note(kind midi.Kind, channel, key uint8) midi.Message {
	m := midi.Message{Kind: kind, Channel: channel, Key: key}
	if kind == midi.NoteOn {
		m.Velocity = 90
	}
	return m
}

func control(number uint8, value uint16) midi.Message {
	return midi.Message{Kind: midi.ControlChange, Key: number, Value: value}
}

// drain takes all that is due by a moment.
func drain(l *device.Line, now int64) (messages [][]byte) {
	for data := l.Take(now); len(data) > 0; data = l.Take(now) {
		messages = append(messages, data)
	}
	return messages
}

// Two outputs on one device hold a key together: it is struck again by the second, and goes up with the last.
func TestOutputsShareTheKeysOfADevice(t *testing.T) {
	l := device.NewLine()
	l.Push([]output.Event{
		event(1, 1, note(midi.NoteOn, 3, 60)), event(2, 2, note(midi.NoteOn, 3, 60)), event(3, 1, note(midi.NoteOff, 3, 60)), event(4, 2, note(midi.NoteOff, 3, 60)),
	})
	require.Equal(t, [][]byte{{0x93, 60, 90}, {0x83, 60, 64}, {0x93, 60, 90}, {0x83, 60, 64}}, drain(l, 4))
}

// Running status leaves out the status byte of a message like the one before (MIDI 1.0, appendix 2); notes that end by velocity 0 go with
// it; after a release it begins anew.
func TestRunningStatus(t *testing.T) {
	l := device.NewLine()
	l.Set(device.Settings{RunningStatus: true})
	off := event(2, 1, note(midi.NoteOff, 0, 60))
	off.VelocityZero = true
	on := event(1, 1, note(midi.NoteOn, 0, 60))
	on.VelocityZero = true
	l.Push([]output.Event{on, off, event(3, 1, note(midi.NoteOn, 0, 62)), event(4, 1, control(7, 5)), event(5, 1, control(7, 6))})
	require.Equal(t, [][]byte{{0x90, 60, 90}, {60, 0}, {62, 90}, {0xB0, 7, 5}, {7, 6}}, drain(l, 5))
	l.Release(6)
	require.Equal(t, [][]byte{{0x80, 62, 64}}, drain(l, 6))
}

// A paced line leaves 320 µs for each byte (MIDI 1.0: 31,250 bits a second, ten a byte).
func TestAPacedLine(t *testing.T) {
	l := device.NewLine()
	l.Set(device.Settings{Paced: true})
	l.Push([]output.Event{event(0, 1, note(midi.NoteOn, 0, 60)), event(0, 1, note(midi.NoteOn, 0, 62)), event(0, 1, midi.Message{Kind: midi.Program, Key: 5})})
	var at []int64
	for {
		next, more := l.Next()
		if !more {
			break
		}
		require.Empty(t, l.Take(next-1))
		require.NotEmpty(t, l.Take(next))
		at = append(at, next)
	}
	require.Equal(t, []int64{0, 960_000, 1_920_000}, at)
}

// Behind by more than 20 ms, values that move are left out for later ones that are due; nothing else ever is.
func TestWhatIsLeftOutBehind(t *testing.T) {
	all := []midi.Message{
		control(74, 1), control(64, 127), control(65, 127), control(5, 3), control(0, 1), control(6, 2), note(midi.NoteOn, 0, 60),
		{Kind: midi.Bend, Value: 1}, {Kind: midi.Program, Key: 1}, {Kind: midi.Pressure, Value: 9}, {Kind: midi.WideControl, Key: 7, Value: 300},
		control(74, 2), control(64, 0), control(65, 0), control(5, 4), control(0, 2), control(6, 3), note(midi.NoteOff, 0, 60),
		{Kind: midi.Bend, Value: 2}, {Kind: midi.Program, Key: 2}, {Kind: midi.Pressure, Value: 10}, {Kind: midi.WideControl, Key: 7, Value: 400},
		{Kind: midi.ControlChange, Channel: 1, Key: 74, Value: 3},
	}
	send := func(now int64) int {
		l := device.NewLine()
		for _, m := range all {
			l.Push([]output.Event{event(0, 1, m)})
		}
		messages := drain(l, now)
		return len(messages)*100 + l.Dropped()
	}
	bytes := 0
	for _, m := range all {
		bytes += len(output.Event{Message: m}.Bytes())
	}
	require.Equal(t, bytes*100, send(20*milli), "in time all go out")
	require.Equal(t, (bytes-4)*100+3, send(20*milli+1), "a controller, a pressure, and a wide controller of two messages")
}

// Every 0.27 s without anything else the line says that it is there (MIDI 1.0: active sensing, 0xFE, at most 300 ms apart).
func TestActiveSensing(t *testing.T) {
	l := device.NewLine()
	l.Set(device.Settings{ActiveSensing: true, RunningStatus: true})
	l.Push([]output.Event{event(300*milli, 1, note(midi.NoteOn, 0, 60)), event(900*milli, 1, note(midi.NoteOn, 0, 61))})
	type sent struct {
		at   int64
		data byte
	}
	var got []sent
	for len(got) < 7 {
		at, more := l.Next()
		require.True(t, more)
		got = append(got, sent{at / milli, l.Take(at)[0]})
	}
	require.Equal(t, []sent{{270, 0xFE}, {300, 0x90}, {570, 0xFE}, {840, 0xFE}, {900, 61}, {1170, 0xFE}, {1440, 0xFE}}, got)
}

// Whatever comes, in whatever order, and however slow it goes: of each key note-ons and note-offs take turns but for keys that are ended
// twice, and after a release none is down.
func TestNoKeyStaysDown(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := device.NewLine()
		l.Set(device.Settings{Paced: rapid.Bool().Draw(t, "paced")})
		down, now := map[[2]byte]bool{}, int64(0)
		play := func(data []byte) {
			if len(data) == 0 {
				return
			}
			key := [2]byte{data[0] & 0xF, data[1]}
			switch data[0] & 0xF0 {
			case 0x90:
				require.False(t, down[key], "%v is struck twice", key)
				down[key] = true
			case 0x80:
				down[key] = false
			}
		}
		for range rapid.IntRange(1, 60).Draw(t, "acts") {
			switch rapid.IntRange(0, 9).Draw(t, "act") {
			case 0:
				l.Release(now)
			case 1:
				l.Begin(now)
			case 2:
				l.Panic(now)
			case 3:
				l.Withdraw([]output.Event{event(0, 1, note(midi.NoteOn, 0, 60))})
			default:
				kind := rapid.SampledFrom([]midi.Kind{midi.NoteOn, midi.NoteOff, midi.ControlChange}).Draw(t, "kind")
				e := event(now+rapid.Int64Range(0, 50*milli).Draw(t, "in"), rapid.IntRange(1, 2).Draw(t, "output"), note(kind, 0, uint8(rapid.IntRange(60, 61).Draw(t, "key"))))
				e.Tick = score.Tick(rapid.IntRange(0, 1).Draw(t, "tick"))
				l.Push([]output.Event{e})
			}
			now += rapid.Int64Range(0, 30*milli).Draw(t, "pass")
			for range rapid.IntRange(0, 3).Draw(t, "taken") {
				play(l.Take(now))
			}
		}
		l.Release(now)
		for at, more := l.Next(); more; at, more = l.Next() {
			play(l.Take(max(now, at)))
		}
		for key, is := range down {
			require.False(t, is, "%v stays down", key)
		}
	})
}

// Of what waits just the note-ons go that are withdrawn: not those of another output, tick, track, channel or key, nor what ends notes.
func TestWhatIsWithdrawn(t *testing.T) {
	l := device.NewLine()
	on := event(5, 1, midi.Message{Tick: 7, Track: 2, Kind: midi.NoteOn, Channel: 3, Key: 60, Velocity: 90})
	change := func(change func(*output.Event)) output.Event {
		other := on
		change(&other)
		return other
	}
	others := []output.Event{
		change(func(e *output.Event) { e.Output = 2 }), change(func(e *output.Event) { e.Tick = 8 }), change(func(e *output.Event) { e.Track = 3 }),
		change(func(e *output.Event) { e.Channel = 4 }), change(func(e *output.Event) { e.Key = 61 }), change(func(e *output.Event) { e.Kind = midi.Bend }),
	}
	l.Push(append([]output.Event{on}, others...))
	l.Withdraw([]output.Event{on})
	require.Equal(t, len(others), l.Waits())
	l.Withdraw([]output.Event{on})
	require.Equal(t, len(others), l.Waits())
	l.Push([]output.Event{on})
	l.Withdraw([]output.Event{change(func(e *output.Event) { e.At, e.Velocity = 99, 1 })})
	require.Equal(t, len(others), l.Waits(), "it is the note that counts, not when or how loud")
}

// What machines in time are told goes out at its moment, in its order, whatever the cable still carries, and ends running status where it is no
// single byte.
func TestClocksGoFirst(t *testing.T) {
	l := device.NewLine()
	l.Set(device.Settings{Paced: true, RunningStatus: true})
	system := func(at int64, kind midi.Kind) output.Event { return event(at, 1, midi.Message{Kind: kind, Value: 300}) }
	var events []output.Event
	for key := range uint8(20) { // 20 ms of cable
		events = append(events, event(0, 1, midi.Message{Kind: midi.NoteOn, Key: key, Velocity: 90}))
	}
	l.Push(events)
	l.Push([]output.Event{system(3*milli, midi.SongPosition), system(4*milli, midi.Continue), system(5*milli, midi.Clock)})
	got := map[int64][]byte{}
	var order []byte
	for at, ok := l.Next(); ok; at, ok = l.Next() {
		data := l.Take(at)
		if data[0] >= 0xF0 {
			got[at] = data
		}
		order = append(order, data[0])
	}
	require.Equal(t, map[int64][]byte{3 * milli: {0xF2, 300 & 0x7F, 300 >> 7}, 4 * milli: {0xFB}, 5 * milli: {0xF8}}, got)
	require.Contains(t, string(order), string([]byte{4, 0xF2, 0xFB, 0x90, 0xF8, 6}), "the status byte is there again behind the position, and only there")
	l.Push([]output.Event{system(9*milli, midi.Clock)})
	l.Panic(8 * milli)
	require.Equal(t, []byte{0xF8}, l.Take(9*milli), "it goes on")
	l.Push([]output.Event{system(10*milli, midi.Clock)})
	l.Release(10 * milli)
	require.NotContains(t, string(l.Take(10*milli)), string([]byte{0xF8}))
}
