package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// fingers puts fingers on the screen, or moves those that are there: each place is that of the finger of its number. Without places all are lifted.
func (p *page) fingers(kind proto.InputDispatchTouchEventType, places ...proto.Point) {
	p.t.Helper()
	points := make([]*proto.InputTouchPoint, len(places))
	for i, at := range places {
		id := float64(i)
		points[i] = &proto.InputTouchPoint{X: at.X, Y: at.Y, ID: &id}
	}
	require.NoError(p.t, proto.InputDispatchTouchEvent{Type: kind, TouchPoints: points}.Call(p))
}

// drag has one finger go over places, while a hand lies on another all the time, and is moved there.
func (p *page) drag(hand proto.Point, places ...proto.Point) {
	p.t.Helper()
	p.fingers(proto.InputDispatchTouchEventTypeTouchStart, places[0])
	p.fingers(proto.InputDispatchTouchEventTypeTouchStart, places[0], hand)
	for i, at := range places {
		p.fingers(proto.InputDispatchTouchEventTypeTouchMove, at, proto.Point{X: hand.X + float64(i+1), Y: hand.Y})
	}
	p.fingers(proto.InputDispatchTouchEventTypeTouchEnd)
}

// A finger draws in a lane and builds a field, while a hand that lies on the same lane or field changes nothing of it.
func TestAHandOnTheScreen(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	box := p.lane("velocity").MustShape().Box()
	step := func(step float64) proto.Point {
		return proto.Point{X: box.X + (step+0.5)*box.Width/24, Y: box.Y + box.Height/2}
	}
	before := a.project().Tracks[0].Parts()[0].Lanes.Velocity.Steps
	p.drag(step(6), step(0), step(1), step(2))
	p.undoable("velocity of 3 steps")
	require.Equal(t, before[3:], a.project().Tracks[0].Parts()[0].Lanes.Velocity.Steps[3:])

	p.MustElementR("button", `\+ field`).MustTap()
	p.undoable("new field track")
	p.MustElement("[data-field] > rect")
	field := func() *score.Field { return a.part(6).Field }
	hand := p.cell(6, 2)
	p.drag(hand, p.cell(1, 0), p.cell(2, 0), p.cell(3, 0))
	a.waitFor(func(*score.Project) bool { return field().Cell(3, 0) != nil })
	require.Nil(t, field().Cell(6, 2))
	p.MustElementR("button", "^arrows$").MustTap()
	p.drag(hand, p.cell(1, 0), p.cell(2, 0), p.cell(3, 1), p.cell(2, 1))
	a.waitFor(func(*score.Project) bool { return field().Cell(3, 1) != nil })
	require.Len(t, field().Cell(3, 1).Arrows, 1)
	p.MustElementR("button", "^travellers$").MustTap()
	p.drag(hand, p.cell(0, 3), p.cell(1, 3))
	a.waitFor(func(*score.Project) bool { return len(field().Travellers) == 1 && field().Travellers[0].Column == 1 })
	p.drag(hand, p.cell(1, 0))
	a.waitFor(func(*score.Project) bool { return len(field().Travellers) == 2 && field().Travellers[1].Column == 1 })
}
