package stage_test

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

func drawn(t *rapid.T, p *score.Project) (s stage.Stage) {
	for range rapid.IntRange(0, 6).Draw(t, "changes") {
		change := testkit.Change(t, p)
		s = s.With(change.Control, change.Value)
	}
	return s
}

// What live changes make of a project is valid, has their values, and is what storing them writes; the project itself
// stays as it is.
func TestLiveChangesAreWhatTheyStore(t *testing.T) {
	stored := 0
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		before := p.Clone()
		s := drawn(t, p)
		on := s.On(p)
		require.NoError(t, on.Validate())
		require.Equal(t, before, p)
		for _, change := range s.Changes() {
			value, there := change.Control.Written(on)
			require.True(t, there)
			switch change.Control.Name {
			case "push": // is nowhere written
			case "length", "first", "lowest", "highest": // which bound each other
			case "tempo": // which is pushed
			default:
				effective, _ := s.Effective(p, change.Control)
				require.Equal(t, effective, value, change)
			}
		}
		for _, change := range s.Changes() {
			if strings.HasSuffix(change.Control.Name, "est") {
				return // a register that cannot be is not stored
			}
		}
		edit, any := s.Store(p)
		require.Equal(t, len(s.Stopped().Differing(p)) > 0, any)
		if !any {
			return
		}
		stored++
		after, inverse, err := score.Apply(p, edit)
		require.NoError(t, err)
		require.Equal(t, s.Stopped().On(p), stage.Stage{}.On(after), "which macros move as before")
		if slices.ContainsFunc(s.Stopped().Differing(after), func(left stage.Change) bool { return left.Control.Name == "length" }) {
			return // it is cut at the last step of a lane, and stored as it was cut
		}
		require.Equal(t, s, s.Edited(edit, p, after), "what is stored stays")
		require.Empty(t, s.Stopped().Differing(after))
		back, _, err := score.Apply(after, inverse)
		require.NoError(t, err)
		require.Equal(t, s.On(after).Tracks, s.On(back).Tracks, "undoing what was stored changes nothing that plays")
	})
	require.Greater(t, stored, 5)
}

// One action after another makes of a project what the stage makes of it at once, also where controls are let go of.
func TestStepsLeadToTheStage(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		var s stage.Stage
		now := s.On(p)
		for range rapid.IntRange(1, 8).Draw(t, "actions") {
			change := testkit.Change(t, p)
			value := &change.Value
			if rapid.IntRange(0, 3).Draw(t, "lets go") == 3 {
				if all := s.Changes(); len(all) > 0 {
					change.Control, value = rapid.SampledFrom(all).Draw(t, "of").Control, nil
				}
			}
			if value != nil && rapid.IntRange(0, 3).Draw(t, "by the song") == 3 {
				s = s.Under(change.Control, *value, rapid.Bool().Draw(t, "takes over"))
			} else {
				s = s.After(change.Control, value)
			}
			now = s.Step(p, change.Control)(now)
			want := s.On(p)
			want.Luck.Former, now.Luck.Former = nil, nil
			require.Equal(t, want, now)
		}
	})
}

func TestWhatAnEditLeavesOfLiveChanges(t *testing.T) {
	p := testkit.Buoy()
	track := p.Tracks[0].ID
	mute, solo := stage.Control{Name: "mute", Track: track}, stage.Control{Name: "solo", Track: track}
	s := stage.Stage{}.With(mute, 1).With(solo, 1)
	after := func(edit score.Edit) (stage.Stage, *score.Project) {
		next, _, err := score.Apply(p, edit)
		require.NoError(t, err)
		return s.Edited(edit, p, next), next
	}
	is, off := true, false
	kept, _ := after(score.SetTrack{Track: track, Mute: &is})
	require.Equal(t, s, kept, "the same value is written")
	p.Tracks[0].Mute = true
	left, _ := after(score.SetTrack{Track: track, Mute: &off})
	require.Equal(t, []stage.Change{{Control: solo, Value: 1}}, left.Changes(), "another is")
	left, _ = after(score.Replace{Project: *score.Blank()})
	require.Empty(t, left.Changes())

	// What is deleted takes its live changes along, and brings them back; what is new in its place has none.
	p = testkit.Buoy()
	p, _, err := score.Apply(p, score.AddTrack{At: 1, Kind: score.Melodic})
	require.NoError(t, err)
	second := p.Tracks[1].ID
	s = s.With(stage.Control{Name: "mute", Track: second}, 1)
	rests, without := after(score.RemoveTrack{Track: second})
	require.Equal(t, s, rests)
	require.Len(t, rests.Differing(without), 2)
	require.Same(t, p, stage.Stage{}.On(p))
	again, _, err := score.Apply(without, score.AddTrack{At: 1, Kind: score.Melodic})
	require.NoError(t, err)
	require.Equal(t, second, again.Tracks[1].ID)
	require.Len(t, rests.Edited(score.AddTrack{At: 1, Kind: score.Melodic}, without, again).Changes(), 2)
}

func TestWhatAControlRefuses(t *testing.T) {
	p := testkit.Buoy()
	track := p.Tracks[0].ID
	part := stage.Control{Track: track, Pattern: p.Tracks[0].Playing, Part: p.Tracks[0].Parts()[0].ID}
	lane := func(name string, lane score.LaneName) stage.Control {
		c := part
		c.Name, c.Lane = name, lane
		return c
	}
	for _, c := range []struct {
		control stage.Control
		value   int
		says    string
	}{
		{stage.Control{Name: "brightness"}, 1, `control.name is "brightness"; it must be a control of a project`},
		{stage.Control{Name: "brightness", Track: track}, 1, `control.name is "brightness"; it must be a control of a part`},
		{stage.Control{Name: "mute", Track: 99}, 1, "mute of track 99: what it would change is not there any more"},
		{stage.Control{Name: "mute", Track: track}, 2, "mute is 2; it must be 0 to 1"},
		{stage.Control{Name: "pattern", Track: track}, 77, "playing is 77"},
		{lane("length", score.Gate), 65, "length is 65; it must be 1 to 64"},
		{lane("length", score.Mod7), 3, "not there any more"},
		{lane("length", "brightness"), 3, "not there any more"},
		{lane("depth", score.Gate), 3, "not there any more"},
	} {
		err := c.control.Check(p, c.value)
		require.Error(t, err, c)
		require.Contains(t, err.Error(), c.says)
	}
}

// Every control says its value in words, and the list of live changes survives being stored.
func TestWordsAndForm(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		s := drawn(t, p)
		for _, change := range s.Changes() {
			require.NotEmpty(t, change.Control.Words(p))
			require.NotEmpty(t, change.Control.ValueWords(p, change.Value))
		}
		data, err := json.Marshal(s.Changes())
		require.NoError(t, err)
		var read []stage.Change
		require.NoError(t, json.Unmarshal(data, &read))
		require.Equal(t, s, stage.Of(read))
	})
	p := testkit.Buoy()
	require.Equal(t, "length", stage.Control{Name: "length"}.Words(p), "of what is not there only the name is known")
	require.Equal(t, "58.3 %", stage.Control{Name: "swing"}.ValueWords(p, 583))
	require.Equal(t, "on", stage.Control{Name: "fill"}.ValueWords(p, 1))
}

func TestNamesAreDifferent(t *testing.T) {
	seen := map[[2]string]bool{}
	for _, spec := range stage.Specs() {
		key := [2]string{string(spec.Of), spec.Name}
		require.False(t, seen[key], key)
		seen[key] = true
		require.LessOrEqual(t, spec.Min, spec.Max)
	}
}

// The bounds of controls are those of the document: written out by hand, both ends are accepted, and what lies beyond is
// refused.
func TestBoundsOfControls(t *testing.T) {
	p := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
		part.Lanes.Velocity.Spread = &score.Spread{Chance: 50, Depth: 50, Lowest: -5, Highest: 5, Grain: 1}
		track.Patterns = append(track.Patterns, track.Clone().Patterns[0])
		track.Patterns[1].ID = 255
		for _, id := range []int{1, 1_000_000} {
			p.Song = append(p.Song, score.Section{ID: id, Name: "Ebb", Bars: 1, Meter: &score.Meter{Beats: 3, Unit: 4}, Key: &p.Key})
		}
	})
	p.Macros = []score.Macro{{ID: 1, Name: "Swell"}}
	p.Modulators = []score.Modulator{{ID: 1, Name: "Tide", Shape: score.ControlShape}}
	p.Tracks = append(p.Tracks, score.TrackOf(p, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{score.NewFieldPart()}}))
	bounds := map[string][2]int{
		"macro macro": {0, 1000}, "modulator modulation": {0, 100},
		"project push": {-500, 500}, "project tempo": {10_000, 400_000}, "project luck": {0, 999_999}, "project fill": {0, 1}, "project swing": {500, 750},
		"track mute": {0, 1}, "track solo": {0, 1}, "track active": {0, 1}, "track pattern": {0, 255}, "track degrees": {-28, 28},
		"track semitones": {-48, 48}, "track speed": {0, 255}, "track swing": {500, 750}, "track delay": {-20160, 20160},
		"track jitter": {0, 100}, "track probability": {-100, 100}, "track lowest": {0, 116}, "track highest": {11, 127}, "track hold": {0, 64}, "part part mute": {0, 1}, "part part fill": {0, 100}, "lane first": {0, 63},
		"lane length": {1, 64}, "lane rate": {0, 20}, "lane order": {0, 7}, "lane amount": {0, 200}, "lane depth": {0, 100}, "lane lean": {-100, 100}, "track realign": {1, 1}, "track evolve": {1, 1},
		"project meter": {1, 1_000_000}, "project key": {1, 1_000_000}, "project fill level": {0, 100}, "project section": {0, 1_000_000}, "project release": {1, 1},
		"project scene": {0, 1_000_000}, "project section that is on": {0, 1_000_000}, "project bar of the section": {0, 1_000_000},
		"part field values": {1, 255}, "part field arrows": {1, 255}, "part field travellers": {1, 255}, "part field rules": {1, 255},
		"part loop steps 1-16": {0, 65535}, "part loop steps 17-32": {0, 65535}, "part loop steps 33-48": {0, 65535}, "part loop steps 49-64": {0, 65535},
	}
	for _, spec := range stage.Specs() {
		bound, known := bounds[string(spec.Of)+" "+spec.Name]
		require.True(t, known, spec.Name)
		c := stage.Control{Name: spec.Name}
		switch spec.Of {
		case stage.OfProject:
		case stage.OfMacro, stage.OfModulator:
			c.ID = 1
		default:
			c.Track = p.Tracks[0].ID
		}
		if spec.Of == stage.OfLane {
			c.Lane = score.Velocity
		}
		if kind, of := strings.CutPrefix(spec.Name, "field "); of {
			c.Track = p.Tracks[1].ID
			p.FieldLayers = []score.FieldLayer{{ID: 1, Name: "Ebb", Kind: score.LayerKind(kind)}, {ID: 255, Name: "Flood", Kind: score.LayerKind(kind)}}
		}
		p.Tracks[0].Register = theory.Register{Lowest: 0, Highest: 127}
		for _, value := range bound {
			require.NoError(t, c.Check(p, value), "%s %d", spec.Name, value)
			require.NotEmpty(t, c.ValueWords(p, value))
		}
		require.Error(t, c.Check(p, bound[0]-1), spec.Name)
		require.Error(t, c.Check(p, bound[1]+1), spec.Name)
		require.True(t, len(spec.Values) == 0 || len(spec.Values) == spec.Max+1, spec.Name)
	}
	require.Equal(t, "3:2", stage.Control{Name: "speed", Track: p.Tracks[0].ID}.ValueWords(p, 2*16+1))
}

// Words say of which track, part and lane a control is.
func TestWordsOfControls(t *testing.T) {
	p := testkit.Demo()
	kit := p.Tracks[2]
	part := stage.Control{Name: "part mute", Track: kit.ID, Pattern: kit.Playing, Part: kit.Parts()[1].ID}
	require.Equal(t, kit.Name+", "+kit.Parts()[1].Name+": mute", part.Words(p))
	lane := part
	lane.Name, lane.Lane = "length", score.Gate
	require.Equal(t, kit.Name+", "+kit.Parts()[1].Name+": gate length", lane.Words(p))
	melodic := stage.Control{Name: "rate", Track: p.Tracks[0].ID, Part: p.Tracks[0].Parts()[0].ID, Lane: score.Gate}
	require.Equal(t, p.Tracks[0].Name+": gate rate", melodic.Words(p))
	require.Equal(t, "1/1.", melodic.ValueWords(p, 0))
	require.Equal(t, "A", stage.Control{Name: "pattern", Track: p.Tracks[0].ID}.ValueWords(p, p.Tracks[0].Playing))
	require.Equal(t, "99", stage.Control{Name: "pattern", Track: p.Tracks[0].ID}.ValueWords(p, 99))
	require.Equal(t, "3 ms", stage.Control{Name: "jitter", Track: p.Tracks[0].ID}.ValueWords(p, 3))
	require.Equal(t, "7", stage.Control{Name: "degrees", Track: 99}.ValueWords(p, 7))
	part.Name = "loop steps 17-32"
	require.Equal(t, "none", part.ValueWords(p, 0))
	require.Equal(t, "17, 19–21, 32", part.ValueWords(p, 0b1000_0000_0001_1101))
	part.Name = "part mute"
	require.True(t, part.Silences())
	require.False(t, lane.Silences())
	require.False(t, stage.Control{Name: "brightness"}.Silences())
	require.True(t, stage.Control{Name: "push"}.Momentary())
	require.False(t, stage.Control{Name: "brightness"}.Momentary())
}

// Steps of all rows are looped together, each row by a control of its own; without any a part plays its loop.
func TestLoopedSteps(t *testing.T) {
	p := testkit.Demo()
	track, part := p.Tracks[0], p.Tracks[0].Parts()[0]
	row := func(name string) stage.Control {
		return stage.Control{Name: name, Track: track.ID, Pattern: track.Playing, Part: part.ID}
	}
	held := func(s stage.Stage) score.HeldSteps { return s.On(p).Tracks[0].Parts()[0].Held }
	s := stage.Stage{}.With(row("loop steps 1-16"), 0b101).With(row("loop steps 49-64"), 1<<15)
	require.Equal(t, score.HeldSteps{0, 2, 63}, held(s))
	require.Equal(t, score.HeldSteps{63}, held(s.With(row("loop steps 1-16"), 0)))
	require.Empty(t, held(s.With(row("loop steps 1-16"), 0).Without(row("loop steps 49-64"))))
	edit, any := s.Store(p)
	require.True(t, any)
	stored, _, err := score.Apply(p, edit)
	require.NoError(t, err)
	require.Equal(t, score.HeldSteps{0, 2, 63}, stored.Tracks[0].Parts()[0].Held)
}

// Two ends of a register that cannot be together are both as they are written, in whichever order they are set.
func TestEndsThatCannotBeTogether(t *testing.T) {
	p := testkit.Buoy()
	p.Tracks[0].Register = theory.Register{Lowest: 30, Highest: 90}
	lowest, highest := stage.Control{Name: "lowest", Track: 1}, stage.Control{Name: "highest", Track: 1}
	for _, order := range [][]stage.Change{{{Control: lowest, Value: 60}, {Control: highest, Value: 63}}, {{Control: highest, Value: 63}, {Control: lowest, Value: 60}}} {
		var s stage.Stage
		now := p
		for _, change := range order {
			s = s.With(change.Control, change.Value)
			now = s.Step(p, change.Control)(now)
		}
		require.Equal(t, p.Tracks[0].Register, now.Tracks[0].Register)
		require.Equal(t, p.Tracks[0].Register, s.On(p).Tracks[0].Register)
		s = s.Without(order[0].Control)
		now = s.Step(p, order[0].Control)(now)
		require.Equal(t, s.On(p).Tracks[0].Register, now.Tracks[0].Register, "the other counts once it is alone")
	}
}

// A live change counts in place of what the song gives, which counts once it is let go of, unless that takes over; nothing of it is
// stored, and it ends with playing.
func TestWhatTheSongGivesIsUnderTheHand(t *testing.T) {
	p := testkit.Buoy()
	mute, tempo := stage.Control{Name: "mute", Track: 1}, stage.Control{Name: "tempo", Bar: 4}
	s := stage.Stage{}.Under(mute, 1, false)
	require.True(t, s.On(p).Tracks[0].Mute)
	require.Empty(t, s.Changes())
	require.Len(t, s.InForce(), 1)
	s = s.With(mute, 0)
	require.False(t, s.On(p).Tracks[0].Mute)
	require.True(t, s.Without(mute).On(p).Tracks[0].Mute)
	require.True(t, s.Under(mute, 1, true).On(p).Tracks[0].Mute)
	require.False(t, s.Written(mute).On(p).Tracks[0].Mute)
	_, any := stage.Stage{}.Under(mute, 1, false).Store(p)
	require.False(t, any)
	require.Empty(t, s.Without(mute).Stopped().InForce())
	require.Empty(t, s.Without(mute).Hand().InForce())
	require.False(t, s.Equal(s.Hand()))

	s = stage.Stage{}.Under(tempo, 60_000, false)
	require.Equal(t, []score.TempoChange{{Tick: p.Bars().Start(4), Tempo: 60_000}}, s.On(p).TempoChanges)
	hand := s.With(stage.Control{Name: "tempo"}, 90_000)
	require.Empty(t, hand.On(p).TempoChanges)
	require.Equal(t, score.Tempo(90_000), hand.On(p).Tempo)
	require.Len(t, hand.Under(tempo, 60_000, true).On(p).TempoChanges, 1)
	require.Equal(t, score.Tempo(63_000), s.With(stage.Control{Name: "push"}, 50).On(p).TempoChanges[0].Tempo)
	require.ErrorContains(t, stage.Control{Name: "mute", Track: 1, Bar: 4}.Check(p, 1), "control.bar is 4; it must be 0")
}
