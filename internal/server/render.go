package server

import (
	"encoding/json"
	"fmt"
	"net/http"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// RenderRequest asks to make a take of bars without playing them.
type RenderRequest struct {
	// From is the first bar, from 1.
	From int `json:"from" jsonschema:"minimum=1,maximum=1000000"`
	Bars int `json:"bars" jsonschema:"minimum=1,maximum=10000"`
}

// RenderProgress is a line of the answer: how many bars are done, and with the last line the take.
type RenderProgress struct {
	Done int       `json:"done"`
	Take *Imported `json:"take,omitempty"`
}

// render answers with a line of JSON after each bar or each hundredth of all, and ends with the take. A request that
// is given up leaves nothing behind.
func (t takesResource) render(w http.ResponseWriter, r *http.Request) {
	var request RenderRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	state := t.studio.State()
	bars, first := state.Project.Bars(), int64(request.From-1)
	from := bars.Start(first)
	w.Header().Set("Content-Type", "application/x-ndjson")
	w.Header().Set("Cache-Control", "no-store")
	lines, flush := json.NewEncoder(w), http.NewResponseController(w)
	rendering := take.NewRenderer(state.Project, from)
	step := max(1, request.Bars/100)
	for done := 0; done < request.Bars; {
		if r.Context().Err() != nil {
			return
		}
		done = min(request.Bars, done+step)
		rendering.Advance(bars.Start(first + int64(done)))
		if done < request.Bars && lines.Encode(RenderProgress{Done: done}) == nil {
			_ = flush.Flush() // a page that has gone is found out by the context
		}
	}
	rendered := rendering.Take()
	rendered.Name = score.CleanName(fmt.Sprintf("%s, bars %d to %d", state.Project.Name, request.From, request.From+request.Bars-1))
	ids, err := t.takes.Add(r.Context(), state.Revision, rendered)
	if err != nil {
		_ = lines.Encode(Refusal{Error: err.Error()})
		return
	}
	t.changed()
	_ = lines.Encode(RenderProgress{Done: request.Bars, Take: &Imported{ID: ids[0], Notes: rendered.Count(), Remarks: []string{}}})
}
