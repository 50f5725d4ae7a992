package score

import (
	"slices"

	"jettyfog/internal/core/theory"
)

// Bounds of a project.
const (
	MaxTracks     = 32
	MaxLuck       = 999_999
	MaxFormerLuck = 1000
	MaxNameRunes  = 60
)

// Project is the whole document.
type Project struct {
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Tempo is in thousandths of a quarter note per minute.
	Tempo  Tempo      `json:"tempo" jsonschema:"minimum=10000,maximum=400000"`
	Meter  Meter      `json:"meter"`
	Key    theory.Key `json:"key"`
	Luck   Luck       `json:"luck"`
	Tracks []Track    `json:"tracks" jsonschema:"minItems=1,maxItems=32"`
}

// Luck is the number from which every random decision follows, and those that were in use before.
type Luck struct {
	// Number is 0 to MaxLuck, short enough to be read out and written down.
	Number int `json:"number" jsonschema:"minimum=0,maximum=999999"`
	// Former holds up to MaxFormerLuck earlier numbers, the latest last.
	Former []int `json:"former" jsonschema:"maxItems=1000"`
}

// Track is one line of music and where it goes.
type Track struct {
	// ID stays with the track for ever, because its random numbers follow from it. From 1 up.
	ID   int    `json:"id" jsonschema:"minimum=1,maximum=2147483647"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Channel is the MIDI channel, 1 to 16.
	Channel int `json:"channel" jsonschema:"minimum=1,maximum=16"`
	// Mute silences the track; it decides all the same, so unmuting never changes the music.
	Mute     bool            `json:"mute"`
	Register theory.Register `json:"register"`
	Lanes    Lanes           `json:"lanes"`
}

// Track returns the track with the id, or nil.
func (p *Project) Track(id int) *Track {
	for i := range p.Tracks {
		if p.Tracks[i].ID == id {
			return &p.Tracks[i]
		}
	}
	return nil
}

// Clone returns a copy that shares nothing with p.
func (p *Project) Clone() *Project {
	clone := *p
	clone.Luck.Former = slices.Clone(p.Luck.Former)
	clone.Tracks = slices.Clone(p.Tracks)
	for i := range clone.Tracks {
		for _, spec := range laneSpecs {
			lane := clone.Tracks[i].Lanes.Lane(spec.Name)
			lane.Steps = slices.Clone(lane.Steps)
		}
	}
	return &clone
}
