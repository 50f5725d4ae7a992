package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// Invariant 1: note-ons and note-offs of a key take turns, through edits at any moment and a stop at
// any moment; and a key is down whenever some track's note asks for it.
func TestBalance(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		var keys play.Keys
		var messages []play.Message
		var notes []play.Note
		from := score.Tick(0)
		for range rapid.IntRange(1, 8).Draw(t, "edits") {
			to := from + score.Tick(rapid.IntRange(1, 100_000).Draw(t, "slice"))
			slice := play.Render(p, from, to, nil)
			notes = append(notes, slice...)
			messages = keys.Play(slice, to, messages)
			from = to
			next, _, err := score.Apply(p, testkit.Edit(t, p))
			require.NoError(t, err)
			p = next
		}
		messages = keys.Release(from, messages)

		requireOrdered(t, messages)
		down := requireTurns(t, messages)
		require.Empty(t, down, "a key is left down")
		for _, n := range notes {
			n.End = min(n.End, from, stolen(notes, n))
			requireDown(t, messages, n)
		}
	})
}

type key struct{ channel, key uint8 }

func requireOrdered(t *rapid.T, messages []play.Message) {
	for i := 1; i < len(messages); i++ {
		a, b := messages[i-1], messages[i]
		require.LessOrEqual(t, a.Tick, b.Tick)
		if a.Tick == b.Tick {
			require.LessOrEqual(t, a.Kind, b.Kind, "a note-off after a note-on at tick %d", a.Tick)
		}
	}
}

func requireTurns(t *rapid.T, messages []play.Message) map[key]score.Tick {
	down := map[key]score.Tick{}
	for _, m := range messages {
		k := key{m.Channel, m.Key}
		since, isDown := down[k]
		require.Equal(t, isDown, m.Kind == play.NoteOff, "%+v", m)
		if m.Kind == play.NoteOn {
			require.Positive(t, m.Velocity)
			down[k] = m.Tick
			continue
		}
		require.Greater(t, m.Tick, since, "a note of no length")
		delete(down, k)
	}
	return down
}

// stolen returns when a later note of the same track ends a note, if that track plays one at a time.
func stolen(notes []play.Note, n play.Note) score.Tick {
	end := n.End
	for _, later := range notes {
		if later.Mono && later.Track == n.Track && later.Start > n.Start {
			end = min(end, later.Start)
		}
	}
	return end
}

// requireDown checks that the note's key is never up for longer than an instant while it lasts.
func requireDown(t *rapid.T, messages []play.Message, n play.Note) {
	var isDown bool
	var since score.Tick
	for _, m := range messages {
		if m.Channel != n.Channel || m.Key != n.Key {
			continue
		}
		if m.Tick > n.Start && m.Tick < n.End && m.Kind == play.NoteOn {
			require.Equal(t, since, m.Tick, "the key is up within a note")
		}
		if m.Tick <= n.Start || m.Tick < n.End {
			isDown = m.Kind == play.NoteOn
		}
		since = m.Tick
	}
	require.True(t, isDown, "the key of %+v is up", n)
}

func TestTwoTracksOnOneKey(t *testing.T) {
	note := func(track uint32, start, end score.Tick, velocity uint8) play.Note {
		return play.Note{Start: start, End: end, Track: track, Key: 60, Velocity: velocity}
	}
	mono := func(track uint32, key uint8, start, end score.Tick) play.Note {
		return play.Note{Start: start, End: end, Track: track, Key: key, Velocity: 90, Mono: true}
	}
	on := func(tick score.Tick, track uint32, velocity uint8) play.Message {
		return play.Message{Tick: tick, Track: track, Kind: play.NoteOn, Key: 60, Velocity: velocity}
	}
	off := func(tick score.Tick, track uint32) play.Message {
		return play.Message{Tick: tick, Track: track, Key: 60}
	}
	for _, c := range []struct {
		name  string
		notes []play.Note
		want  []play.Message
	}{
		{"the shorter note within the longer", []play.Note{note(1, 0, 100, 90), note(2, 40, 60, 50)},
			[]play.Message{on(0, 1, 90), off(40, 1), on(40, 2, 50), off(100, 2)}},
		{"one after the other", []play.Note{note(1, 0, 50, 90), note(2, 50, 80, 50)},
			[]play.Message{on(0, 1, 90), off(50, 1), on(50, 2, 50), off(80, 2)}},
		{"struck together", []play.Note{note(1, 0, 50, 90), note(2, 0, 80, 50)},
			[]play.Message{on(0, 1, 90), off(80, 1)}},
		{"struck together while down", []play.Note{note(1, 0, 50, 90), note(2, 20, 80, 50), note(3, 20, 70, 40)},
			[]play.Message{on(0, 1, 90), off(20, 1), on(20, 2, 50), off(80, 2)}},
		{"one note at a time", []play.Note{note(1, 0, 90, 90), mono(1, 62, 50, 80)},
			[]play.Message{on(0, 1, 90), off(50, 1), {Tick: 50, Track: 1, Kind: play.NoteOn, Key: 62, Velocity: 90}, {Tick: 80, Track: 1, Key: 62}}},
		{"one note at a time, whose key another track holds", []play.Note{note(1, 0, 90, 90), note(2, 20, 70, 50), mono(1, 62, 50, 60)},
			[]play.Message{on(0, 1, 90), off(20, 1), on(20, 2, 50), {Tick: 50, Track: 1, Kind: play.NoteOn, Key: 62, Velocity: 90},
				{Tick: 60, Track: 1, Key: 62}, off(70, 2)}},
	} {
		t.Run(c.name, func(t *testing.T) {
			var keys play.Keys
			require.Equal(t, c.want, keys.Play(c.notes, 1000, nil))
		})
	}
}
