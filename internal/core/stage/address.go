package stage

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"jettyfog/internal/core/score"
)

// Form returns the form of the addresses of a control, as "/track/TRACK/pattern/PATTERN/part/PART/lane/LANE/amount".
func (s Spec) Form() string {
	name := strings.ReplaceAll(s.Name, " ", "-")
	switch s.Of {
	case OfTrack:
		return "/track/TRACK/" + name
	case OfPart:
		return "/track/TRACK/pattern/PATTERN/part/PART/" + name
	case OfLane:
		return "/track/TRACK/pattern/PATTERN/part/PART/lane/LANE/" + name
	case OfProject:
		if s.byBar {
			name += "[/BAR]"
		}
		return "/" + name
	}
	return "/" + name + "/ID"
}

// Address returns the address of a control, as programs name it.
func (c Control) Address() string {
	name := "/" + strings.ReplaceAll(c.Name, " ", "-")
	switch c.scope() {
	case OfTrack:
		return fmt.Sprintf("/track/%d%s", c.Track, name)
	case OfPart:
		return fmt.Sprintf("/track/%d/pattern/%d/part/%d%s", c.Track, c.Pattern, c.Part, name)
	case OfLane:
		return fmt.Sprintf("/track/%d/pattern/%d/part/%d/lane/%s%s", c.Track, c.Pattern, c.Part, c.Lane, name)
	case OfProject:
		if c.Bar > 0 {
			return fmt.Sprintf("%s/%d", name, c.Bar)
		}
		return name
	}
	return fmt.Sprintf("%s/%d", name, c.ID)
}

// ControlAt returns the control of an address. Whether a project has it is not looked at. The error says what is wrong with the address.
func ControlAt(address string) (c Control, err error) {
	segments := strings.Split(strings.TrimPrefix(address, "/"), "/")
	wrong := fmt.Errorf("no control has the address %.60q; jettyfog schema controls lists them", address)
	if !strings.HasPrefix(address, "/") {
		return c, wrong
	}
	for _, id := range []struct {
		word string
		to   *int
	}{{"track", &c.Track}, {"pattern", &c.Pattern}, {"part", &c.Part}} {
		if len(segments) > 2 && segments[0] == id.word {
			if *id.to, err = strconv.Atoi(segments[1]); err != nil {
				return Control{}, wrong
			}
			segments = segments[2:]
		}
	}
	if len(segments) > 2 && segments[0] == "lane" {
		c.Lane, segments = score.LaneName(segments[1]), segments[2:]
	}
	at := slices.IndexFunc(specs, func(s Spec) bool { return strings.ReplaceAll(s.Name, " ", "-") == segments[0] })
	if at < 0 {
		return Control{}, wrong
	}
	c.Name = specs[at].Name
	if len(segments) == 2 {
		to := &c.ID
		if c.scope() == OfProject {
			to = &c.Bar
		}
		if *to, err = strconv.Atoi(segments[1]); err != nil || *to < 1 {
			return Control{}, wrong
		}
	}
	if len(segments) > 2 || SpecOf(c.Name, c.scope()) == nil || min(c.Track, c.Pattern, c.Part) < 0 || c.Address() != address { // as a control of no track in a track is not
		return Control{}, wrong
	}
	return c, nil
}

// Listing is a control as it is listed for programs.
type Listing struct {
	// Address is the form of its addresses.
	Address string `json:"address"`
	Spec
}

// Listed lists all controls with the forms of their addresses.
func Listed() (all []Listing) {
	for _, spec := range specs {
		all = append(all, Listing{spec.Form(), spec})
	}
	return all
}
