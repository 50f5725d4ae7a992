package server_test

import (
	"archive/zip"
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"path"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	gosmf "gitlab.com/gomidi/midi/v2/smf"
	"pgregory.net/rapid"

	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/server"
)

// exported counts the notes of a take by the names of their tracks in everything that goes out of it, which must
// agree, and returns them.
func (h *house) exported(t require.TestingT, id int64) map[string]int {
	get := func(path string) string {
		response, err := http.Get(h.url + path)
		require.NoError(t, err)
		defer response.Body.Close()
		require.Equal(t, http.StatusOK, response.StatusCode, path)
		body, err := io.ReadAll(response.Body)
		require.NoError(t, err)
		return string(body)
	}
	at := fmt.Sprintf("/api/takes/%d", id)
	counts := map[string]int{}
	all := 0
	for name, count := range countsOf(t, get(at+".mid?format=1"), "") {
		counts[name] += count
		all += count
	}
	require.Equal(t, map[string]int{"all": all}, countsOf(t, get(at+".mid?format=0"), "all"))

	packed := get(at + ".zip")
	files, err := zip.NewReader(strings.NewReader(packed), int64(len(packed)))
	require.NoError(t, err)
	zipped := map[string]int{}
	for _, file := range files.File {
		opened, err := file.Open()
		require.NoError(t, err)
		data, err := io.ReadAll(opened)
		require.NoError(t, err)
		for name, count := range countsOf(t, string(data), "") {
			zipped[name] += count
		}
	}
	require.Equal(t, counts, zipped)

	rows, err := csv.NewReader(strings.NewReader(get(at + ".csv"))).ReadAll()
	require.NoError(t, err)
	listed := map[string]int{}
	for _, row := range rows[1:] {
		if row[3] == "note on" {
			listed[row[2]]++
		}
	}
	require.Equal(t, counts, listed)

	var roll server.Roll
	require.NoError(t, json.Unmarshal([]byte(get(at+"/roll?from=0&to=9000000000000000")), &roll))
	rolled := map[string]int{}
	for _, track := range roll.Tracks {
		if track.Notes > 0 {
			rolled[track.Name] += track.Notes
		}
	}
	require.Equal(t, counts, rolled)
	require.Len(t, roll.Notes, all)
	require.Equal(t, all, roll.Summary.Notes)
	var statistics take.Statistics
	require.NoError(t, json.Unmarshal([]byte(get(at+"/statistics")), &statistics))
	require.Equal(t, all, statistics.Notes)
	return counts
}

// countsOf counts the notes of the tracks of a MIDI file that have any, under a name or under their own.
func countsOf(t require.TestingT, file, name string) map[string]int {
	read, err := gosmf.ReadFrom(bytes.NewReader([]byte(file)))
	require.NoError(t, err)
	counts := map[string]int{}
	for _, track := range read.Tracks {
		own := name
		for _, event := range track {
			var channel, key, velocity uint8
			if event.Message.GetNoteOn(&channel, &key, &velocity) {
				counts[own]++
			}
			if name == "" {
				event.Message.GetMetaTrackName(&own)
			}
		}
	}
	return counts
}

// Every message of a take is in everything that goes out of it, whatever tracks it names.
func TestWhatIsInATakeGoesOut(t *testing.T) {
	h := start(t)
	rapid.Check(t, func(t *rapid.T) {
		one := take.Render(testkit.Buoy(), rapid.IntRange(1, 3).Draw(t, "bars"))
		notes := one.Notes()
		for i := range notes {
			notes[i].Track = uint32(rapid.IntRange(1, 4).Draw(t, "track"))
		}
		var keys route.Keys
		one.Messages = keys.Release(one.End, keys.Play(notes, one.End, nil))
		ids, err := h.kept.AddTakes(t.Context(), []*take.Take{one}, 1)
		require.NoError(t, err)
		sum := 0
		for _, count := range h.exported(t, ids[0]) {
			sum += count
		}
		require.Equal(t, one.Count(), sum)
	})
}

// While a take is recorded a track is added, and then another project is opened whose track has the same id: all that
// is heard is in the take and in the wake, under the names of the tracks that played.
func TestTracksThatComeWhileRecording(t *testing.T) {
	h := start(t)
	page := h.connect()
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":1,"edit":{"setProject":{"tempo":400000}}}`).status)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"record"}`).status)
	play := func(bars score.Tick) {
		until := score.Tick(-1)
		page.next(func(m server.Message) bool {
			if m.Batch == nil || len(m.Batch.Sounds) == 0 {
				return false
			}
			if until < 0 {
				until = m.Batch.Sounds[0].Tick + bars*testkit.Buoy().Meter.Bar()
			}
			return m.Batch.Sounds[0].Tick > until
		})
	}
	play(1)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":2,"edit":{"all":{"name":"two","edits":[{"addTrack":{"at":1,"copy":1}},{"setTrack":{"track":2,"name":"Gulls","channel":2}}]}}}`).status)
	play(2)
	other := h.studio.State().Project.Clone()
	other.Tracks = other.Tracks[:1]
	other.Tracks[0].Name, other.Tracks[0].Patterns[0].Name, other.Tracks[0].Channel = "Fog horn", "Dusk", 3
	data, err := json.Marshal(other)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":3,"edit":{"replace":{"project":`+string(data)+`}}}`).status)
	play(2)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/transport", `{"do":"stop"}`).status)
	listed := page.next(func(m server.Message) bool { return m.Takes != nil && len(m.Takes.Takes) > 0 }).Takes.Takes
	counts := h.exported(t, listed[0].ID)
	require.Len(t, counts, 3)
	sum := 0
	for _, name := range []string{"Bell buoy", "Gulls", "Fog horn"} {
		require.Positive(t, counts[name], name)
		sum += counts[name]
	}
	require.Equal(t, listed[0].Notes, sum)
	kept := ask[server.Imported](h, "/api/wake", `{"bars":100}`)
	fromWake := h.exported(t, kept.ID)
	require.Len(t, fromWake, 3)
}

// No name hides what kind of file it is.
func TestFileNames(t *testing.T) {
	for title, want := range map[string]string{
		"Take 1": "Take 1", "Take 1.5": "Take 1-5", "gull.exe": "gull-exe", "a/b\\c:d": "a-b-c-d", "\u202egnp.exe": "gnp-exe", "a\u200b\u0000b": "ab",
		"..": "untitled", " . ": "untitled", ".profile": "profile", "No. 5": "No. 5", "Гудок": "Гудок", "x.tar.gz": "x.tar-gz", "": "untitled",
	} {
		name := server.FileName(title)
		require.Equal(t, want, name, title)
		require.Equal(t, ".mid", path.Ext(name+".mid"))
	}
}
