package score

import (
	"fmt"
	"strings"

	"jettyfog/internal/core/theory"
)

// SetTrack changes the given properties of a track and leaves the others.
type SetTrack struct {
	Track    int              `json:"track"`
	Name     *string          `json:"name,omitempty"`
	Channel  *int             `json:"channel,omitempty"`
	Mute     *bool            `json:"mute,omitempty"`
	Register *theory.Register `json:"register,omitempty"`
}

// Label implements Edit.
func (e SetTrack) Label() string {
	var what []string
	if e.Name != nil {
		what = append(what, "track name")
	}
	if e.Channel != nil {
		what = append(what, fmt.Sprintf("channel %d", *e.Channel))
	}
	if e.Mute != nil {
		what = append(what, map[bool]string{true: "mute", false: "unmute"}[*e.Mute])
	}
	if e.Register != nil {
		what = append(what, "register")
	}
	return strings.Join(what, ", ")
}

func (e SetTrack) apply(p *Project) (Edit, error) {
	track := p.Track(e.Track)
	if track == nil {
		return nil, fmt.Errorf("track %d: %w", e.Track, ErrUnknownTrack)
	}
	return SetTrack{
		Track:    e.Track,
		Name:     swap(&track.Name, e.Name),
		Channel:  swap(&track.Channel, e.Channel),
		Mute:     swap(&track.Mute, e.Mute),
		Register: swap(&track.Register, e.Register),
	}, nil
}

// SetLane changes the given properties of a lane's loop and leaves the others, and all step values.
type SetLane struct {
	Track  int        `json:"track"`
	Lane   LaneName   `json:"lane"`
	Linked *bool      `json:"linked,omitempty"`
	Length *int       `json:"length,omitempty"`
	Rate   *NoteValue `json:"rate,omitempty"`
	Order  *Order     `json:"order,omitempty"`
}

// Label implements Edit.
func (e SetLane) Label() string {
	what := []string{string(e.Lane)}
	if e.Linked != nil {
		what = append(what, map[bool]string{true: "linked", false: "unlinked"}[*e.Linked])
	}
	if e.Length != nil {
		what = append(what, fmt.Sprintf("length %d", *e.Length))
	}
	if e.Rate != nil {
		what = append(what, "rate "+string(*e.Rate))
	}
	if e.Order != nil {
		what = append(what, string(*e.Order))
	}
	return strings.Join(what, " ")
}

func (e SetLane) apply(p *Project) (Edit, error) {
	lane, err := p.lane(e.Track, e.Lane)
	if err != nil {
		return nil, err
	}
	return SetLane{
		Track:  e.Track,
		Lane:   e.Lane,
		Linked: swap(&lane.Linked, e.Linked),
		Length: swap(&lane.Length, e.Length),
		Rate:   swap(&lane.Rate, e.Rate),
		Order:  swap(&lane.Order, e.Order),
	}, nil
}

// StepValue is a value for one step.
type StepValue struct {
	// Step counts from 0 to MaxSteps-1.
	Step int `json:"step" jsonschema:"minimum=0,maximum=63"`
	// Value is within the bounds of the lane's LaneSpec.
	Value int `json:"value"`
}

// SetSteps writes values into steps of one lane: a whole stroke of painting is one edit.
type SetSteps struct {
	Track int      `json:"track"`
	Lane  LaneName `json:"lane"`
	// Steps holds 1 to MaxSteps values; where a step comes twice, the last one counts.
	Steps []StepValue `json:"steps" jsonschema:"minItems=1,maxItems=64"`
}

// Label implements Edit.
func (e SetSteps) Label() string {
	if len(e.Steps) == 1 {
		return fmt.Sprintf("%s of step %d", e.Lane, e.Steps[0].Step+1)
	}
	return fmt.Sprintf("%s of %d steps", e.Lane, len(e.Steps))
}

func (e SetSteps) apply(p *Project) (Edit, error) {
	lane, err := p.lane(e.Track, e.Lane)
	if err != nil {
		return nil, err
	}
	if err := checkRange("the number of steps", len(e.Steps), 1, MaxSteps); err != nil {
		return nil, err
	}
	inverse := SetSteps{Track: e.Track, Lane: e.Lane, Steps: make([]StepValue, len(e.Steps))}
	for i, s := range e.Steps {
		if err := checkRange(fmt.Sprintf("steps[%d].step", i), s.Step, 0, MaxSteps-1); err != nil {
			return nil, err
		}
		// Written back to front, so that undoing a step that comes twice ends with its first value.
		inverse.Steps[len(e.Steps)-1-i] = StepValue{Step: s.Step, Value: lane.Steps[s.Step]}
		lane.Steps[s.Step] = s.Value
	}
	return inverse, nil
}

func (p *Project) lane(track int, name LaneName) (*Lane, error) {
	t := p.Track(track)
	if t == nil {
		return nil, fmt.Errorf("track %d: %w", track, ErrUnknownTrack)
	}
	lane := t.Lanes.Lane(name)
	if lane == nil {
		names := make([]LaneName, len(laneSpecs))
		for i, spec := range laneSpecs {
			names[i] = spec.Name
		}
		return nil, checkListed("lane", name, names)
	}
	return lane, nil
}
