package log_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

// drawn draws a log of edits, inputs and jumps.
func drawn(t *rapid.T) *log.Log {
	p := testkit.Project(t)
	l := &log.Log{Project: p, From: score.Tick(rapid.IntRange(0, 300_000).Draw(t, "from")), PlaysSong: rapid.Bool().Draw(t, "plays its song")}
	for range rapid.IntRange(0, 2).Draw(t, "live changes") {
		change := testkit.Change(t, p)
		l.Stage = l.Stage.With(change.Control, change.Value)
	}
	s := l.Stage
	tick, later := score.Tick(0), l.From
	for range rapid.IntRange(0, 6).Draw(t, "entries") {
		tick += score.Tick(rapid.IntRange(0, 50_000).Draw(t, "after"))
		entry := log.Entry{Tick: tick}
		switch rapid.IntRange(0, 7).Draw(t, "entry") {
		case 0:
			edit := testkit.Edit(t, p)
			next, _, err := score.Apply(p, edit)
			require.NoError(t, err)
			after := s.Edited(edit, p, next)
			for _, change := range s.Changes() {
				if _, kept := after.Value(change.Control); !kept {
					entry.LetGo = append(entry.LetGo, change.Control)
				}
			}
			p, s, entry.Project, entry.Way = next, after, next, edit
		case 3, 4:
			change := testkit.Change(t, p)
			action := log.Action{Control: change.Control, Value: &change.Value, At: tick + score.Tick(rapid.SampledFrom([]int{0, 0, 1, 9000, 80640}).Draw(t, "at"))}
			if rapid.IntRange(0, 4).Draw(t, "lets go") == 4 {
				action.Value = nil
			}
			s, entry.Action = s.After(action.Control, action.Value), &action
		case 5:
			p, s = testkit.Project(t), stage.Stage{}
			change := testkit.Change(t, p)
			s = s.With(change.Control, change.Value)
			opened := s
			entry.Jump, later = &log.Jump{Project: p, Stage: &opened, PlaysSong: rapid.Bool().Draw(t, "plays that song")}, -tick
		case 6:
			entry.Tempo = new(score.Tempo)
			*entry.Tempo = rapid.SampledFrom([]score.Tempo{0, score.MinTempo, 97_531, score.MaxTempo}).Draw(t, "tempo")
		case 7:
			id := midi.NoteID{Track: 1, Channel: 3, Key: 60, Number: uint16(rapid.IntRange(1, 0xFFFF).Draw(t, "number"))}
			on, off := id.On(tick, 90, 0), id.Off(tick+1)
			l.Entries = append(l.Entries, log.Entry{Tick: tick, Passed: &on})
			tick++
			entry = log.Entry{Tick: tick, Passed: &off}
		case 1:
			m := testkit.Input(t, tick+later)
			m.Value = m.Value * uint16(min(1, m.Kind-midi.NoteOff)) // a note-off has no value
			entry.Input = &m
		default:
			song := score.Tick(rapid.IntRange(0, 300_000).Draw(t, "song"))
			entry.Jump, later = &log.Jump{Song: song, GoesOn: rapid.Bool().Draw(t, "goes on")}, song-tick
		}
		l.Entries = append(l.Entries, entry)
	}
	return l
}

// Every note ends in what a log plays and what follows it, run time never goes back, and the same log plays the same.
func TestALogPlaysTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := drawn(t)
		end := score.Tick(400_000)
		messages := l.Play(end)
		require.Equal(t, messages, l.Play(end))
		for i := 1; i < len(messages); i++ {
			require.GreaterOrEqual(t, messages[i].Tick, messages[i-1].Tick)
		}
		cut := l.Play(end / 2)
		require.Equal(t, append([]midi.Message{}, cut...), append([]midi.Message{}, messages[:len(cut)]...), "what came before is as it was")
	})
}

// What is written is read again, and plays the same.
func TestALogSurvivesItsFile(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := drawn(t)
		data, err := log.Encode(l, 300_000)
		require.NoError(t, err)
		read, end, err := log.Decode(data)
		require.NoError(t, err)
		require.Equal(t, score.Tick(300_000), end)
		require.Equal(t, l.Play(end), read.Play(end))
		tempo, bars := timeOf(l)
		readTempo, readBars := timeOf(read)
		require.Equal(t, tempo, readTempo)
		require.Equal(t, bars, readBars)
	})
}

func TestWhichLogsAreRefused(t *testing.T) {
	data, err := log.Encode(&log.Log{Project: testkit.Buoy()}, 1)
	require.NoError(t, err)
	head := string(data[:len(data)-len(`"entries":[],"end":1}`)])
	for want, rest := range map[string]string{
		"entry 1 of the log: track 9: there is no such track":                     `"entries":[{"tick":5,"edit":{"setTrack":{"track":9,"mute":true}}}],"end":9}`,
		"entry 1 of the log: it must hold exactly one thing that happened, not 0": `"entries":[{"tick":5}],"end":9}`,
		"entry 2 of the log: tick is 4; it must be 5 to 806400000000":             `"entries":[{"tick":5,"song":0},{"tick":4,"song":0}],"end":9}`,
		"entry 1 of the log: tempo is 9; it must be 0 or 10000 to 400000":         `"entries":[{"tick":5,"tempo":9}],"end":9}`,
		"entry 1 of the log: passed.tick is 6; it must be 0 to 5":                 `"entries":[{"tick":5,"passed":{"tick":6,"track":1,"number":1,"message":[144,60,9]}}],"end":9}`,
		"entry 1 of the log: only a note of a track can be played by a hand":      `"entries":[{"tick":5,"passed":{"tick":5,"track":1,"number":1,"message":[176,60,9]}}],"end":9}`,
		"entry 1 of the log: song is -1; it must be 0 to 806400000000":            `"entries":[{"tick":5,"song":-1}],"end":9}`,
		"entry 1 of the log: the message is F8 01; it must be a note":             `"entries":[{"tick":5,"input":[248,1]}],"end":9}`,
		"entry 1 of the log: a byte of the input is not within 0 to 255":          `"entries":[{"tick":5,"input":[144,60,256]}],"end":9}`,
		"entry 1 of the log: mute is 2; it must be 0 to 1":                        `"entries":[{"tick":5,"action":{"control":{"name":"mute","track":1},"value":2,"at":5}}],"end":9}`,
		"entry 1 of the log: at is -1; it must be 0 to 806400000000":              `"entries":[{"tick":5,"action":{"control":{"name":"mute","track":1},"value":1,"at":-1}}],"end":9}`,
		"entry 1 of the log: only an edit takes live changes away":                `"entries":[{"tick":5,"song":0,"letGo":[{"name":"mute","track":1}]}],"end":9}`,
		"entry 1 of the log: chance goes on only where the song jumps within its": `"entries":[{"tick":5,"song":0,"goesOn":true,"project":{}}],"end":9}`,
		"entry 1 of the log: only a project that is opened brings live changes":   `"entries":[{"tick":5,"song":0,"stage":[{"control":{"name":"swing"},"value":600}]}],"end":9}`,
		"entry 1 of the log: name is \"\"":                                        `"entries":[{"tick":5,"song":0,"project":{"name":""}}],"end":9}`,
		"live change 1 of the log: swing is 751; it must be 500 to 750":           `"stage":[{"control":{"name":"swing"},"value":751}],"entries":[],"end":9}`,
		"from or end is 0 or 0; it must be":                                       `"entries":[],"end":0}`,
		`unknown field "beats"`:                                                   `"entries":[],"end":9,"beats":4}`,
	} {
		_, _, err := log.Decode([]byte(head + rest))
		require.ErrorContains(t, err, want)
	}
	_, _, err = log.Decode([]byte(`{"format":"song","version":1}`))
	require.ErrorContains(t, err, "this is not a log of version 1")
}

// timeOf returns the tempos and the bars of run time as a log has them once all has happened that it says.
func timeOf(l *log.Log) (play.TempoMap, score.Bars) {
	last := score.Tick(0)
	if n := len(l.Entries); n > 0 {
		last = l.Entries[n-1].Tick
	}
	heard := l.Hear(last + 1)
	return heard.Tempo, heard.Bars
}
