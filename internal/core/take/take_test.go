package take_test

import (
	"bytes"
	"encoding/csv"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
)

func TestRenderEndsEveryNoteInTheTake(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		rendered := take.Render(p, 2)
		require.Equal(t, p.Bars().Start(2), rendered.End)
		down := map[midi.NoteID]bool{}
		for _, m := range rendered.Messages {
			key := m.NoteID()
			if m.Kind != midi.NoteOn && m.Kind != midi.NoteOff {
				continue
			}
			require.Equal(t, m.Kind == midi.NoteOff, down[key])
			require.LessOrEqual(t, m.Tick, rendered.End)
			down[key] = m.Kind == midi.NoteOn
		}
		for key, isDown := range down {
			require.False(t, isDown, "%v is left down", key)
		}
	})
}

// What is rendered from a bar on, in stretches of any size, is that part of what is rendered from the beginning.
func TestRenderFromAnyBar(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		bars, first := p.Bars(), rapid.IntRange(0, 3).Draw(t, "from")
		from, to := bars.Start(int64(first)), bars.Start(int64(first+2))
		r := take.NewRenderer(p, from)
		r.Advance(bars.Start(int64(first + 1)))
		r.Advance(to)
		late, whole := r.Take(), take.Render(p, first+2)
		require.Equal(t, int64(2), late.Bars().At(late.End))
		var want, got []score.Tick
		for _, m := range whole.Messages {
			if m.Kind == midi.NoteOn && m.Tick >= from {
				want = append(want, m.Tick-from)
			}
		}
		for _, m := range late.Messages {
			if m.Kind == midi.NoteOn {
				got = append(got, m.Tick)
			}
		}
		require.Equal(t, want, got)
		require.Equal(t, to-from, late.End)
		require.InDelta(t, float64(whole.Tempo.Nanos(to)-whole.Tempo.Nanos(from)), float64(late.Nanos()), 8)
	})
}

func TestFinishMendsABrokenRecording(t *testing.T) {
	recording := take.Of(testkit.Buoy(), "Take 1")
	recording.Messages = []midi.Message{
		{Tick: 5, Track: 1, Key: 50}, // its note-on came before the take
		{Tick: 10, Track: 1, Kind: midi.NoteOn, Key: 60, Velocity: 90},
		{Tick: 20, Track: 1, Kind: midi.NoteOn, Key: 62, Velocity: 90},
		{Tick: 30, Track: 1, Key: 60},
	}
	recording.Finish(25)
	require.Equal(t, score.Tick(30), recording.End)
	require.Equal(t, 2, recording.Count())
	require.Equal(t, []midi.Message{
		{Tick: 10, Track: 1, Kind: midi.NoteOn, Key: 60, Velocity: 90},
		{Tick: 20, Track: 1, Kind: midi.NoteOn, Key: 62, Velocity: 90},
		{Tick: 30, Track: 1, Key: 60},
		{Tick: 30, Track: 1, Key: 62},
	}, recording.Messages)
}

// Four bars of 4/4 at 96 bpm last 16 · 60/96 = 10 seconds.
func TestNanos(t *testing.T) {
	require.Equal(t, int64(10_000_000_000), take.Render(testkit.Buoy(), 4).Nanos())
}

// The table reads back with the standard library, a line a message.
func TestCSV(t *testing.T) {
	rendered := take.Render(testkit.Buoy(), 2)
	rows, err := csv.NewReader(bytes.NewReader(take.CSV(rendered))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 1+len(rendered.Messages))
	require.Equal(t, []string{"tick", "seconds", "track", "kind", "channel", "number", "value", "cents"}, rows[0])
	require.Equal(t, []string{"0", "0.000000", "Bell buoy", "note on", "1", "62", "112", "0"}, rows[1])
	require.Equal(t, []string{"3528", "0.109375", "Bell buoy", "note off", "1", "62", "0", "0"}, rows[2]) // 0.175 beats at 96
}

// The last whole bars; what there is if there are fewer.
func TestLastBars(t *testing.T) {
	bars := score.NewBars(score.Meter{Beats: 2, Unit: 4}).Change(40320, score.Meter{Beats: 1, Unit: 4})
	const quarter = score.TicksPerQuarter
	for _, c := range []struct{ end, from, to score.Tick }{
		{0, 0, 0}, {2*quarter - 1, 0, 2*quarter - 1}, {2 * quarter, 0, 2 * quarter}, {3*quarter + 9, 0, 3 * quarter}, {5 * quarter, 3 * quarter, 5 * quarter},
	} {
		from, to := take.LastBars(c.end, bars, 2)
		require.Equal(t, []score.Tick{c.from, c.to}, []score.Tick{from, to}, "of %d", c.end)
	}
}

// A cut has what sounded in it, tick for tick, at the tempo that it sounded at, and every note ends in it.
func TestCut(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		whole := take.Render(p, 4)
		from := score.Tick(rapid.IntRange(0, int(whole.End)).Draw(t, "from"))
		to := score.Tick(rapid.IntRange(int(from), int(whole.End)).Draw(t, "to"))
		cut := take.Cut(whole, from, to)
		var want []midi.Message
		for _, m := range whole.Messages {
			if m.Kind == midi.NoteOn && m.Tick >= from && m.Tick < to {
				m.Tick -= from
				want = append(want, m)
			}
		}
		var got []midi.Message
		down := 0
		for _, m := range cut.Messages {
			switch m.Kind {
			case midi.NoteOn:
				got = append(got, m)
				down++
			case midi.NoteOff:
				down--
			}
		}
		require.Equal(t, want, got)
		require.Zero(t, down)
		require.GreaterOrEqual(t, cut.End, to-from)
		require.Equal(t, whole.Tempo.At(from), cut.Tempo.At(0))
		require.InDelta(t, float64(whole.Tempo.Nanos(to)-whole.Tempo.Nanos(from)), float64(cut.Tempo.Nanos(to-from)), 8)
	})
}

// What an instrument was told before the cut, and was still in force, is told at its beginning.
func TestACutBeginsWithWhatInstrumentsWereTold(t *testing.T) {
	whole := take.Of(testkit.Buoy(), "Whole")
	control := func(tick score.Tick, number uint8, value uint16) midi.Message {
		return midi.Message{Tick: tick, Kind: midi.ControlChange, Key: number, Value: value}
	}
	whole.Messages = []midi.Message{
		{Kind: midi.Program, Key: 4}, control(5, 74, 10), control(6, 74, 20), control(7, 71, 1), {Tick: 8, Kind: midi.NoteOn, Key: 60, Velocity: 9},
		control(12, 74, 30), {Tick: 15, Kind: midi.NoteOff, Key: 60},
	}
	require.Equal(t, []midi.Message{{Kind: midi.Program, Key: 4}, control(0, 71, 1), control(0, 74, 20), control(2, 74, 30)},
		take.Cut(whole, 10, 20).Messages)
}

// A note that is struck at the very end of a take has a length all the same, and a tempo that would come after it goes.
func TestATakesEnd(t *testing.T) {
	recording := take.Of(testkit.Buoy(), "Take 1")
	recording.Tempo = play.TempoMap{{Tempo: 96_000}, {Tick: 20, Tempo: 90_000}, {Tick: 26, Tempo: 80_000}}
	recording.Messages = []midi.Message{{Tick: 25, Track: 1, Kind: midi.NoteOn, Key: 60, Velocity: 90}}
	recording.Finish(25)
	require.Equal(t, score.Tick(26), recording.End)
	require.Equal(t, midi.Message{Tick: 26, Track: 1, Key: 60}, recording.Messages[1])
	require.Equal(t, play.TempoMap{{Tempo: 96_000}, {Tick: 20, Tempo: 90_000}}, recording.Tempo)
}

// A kit's keys are called as its parts are; a key that parts of several patterns play, as the first of them.
func TestTheKeysOfAKitAreNamed(t *testing.T) {
	p := testkit.Demo()
	require.Equal(t, take.Track{ID: 1, Name: "Bell buoy"}, take.TrackOf(&p.Tracks[0]))
	track := &p.Tracks[2]
	parts := track.Parts()
	again := track.Patterns[0]
	again.ID, again.Parts = 9, append(again.Parts[:0:0], again.Parts...)
	again.Parts[0].Name = "Other name"
	again.Parts[1].Note, again.Parts[1].Name = 81, "Bell"
	track.Patterns = append(track.Patterns, again)
	named := take.TrackOf(track)
	require.True(t, named.Kit)
	require.Equal(t, take.KitPart{Key: uint8(parts[0].Note), Name: parts[0].Name}, named.Parts[0])
	require.Len(t, named.Parts, len(parts)+1)
	require.Equal(t, take.KitPart{Key: 81, Name: "Bell"}, named.Parts[len(parts)])
}
