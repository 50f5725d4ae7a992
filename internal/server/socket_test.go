package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"testing"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/require"
	gosmf "gitlab.com/gomidi/midi/v2/smf"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/server"
)

func isProject(m server.Message) bool   { return m.Project != nil }
func isTransport(m server.Message) bool { return m.Transport != nil }
func isTakes(m server.Message) bool     { return m.Takes != nil }
func isClock(m server.Message) bool     { return m.Clock != nil }

func TestAPageIsGreetedAndToldEveryChange(t *testing.T) {
	h := start(t)
	first, second := h.connect(), h.connect()
	for _, page := range []*socket{first, second} {
		require.Equal(t, int64(1), page.next(isProject).Project.Revision)
		require.False(t, page.next(isTransport).Transport.Playing)
		require.Empty(t, page.next(isTakes).Takes.Takes)
	}
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":1,"edit":{"changeLuck":{"number":7}}}`).status)
	for _, page := range []*socket{first, second} {
		told := page.next(isProject).Project
		require.Equal(t, int64(2), told.Revision)
		require.Equal(t, score.Difference{Op: "replace", Path: []any{"luck", "number"}, Value: 7.0}, told.Changes[0])
	}
}

func TestThePageCanAskTheTime(t *testing.T) {
	h := start(t)
	page := h.connect()
	var last int64
	for i := range 3 {
		require.NoError(t, page.Write(t.Context(), websocket.MessageText, fmt.Appendf(nil, `{"sent":%d.5}`, i)))
		clock := page.next(isClock).Clock
		require.InDelta(t, float64(i)+0.5, clock.Sent, 0)
		require.Greater(t, clock.Server, last)
		last = clock.Server
	}
}

func TestAPageThatTalksNonsenseIsHungUpOn(t *testing.T) {
	h := start(t)
	page := h.connect()
	require.NoError(t, page.Write(t.Context(), websocket.MessageText, []byte("fog")))
	for {
		if _, _, err := page.Read(t.Context()); err != nil {
			require.Equal(t, websocket.StatusUnsupportedData, websocket.CloseStatus(err))
			return
		}
	}
}

// What the pages hear, what the core renders and what the take's file holds are the same notes.
func TestWhatIsHeardIsRecorded(t *testing.T) {
	h := start(t)
	page := h.connect()
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":1,"edit":{"setProject":{"tempo":400000}}}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"record"}`).status)
	require.True(t, page.next(func(m server.Message) bool { return m.Transport != nil && m.Transport.Playing }).Transport.Recording)

	var heard []server.WireSound
	places := map[score.LaneName]bool{}
	page.next(func(m server.Message) bool {
		if m.Batch != nil {
			heard = append(heard, m.Batch.Sounds...)
			for _, place := range m.Batch.Places {
				places[place.Lane] = true
			}
		}
		return len(heard) >= 40
	})
	require.Len(t, places, 5)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"stop"}`).status)
	listed := page.next(func(m server.Message) bool { return m.Takes != nil && len(m.Takes.Takes) > 0 }).Takes

	project := testkit.Buoy()
	notes := play.Render(project, 0, 100*project.Meter.Bar(), nil)
	h.requireHeard(notes, heard)
	file := h.do("GET", fmt.Sprintf("/api/takes/%d.mid?division=20160&format=0", listed.Takes[0].ID), "")
	require.Equal(t, http.StatusOK, file.status)
	require.Equal(t, `attachment; filename="Take 1.mid"`, file.header.Get("Content-Disposition"))
	recorded := notesOf(t, file.body)
	require.Len(t, recorded, listed.Takes[0].Notes)
	require.NotEmpty(t, recorded)
	played := h.played(notes)
	for _, tick := range recorded {
		require.Equal(t, played(tick).Start, tick)
	}
}

// requireHeard compares what a page hears with what the core renders, but for notes that came too late on a busy machine.
func (h *house) requireHeard(notes []play.Note, heard []server.WireSound) {
	h.t.Helper()
	played := h.played(notes)
	for i, sound := range heard {
		if sound.Velocity == 0 {
			continue
		}
		note := played(sound.Tick)
		require.Equal(h.t, note.Start, sound.Tick, "sound %d", i)
		require.Equal(h.t, note.Key, sound.Key, "sound %d", i)
	}
}

// played returns what finds the next of the notes for one that was played at a tick: past as many as came too late, on a busy machine.
func (h *house) played(notes []play.Note) func(tick score.Tick) play.Note {
	next, omitted := 0, int64(0)
	return func(tick score.Tick) play.Note {
		for ; notes[next].Start < tick && omitted < h.omitted.Load(); next++ {
			omitted++
		}
		next++
		return notes[next-1]
	}
}

// What was played without recording can be kept afterwards: the last whole bars, as they were computed.
func TestTheWakeIsKept(t *testing.T) {
	h := start(t)
	page := h.connect()
	none := h.do("GET", "/api/wake?bars=4", "")
	require.Equal(t, http.StatusOK, none.status)
	require.JSONEq(t, "null", none.body)
	require.Equal(t, http.StatusNotFound, h.do("GET", "/api/wake?bars=4&stretch=99", "").status)
	require.Equal(t, http.StatusBadRequest, h.do("GET", "/api/wake", "").status)
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/wake", `{"bars":0}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":1,"edit":{"setProject":{"tempo":400000}}}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"play"}`).status)
	bar := testkit.Buoy().Meter.Bar()
	page.next(func(m server.Message) bool {
		return m.Batch != nil && len(m.Batch.Sounds) > 0 && m.Batch.Sounds[0].Tick > 4*bar
	})
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"stop"}`).status)
	var view server.WakeView
	require.NoError(t, json.Unmarshal([]byte(h.do("GET", "/api/wake?bars=2", "").body), &view))
	require.Equal(t, 2*bar, view.To-view.From)
	kept := h.do("POST", "/api/wake", `{"bars":2}`)
	require.Equal(t, http.StatusOK, kept.status, kept.body)
	listed := page.next(func(m server.Message) bool { return m.Takes != nil && len(m.Takes.Takes) > 0 }).Takes.Takes[0]
	require.Equal(t, fmt.Sprintf("Wake from bar %d", view.From/bar+1), listed.Name)
	require.Equal(t, int64(2), listed.Revision)

	var want []score.Tick
	var notes []server.OutlineNote
	from := view.From
	for _, n := range play.Render(testkit.Buoy(), from, from+2*bar, nil) {
		want = append(want, n.Start-from)
		notes = append(notes, server.OutlineNote{Start: n.Start - from, End: min(n.End-from, 2*bar), Key: int(n.Key)})
	}
	require.Equal(t, notes, view.Notes)
	require.Equal(t, want, notesOf(t, h.do("GET", fmt.Sprintf("/api/takes/%d.mid?division=20160&format=0", listed.ID), "").body))

	again := ask[server.Imported](h, fmt.Sprintf("/api/takes/%d/again", listed.ID), `{}`)
	require.Equal(t, want, notesOf(t, h.do("GET", fmt.Sprintf("/api/takes/%d.mid?division=20160&format=0", again.ID), "").body), "it is played again")
}

// notesOf returns the ticks of all note-ons, as an independent reader finds them.
func notesOf(t *testing.T, file string) []score.Tick {
	t.Helper()
	read, err := gosmf.ReadFrom(bytes.NewReader([]byte(file)))
	require.NoError(t, err)
	var starts []score.Tick
	var tick score.Tick
	for _, event := range read.Tracks[0] {
		tick += score.Tick(event.Delta)
		var channel, key, velocity uint8
		if event.Message.GetNoteOn(&channel, &key, &velocity) {
			starts = append(starts, tick)
		}
	}
	return starts
}

// A luck on trial is heard in place of the project's, until it is let go.
func TestALuckOnTrialIsHeard(t *testing.T) {
	h := start(t)
	page := h.connect()
	heard := func(luck int) {
		t.Helper()
		project := testkit.Buoy()
		project.Luck.Number = luck
		notes := play.Render(project, 0, 8*project.Meter.Bar(), nil)
		require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"play"}`).status)
		var sounds []server.WireSound
		page.next(func(m server.Message) bool {
			if m.Batch != nil {
				sounds = append(sounds, m.Batch.Sounds...)
			}
			return len(sounds) >= 24
		})
		require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"stop"}`).status)
		page.next(func(m server.Message) bool { return m.Transport != nil && !m.Transport.Playing })
		h.requireHeard(notes, sounds)
	}
	require.Less(t, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"luck"},"value":7}],"when":"now"}`).status, 300)
	heard(7)
	require.Less(t, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"luck"}}],"when":"now"}`).status, 300)
	heard(testkit.Buoy().Luck.Number)
	require.Equal(t, testkit.Buoy().Luck, h.studio.State().Project.Luck)
}
