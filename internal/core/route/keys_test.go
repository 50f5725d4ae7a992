package route_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Invariant 1: each note has its own length; and on what instruments are sent note-ons and note-offs of a key take turns,
// through edits at any moment and a stop at any moment, and a key is down whenever some track's note asks for it.
func TestBalance(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		var keys route.Keys
		var messages []midi.Message
		var notes []midi.Note
		from := score.Tick(0)
		for range rapid.IntRange(1, 8).Draw(t, "edits") {
			to := from + score.Tick(rapid.IntRange(1, 100_000).Draw(t, "slice"))
			var slice []midi.Note
			for _, n := range play.Render(p, from, to, nil) {
				track := p.Track(int(n.Track))
				slice = append(slice, midi.Note{
					Start: n.Start, End: n.End, Track: n.Track, Channel: uint8(track.Channel - 1), Key: n.Key, Velocity: n.Velocity,
					Voices: uint8(track.Voices), Overlap: uint16(track.Overlap), Alone: track.Retunes(),
				})
			}
			slice = highest(slice) // what a router hands on
			notes = append(notes, slice...)
			messages = keys.Play(slice, to, messages)
			from = to
			next, _, err := score.Apply(p, testkit.Edit(t, p))
			require.NoError(t, err)
			p = next
		}
		messages = keys.Release(from, messages)

		requireOrdered(t, messages)
		played := steal(unisons(notes))
		for i := range played {
			played[i].End = min(played[i].End, from)
		}
		require.ElementsMatch(t, lengthsOf(played), lengths(t, messages))

		var shared route.SharedKeys
		cut := rapid.IntRange(0, len(messages)).Draw(t, "cut")
		for cut > 0 && cut < len(messages) && messages[cut].Tick == messages[cut-1].Tick {
			cut++
		}
		sent := shared.Play(messages[cut:], shared.Play(messages[:cut], nil))
		requireOrdered(t, sent)
		require.Empty(t, requireTurns(t, sent), "a key is left down")
		for _, n := range played {
			requireDown(t, sent, n)
		}
	})
}

// Of notes of a track that start together those that have a voice are struck, the highest, from whichever hits they are.
func TestNotesThatStartTogetherHaveVoices(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Tracks {
			p.Tracks[i].Tuned = nil
		}
		var notes []midi.Note
		for _, n := range play.Render(p, 0, stretch, nil) {
			track := p.Track(int(n.Track))
			notes = append(notes, midi.Note{Start: n.Start, Track: n.Track, Channel: uint8(track.Channel - 1), Key: n.Key, Voices: uint8(track.Voices)})
		}
		type struck struct {
			at    score.Tick
			track uint32
			key   uint8
		}
		want, got := []struck{}, []struck{}
		for _, n := range unisons(highest(notes)) {
			want = append(want, struck{n.Start, n.Track, n.Key})
		}
		for _, m := range messages(p, stretch) {
			if m.Kind == midi.NoteOn {
				got = append(got, struck{m.Tick, m.Track, m.Key})
			}
		}
		require.ElementsMatch(t, want, got)
	})
}

// length is when a note of a track sounds.
type length struct {
	track        uint32
	channel, key uint8
	start, end   score.Tick
}

func lengthsOf(notes []midi.Note) []length {
	all := []length{}
	for _, n := range notes {
		all = append(all, length{n.Track, n.Channel, n.Key, n.Start, n.End})
	}
	return all
}

// unisons returns notes of which those that a track strikes together on one key are one.
func unisons(notes []midi.Note) (kept []midi.Note) {
	for _, n := range notes {
		same := slices.IndexFunc(kept, func(other midi.Note) bool {
			return other.Track == n.Track && other.Channel == n.Channel && other.Key == n.Key && other.Start == n.Start
		})
		if same >= 0 {
			kept[same].End = max(kept[same].End, n.End)
			continue
		}
		kept = append(kept, n)
	}
	return kept
}

// lengths pairs each note-on with its note-off.
func lengths(t *rapid.T, messages []midi.Message) []length {
	all := []length{}
	down := map[midi.NoteID]score.Tick{}
	for _, m := range messages {
		begun, isDown := down[m.NoteID()]
		require.Equal(t, isDown, m.Kind == midi.NoteOff, "%+v", m)
		if m.Kind == midi.NoteOn {
			down[m.NoteID()] = m.Tick
			continue
		}
		all = append(all, length{m.Track, m.Channel, m.Key, begun, m.Tick})
		delete(down, m.NoteID())
	}
	require.Empty(t, down, "a note does not end")
	return all
}

type key struct{ channel, key uint8 }

func requireOrdered(t *rapid.T, messages []midi.Message) {
	for i := 1; i < len(messages); i++ {
		a, b := messages[i-1], messages[i]
		require.LessOrEqual(t, a.Tick, b.Tick)
		if a.Tick == b.Tick {
			require.LessOrEqual(t, a.Kind, b.Kind, "a note-off after a note-on at tick %d", a.Tick)
		}
	}
}

func requireTurns(t *rapid.T, messages []midi.Message) map[key]score.Tick {
	down := map[key]score.Tick{}
	for _, m := range messages {
		k := key{m.Channel, m.Key}
		since, isDown := down[k]
		require.Equal(t, isDown, m.Kind == midi.NoteOff, "%+v", m)
		if m.Kind == midi.NoteOn {
			require.Positive(t, m.Velocity)
			down[k] = m.Tick
			continue
		}
		require.Greater(t, m.Tick, since, "a note of no length")
		delete(down, k)
	}
	return down
}

// highest returns the notes that have a voice: of those of a track that start together the highest, and of
// two on one key the one before.
func highest(notes []midi.Note) (kept []midi.Note) {
	for i, n := range notes {
		higher := 0
		for j, other := range notes {
			together := other.Track == n.Track && other.Start == n.Start
			if together && (other.Key > n.Key || other.Key == n.Key && j < i) {
				higher++
			}
		}
		if n.Voices == 0 || higher < int(n.Voices) {
			kept = append(kept, n)
		}
	}
	return kept
}

// steal returns the notes as they end where tracks have no voice left.
func steal(notes []midi.Note) []midi.Note {
	ended := slices.Clone(notes)
	told := make([]bool, len(ended))
	for i := 0; i < len(ended); {
		next := i
		for next < len(ended) && ended[next].Start == ended[i].Start {
			next++
		}
		for j := i; j < next; j++ {
			n := ended[j]
			for k := range ended[:i] {
				if n.Alone && ended[k].Track == n.Track && ended[k].Channel == n.Channel {
					ended[k].End, told[k] = min(ended[k].End, n.Start), true
				}
			}
			if n.Voices == 0 {
				continue
			}
			together := 0
			for _, other := range ended[i : j+1] {
				if other.Track == n.Track {
					together++
				}
			}
			var lasting []int // in the order of their starts
			for k := range ended[:i] {
				if ended[k].Track == n.Track && !told[k] && ended[k].End > n.Start {
					lasting = append(lasting, k)
				}
			}
			for len(lasting) > max(0, int(n.Voices)-together) {
				oldest := &ended[lasting[0]]
				oldest.End = min(oldest.End, n.Start+score.Tick(n.Overlap))
				told[lasting[0]] = true
				lasting = lasting[1:]
			}
		}
		i = next
	}
	return ended
}

// requireDown checks that the note's key is never up for longer than an instant while it lasts.
func requireDown(t *rapid.T, messages []midi.Message, n midi.Note) {
	var isDown bool
	var since score.Tick
	for _, m := range messages {
		if m.Channel != n.Channel || m.Key != n.Key {
			continue
		}
		if m.Tick > n.Start && m.Tick < n.End && m.Kind == midi.NoteOn {
			require.Equal(t, since, m.Tick, "the key is up within a note")
		}
		if m.Tick <= n.Start || m.Tick < n.End {
			isDown = m.Kind == midi.NoteOn
		}
		since = m.Tick
	}
	require.True(t, isDown, "the key of %+v is up", n)
}

func TestTwoTracksOnOneKey(t *testing.T) {
	note := func(track uint32, start, end score.Tick, velocity uint8) midi.Note {
		return midi.Note{Start: start, End: end, Track: track, Key: 60, Velocity: velocity}
	}
	mono := func(track uint32, key uint8, start, end score.Tick) midi.Note {
		return midi.Note{Start: start, End: end, Track: track, Key: key, Velocity: 90, Voices: 1}
	}
	voices := func(voices, key uint8, start, end score.Tick) midi.Note {
		return midi.Note{Start: start, End: end, Track: 1, Key: key, Velocity: 90, Voices: voices}
	}
	legato := func(key uint8, start, end score.Tick) midi.Note {
		return midi.Note{Start: start, End: end, Track: 1, Key: key, Velocity: 90, Voices: 1, Overlap: 7}
	}
	key := func(tick score.Tick, kind midi.Kind, key uint8) midi.Message {
		m := midi.Message{Tick: tick, Track: 1, Kind: kind, Key: key}
		if kind == midi.NoteOn {
			m.Velocity = 90
		}
		return m
	}
	on := func(tick score.Tick, track uint32, velocity uint8) midi.Message {
		return midi.Message{Tick: tick, Track: track, Kind: midi.NoteOn, Key: 60, Velocity: velocity}
	}
	off := func(tick score.Tick, track uint32) midi.Message {
		return midi.Message{Tick: tick, Track: track, Key: 60}
	}
	for _, c := range []struct {
		name  string
		notes []midi.Note
		want  []midi.Message
	}{
		{"the shorter note within the longer", []midi.Note{note(1, 0, 100, 90), note(2, 40, 60, 50)},
			[]midi.Message{on(0, 1, 90), off(40, 1), on(40, 2, 50), off(100, 2)}},
		{"one after the other", []midi.Note{note(1, 0, 50, 90), note(2, 50, 80, 50)},
			[]midi.Message{on(0, 1, 90), off(50, 1), on(50, 2, 50), off(80, 2)}},
		{"struck together", []midi.Note{note(1, 0, 50, 90), note(2, 0, 80, 50)},
			[]midi.Message{on(0, 1, 90), off(80, 1)}},
		{"struck together while down", []midi.Note{note(1, 0, 50, 90), note(2, 20, 80, 50), note(3, 20, 70, 40)},
			[]midi.Message{on(0, 1, 90), off(20, 1), on(20, 2, 50), off(80, 2)}},
		{"one note at a time", []midi.Note{note(1, 0, 90, 90), mono(1, 62, 50, 80)},
			[]midi.Message{on(0, 1, 90), off(50, 1), {Tick: 50, Track: 1, Kind: midi.NoteOn, Key: 62, Velocity: 90}, {Tick: 80, Track: 1, Key: 62}}},
		{"two notes at a time, of which one is over", []midi.Note{voices(2, 60, 0, 50), voices(2, 62, 10, 90), voices(2, 64, 50, 60)},
			[]midi.Message{key(0, midi.NoteOn, 60), key(10, midi.NoteOn, 62), key(50, midi.NoteOff, 60), key(50, midi.NoteOn, 64),
				key(60, midi.NoteOff, 64), key(90, midi.NoteOff, 62)}},
		{"two notes at a time, and a third", []midi.Note{voices(2, 60, 0, 80), voices(2, 62, 10, 90), voices(2, 64, 50, 60)},
			[]midi.Message{key(0, midi.NoteOn, 60), key(10, midi.NoteOn, 62), key(50, midi.NoteOff, 60), key(50, midi.NoteOn, 64),
				key(60, midi.NoteOff, 64), key(90, midi.NoteOff, 62)}},
		{"one note at a time, legato", []midi.Note{legato(60, 0, 80), legato(62, 50, 90)},
			[]midi.Message{key(0, midi.NoteOn, 60), key(50, midi.NoteOn, 62), key(57, midi.NoteOff, 60), key(90, midi.NoteOff, 62)}},
		{"one note at a time, whose key another track holds", []midi.Note{note(1, 0, 90, 90), note(2, 20, 70, 50), mono(1, 62, 50, 60)},
			[]midi.Message{on(0, 1, 90), off(20, 1), on(20, 2, 50), {Tick: 50, Track: 1, Kind: midi.NoteOn, Key: 62, Velocity: 90},
				{Tick: 60, Track: 1, Key: 62}, off(70, 2)}},
	} {
		t.Run(c.name, func(t *testing.T) {
			var keys route.Keys
			var shared route.SharedKeys
			require.Equal(t, c.want, shared.Play(keys.Play(c.notes, 1000, nil), nil))
		})
	}
}
