package play

import (
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
)

// FieldMoment is where everything on a field is from a tick on, until the next moment.
type FieldMoment struct {
	Tick score.Tick `json:"tick"`
	// Travellers are those that have started and not ended.
	Travellers []FieldPlace `json:"travellers"`
	// Waves are those that live, and Unstarted how many did not start by then because there were too many.
	Waves     []FieldWave `json:"waves"`
	Unstarted int64       `json:"unstarted,omitempty"`
	// Sounds are the cells that sound now.
	Sounds []FieldSound `json:"sounds"`
}

// FieldPlace is where a traveller is, by its id.
type FieldPlace struct {
	ID        int             `json:"id"`
	Column    int             `json:"column"`
	Row       int             `json:"row"`
	Direction score.Direction `json:"direction"`
	// Next is when it moves on.
	Next score.Tick `json:"next"`
}

// FieldWave is a wave: from where it comes, by which traveller, and how far it has come.
type FieldWave struct {
	Traveller int        `json:"traveller"`
	Column    int        `json:"column"`
	Row       int        `json:"row"`
	Ring      int        `json:"ring"`
	Next      score.Tick `json:"next"`
}

// FieldSound is a cell that sounds, and by which traveller.
type FieldSound struct {
	Traveller int `json:"traveller"`
	Column    int `json:"column"`
	Row       int `json:"row"`
}

// momentOf returns a moment of a field as it is looked at.
func (w *walker) momentOf(tick score.Tick, s *field.State, sounds []field.Sound) FieldMoment {
	moment := FieldMoment{Tick: tick, Travellers: []FieldPlace{}, Waves: []FieldWave{}, Sounds: []FieldSound{}, Unstarted: s.Unstarted}
	for i := range s.Travellers {
		if t := &s.Travellers[i]; t.Here() {
			moment.Travellers = append(moment.Travellers, FieldPlace{t.ID, t.Column, t.Row, t.Direction, w.fieldTime(t.Due)})
		}
	}
	for _, wave := range s.Waves {
		moment.Waves = append(moment.Waves, FieldWave{s.Travellers[wave.Traveller].ID, wave.Column, wave.Row, wave.Ring, w.fieldTime(wave.Due)})
	}
	for _, sound := range sounds {
		moment.Sounds = append(moment.Sounds, FieldSound{s.Travellers[sound.Traveller].ID, sound.Column, sound.Row})
	}
	return moment
}
