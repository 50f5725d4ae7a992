package server_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
)

// Chords of a map are named as they lie, led or not; one on a degree is of the key. Anything else is refused.
func TestChordsAreNamed(t *testing.T) {
	h := start(t)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits",
		`{"revision":1,"edit":{"setProject":{"chordMaps":[{"id":5,"name":"Map","led":true,"chords":[{"keys":[60,64,67]},{"keys":[]},{"keys":[65,69,72]}]}]}}}`).status)
	require.JSONEq(t, `[{"name":"C","keys":[60,64,67],"notes":["C4","E4","G4"]},{"name":"","keys":[],"notes":[]},{"name":"F/C","keys":[60,65,69],"notes":["C4","F4","A4"]}]`, h.do("GET", "/api/chords/maps/5", "").body)
	require.JSONEq(t, `{"name":"Dm","keys":[62,65,69],"notes":["D4","F4","A4"]}`, h.do("GET", "/api/chords/degrees/0?type=2", "").body)
	for _, path := range []string{"degrees/x?type=2", "degrees/0", "degrees/0?type=99", "degrees/0?type=-1", "degrees/29?type=2"} {
		require.Equal(t, http.StatusUnprocessableEntity, h.do("GET", "/api/chords/"+path, "").status, path)
	}
	for _, path := range []string{"maps/4", "maps/x"} {
		require.Equal(t, http.StatusNotFound, h.do("GET", "/api/chords/"+path, "").status, path)
	}
}

// The chords of a MIDI file are found, as many as a map can have; a file without any is refused, and one that is none.
func TestChordsOfAFile(t *testing.T) {
	h := start(t)
	written := func(chords int) string {
		var all take.Take
		for i := range chords {
			for _, key := range []uint8{0, 4, 7} {
				id := midi.NoteID{Track: 1, Key: 30 + uint8(i) + key}
				all.Messages = append(all.Messages, id.On(score.Tick(i)*score.TicksPerQuarter, 90, 0))
			}
			for _, key := range []uint8{0, 4, 7} {
				id := midi.NoteID{Track: 1, Key: 30 + uint8(i) + key}
				all.Messages = append(all.Messages, id.Off(score.Tick(i+1)*score.TicksPerQuarter))
			}
		}
		all.Meter, all.Tempo = score.Meter{Beats: 4, Unit: 4}, play.TempoMap{{Tempo: 120_000}}
		all.Finish(score.Tick(chords+1) * score.TicksPerQuarter)
		file, err := smf.FromTake(&all, smf.Options{Format: 0, Division: smf.DefaultDivision})
		require.NoError(t, err)
		data, err := smf.Encode(file)
		require.NoError(t, err)
		return string(data)
	}
	found := h.do("POST", "/api/chords/file", written(2), "Content-Type", "audio/midi")
	require.Equal(t, http.StatusOK, found.status, found.body)
	require.Contains(t, found.body, `{"name":"F♯","keys":[30,34,37],"notes":["F♯1","A♯1","C♯2"]},{"name":"G","keys":[31,35,38],"notes":["G1","B1","D2"]}`)
	timed := h.do("POST", "/api/chords/file?inTime=true", written(2), "Content-Type", "audio/midi")
	require.Contains(t, timed.body, `{"name":"F♯","keys":[30,34,37],"notes":["F♯1","A♯1","C♯2"],"beats":1},{"name":"G","keys":[31,35,38],"notes":["G1","B1","D2"],"beats":2}`, "the last one to the end")
	require.Contains(t, h.do("POST", "/api/chords/file?inTime=true", written(30), "Content-Type", "audio/midi").body, "6 chords that a map has no room for were left out")
	require.Contains(t, h.do("POST", "/api/chords/file", written(30), "Content-Type", "audio/midi").body, "6 chords that a map has no room for were left out")
	require.Contains(t, h.do("POST", "/api/chords/file", written(0), "Content-Type", "audio/midi").body, "the MIDI file has no chords")
	require.Contains(t, h.do("POST", "/api/chords/file", "a letter", "Content-Type", "audio/midi").body, "the MIDI file cannot be read")
}
