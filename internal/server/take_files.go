package server

import (
	"archive/zip"
	"bytes"
	"fmt"
	"net/http"
	"net/url"
	"strconv"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
)

// csv answers with a take as a table of its messages; ?from= and ?to= choose bars.
func (t takesResource) csv(w http.ResponseWriter, r *http.Request) {
	if found := t.piece(w, r); found != nil {
		download(w, "text/csv; charset=utf-8", found.Name, ".csv", take.CSV(found))
	}
}

// midi answers with a take as a Standard MIDI File: ?format=0 or 1, default 1, and ?division=960 or
// 20160, default 960; ?from= and ?to= choose bars.
func (t takesResource) midi(w http.ResponseWriter, r *http.Request) {
	options, err := fileOptions(r.URL.Query())
	if err != nil {
		fail(w, err)
		return
	}
	chosen := t.piece(w, r)
	if chosen == nil {
		return
	}
	data, err := encode(chosen, options)
	if err != nil {
		fail(w, err)
		return
	}
	download(w, "audio/midi", chosen.Name, ".mid", data)
}

func encode(t *take.Take, o smf.Options) ([]byte, error) {
	file, err := smf.FromTake(t, o)
	if err != nil {
		return nil, err
	}
	return smf.Encode(file)
}

// zip answers with a file for each track of a take that plays anything; the options are those of midi.
func (t takesResource) zip(w http.ResponseWriter, r *http.Request) {
	options, err := fileOptions(r.URL.Query())
	if err != nil {
		fail(w, err)
		return
	}
	chosen := t.piece(w, r)
	if chosen == nil {
		return
	}
	var packed bytes.Buffer
	archive := zip.NewWriter(&packed)
	for i, alone := range take.ByTrack(chosen) {
		if len(alone.Messages) == 0 {
			continue
		}
		data, err := encode(alone, options)
		if err != nil {
			fail(w, err)
			return
		}
		file, err := archive.Create(fmt.Sprintf("%02d %s.mid", i+1, fileName(alone.Tracks[0].Name)))
		if err == nil {
			_, err = file.Write(data)
		}
		if err != nil {
			fail(w, err)
			return
		}
	}
	if err := archive.Close(); err != nil {
		fail(w, err)
		return
	}
	download(w, "application/zip", chosen.Name, ".zip", packed.Bytes())
}

func fileOptions(query url.Values) (smf.Options, error) {
	options := smf.Options{Format: 1, Division: smf.DefaultDivision}
	switch query.Get("format") {
	case "", "1":
	case "0":
		options.Format = 0
	default:
		return options, &score.FieldError{Field: "format", Got: short(query.Get("format")), Allowed: "0 or 1"}
	}
	switch query.Get("division") {
	case "", strconv.Itoa(smf.DefaultDivision):
	case strconv.Itoa(smf.ExactDivision):
		options.Division = smf.ExactDivision
	default:
		return options, &score.FieldError{Field: "division", Got: short(query.Get("division")), Allowed: "960 or 20160"}
	}
	return options, nil
}

// piece returns what is heard of the take that a request names, or of the bars that it chooses: from ?from=, from
// 1, to before ?to=. It answers and returns nil if there is none.
func (t takesResource) piece(w http.ResponseWriter, r *http.Request) *take.Take {
	found, _ := t.find(w, r)
	if found == nil {
		return nil
	}
	audible := found.Audible()
	query := r.URL.Query()
	if query.Get("from") == "" && query.Get("to") == "" {
		return audible
	}
	lines := found.Bars()
	bars := int(lines.At(found.End-1) + 1)
	from, err := strconv.Atoi(query.Get("from"))
	if err != nil || from < 1 || from > bars {
		fail(w, &score.FieldError{Field: "from", Got: short(query.Get("from")), Allowed: fmt.Sprintf("a bar from 1 to %d", bars)})
		return nil
	}
	to, err := strconv.Atoi(query.Get("to"))
	if err != nil || to <= from || to > bars+1 {
		fail(w, &score.FieldError{Field: "to", Got: short(query.Get("to")), Allowed: fmt.Sprintf("a bar from %d to %d, before which it ends", from+1, bars+1)})
		return nil
	}
	return take.Cut(audible, lines.Start(int64(from-1)), min(found.End, lines.Start(int64(to-1))))
}
