package field

import (
	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/score"
)

// meet judges the meetings of a moment, pair by pair.
func (m *Machine) meet(now *moment) {
	for i := range now.Travellers {
		for j := i + 1; j < len(now.Travellers); j++ {
			a, b := &now.Travellers[i], &now.Travellers[j]
			if !a.Here() || !b.Here() || !now.moved[i] && !now.moved[j] {
				continue
			}
			swapped := now.swapped(i, j)
			if swapped || a.Column == b.Column && a.Row == b.Row {
				m.turnWhereTheyMeet(now, i, swapped)
				m.turnWhereTheyMeet(now, j, swapped)
			}
			for n := range m.field.Rules {
				rule := &m.field.Rules[n]
				switch {
				case rule.A == a.ID && rule.B == b.ID:
					m.judge(now, n, i, j, swapped)
				case rule.A == b.ID && rule.B == a.ID:
					m.judge(now, n, j, i, swapped)
				}
			}
		}
	}
}

// swapped reports whether two travellers have just changed places.
func (now *moment) swapped(i, j int) bool {
	a, b, wasA, wasB := &now.Travellers[i], &now.Travellers[j], &now.before[i], &now.before[j]
	return now.moved[i] && now.moved[j] && wasA.Started && wasB.Started && (a.Column != b.Column || a.Row != b.Row) &&
		a.Column == wasB.Column && a.Row == wasB.Row && b.Column == wasA.Column && b.Row == wasA.Row
}

// turnWhereTheyMeet has a traveller that goes straight do what it does where it meets another. One that turns back where they would change places is where it
// came from.
func (m *Machine) turnWhereTheyMeet(now *moment, i int, swapped bool) {
	t, of := &now.Travellers[i], &m.field.Travellers[i]
	if of.Motion != score.StraightMotion {
		return
	}
	switch of.Meets {
	case score.MeetBack:
		if t.Direction = t.Direction.Turned(4); swapped {
			t.Column, t.Row = now.before[i].Column, now.before[i].Row
		}
	case score.MeetRight:
		t.Direction = t.Direction.Turned(2)
	}
}

// judge has a rule happen to the traveller at place a if it stands to the one at place b as the rule says, and the odds are with it.
func (m *Machine) judge(now *moment, n, a, b int, swapped bool) {
	rule := &m.field.Rules[n]
	t, of := &now.Travellers[a], &m.field.Travellers[a]
	if !stands(rule, t, &now.Travellers[b], swapped) {
		return
	}
	if rule.Odds < 100 {
		address := m.address
		address.Purpose, address.Sub, address.N = chance.Meeting, uint8(n), uint64(now.Judged[n])
		now.Judged[n]++
		if !chance.Happens(address, rule.Odds) {
			return
		}
	}
	switch rule.Do {
	case score.DoSound:
		now.sounds[a] = true
	case score.DoSilence:
		now.sounds[a] = false
		delete(now.turned, a)
	case score.DoTurn:
		t.Direction = t.Direction.Turned(2)
	case score.DoStart:
		if m.free(of.Column, of.Row) {
			t.Column, t.Row, t.Direction = of.Column, of.Row, of.Direction
		}
	case score.DoLetter:
		if all := m.letters[rule.Letter]; len(all) > 0 {
			t.Column, t.Row = all[0].column, all[0].row
		}
	case score.DoRate:
		if now.moved[a] { // it moves next by the new rate
			t.Due += rule.Rate.Ticks() - t.Rate
		}
		t.Rate = rule.Rate.Ticks()
	case score.DoClockTick:
		now.clocks = append(now.clocks, rule.Track)
	}
}

// stands reports whether a traveller stands to another as a rule says.
func stands(rule *score.MeetingRule, a, b *Traveller, swapped bool) bool {
	columns, rows := a.Column-b.Column, a.Row-b.Row
	switch rule.When {
	case score.InOneCell:
		return swapped || columns == 0 && rows == 0
	case score.InOneRow:
		return rows == 0
	case score.InOneColumn:
		return columns == 0
	case score.InOneDiagonal:
		return columns == rows || columns == -rows
	case score.NearEachOther:
		return score.RoundRings.Distance(columns, rows) <= rule.Distance
	case score.LeftOf:
		return columns < 0
	case score.RightOf:
		return columns > 0
	case score.AboveOf:
		return rows < 0
	case score.BelowOf:
		return rows > 0
	}
	return false
}
