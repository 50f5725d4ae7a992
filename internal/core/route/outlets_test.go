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

// ofOutputs returns what each output is sent.
func ofOutputs(sent []route.Sent) map[int][]midi.Message {
	of := map[int][]midi.Message{}
	for _, s := range sent {
		of[s.Output] = append(of[s.Output], s.Message)
	}
	return of
}

// Invariant 1 on every output: note-ons and note-offs of a key take turns and none is left down, whatever the routes, through
// changes of them at any moment, and however time is cut up.
func TestEveryOutputIsBalanced(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		player := route.NewPlayer(p, 0, play.Past{})
		outlets := route.NewOutlets(p)
		var sent []route.Sent
		var at score.Tick
		for range rapid.IntRange(1, 6).Draw(t, "stretches") {
			at += score.Tick(rapid.IntRange(1, 90_000).Draw(t, "length"))
			sent = outlets.Play(player.Advance(at, nil), sent)
			drawn := testkit.Project(t)
			next := p.Clone()
			next.Outputs = drawn.Outputs
			for i := range next.Tracks {
				next.Tracks[i].Routes = nil
				if i < len(drawn.Tracks) {
					next.Tracks[i].Routes = drawn.Tracks[i].Routes
				}
			}
			var begun []route.Begun
			sent, begun = outlets.Change(next, at, sent)
			lasting := slices.Clone(player.Lasting(at + 1))
			for i := range lasting {
				lasting[i].Tick = at
			}
			for _, b := range begun {
				sent = outlets.Begin(b, at, nil, lasting, sent)
			}
		}
		sent = outlets.Play(player.Release(at+1), sent)
		for output, messages := range ofOutputs(sent) {
			down := map[key]bool{}
			ids := map[midi.NoteID]bool{}
			for i, m := range messages {
				require.True(t, i == 0 || messages[i-1].Tick <= m.Tick, "output %d goes back in time", output)
				k := key{m.Channel, m.Key}
				switch {
				case m.Kind != midi.NoteOn && m.Kind != midi.NoteOff:
				case output == testkit.ModularID: // where each note is apart from all others
					require.Equal(t, m.Kind == midi.NoteOff, ids[m.NoteID()], "output %d: %+v", output, m)
					ids[m.NoteID()] = m.Kind == midi.NoteOn
				default:
					require.Equal(t, m.Kind == midi.NoteOff, down[k], "output %d: %+v", output, m)
					down[k] = m.Kind == midi.NoteOn
				}
			}
			for id, isDown := range ids {
				require.False(t, isDown, "output %d is left with %+v down: %v", output, id, slices.DeleteFunc(slices.Clone(messages), func(m midi.Message) bool { return m.NoteID() != id }))
			}
			for k, isDown := range down {
				require.False(t, isDown, "output %d is left with %+v down", output, k)
			}
		}
	})
}

// A project whose tracks say nothing of routes goes to the built-in sound as it always did; and whatever the routes, a track's
// notes reach each output to which it goes whole exactly as if it were alone there.
func TestRoutesAddNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		plain := p.Clone()
		for i := range plain.Tracks {
			plain.Tracks[i].Routes = nil
		}
		messages := route.NewPlayer(p, 0, play.Past{}).Advance(4*score.TicksPerQuarter, nil)
		var keys route.SharedKeys
		require.Equal(t, onceTold(keys.Play(messages, nil)), ofOutputs(route.NewOutlets(plain).Play(messages, nil))[score.BuiltIn])

		whole := p.Clone()
		whole.Outputs = []score.Output{{ID: 1, Name: "A", Kind: score.BrowserPort}, {ID: 2, Name: "B", Kind: score.BrowserPort}}
		for i := range whole.Tracks {
			whole.Tracks[i].Routes = &[]score.Route{score.WholeRoute(1 + i%2), score.WholeRoute(1 + i%2)}
		}
		of := ofOutputs(route.NewOutlets(whole).Play(messages, nil))
		for output := range 2 {
			var alone route.SharedKeys
			var own []midi.Message
			for _, m := range messages {
				if slices.IndexFunc(whole.Tracks, func(t score.Track) bool { return uint32(t.ID) == m.Track })%2 == output {
					own = append(own, m)
				}
			}
			require.ElementsMatch(t, twiceWithoutNotes(alone.Play(own, nil)), of[1+output])
		}
		require.Empty(t, of[score.BuiltIn])
	})
}

// onceTold returns messages as one output is sent them: programs where they are others.
func onceTold(messages []midi.Message) []midi.Message {
	var told midi.Settings
	return slices.DeleteFunc(messages, func(m midi.Message) bool { return m.Kind == midi.Program && !told.Set(m) })
}

// twiceWithoutNotes returns messages as two equal routes send them: notes share their keys, programs go out where they are others, and all
// else goes twice.
func twiceWithoutNotes(messages []midi.Message) (twice []midi.Message) {
	for _, m := range onceTold(messages) {
		twice = append(twice, m)
		if m.Kind != midi.NoteOn && m.Kind != midi.NoteOff && m.Kind != midi.Program {
			twice = append(twice, m)
		}
	}
	return twice
}

// By hand: what a route does to a note and to a controller.
func TestARouteByHand(t *testing.T) {
	p := testkit.Buoy()
	p.Outputs = []score.Output{{ID: 7, Name: "Synth", Kind: score.BrowserPort}}
	part := score.WholeRoute(7)
	part.Channel, part.Octave, part.Lowest, part.Highest, part.Softest = 5, -1, 48, 72, 80
	p.Tracks[0].Routes = &[]score.Route{part}
	require.NoError(t, p.Validate())
	track := uint32(p.Tracks[0].ID)
	note := func(tick score.Tick, kind midi.Kind, key, velocity uint8) midi.Message {
		return midi.Message{Tick: tick, Track: track, Kind: kind, Key: key, Velocity: velocity}
	}
	sent := route.NewOutlets(p).Play([]midi.Message{
		{Tick: 0, Track: track, Kind: midi.ControlChange, Key: 74, Value: 9},
		note(0, midi.NoteOn, 60, 100), note(0, midi.NoteOn, 47, 100), note(0, midi.NoteOn, 73, 100), note(0, midi.NoteOn, 62, 79),
		note(10, midi.NoteOff, 47, 0), note(10, midi.NoteOff, 60, 0), note(10, midi.NoteOff, 62, 0), note(10, midi.NoteOff, 73, 0),
	}, nil)
	require.Equal(t, []route.Sent{
		{Output: 7, Message: midi.Message{Track: track, Kind: midi.ControlChange, Channel: 4, Key: 74, Value: 9}},
		{Output: 7, Message: midi.Message{Track: track, Kind: midi.NoteOn, Channel: 4, Key: 48, Velocity: 100}},
		{Output: 7, Message: midi.Message{Tick: 10, Track: track, Kind: midi.NoteOff, Channel: 4, Key: 48}},
	}, sent)

	low := score.WholeRoute(7)
	low.Octave = -4
	p.Tracks[0].Routes = &[]score.Route{low}
	require.Empty(t, route.NewOutlets(p).Play([]midi.Message{note(0, midi.NoteOn, 40, 100)}, nil), "there is no such key")
	p.Tracks[0].Routes = &[]score.Route{}
	require.Empty(t, route.NewOutlets(p).Play([]midi.Message{note(0, midi.NoteOn, 60, 100)}, nil), "a track without routes goes nowhere")
}

// A track that is given another output in the middle of a chord: its notes end where they sound, and go on where they sound now.
func TestARouteIsTakenAndGiven(t *testing.T) {
	p := testkit.Buoy()
	p.Outputs = []score.Output{{ID: 7, Name: "Synth", Kind: score.BrowserPort}}
	track := uint32(p.Tracks[0].ID)
	on := midi.Message{Track: track, Kind: midi.NoteOn, Key: 60, Velocity: 90}
	outlets := route.NewOutlets(p)
	require.Equal(t, []route.Sent{{Output: score.BuiltIn, Message: on}}, outlets.Play([]midi.Message{on}, nil))
	next := p.Clone()
	next.Tracks[0].Routes = &[]score.Route{score.WholeRoute(7)}
	sent, begun := outlets.Change(next, 100, nil)
	require.Equal(t, []route.Sent{{Output: score.BuiltIn, Message: on.NoteID().Off(100)}}, sent)
	require.Equal(t, []route.Begun{{Track: track, Route: score.WholeRoute(7)}}, begun)
	bank := midi.Message{Tick: 100, Track: track, Kind: midi.Program, Key: 3}
	again := on
	again.Tick = 100
	require.Equal(t, []route.Sent{{Output: 7, Message: bank}, {Output: 7, Message: again}}, outlets.Begin(begun[0], 100, []midi.Message{bank}, []midi.Message{again}, nil))
	require.Equal(t, []route.Sent{{Output: 7, Message: on.NoteID().Off(200)}}, outlets.Play([]midi.Message{on.NoteID().Off(200)}, nil))
}

// Where keys are no keys of one instrument, of voltages and of OSC, notes of two tracks on one key are each begun and ended; elsewhere they share it.
func TestKeysThatAreNotShared(t *testing.T) {
	for _, kind := range []score.OutputKind{score.BrowserPort, score.OSC, score.Voltages} {
		p := testkit.Demo()
		p.Outputs = []score.Output{{ID: 1, Name: "A", Kind: kind}}
		routes := &[]score.Route{score.WholeRoute(1)}
		p.Tracks[0].Routes, p.Tracks[1].Routes, p.Tracks[1].Channel = routes, routes, p.Tracks[0].Channel
		note := func(kind midi.Kind, tick score.Tick, track int) midi.Message {
			return midi.Message{Tick: tick, Track: uint32(p.Tracks[track].ID), Kind: kind, Key: 60, Velocity: 90}
		}
		outlets := route.NewOutlets(p)
		sent := outlets.Play([]midi.Message{note(midi.NoteOn, 0, 0), note(midi.NoteOn, 10, 1), note(midi.NoteOff, 20, 0), note(midi.NoteOff, 30, 1)}, nil)
		require.Len(t, sent, 4, kind)
		ends := 0
		for _, m := range sent {
			if m.Kind == midi.NoteOff && m.Tick >= 20 {
				ends++
			}
		}
		require.Equal(t, map[bool]int{true: 1, false: 2}[kind == score.BrowserPort], ends, kind)
	}
}
