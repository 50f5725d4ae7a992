package log_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// Where chains meet realignments, holds, loops of steps and loops of notes, by hand, pattern by pattern for each quarter. Every pattern
// has four steps of a sixteenth, so that a pass is a quarter.
func TestWhereChainsMeetOthers(t *testing.T) {
	next := func(passes int) *score.Chain { return &score.Chain{Passes: passes, To: score.ToNext} }
	drawn := &score.Chain{Passes: 1, To: score.ToDrawn, Weights: []score.PatternWeight{{Pattern: 0, Weight: 1}, {Pattern: 1, Weight: 1}}}
	long := func(p *score.Project, steps int) {
		for i := range p.Tracks[0].Patterns {
			p.Tracks[0].Patterns[i].Parts[0].Lanes.Gate.Length = steps
		}
	}
	for name, c := range map[string]struct {
		chains []*score.Chain
		change func(p *score.Project)
		want   []int
	}{
		// Passes of twelve sixteenths: the second is cut by the realignment at bar 2, where the third begins; so two are over there.
		"realigned": {[]*score.Chain{next(2), nil}, func(p *score.Project) { long(p, 12); p.Tracks[0].Realign = 1 }, []int{0, 0, 0, 0, 1, 1, 1, 1}},
		// What a chain draws is of the project, and no hold of a track brings it back: it is as without the hold.
		"held": {[]*score.Chain{drawn, drawn}, func(p *score.Project) { p.Tracks[0].Hold = 1 }, nil},
		// A pass is one of the steps that are looped.
		"looped steps": {[]*score.Chain{next(4), next(2), nil}, func(p *score.Project) {
			p.Tracks[0].Patterns[0].Parts[0].Held = score.HeldSteps{0, 9}
		}, []int{0, 0, 1, 1, 2, 2}},
		"half speed": {[]*score.Chain{next(1), next(1), nil}, func(p *score.Project) { p.Tracks[0].Speed = score.Ratio{N: 1, M: 2} }, []int{0, 0, 1, 1, 2, 2}},
		// The longest gate of a kit decides.
		"kit": {[]*score.Chain{next(1), nil}, func(p *score.Project) {
			p.Tracks[0].Kind = score.Kit
			for i := range p.Tracks[0].Patterns {
				part := p.Tracks[0].Patterns[i].Parts[0].Clone()
				part.ID, part.Lanes.Gate.Length = 1, 8
				p.Tracks[0].Patterns[i].Parts[0].Note, part.Note = 60+2*i, 60+2*i
				p.Tracks[0].Patterns[i].Parts = append(p.Tracks[0].Patterns[i].Parts, part)
			}
		}, []int{0, 0, 1, 1}},
	} {
		p := fourPatterns(c.chains...)
		want := c.want
		if want == nil {
			want = visited(&log.Log{Project: p}, 64)
			require.Contains(t, want, 0)
			require.Contains(t, want, 1)
		}
		c.change(p)
		require.NoError(t, p.Validate(), name)
		require.Equal(t, want, visited(&log.Log{Project: p}, len(want)), name)
	}
}

// While a track plays a loop of notes its patterns wait, and so does the chain; a section that names a pattern takes it over.
func TestAChainBesideALoopOfNotes(t *testing.T) {
	p := fourPatterns(&score.Chain{Passes: 1, To: score.ToNext}, nil)
	p.Tracks[0].Loop = &score.Loop{Length: 4 * quarter, Notes: []score.LoopNote{{Key: 40, Velocity: 90, Length: quarter}}}
	require.NoError(t, p.Validate())
	var keys []int
	for _, m := range noteOns(&log.Log{Project: p}, 0, 12*quarter) {
		keys = append(keys, int(m.Key))
	}
	require.Equal(t, []int{40, 40, 40}, keys)
}

// A section takes a track out of its chain, whose passes count from there; a jump into a bar finds the chain as it was played.
func TestSectionsAndChains(t *testing.T) {
	p := fourPatterns(&score.Chain{Passes: 2, To: score.ToNext}, &score.Chain{Passes: 3, To: score.ToNext}, &score.Chain{Passes: 1, To: score.ToPattern, Pattern: 0})
	p.Scenes = []score.Scene{{ID: 1, Name: "Third", Values: []score.SceneValue{{Control: score.ControlAddress{Name: "pattern", Track: 1}, Value: 2}}}}
	p.Song = []score.Section{{ID: 1, Name: "Ebb", Bars: 1, Repeats: 1}, {ID: 2, Name: "Flood", Scene: 1, Bars: 2, Repeats: 1}}
	require.NoError(t, p.Validate())
	l := &log.Log{Project: p, PlaysSong: true}
	want := []int{0, 0, 1, 1, 2, 0, 0, 1, 1, 1, 2, 0}
	require.Equal(t, want, visited(l, 12))
	from := *l
	from.From = 2 * bar
	require.Equal(t, slices.Clone(want[8:]), visited(&from, 4), "playing begins in bar 3")
}

// A section's meter and the swing that bends its bars: pairs are counted from the bar line, and what goes by bars goes by those of
// the section. In 5/8 with swing of 60 % on a grid of eighths the fifth eighth has no partner, and is straight.
func TestASectionsMeterSwings(t *testing.T) {
	p := fourPatterns()
	part := &p.Tracks[0].Patterns[0].Parts[0]
	part.Lanes.Gate.Rate = "1/8"
	p.Swing, p.SwingGrid = 600, "1/8"
	p.Song = []score.Section{{ID: 1, Name: "Ebb", Bars: 1, Repeats: 1}, {ID: 2, Name: "Flood", Bars: 1, Repeats: 2, Meter: &score.Meter{Beats: 5, Unit: 8}}}
	p.Tracks[0].Realign = 1
	require.NoError(t, p.Validate())
	var starts []score.Tick
	for _, m := range noteOns(&log.Log{Project: p, PlaysSong: true}, 0, bar+5*quarter) {
		starts = append(starts, m.Tick)
	}
	const eighth = quarter / 2
	var want []score.Tick
	for _, line := range []score.Tick{0, bar, bar + 5*eighth} {
		for i := range score.Tick(8) {
			if line > 0 && i == 5 {
				break
			}
			at := line + i*eighth
			if i%2 == 1 {
				at += quarter / 10 // 60 % of a quarter in place of 50
			}
			want = append(want, at)
		}
	}
	require.Equal(t, want, starts)
	// every 2 bars of the song, whatever their meters: realigned at the third bar, in the middle of the gate's loop of three
	part.Lanes.Gate.Length, p.Swing, p.Tracks[0].Realign = 3, score.Straight, 2
	part.Lanes.Pitch.Steps[0], part.Lanes.Pitch.Steps[1], part.Lanes.Pitch.Steps[2] = 0, 1, 2
	keys := []uint8{}
	for _, m := range noteOns(&log.Log{Project: p, PlaysSong: true}, bar, bar+10*eighth) {
		keys = append(keys, m.Key)
	}
	require.Equal(t, []uint8{64, 60, 62, 64, 60, 60, 62, 64, 60, 62}, keys)
}

// A mute that a section gives and one of a hand, and a scene that a hand does at the bar where a section begins: the hand's counts.
func TestAHandAtTheBarOfASection(t *testing.T) {
	p := fourPatterns()
	p.Scenes = []score.Scene{{ID: 1, Name: "Second", Values: []score.SceneValue{{Control: score.ControlAddress{Name: "pattern", Track: 1}, Value: 1}}}}
	for _, takesOver := range []bool{false, true} {
		p.Song = []score.Section{{ID: 1, Name: "Ebb", Bars: 1, Repeats: 1}, {ID: 2, Name: "Flood", Scene: 1, Bars: 1, Repeats: 1, TakesOver: takesOver}}
		three := 3
		hand := log.Entry{Tick: quarter, Action: &log.Action{Control: stage.Control{Name: "pattern", Track: 1}, Value: &three, At: 2 * quarter}}
		want := []int{0, 0, 3, 3, 3, 3, 3, 3}
		if takesOver {
			want = []int{0, 0, 3, 3, 1, 1, 1, 1}
		}
		require.Equal(t, want, visited(&log.Log{Project: p, PlaysSong: true, Entries: []log.Entry{hand}}, 8))
	}
}
