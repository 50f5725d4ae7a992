package take

import (
	"bytes"
	"encoding/csv"
	"strconv"
	"strings"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/theory"
)

// kindNames are what a table calls the kinds of messages.
var kindNames = map[midi.Kind]string{
	midi.NoteOff: "note off", midi.NoteOn: "note on", midi.Program: "program", midi.ControlChange: "control",
	midi.WideControl: "control 14 bits", midi.Bend: "bend", midi.Pressure: "pressure", midi.BendRange: "bend range",
	midi.TuningProgram: "tuning program", midi.KeyTuning: "key tuning",
}

// CSV returns a take as a table with a head (RFC 4180), a line a message: its tick of 20160 to a quarter note,
// its time in seconds, the name of its track, its kind, its channel from 1, its number (a key, a controller or
// a program), its value (a velocity, or what is sent) and how far a note is detuned, in cents. A name that a
// spreadsheet would take for a formula has an apostrophe before it (OWASP, "CSV Injection").
func CSV(t *Take) []byte {
	var table bytes.Buffer
	w := csv.NewWriter(&table)
	w.UseCRLF = true
	// A buffer never refuses what is written.
	_ = w.Write([]string{"tick", "seconds", "track", "kind", "channel", "number", "value", "cents"})
	named := *t
	named.NameTracks()
	names := map[uint32]string{}
	for _, track := range named.Tracks {
		names[track.ID] = track.Name
	}
	for _, m := range t.Messages {
		value := int(m.Value)
		if m.Kind == midi.NoteOn || m.Kind == midi.NoteOff {
			value = int(m.Velocity)
		}
		_ = w.Write([]string{
			strconv.FormatInt(int64(m.Tick), 10),
			strconv.FormatFloat(float64(t.Tempo.Nanos(m.Tick))/1e9, 'f', 6, 64),
			harmless(names[m.Track]), kindNames[m.Kind], strconv.Itoa(int(m.Channel) + 1), strconv.Itoa(int(m.Key)), strconv.Itoa(value),
			strconv.FormatFloat(float64(m.Detune)/float64(theory.Cent), 'f', -1, 64),
		})
	}
	w.Flush()
	return table.Bytes()
}

// harmless returns a text that no spreadsheet takes for a formula.
func harmless(text string) string {
	if text != "" && strings.ContainsRune("=+-@\t\r", rune(text[0])) {
		return "'" + text
	}
	return text
}
