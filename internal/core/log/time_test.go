package log_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

const quarter = score.TicksPerQuarter

func starts(bars score.Bars, count int64) (quarters []score.Tick) {
	for bar := range count {
		quarters = append(quarters, bars.Start(bar)/quarter)
	}
	return quarters
}

// Bars of run time, written out by hand: those of the song from where it begins, a new one where it jumps, and after an
// edit of the meter the new ones from their next line on.
func TestBarsOfRunTime(t *testing.T) {
	p := testkit.Buoy() // 4/4
	p.MeterChanges = []score.MeterChange{{Bar: 2, Meter: score.Meter{Beats: 3, Unit: 4}}}
	require.NoError(t, p.Validate())
	_, bars := timeOf(&log.Log{Project: p, From: 4 * quarter})
	require.Equal(t, []score.Tick{0, 4, 7, 10}, starts(bars, 4), "from bar 2 on")

	back := 4 * quarter
	_, bars = timeOf(&log.Log{Project: p, Entries: []log.Entry{{Tick: 11 * quarter, Jump: &log.Jump{Song: back}}}})
	require.Equal(t, []score.Tick{0, 4, 8, 11, 15, 18}, starts(bars, 6), "over a seam")

	two := *p
	two.Meter, two.MeterChanges = score.Meter{Beats: 2, Unit: 4}, nil
	_, bars = timeOf(&log.Log{Project: p, Entries: []log.Entry{{Tick: 5 * quarter, Project: &two}}})
	require.Equal(t, []score.Tick{0, 4, 6, 8, 10}, starts(bars, 5), "from the next line of the new meter on")
	named := *p
	named.Name = "Ebb"
	_, bars = timeOf(&log.Log{Project: p, Entries: []log.Entry{{Tick: 5 * quarter, Project: &named}}})
	require.Equal(t, []score.Tick{0, 4, 8, 11}, starts(bars, 4), "an edit of something else changes nothing")
}

// A bar that is looped without end leaves no trace in the bars of run time, where it is as long as they are.
func TestBarsOfALoopStayFew(t *testing.T) {
	p := testkit.Buoy()
	p.MeterChanges = []score.MeterChange{{Bar: 2, Meter: score.Meter{Beats: 3, Unit: 4}}}
	l := &log.Log{Project: p}
	for pass := range score.Tick(100) {
		l.Entries = append(l.Entries, log.Entry{Tick: (pass + 1) * 4 * quarter, Jump: &log.Jump{}})
	}
	_, bars := timeOf(l)
	changes := 0
	for range bars.Changes {
		changes++
	}
	require.Equal(t, 1, changes, "that of the project, after the last seam")
	require.Equal(t, 100*4*quarter, bars.Start(100))
	require.Equal(t, 102*4*quarter+3*quarter, bars.Start(103))
}

// Tempos of run time: pushed from the tick of the push on, and those of the song after a jump; what was before stays.
func TestTemposOfRunTime(t *testing.T) {
	p := testkit.Buoy()
	p.Tempo, p.TempoChanges = 100_000, []score.TempoChange{{Tick: 8 * quarter, Tempo: 120_000}}
	push, faster := stage.Control{Name: "push"}, 100
	back := score.Tick(0)
	l := &log.Log{Project: p, Entries: []log.Entry{
		{Tick: 2 * quarter, Action: &log.Action{Control: push, Value: &faster, At: 4 * quarter}},
		{Tick: 6 * quarter, Action: &log.Action{Control: push, At: 6 * quarter}},
		{Tick: 10 * quarter, Jump: &log.Jump{Song: back}},
	}}
	tempo, _ := timeOf(l)
	require.Equal(t, play.TempoMap{
		{Tick: 0, Tempo: 100_000}, {Tick: 4 * quarter, Tempo: 110_000}, {Tick: 6 * quarter, Tempo: 100_000},
		{Tick: 8 * quarter, Tempo: 120_000}, {Tick: 10 * quarter, Tempo: 100_000}, {Tick: 18 * quarter, Tempo: 120_000},
	}, tempo)
	l.Stage = stage.Stage{}.With(push, -500)
	tempo, _ = timeOf(&log.Log{Project: p, Stage: l.Stage})
	require.Equal(t, play.TempoMap{{Tick: 0, Tempo: 50_000}, {Tick: 8 * quarter, Tempo: 60_000}}, tempo)
}

// A note that is withdrawn is gone with its end, and nothing else is.
func TestWhatIsWithdrawn(t *testing.T) {
	p := testkit.Buoy()
	for step := range score.MaxSteps {
		p.Tracks[0].Parts()[0].Lanes.Gate.Steps[step] = score.On
		p.Tracks[0].Parts()[0].Lanes.Probability.Steps[step] = 100
	}
	mute, on := stage.Control{Name: "mute", Track: 1}, 1
	plain := (&log.Log{Project: p}).Play(8 * quarter)
	for _, at := range []score.Tick{3*quarter - 7000, 3 * quarter, 3*quarter + 1} {
		muted := (&log.Log{Project: p, Entries: []log.Entry{
			{Tick: 4 * quarter, Action: &log.Action{Control: mute, Value: &on, At: at}},
		}}).Play(8 * quarter)
		down := map[uint8]bool{}
		for _, m := range muted {
			switch m.Kind {
			case midi.NoteOff:
				require.True(t, down[m.Key], "an end has a beginning")
				delete(down, m.Key)
			case midi.NoteOn:
				down[m.Key] = true
				require.Less(t, m.Tick, at)
				require.Contains(t, plain, m)
			}
		}
		require.Empty(t, down)
	}
}

// A muted part of a kit withdraws its own notes, but for those on a key that another part plays; a muted track all.
func TestWhatIsWithdrawnOfAKit(t *testing.T) {
	p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		track.Kind = score.Kit
		part.Note, part.Lanes.Gate.Steps[1], part.Lanes.Gate.Steps[2], part.Lanes.Gate.Steps[3] = 36, score.On, score.On, score.On
		parts := []score.Part{*part, part.Clone(), part.Clone()}
		parts[1].ID, parts[1].Note = 1, 38
		parts[2].ID, parts[2].Note = 2, 36
		track.Patterns[0].Parts = parts
	})
	require.NoError(t, p.Validate())
	on := 1
	keysAfter := func(controls ...stage.Control) map[uint8]int {
		l := &log.Log{Project: p}
		for _, c := range controls {
			l.Entries = append(l.Entries, log.Entry{Tick: 3 * quarter, Action: &log.Action{Control: c, Value: &on, At: quarter}})
		}
		keys := map[uint8]int{}
		for _, m := range l.Play(2 * quarter * 2) {
			if m.Kind == midi.NoteOn && m.Tick >= quarter {
				keys[m.Key]++
			}
		}
		return keys
	}
	part := func(id int) stage.Control { return stage.Control{Name: "part mute", Track: 1, Part: id} }
	require.Equal(t, map[uint8]int{36: 12, 38: 12}, keysAfter(), "two parts on one key are one note")
	require.Equal(t, map[uint8]int{36: 12}, keysAfter(part(1)))
	require.Equal(t, map[uint8]int{36: 12, 38: 12}, keysAfter(part(0)), "the other part plays that key")
	require.Equal(t, map[uint8]int{38: 12}, keysAfter(part(0), part(2)))
	require.Empty(t, keysAfter(stage.Control{Name: "mute", Track: 1}))
}

// Where a track is heard again its instrument is told what stands there, at that very tick, whatever is handed over at once.
func TestWhatStandsIsToldWhereATrackIsHeardAgain(t *testing.T) {
	p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		part.Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Most: 127}}
		testkit.SetLane(&part.Lanes.Mod1, score.Mod1, func(l *score.Lane) { l.Length, l.Linked = 1, false; l.Steps[0] = 99 })
		track.Mute = true
	})
	require.NoError(t, p.Validate())
	off := 0
	bar := 4 * quarter
	for _, at := range []score.Tick{2 * bar, 2*bar + 777} {
		l := &log.Log{Project: p, Entries: []log.Entry{
			{Tick: bar, Action: &log.Action{Control: stage.Control{Name: "mute", Track: 1}, Value: &off, At: at}},
		}}
		var first *midi.Message
		for _, m := range l.Play(4 * bar) {
			if m.Kind == midi.ControlChange && m.Key == 74 && first == nil {
				first = &m
			}
			if m.Kind == midi.NoteOn {
				require.NotNil(t, first, "before the first note")
				require.GreaterOrEqual(t, m.Tick, at)
			}
		}
		require.NotNil(t, first)
		require.Equal(t, at, first.Tick)
		require.Equal(t, uint16(99), first.Value)
	}
}
