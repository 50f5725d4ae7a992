package server

import (
	"fmt"
	"net/http"
	"slices"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// RollRequest asks for new random values in steps, as one edit.
type RollRequest struct {
	Revision int64 `json:"revision"`
	score.LaneAddress
	// Scope is how far the roll goes. Beyond one lane, every lane is rolled within the values that it has.
	Scope string `json:"scope" jsonschema:"enum=lane,enum=part,enum=track,enum=all"`
	// Luck is the number from which the values follow.
	Luck int `json:"luck" jsonschema:"minimum=0,maximum=999999"`
	// Lowest and Highest bound the values of one lane.
	Lowest  int `json:"lowest" jsonschema:"minimum=-200,maximum=200"`
	Highest int `json:"highest" jsonschema:"minimum=-200,maximum=200"`
	// Density is how many steps get a new value, and how many gates are on, in percent.
	Density int `json:"density" jsonschema:"minimum=0,maximum=100"`
	// Lean is where in the range the values tend to land, -100 to 100.
	Lean int `json:"lean" jsonschema:"minimum=-100,maximum=100"`
	// Steps are the steps to roll of one lane; empty is its whole loop.
	Steps []int `json:"steps,omitempty" jsonschema:"maxItems=64"`
}

type rollResource struct{ studio *studio.Studio }

// Routes lists the resource's routes.
func (r rollResource) Routes() chi.Router {
	router := chi.NewRouter()
	router.Post("/", r.roll)
	return router
}

func (r rollResource) roll(w http.ResponseWriter, request *http.Request) {
	var asked RollRequest
	if err := read(request, &asked); err != nil {
		fail(w, err)
		return
	}
	edit, err := asked.edit(r.studio.State().Project)
	if err != nil {
		fail(w, err)
		return
	}
	answer(w, request)(r.studio.Edit(request.Context(), asked.Revision, edit))
}

// edit returns the edit that the roll makes. The error is a *score.FieldError or about an unknown track or part.
func (asked RollRequest) edit(p *score.Project) (score.Edit, error) {
	refuse := func(field string, got any, allowed string) (score.Edit, error) {
		return nil, &score.FieldError{Field: field, Got: got, Allowed: allowed}
	}
	if _, err := p.Part(asked.PartAddress); err != nil {
		return nil, err
	}
	switch spec := asked.Lane.Spec(); {
	case !slices.Contains([]string{"lane", "part", "track", "all"}, asked.Scope):
		return refuse("scope", fmt.Sprintf("%.20q", asked.Scope), "lane, part, track or all")
	case asked.Luck < 0 || asked.Luck > score.MaxLuck:
		return refuse("luck", asked.Luck, fmt.Sprintf("0 to %d", score.MaxLuck))
	case asked.Density < 0 || asked.Density > 100:
		return refuse("density", asked.Density, "0 to 100")
	case asked.Lean < -100 || asked.Lean > 100:
		return refuse("lean", asked.Lean, "-100 to 100")
	case spec.Name == "":
		return refuse("lane", fmt.Sprintf("%.20q", asked.Lane), "the name of a lane")
	case asked.Highest < asked.Lowest:
		return refuse("highest", asked.Highest, fmt.Sprintf("at least the lowest, %d", asked.Lowest))
	}
	all := score.All{Name: "roll of " + asked.name()}
	for _, roll := range asked.rolls(p) {
		if edit, any := roll.Edit(p); any {
			all.Edits = append(all.Edits, score.EditJSON{SetSteps: &edit})
			for _, notes := range roll.Notes(p, edit) {
				all.Edits = append(all.Edits, score.EditJSON{SetOwn: &notes})
			}
		}
	}
	if len(all.Edits) == 0 {
		return refuse("the number of steps to roll", 0, "1 or more, so not all locked and none spared by the density")
	}
	return all, nil
}

func (asked RollRequest) name() string {
	if asked.Scope == "lane" {
		return string(asked.Lane)
	}
	return map[string]string{"part": "a part", "track": "a track", "all": "all tracks"}[asked.Scope]
}

// rolls returns the roll of each lane.
func (asked RollRequest) rolls(p *score.Project) []play.Roll {
	if asked.Scope == "lane" {
		return []play.Roll{{
			LaneAddress: asked.LaneAddress, Luck: uint64(asked.Luck), Lowest: asked.Lowest, Highest: asked.Highest,
			Density: asked.Density, Lean: asked.Lean, Only: asked.Steps,
		}}
	}
	var rolls []play.Roll
	for i := range p.Tracks {
		track := &p.Tracks[i]
		if track.ID != asked.Track && asked.Scope != "all" {
			continue
		}
		for index := range track.Parts() {
			at := score.PartAddress{Track: track.ID, Pattern: track.Playing, Part: track.Parts()[index].ID}
			if asked.Scope != "part" || at == asked.PartAddress {
				rolls = append(rolls, asked.part(at, &track.Parts()[index])...)
			}
		}
	}
	return rolls
}

// part returns the rolls of all lanes of a part, each within the values that its loop has.
func (asked RollRequest) part(at score.PartAddress, part *score.Part) []play.Roll {
	var rolls []play.Roll
	for _, spec := range score.LaneSpecs() {
		if !part.Lanes.Has(spec.Name) {
			continue
		}
		loop, steps := part.Lanes.Loop(spec.Name), part.Lanes.Lane(spec.Name).Steps
		lowest, highest := spec.Most, spec.Least
		for _, value := range steps[loop.First : loop.First+loop.Length] {
			lowest, highest = min(lowest, value), max(highest, value)
		}
		rolls = append(rolls, play.Roll{
			LaneAddress: score.LaneAddress{PartAddress: at, Lane: spec.Name}, Luck: uint64(asked.Luck),
			Lowest: lowest, Highest: highest, Density: asked.Density, Lean: asked.Lean,
		})
	}
	return rolls
}
