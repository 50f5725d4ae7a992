package field_test

import (
	"errors"
	"testing"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/field"
	"jettyfog/internal/core/score"
)

// crowd returns a field of 16 by 16 cells with 16 travellers of all motions, without chance.
func crowd() *score.Field {
	f := grid(16, 16)
	for i := range f.Cells {
		f.Cells[i].Note = i%3 == 0
		f.Cells[i].Degree = i % 15
		f.Cells[i].Arrows = []score.Arrow{{To: score.Direction(i % 8), Weight: 100}}
	}
	rates := []score.NoteValue{"1/16", "1/16t", "1/8", "1/8.", "1/32."}
	for i := range 16 {
		of := traveller(i+1, i, (7*i)%16, score.Direction(i%8))
		of.Motion = []score.TravellerMotion{score.StraightMotion, score.StraightMotion, score.ArrowsMotion, score.WaveMotion}[i%4]
		of.Rate, of.Every = rates[i%len(rates)], 5+i
		f.Travellers = append(f.Travellers, of)
	}
	return f
}

// How long a moment of 16 travellers takes.
func BenchmarkMove(b *testing.B) {
	m := field.New(crowd(), chance.Address{Luck: 1})
	s := m.Begin()
	var sounds []field.Sound
	for b.Loop() {
		sounds, _ = m.Move(s, sounds[:0])
	}
}

// How long it takes to find that a field does not repeat within the bound.
func BenchmarkPeriodAtItsBound(b *testing.B) {
	f := crowd()
	for i := range f.Travellers {
		if of := &f.Travellers[i]; of.Motion == score.WaveMotion { // which begin together after 251 × 241 × 239 × 233 steps
			of.Rate, of.Every = "1/16", []int{251, 241, 239, 233}[i/4]
		}
	}
	for b.Loop() {
		if _, _, err := field.Period(f); !errors.Is(err, field.ErrLong) {
			b.Fatal("the field repeats", err)
		}
	}
}
