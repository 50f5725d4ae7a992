package log_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// conditioned returns twoPatterns with a song of three sections of a bar, of which the first and the last have scenes, and a
// condition of all its steps.
func conditioned(condition score.Condition) *score.Project {
	p := twoPatterns()
	for i := range p.Tracks[0].Patterns {
		part := &p.Tracks[0].Patterns[i].Parts[0]
		part.Details = map[int]score.StepDetail{}
		for step := range score.MaxSteps {
			part.Details[step] = score.StepDetail{Condition: condition}
		}
	}
	p.Scenes = []score.Scene{{ID: 1, Name: "Quay"}, {ID: 7, Name: "Lock"}}
	p.Song = []score.Section{
		{ID: 3, Name: "Ebb", Scene: 1, Bars: 1, Repeats: 1}, {ID: 4, Name: "Flood", Bars: 1, Repeats: 1}, {ID: 5, Name: "Slack", Scene: 7, Bars: 1, Repeats: 1},
	}
	return p
}

// sounding lists the bars, of the first five, in which anything begins.
func sounding(l *log.Log) (bars []int) {
	for i := range 5 {
		if len(noteOns(l, score.Tick(i)*bar, score.Tick(i+1)*bar)) > 0 {
			bars = append(bars, i)
		}
	}
	return bars
}

// By hand: a condition about a section holds in its bars, one about a scene from where it begins until another does, also after
// the song has ended; both from the first bar on if playing begins there; neither where the tracks play without the song.
func TestConditionsHearTheSong(t *testing.T) {
	five, seven := 5, 7
	for _, c := range []struct {
		condition score.Condition
		song      []int
		alone     []int
	}{
		{"section 3 on", []int{0}, nil},
		{"section 4 on", []int{1}, nil},
		{"not section 4 on", []int{0, 2, 3, 4}, []int{0, 1, 2, 3, 4}},
		{"section 3 on or section 5 on", []int{0, 2, 3, 4}, nil}, // the last stays on
		{"scene 1 on", []int{0, 1}, nil},
		{"scene 7 on and section 5 on", []int{2, 3, 4}, nil},
		{"scene 2 on", nil, nil},
	} {
		p := conditioned(c.condition)
		require.NoError(t, p.Validate())
		require.Equal(t, c.song, sounding(&log.Log{Project: p, PlaysSong: true}), c.condition)
		require.Equal(t, c.alone, sounding(&log.Log{Project: p}), c.condition)
	}
	p := conditioned("section 5 on")
	jump := log.Entry{Tick: bar - 1000, Action: &log.Action{Control: stage.Control{Name: stage.Section}, Value: &five, At: bar - 1000}}
	require.Equal(t, []int{1, 2, 3, 4}, sounding(&log.Log{Project: p, PlaysSong: true, Entries: []log.Entry{jump}}), "a section that was gone to")
	zero := 0
	leave := log.Entry{Tick: 4*bar - 1000, Action: &log.Action{Control: stage.Control{Name: stage.Section}, Value: &zero, At: 4*bar - 1000}}
	require.Equal(t, []int{1, 2, 3}, sounding(&log.Log{Project: p, PlaysSong: true, Entries: []log.Entry{jump, leave}}), "the song was left")
	p = conditioned("scene 7 on")
	scene := log.Entry{Tick: bar - 1000, Action: &log.Action{Control: stage.Control{Name: stage.SceneOn}, Value: &seven, At: bar}}
	require.Equal(t, []int{1, 2, 3, 4}, sounding(&log.Log{Project: p, Entries: []log.Entry{scene}}), "a scene of a hand")
	from := log.Log{Project: conditioned("section 4 on"), PlaysSong: true, From: bar}
	require.Len(t, noteOns(&from, 0, 5*bar), 16, "playing begins in the section")
}

// What sounds of a pattern ends where another enters if the project has it so; else it finishes.
func TestPatternsCut(t *testing.T) {
	for _, cuts := range []bool{false, true} {
		p := twoPatterns()
		p.PatternsCut = cuts
		lanes := &p.Tracks[0].Patterns[0].Parts[0].Lanes
		clear(lanes.Gate.Steps)
		lanes.Gate.Steps[3], lanes.Gate.Length, lanes.Length.Steps[3] = score.On, 64, score.WholeStep+31 // two bars from the fourth step on
		other := p.Tracks[0].Clone()
		other.ID, other.Name = 2, "Other"
		p.Tracks = append(p.Tracks, other)
		require.NoError(t, p.Validate())
		one := 1
		l := &log.Log{Project: p, Entries: []log.Entry{
			{Tick: bar / 2, Action: &log.Action{Control: stage.Control{Name: "pattern", Track: 1}, Value: &one, At: bar}},
		}}
		const begins = 3 * quarter / 4
		ends := map[uint32]score.Tick{1: begins + 2*bar, 2: begins + 2*bar}
		if cuts {
			ends[1] = bar
		}
		player := log.NewPlayer(*l, nil)
		var messages []midi.Message
		for tick := score.Tick(0); tick <= 4*bar; tick += bar / 96 { // in short stretches
			next, _ := player.Advance(tick)
			messages = append(messages, next...)
			if tick == bar/2 {
				_, _ = player.Do(l.Entries[0])
			}
		}
		require.Equal(t, messages, l.Play(4*bar))
		long := map[uint32]midi.NoteID{}
		for _, m := range messages {
			if m.Kind == midi.NoteOn && m.Tick == begins {
				long[m.Track] = m.NoteID()
			}
			if m.Kind == midi.NoteOff && m.NoteID() == long[m.Track] {
				require.Equal(t, ends[m.Track], m.Tick, "track %d, cuts: %v", m.Track, cuts)
				delete(ends, m.Track)
			}
		}
		require.Empty(t, ends)
	}
}

// A note of the pattern that enters, which begins early, is not cut where that enters; nor is one of a pattern that leaves and enters
// at one tick.
func TestCutsEndOnlyWhatLeaves(t *testing.T) {
	p := twoPatterns()
	p.PatternsCut = true
	for i := range p.Tracks[0].Patterns {
		lanes := &p.Tracks[0].Patterns[i].Parts[0].Lanes
		clear(lanes.Gate.Steps)
		lanes.Gate.Steps[0], lanes.Gate.Length, lanes.Length.Steps[0] = score.On, 16, score.WholeStep+3 // a quarter
	}
	lanes := &p.Tracks[0].Patterns[1].Parts[0].Lanes
	lanes.Nudge = lanes.Gate.Clone()
	clear(lanes.Nudge.Steps)
	lanes.Nudge.Steps[0] = -50
	require.NoError(t, p.Validate())
	zero, one := 0, 1
	pattern := stage.Control{Name: "pattern", Track: 1}
	enter := func(at score.Tick, values ...*int) (entries []log.Entry) {
		for _, value := range values {
			entries = append(entries, log.Entry{Tick: at - quarter, Action: &log.Action{Control: pattern, Value: value, At: at}})
		}
		return entries
	}
	lengths := func(entries []log.Entry) (lengths map[score.Tick]score.Tick) {
		lengths, on := map[score.Tick]score.Tick{}, map[midi.NoteID]score.Tick{}
		for _, m := range (&log.Log{Project: p, Entries: entries}).Play(3 * bar) {
			switch m.Kind {
			case midi.NoteOn:
				on[m.NoteID()] = m.Tick
			case midi.NoteOff:
				lengths[on[m.NoteID()]] = m.Tick - on[m.NoteID()]
			}
		}
		return lengths
	}
	const early = bar - quarter/8
	require.Equal(t, quarter, lengths(enter(bar, &one))[early], "it begins half a step before the bar")
	require.Equal(t, quarter, lengths(enter(bar, &one, &zero))[bar], "there and back at once")
}

// An edit of which scene is on counts for the tracks that hear it as if it had always been: those that move by hits are elsewhere.
func TestAnEditOfTheSceneThatIsOn(t *testing.T) {
	p := conditioned("scene 7 on")
	part := &p.Tracks[0].Patterns[0].Parts[0]
	part.Lanes.Pitch.Linked, part.Lanes.Pitch.Moves, part.Lanes.Pitch.Length = false, score.ByHit, 7
	for step := range 5 {
		part.Details[3*step] = score.StepDetail{} // some sound always
	}
	p.Song, p.Scenes = nil, nil
	on := p.Clone()
	on.SceneOn = 7
	edited := &log.Log{Project: p, Entries: []log.Entry{{Tick: 2*bar + 1, Project: on}}}
	require.Equal(t, noteOns(&log.Log{Project: on}, 3*bar, 5*bar), noteOns(edited, 3*bar, 5*bar))
	require.NotEqual(t, noteOns(&log.Log{Project: p}, 3*bar, 5*bar), noteOns(edited, 3*bar, 5*bar))
}
