package field

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// Machine moves what is on a field. The field must be valid and must not be changed.
type Machine struct {
	field   *score.Field
	address chance.Address // of its draws
	cells   [score.MaxFieldSize][score.MaxFieldSize]*score.Cell
	letters map[string][]place
	reached map[source][][]place // by waves, ring by ring
}

type place struct{ column, row int }

// Sound is a cell that sounds.
type Sound struct {
	// Traveller is the place in the list of the one by which it does.
	Traveller   int
	Column, Row int
	// Degree and Octave are its pitch, and Cell says what else it has of its own; nil is the note of a row or a column.
	Degree, Octave int
	Cell           *score.Cell
	// Lasts is how long the traveller stays there.
	Lasts score.Tick
}

// New returns a machine. The address is of the field's draws: its luck, track and part.
func New(f *score.Field, a chance.Address) *Machine {
	m := &Machine{field: f, address: a, letters: map[string][]place{}, reached: map[source][][]place{}}
	for i := range f.Cells {
		c := &f.Cells[i]
		m.cells[c.Row][c.Column] = c
	}
	for row := range f.Rows {
		for column := range f.Columns {
			if c := m.cells[row][column]; c != nil && c.Letter != "" && !c.Wall {
				m.letters[c.Letter] = append(m.letters[c.Letter], place{column, row})
			}
		}
	}
	return m
}

// Begin returns how the field begins.
func (m *Machine) Begin() *State {
	s := &State{}
	for i := range m.field.Travellers {
		s.Travellers = append(s.Travellers, m.begin(&m.field.Travellers[i]))
	}
	return s
}

func (m *Machine) begin(t *score.Traveller) Traveller {
	rate := t.Rate.Ticks()
	begun := Traveller{ID: t.ID, Column: t.Column, Row: t.Row, Direction: t.Direction, Rate: rate, Due: score.Tick(t.StartsAfter) * rate}
	if !m.free(t.Column, t.Row) {
		begun.Due = Never
	}
	return begun
}

// BeginAnew has everything be as at the beginning, except that draws are numbered on.
func (m *Machine) BeginAnew(s *State) {
	moves := map[int]int64{}
	for i := range s.Travellers {
		moves[s.Travellers[i].ID] = s.Travellers[i].Moves
	}
	begun := m.Begin()
	for i := range begun.Travellers {
		begun.Travellers[i].Moves = moves[begun.Travellers[i].ID]
	}
	s.Travellers, s.Waves = begun.Travellers, nil
}

// Continue returns a state as another field has it, which takes the place of the one of s at a moment: travellers stay where they are, at their new rates where
// these are others, what is new begins, and those that are outside of the grid now or in a wall wait. Waves go on of travellers that are there.
func (m *Machine) Continue(from *Machine, s *State, now score.Tick) *State {
	next := &State{Judged: s.Judged, Unstarted: s.Unstarted}
	places := map[int]int{}
	for i := range m.field.Travellers {
		of := &m.field.Travellers[i]
		t := m.begin(of)
		if t.Due != Never {
			t.Due += now
		}
		for k, was := range s.Travellers {
			if was.ID != t.ID {
				continue
			}
			places[k] = i
			t = was
			if before := from.field.Traveller(t.ID); before != nil && before.Rate != of.Rate {
				t.Rate = of.Rate.Ticks()
			}
			if !t.Started {
				t.Column, t.Row, t.Direction = of.Column, of.Row, of.Direction
			}
			switch free := m.free(t.Column, t.Row); {
			case !free:
				t.Due = Never
			case t.Due == Never && !t.Ended:
				t.Due = now
			}
		}
		next.Travellers = append(next.Travellers, t)
	}
	for _, wave := range s.Waves {
		if of, there := places[wave.Traveller]; there && m.free(wave.Column, wave.Row) {
			wave.Traveller = of
			next.Waves = append(next.Waves, wave)
		}
	}
	return next
}

// free reports whether a traveller can be in a cell.
func (m *Machine) free(column, row int) bool {
	return m.field.Inside(column, row) && (m.cells[row][column] == nil || !m.cells[row][column].Wall)
}

// moment is what happens at one moment.
type moment struct {
	*State
	now    score.Tick
	before []Traveller // how they were
	moved  []bool
	sounds []bool      // whether each traveller does
	turned map[int]int // the degrees that they sound because they turned
	clocks []int       // the tracks that go on
}

// Move has everything move that is due next, and appends the cells that sound to dst. Clocks are the ids of tracks that rules move on, as often as they do. Where nothing
// is due ever, nothing happens.
func (m *Machine) Move(s *State, dst []Sound) (sounds []Sound, clocks []int) {
	if s.Due() == Never {
		return dst, nil
	}
	now := &moment{State: s, now: s.Due(), before: append([]Traveller(nil), s.Travellers...), turned: map[int]int{}}
	now.moved, now.sounds = make([]bool, len(s.Travellers)), make([]bool, len(s.Travellers))
	for i := range s.Waves {
		m.widen(now, i)
	}
	for i := range s.Travellers {
		if s.Travellers[i].Due == now.now {
			m.moveOne(now, i)
		}
	}
	m.meet(now)
	dst = m.soundsOfTravellers(now, dst)
	return m.soundsOfWaves(now, dst), now.clocks
}

// moveOne has a traveller make its move.
func (m *Machine) moveOne(now *moment, i int) {
	t, of := &now.Travellers[i], &m.field.Travellers[i]
	t.Due += t.Rate
	now.moved[i], now.sounds[i] = true, of.Motion != score.WaveMotion && !of.AtTurns
	began := !t.Started
	t.Started = true
	switch {
	case of.Motion == score.WaveMotion:
		if t.UntilWave == 0 {
			now.start(Wave{Traveller: i, Column: t.Column, Row: t.Row, Rate: t.Rate, Due: t.Due})
			t.UntilWave = of.WaveEvery()
		}
		t.UntilWave--
	case began:
		m.arrive(t)
	case of.Motion == score.StraightMotion:
		m.goStraight(now, i)
	default:
		m.followArrow(t)
	}
	if t.Moves++; t.Due == Never {
		now.sounds[i] = false
	}
}

// soundsOfTravellers appends the cells that travellers sound.
func (m *Machine) soundsOfTravellers(now *moment, dst []Sound) []Sound {
	for i := range now.Travellers {
		t := &now.Travellers[i]
		sound := Sound{Traveller: i, Column: t.Column, Row: t.Row, Lasts: t.Rate}
		degree, turned := now.turned[i]
		cell := m.cells[t.Row][t.Column]
		switch {
		case !now.sounds[i] && !turned || !t.Here():
			continue
		case turned:
			sound.Degree = degree
		case cell == nil || !cell.Note:
			continue
		default:
			sound.Degree, sound.Octave, sound.Cell = cell.Degree, cell.Octave, cell
		}
		dst = append(dst, sound)
	}
	return dst
}
