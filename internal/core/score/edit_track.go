package score

import (
	"fmt"
	"strings"

	"jettyfog/internal/core/theory"
)

// SetTrack changes the given properties of a track and leaves the others.
type SetTrack struct {
	Track         int              `json:"track"`
	Name          *string          `json:"name,omitempty"`
	Channel       *int             `json:"channel,omitempty"`
	Program       *int             `json:"program,omitempty"`
	Bank          *int             `json:"bank,omitempty"`
	Routes        *[]Route         `json:"routes,omitempty"`
	MuteCuts      *bool            `json:"muteCuts,omitempty"`
	ChaseWaits    *bool            `json:"chaseWaits,omitempty"`
	Mute          *bool            `json:"mute,omitempty"`
	Solo          *bool            `json:"solo,omitempty"`
	OffAir        *bool            `json:"offAir,omitempty"`
	Voices        *int             `json:"voices,omitempty"`
	Overlap       *Tick            `json:"overlap,omitempty"`
	Source        *Source          `json:"source,omitempty"`
	Register      *theory.Register `json:"register,omitempty"`
	Pitches       *PitchSource     `json:"pitches,omitempty"`
	Tuned         *Tuned           `json:"tuned,omitempty"`
	Transpose     *Transpose       `json:"transpose,omitempty"`
	Speed         *Ratio           `json:"speed,omitempty"`
	Swing         *int             `json:"swing,omitempty"`
	SwingOwnSteps *bool            `json:"swingOwnSteps,omitempty"`
	// EntersAsPlayed has patterns enter as if they had played all along.
	EntersAsPlayed *bool        `json:"entersAsPlayed,omitempty"`
	Delay          *Tick        `json:"delay,omitempty"`
	Jitter         *int         `json:"jitter,omitempty"`
	Shifts         *[]NoteValue `json:"shifts,omitempty"`
	Probability    *int         `json:"probability,omitempty"`
	Luck           *int         `json:"luck,omitempty"`
	Hold           *int         `json:"hold,omitempty"`
	HoldFrom       *int         `json:"holdFrom,omitempty"`
	Realign        *int         `json:"realign,omitempty"`
	Playing        *int         `json:"playing,omitempty"`
}

// Label implements Edit.
func (e SetTrack) Label() string {
	var what []string
	add := func(given bool, words string) {
		if given {
			what = append(what, words)
		}
	}
	add(e.Name != nil, "track name")
	if e.Channel != nil {
		add(true, fmt.Sprintf("channel %d", *e.Channel))
	}
	add(e.Program != nil, "program")
	add(e.Bank != nil, "bank")
	add(e.Routes != nil, "routes")
	if e.Mute != nil {
		add(*e.Mute, "mute")
		add(!*e.Mute, "unmute")
	}
	if e.Solo != nil {
		add(*e.Solo, "solo")
		add(!*e.Solo, "end of solo")
	}
	if e.OffAir != nil {
		add(*e.OffAir, "not active")
		add(!*e.OffAir, "active")
	}
	add(e.MuteCuts != nil, "what mute does")
	add(e.ChaseWaits != nil, "how outputs begin")
	add(e.Voices != nil, "voices")
	add(e.Overlap != nil, "overlap")
	add(e.Source != nil, "clock")
	add(e.Register != nil, "register")
	add(e.Pitches != nil, "where pitches are from")
	add(e.Tuned != nil, "tuning")
	add(e.Transpose != nil, "transpose")
	add(e.Speed != nil, "speed")
	add(e.Swing != nil || e.SwingOwnSteps != nil, "track swing")
	add(e.EntersAsPlayed != nil, "how patterns enter")
	add(e.Delay != nil, "delay")
	add(e.Jitter != nil, "jitter")
	add(e.Shifts != nil, "shifts")
	add(e.Probability != nil, "track probability")
	add(e.Luck != nil, "track luck")
	add(e.Hold != nil || e.HoldFrom != nil, "hold")
	add(e.Realign != nil, "realign")
	add(e.Playing != nil, "pattern")
	return strings.Join(what, ", ")
}

func (e SetTrack) apply(p *Project) (Edit, error) {
	track := p.Track(e.Track)
	if track == nil {
		return nil, fmt.Errorf("track %d: %w", e.Track, ErrUnknownTrack)
	}
	return SetTrack{
		Pitches:       swapPitches(&track.Pitches, e.Pitches),
		Tuned:         swapTuned(&track.Tuned, e.Tuned),
		Routes:        swapRoutes(&track.Routes, e.Routes),
		Track:         e.Track,
		Name:          swap(&track.Name, e.Name),
		Channel:       swap(&track.Channel, e.Channel),
		Program:       swap(&track.Program, e.Program),
		Bank:          swap(&track.Bank, e.Bank),
		MuteCuts:      swap(&track.MuteCuts, e.MuteCuts),
		ChaseWaits:    swap(&track.ChaseWaits, e.ChaseWaits),
		Mute:          swap(&track.Mute, e.Mute),
		Solo:          swap(&track.Solo, e.Solo),
		OffAir:        swap(&track.OffAir, e.OffAir),
		Voices:        swap(&track.Voices, e.Voices),
		Overlap:       swap(&track.Overlap, e.Overlap),
		Source:        swap(&track.Source, e.Source),
		Register:      swap(&track.Register, e.Register),
		Transpose:     swap(&track.Transpose, e.Transpose),
		Speed:         swap(&track.Speed, e.Speed),
		Swing:         swap(&track.Swing, e.Swing),
		SwingOwnSteps: swap(&track.SwingOwnSteps, e.SwingOwnSteps), EntersAsPlayed: swap(&track.EntersAsPlayed, e.EntersAsPlayed),
		Delay:       swap(&track.Delay, e.Delay),
		Jitter:      swap(&track.Jitter, e.Jitter),
		Shifts:      swapList(&track.Shifts, e.Shifts),
		Probability: swap(&track.Probability, e.Probability),
		Luck:        swap(&track.Luck, e.Luck),
		Hold:        swap(&track.Hold, e.Hold),
		HoldFrom:    swap(&track.HoldFrom, e.HoldFrom),
		Realign:     swap(&track.Realign, e.Realign),
		Playing:     swap(&track.Playing, e.Playing),
	}, nil
}
