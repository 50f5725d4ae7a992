package route_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
)

// ofRoutes returns outlets of a project whose first track has the routes, and a note of it.
func ofRoutes(t *testing.T, change func(*score.Track), routes ...score.Route) (*score.Project, *route.Outlets) {
	t.Helper()
	p := testkit.Buoy()
	p.Outputs = []score.Output{{ID: 7, Name: "Synth", Kind: score.BrowserPort}, {ID: 8, Name: "Rack", Kind: score.ServerDevice}}
	p.Tracks[0].Routes = &routes
	change(&p.Tracks[0])
	require.NoError(t, p.Validate())
	return p, route.NewOutlets(p)
}

func on(tick score.Tick, key uint8) midi.Message {
	return midi.Message{Tick: tick, Track: 1, Kind: midi.NoteOn, Key: key, Velocity: 90}
}

func off(tick score.Tick, key uint8) midi.Message {
	return midi.Message{Tick: tick, Track: 1, Key: key}
}

// where returns output, channel from 1, key and velocity of what goes out.
func where(sent []route.Sent) (all [][4]int) {
	for _, s := range sent {
		all = append(all, [4]int{s.Output, int(s.Channel) + 1, int(s.Key), int(s.Velocity)})
	}
	return all
}

// Three voices on channels 4 to 6: each note on the one that was free the longest, a fourth beside the oldest, and each ends where it began.
// A controller goes to all of them.
func TestNotesGoToVoices(t *testing.T) {
	r := score.WholeRoute(7)
	r.Channel, r.Voices = 4, 3
	_, o := ofRoutes(t, func(*score.Track) {}, r)
	require.Equal(t, [][4]int{{7, 4, 60, 90}, {7, 5, 64, 90}}, where(o.Play([]midi.Message{on(0, 60), on(0, 64)}, nil)))
	require.Equal(t, [][4]int{{7, 4, 60, 0}}, where(o.Play([]midi.Message{off(10, 60)}, nil)))
	require.Equal(t, [][4]int{{7, 6, 67, 90}}, where(o.Play([]midi.Message{on(20, 67)}, nil)), "free the longest")
	require.Equal(t, [][4]int{{7, 4, 71, 90}}, where(o.Play([]midi.Message{on(30, 71)}, nil)))
	require.Equal(t, [][4]int{{7, 5, 74, 90}}, where(o.Play([]midi.Message{on(40, 74)}, nil)), "none is free, and that was struck first")
	require.Equal(t, [][4]int{{7, 5, 64, 0}, {7, 5, 74, 0}}, where(o.Play([]midi.Message{off(50, 64), off(50, 74)}, nil)))
	wheel := midi.Message{Tick: 60, Track: 1, Kind: midi.ControlChange, Key: 1, Value: 9}
	require.Equal(t, [][4]int{{7, 4, 1, 0}, {7, 5, 1, 0}, {7, 6, 1, 0}}, where(o.Play([]midi.Message{wheel}, nil)))
	require.Equal(t, [][4]int{{7, 6, 67, 90}}, where(o.Standing(on(70, 67))), "where it sounds")

	r.Channel = 15
	_, o = ofRoutes(t, func(*score.Track) {}, r)
	require.Equal(t, [][4]int{{7, 15, 60, 90}, {7, 16, 62, 90}, {7, 15, 64, 90}}, where(o.Play([]midi.Message{on(0, 60), on(0, 62), on(0, 64)}, nil)), "there are 16 channels")
}

// A part of a kit with a route of its own goes by that alone; the others by the kit's.
func TestAPartOfAKitGoesElsewhere(t *testing.T) {
	part := score.WholeRoute(8)
	part.OnlyPart, part.Part, part.Octave = true, 2, 1
	_, o := ofRoutes(t, func(kit *score.Track) {
		kit.Kind = score.Kit
		parts := &kit.Patterns[0].Parts
		first := (*parts)[0].Clone()
		first.ID, first.Note = 1, 36
		second := first.Clone()
		second.ID, second.Note = 2, 38
		*parts = []score.Part{first, second}
	}, score.WholeRoute(7), part)
	require.Equal(t, [][4]int{{7, 1, 36, 90}, {7, 1, 40, 90}, {8, 1, 50, 90}}, where(o.Play([]midi.Message{on(0, 36), on(0, 38), on(0, 40)}, nil)))
	require.Equal(t, [][4]int{{7, 1, 36, 0}, {7, 1, 40, 0}, {8, 1, 50, 0}}, where(o.Play([]midi.Message{off(9, 36), off(9, 38), off(9, 40)}, nil)))
}

// The curve as its documentation has it: by hand for some velocities, ends and order for all.
func TestTheCurveOfVelocities(t *testing.T) {
	curved := func(curve int, velocity uint8) int {
		r := score.WholeRoute(7)
		r.Curve = curve
		_, o := ofRoutes(t, func(*score.Track) {}, r)
		m := on(0, 60)
		m.Velocity = velocity
		return int(o.Play([]midi.Message{m}, nil)[0].Velocity)
	}
	for _, c := range [][3]int{{0, 64, 64}, {100, 64, 96}, {-100, 64, 32}, {50, 1, 1}, {100, 1, 2}, {-100, 1, 1}, {-100, 11, 1}, {50, 100, 111}} {
		require.Equal(t, c[2], curved(c[0], uint8(c[1])), "%v", c)
	}
	for _, curve := range []int{-100, -33, 0, 70, 100} {
		last := 0
		for v := uint8(1); v <= 127; v++ {
			now := curved(curve, v)
			require.GreaterOrEqual(t, now, max(1, last))
			last = now
		}
		require.Equal(t, 127, last)
	}
}

// A route's program is selected in the place of the track's, once, on all its channels; another one while playing at once, without a note
// ending. A curve that is another ends none either.
func TestARouteHasAProgram(t *testing.T) {
	own := score.WholeRoute(7)
	own.Program, own.Bank, own.Channel, own.Voices, own.Lead = 12, 130, 3, 2, 500
	follows := score.WholeRoute(8)
	p, o := ofRoutes(t, func(track *score.Track) { track.Program, track.Bank = 5, 0 }, own, follows)
	program := func(tick score.Tick, channel, program uint8, bank uint16) midi.Message {
		return midi.Message{Tick: tick, Track: 1, Kind: midi.Program, Channel: channel, Key: program, Value: bank}
	}
	require.Equal(t, 500, o.Lead())
	require.Equal(t, []route.Sent{{7, program(0, 2, 11, 130)}, {7, program(0, 3, 11, 130)}, {8, program(0, 0, 4, 0)}}, o.Programs(p, 0, nil))
	require.Empty(t, o.Play([]midi.Message{program(0, 0, 4, 0)}, nil), "that is what is selected")
	require.Equal(t, []route.Sent{{8, program(5, 0, 9, 0)}}, o.Play([]midi.Message{program(5, 0, 9, 0)}, nil), "as by a mod lane")
	require.Len(t, o.Play([]midi.Message{on(10, 60)}, nil), 2)
	next := p.Clone()
	other := own
	other.Program, other.Curve, other.Softest = 13, 40, 20
	next.Tracks[0].Routes = &[]score.Route{other, follows}
	ends, begun := o.Change(next, 20, nil)
	require.Empty(t, ends)
	require.Equal(t, []route.Begun{{Track: 1, Route: other, Known: true}}, begun)
	require.Equal(t, []route.Sent{{7, program(20, 2, 12, 130)}, {7, program(20, 3, 12, 130)}}, o.Begin(begun[0], 20, nil, []midi.Message{on(20, 60)}, nil))
	require.Equal(t, []route.Sent{{7, program(30, 2, 12, 130)}, {7, program(30, 3, 12, 130)}}, o.OwnPrograms(30))
	require.Len(t, o.Play([]midi.Message{off(40, 60)}, nil), 2)
}

// What sounds of a track is cut, on every output, and does not end a second time; one that has its outputs wait begins there with its next
// note.
func TestATrackIsCutAndWaits(t *testing.T) {
	p, o := ofRoutes(t, func(track *score.Track) { track.ChaseWaits = true }, score.WholeRoute(7), score.WholeRoute(8))
	o.Play([]midi.Message{on(0, 60), on(0, 64)}, nil)
	require.Equal(t, [][4]int{{7, 1, 60, 0}, {7, 1, 64, 0}, {8, 1, 60, 0}, {8, 1, 64, 0}}, where(o.Cut(1, 10, nil)))
	require.Empty(t, o.Play([]midi.Message{off(20, 60), off(20, 64)}, nil))
	require.True(t, o.Waits(1))
	next := p.Clone()
	next.Tracks[0].Routes = &[]score.Route{score.WholeRoute(8)}
	o.Change(next, 30, nil)
	o.Play([]midi.Message{on(40, 60)}, nil)
	_, begun := o.Change(p, 50, nil)
	require.Len(t, begun, 1)
	require.Empty(t, o.Begin(begun[0], 50, nil, []midi.Message{on(50, 60)}, nil))
	p.Tracks[0].ChaseWaits = false
	require.Equal(t, [][4]int{{7, 1, 60, 90}}, where(o.Begin(begun[0], 50, nil, []midi.Message{on(50, 60)}, nil)))
}

// A traveller of a field with a route of its own goes there alone, also where another is struck on its key at the same time; the rest goes by the track's routes. By hand.
func TestATravellerHasItsOwnOutput(t *testing.T) {
	p := testkit.Buoy()
	p.Outputs = []score.Output{{ID: 7, Name: "Synth", Kind: score.BrowserPort}}
	track := score.TrackOf(p, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{score.NewFieldPart()}})
	track.Patterns[0].Parts[0].Field = &score.Field{
		Columns: 2, Rows: 1, Cells: []score.Cell{{Note: true}, {Column: 1, Note: true, Degree: 2}},
		Travellers: []score.Traveller{score.NewTraveller(4, 0, 0), score.NewTraveller(9, 0, 0)},
	}
	own := score.WholeRoute(7)
	own.OnlyPart, own.Part, own.Channel = true, 9, 3
	track.Routes = &[]score.Route{score.WholeRoute(score.BuiltIn), own}
	p.Tracks = []score.Track{track}
	require.NoError(t, p.Validate())
	const eighth = score.TicksPerQuarter / 2
	starts := map[int]int{}
	for _, s := range route.NewOutlets(p).Play(route.NewPlayer(p, 0, play.Past{}).Advance(4*eighth, nil), nil) {
		if s.Kind == midi.NoteOn {
			starts[s.Output]++
			require.Equal(t, s.Output == 7, s.Channel == 2)
		}
	}
	require.Equal(t, map[int]int{score.BuiltIn: 4, 7: 4}, starts)
	p.Tracks[0].Routes = nil
	messages := route.NewPlayer(p, 0, play.Past{}).Advance(eighth, nil)
	require.Len(t, messages, 2, "in unison they are one note")
	require.Zero(t, messages[0].Traveller)
}
