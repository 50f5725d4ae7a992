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
// ?rate= is how many samples a second it has, default 48000. With ?interface= they are corrected by what was read of that interface.
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
	if err := t.correct(r, found); err != nil {
		fail(w, err)
		return
	}
	w.Header().Set("Content-Type", "audio/wav")
	w.Header().Set("Content-Disposition", mime.FormatMediaType("attachment", map[string]string{"filename": fileName(name) + ".wav"}))
	w.Header().Set("Cache-Control", "no-store")
	// Only a broken connection can make this fail, and then nobody is there to be told.
	_ = wav.Write(w, found, rate)
}

// correct has voltages be what has to be sent to the interface that a request names, if it names one.
func (t takesResource) correct(r *http.Request, v *cv.Voltages) error {
	name := r.URL.Query().Get("interface")
	if name == "" {
		return nil
	}
	all, err := t.machine.Calibrations(r.Context())
	for _, read := range all {
		for _, c := range v.Channels {
			if read.Interface == name && read.Channel == c.VoltageChannel.Channel {
				c.Line = read.Calibration.Correct(c.Line)
			}
		}
	}
	return err
}

// voltageChannels answers with what the channels of that .wav are.
func (t takesResource) voltageChannels(w http.ResponseWriter, r *http.Request) {
	if taken, found, _ := t.voltagesOf(w, r); found != nil {
		reply(w, wav.Channels(taken.Project, found))
	}
}

// maxScopeSegments bounds how many segments a page is given at once.
const maxScopeSegments = 4_000

// Scope is how the voltage of a channel goes in a stretch of a take.
type Scope struct {
	// Points are joined by straight lines. Crowded says that there are more, and that the last are missing.
	Points  []ScopePoint `json:"points"`
	Crowded bool         `json:"crowded"`
}

// ScopePoint is a voltage at a moment of a take.
type ScopePoint struct {
	Tick  score.Tick `json:"tick"`
	Volts float64    `json:"volts"`
}

// scope answers with how a channel, ?channel= of the interface, goes from the tick ?begin= to before ?end=.
func (t takesResource) scope(w http.ResponseWriter, r *http.Request) {
	taken, found, _ := t.voltagesOf(w, r)
	if found == nil {
		return
	}
	query := r.URL.Query()
	begin, errBegin := strconv.ParseInt(query.Get("begin"), 10, 64)
	end, errEnd := strconv.ParseInt(query.Get("end"), 10, 64)
	if errBegin != nil || errEnd != nil || begin < 0 || end <= begin || score.Tick(end) > score.LastTick {
		refuse(w, http.StatusBadRequest, "a scope needs the ticks from and to which it is shown")
		return
	}
	at := slices.IndexFunc(found.Channels, func(c *cv.Channel) bool { return strconv.Itoa(c.VoltageChannel.Channel) == query.Get("channel") })
	if at < 0 {
		refuse(w, http.StatusUnprocessableEntity, "the output has no channel "+short(query.Get("channel"))+"; nothing is shown")
		return
	}
	scope := Scope{Points: []ScopePoint{}}
	points, whole := found.Channels[at].Line.Points(taken.Tempo.Nanos(score.Tick(begin)), taken.Tempo.Nanos(score.Tick(end)), maxScopeSegments)
	for _, p := range points {
		scope.Points = append(scope.Points, ScopePoint{taken.Tempo.TickAt(p.At), p.Volts})
	}
	scope.Crowded = !whole
	reply(w, scope)
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
