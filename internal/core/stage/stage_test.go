package stage_test

import (
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
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
			case "length", "first": // which bound each other
			default:
				require.Equal(t, change.Value, value, change)
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
		require.Equal(t, s.Stopped().On(p), after)
		if slices.ContainsFunc(s.Stopped().Differing(after), func(left stage.Change) bool { return left.Control.Name == "length" }) {
			return // it is cut at the last step of a lane, and stored as it was cut
		}
		require.Equal(t, s, s.Edited(edit, p, after), "what is stored stays")
		require.Empty(t, s.Stopped().Differing(after))
		back, _, err := score.Apply(after, inverse)
		require.NoError(t, err)
		require.Equal(t, s.On(after).Tracks, s.On(back).Tracks, "undoing what was stored changes nothing that plays")
	})
	require.Greater(t, stored, 20)
}

// One action after another makes of a project what the stage makes of it at once, also where controls are let go of.
func TestStepsLeadToTheStage(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		var s stage.Stage
		now := p
		for range rapid.IntRange(1, 8).Draw(t, "actions") {
			change := testkit.Change(t, p)
			value := &change.Value
			if rapid.IntRange(0, 3).Draw(t, "lets go") == 3 {
				if all := s.Changes(); len(all) > 0 {
					change.Control, value = rapid.SampledFrom(all).Draw(t, "of").Control, nil
				}
			}
			s = s.After(change.Control, value)
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
