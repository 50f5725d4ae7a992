package server

import (
	"fmt"
	"mime"
	"net/http"
	"slices"
	"strconv"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/wav"
)

// voltages answers with the voltages of a take at an output of its project, ?output=, as a .wav; ?from= and ?to= choose bars, and
// ?rate= is how many samples a second it has, default 48000.
func (t takesResource) voltages(w http.ResponseWriter, r *http.Request) {
	_, found, name := t.voltagesOf(w, r)
	if found == nil {
		return
	}
	rate := 48000
	if asked := r.URL.Query().Get("rate"); asked != "" {
		var err error
		if rate, err = strconv.Atoi(asked); err != nil || !slices.Contains([]int{44100, 48000, 88200, 96000, 192000}, rate) {
			fail(w, &score.FieldError{Field: "rate", Got: short(asked), Allowed: "44100, 48000, 88200, 96000 or 192000"})
			return
		}
	}
	if err := wav.Check(found, rate); err != nil {
		refuse(w, http.StatusUnprocessableEntity, err.Error())
		return
	}
	w.Header().Set("Content-Type", "audio/wav")
	w.Header().Set("Content-Disposition", mime.FormatMediaType("attachment", map[string]string{"filename": fileName(name) + ".wav"}))
	w.Header().Set("Cache-Control", "no-store")
	// Only a broken connection can make this fail, and then nobody is there to be told.
	_ = wav.Write(w, found, rate)
}

// voltageChannels answers with what the channels of that .wav are.
func (t takesResource) voltageChannels(w http.ResponseWriter, r *http.Request) {
	if taken, found, _ := t.voltagesOf(w, r); found != nil {
		reply(w, wav.Channels(taken.Project, found))
	}
}

// voltagesOf returns the take that a request names, its voltages and a name for its file. Outputs are those of the project that made it, or
// else of the one that is open. It answers and returns none if there are none.
func (t takesResource) voltagesOf(w http.ResponseWriter, r *http.Request) (*take.Take, *cv.Voltages, string) {
	chosen := t.piece(w, r)
	if chosen == nil {
		return nil, nil, ""
	}
	asked := r.URL.Query().Get("output")
	for _, project := range []*score.Project{chosen.Project, t.studio.State().Project} {
		if project == nil {
			continue
		}
		for _, output := range project.Outputs {
			if strconv.Itoa(output.ID) != asked || output.Kind != score.Voltages {
				continue
			}
			chosen.Project = project
			found, err := cv.Of(chosen, output)
			if err != nil {
				fail(w, err)
				return nil, nil, ""
			}
			return chosen, found, fmt.Sprintf("%s, %s", chosen.Name, output.Name)
		}
	}
	refuse(w, http.StatusUnprocessableEntity, "there is no output of voltages "+short(asked)+"; nothing was rendered")
	return nil, nil, ""
}
