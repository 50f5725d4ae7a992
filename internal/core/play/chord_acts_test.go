package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// changed is an act on track 1 that counts from a tick on, issued a step before.
func changed(tick score.Tick, change func(t *score.Track)) play.Act {
	return play.Act{Number: 1, Issued: tick - sixteenths, Tick: tick, Tracks: []int{1}, Change: func(p *score.Project) *score.Project {
		after := p.Clone()
		change(&after.Tracks[0])
		return after
	}}
}

// What is done while it plays leaves the chord as it is held, and where its order is; another pattern has the chord, and begins the order.
func TestActsLeaveTheChord(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.Up})
	second := p.Tracks[0].Clone().Patterns[0]
	second.ID, second.Name = 9, "Second"
	p.Tracks[0].Patterns = append(p.Tracks[0].Patterns, second)
	for name, c := range map[string]struct {
		change func(t *score.Track)
		want   []int
	}{
		"velocity": {func(t *score.Track) { t.Patterns[0].Parts[0].Lanes.Velocity.Amount = 50 }, []int{60, 64, 67, 60, 64, 67, 60, 64}},
		"pattern":  {func(t *score.Track) { t.Playing = 9 }, []int{60, 64, 67, 60, 60, 64, 67, 60}},
	} {
		t.Run(name, func(t *testing.T) {
			f := play.NewPerformer(p)
			hold(f, 0, 60, 64, 67)
			f.Act(changed(4*sixteenths, c.change))
			require.Equal(t, c.want, keysOf(f.Advance(8*sixteenths, nil), 1))
		})
	}
}

// A curve goes on being sent over a change of the pattern, without what was sent before.
func TestCurvesGoOnOverAPattern(t *testing.T) {
	p := sounding(t, score.Modulator{Shape: score.RampShape, Times: 1, Value: "1/1"})
	p.Modulators[0].Sends = []score.ModulatorSend{{Track: 1, Mod: score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}}}
	p.Tracks[0].Parts()[0].Mods = nil
	second := p.Tracks[0].Clone().Patterns[0]
	second.ID, second.Name = 9, "Second"
	p.Tracks[0].Patterns = append(p.Tracks[0].Patterns, second)
	require.NoError(t, p.Validate())
	want := sendsOf(play.NewPerformer(p), 12*sixteenths)
	f := play.NewPerformer(p)
	f.Act(changed(4*sixteenths, func(t *score.Track) { t.Playing = 9 }))
	require.Equal(t, want, sendsOf(f, 12*sixteenths))
}

// From a far bar on, what a track sends that has nothing to play is what it would have sent all along.
func TestAnIdleTrackSendsItsCurve(t *testing.T) {
	p := sounding(t, score.Modulator{Shape: score.RampShape, Times: 3, Value: "1/4"})
	p.Modulators[0].Sends = []score.ModulatorSend{{Track: 1, Mod: score.Mod{Target: score.ControlTarget, Number: 74, Most: 127}}}
	p.Tracks[0].Parts()[0].Mods = nil
	p.Tracks[0].Source = score.Source{Kind: score.InputNotes, Highest: 127, Odds: 100}
	require.NoError(t, p.Validate())
	all := play.NewPerformer(p)
	sendsOf(all, 200*sixteenths)
	far := play.NewPerformerAt(p, 200*sixteenths, play.Past{})
	require.Equal(t, all.Standing(nil), far.Standing(nil))
	require.Equal(t, sendsOf(all, 220*sixteenths), sendsOf(far, 220*sixteenths))
}

// A step whose chord is empty does not sound, as its forecast says.
func TestAnEmptyChordIsSilent(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.MapPitches, Map: 1})
	p.ChordMaps = []score.ChordMap{{ID: 1, Name: "Map", Chords: []score.MapChord{{Keys: []int{60, 63}}, {Keys: []int{}}}}}
	pitch := p.Tracks[0].Parts()[0].Lanes.Pitch
	pitch.First, pitch.Length, pitch.Rate, pitch.Moves = 0, 2, "1/16", score.ByClock
	pitch.Steps[1] = 1
	require.NoError(t, p.Validate())
	for i, f := range play.Look(p, 1, 0, 8*sixteenths)[0].Forecasts {
		require.Equal(t, i%2 == 0, f.Sounds, i)
	}
	require.Len(t, play.Render(p, 0, 8*sixteenths, nil), 8)

	p.ChordMaps[0].Led = true
	p.ChordMaps[0].Chords = []score.MapChord{{Keys: []int{60, 64, 67}}, {Keys: []int{}}, {Keys: []int{77, 81, 84}}}
	pitch.Length = 3
	pitch.Steps[2] = 2
	require.Equal(t, []int{60, 64, 67, 60, 65, 69}, keysOf(play.Render(p, 0, 3*sixteenths, nil), 1), "led from the chord before the empty one")
	after := p.Clone()
	after.ChordMaps[0].Led = false
	ids, _ := play.Replayed(p, after)
	require.Equal(t, []int{1}, ids, "what is called depends on the map")
}

// Of two rules for a role the first that applies counts; notes that come to one key are struck once.
func TestOneRuleANote(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.AllAtOnce, Rules: []score.RoleRule{
		{Role: theory.FifthRole, Semitones: 2, Odds: 100}, {Role: theory.FifthRole, Semitones: 3, Odds: 100}, {Role: theory.ThirdRole, Semitones: -4, Odds: 100},
	}})
	f := play.NewPerformer(p)
	hold(f, 0, 60, 64, 67)
	require.Equal(t, []int{60, 69}, keysOf(f.Advance(1, nil), 1))
}

// What several parts of a kit strike at a moment is one chord.
func TestAKitsChord(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.Up})
	kit := p.Tracks[0].Clone()
	kit.ID, kit.Name, kit.Kind, kit.Channel, kit.Pitches = 2, "Kit", score.Kit, 10, nil
	part := kit.Patterns[0].Parts[0]
	part.Note = 36
	other := part
	other.ID, other.Name, other.Note = part.ID+1, "Other", 41
	kit.Patterns[0].Parts = []score.Part{part, other}
	p.Tracks = append(p.Tracks, kit)
	p.Tracks[0].Pitches.Kind, p.Tracks[0].Pitches.Track = score.TrackPitches, 2
	require.NoError(t, p.Validate())
	require.Equal(t, []int{36, 41, 36, 41}, keysOf(play.Render(p, 0, 4*sixteenths, nil), 1))
}

// Where time calls the chords of a map, each lasts as many quarter notes as it says, or four, from the beginning of the song over and over; an order goes on
// through them, the 21st strike being the third of three notes, and an empty one is silent. By hand, in 16ths.
func TestAMapRunsInTime(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.MapPitches, Map: 1, InTime: true, Order: score.Up})
	p.ChordMaps = []score.ChordMap{{ID: 1, Name: "Tides", Chords: []score.MapChord{{Keys: []int{60, 64, 67}, Beats: 1}, {Keys: []int{}, Beats: 1}, {Keys: []int{50, 53}}}}}
	require.NoError(t, p.Validate())
	want := []int{60, 64, 67, 60, 50, 53, 50, 53, 50, 53, 50, 53, 50, 53, 50, 53, 50, 53, 50, 53, 67, 60, 64, 67}
	notes := play.Render(p, 0, 28*sixteenths, nil)
	require.Equal(t, want, keysOf(notes, 1))
	require.Equal(t, 8*sixteenths, notes[4].Start, "a quarter note is silent")
	p.ChordMaps = nil
	require.Empty(t, play.Render(p, 0, 28*sixteenths, nil), "of a map that is gone")
	p.Tracks[0].Pitches.ByNote = true
	require.Error(t, p.Validate(), "notes call, or time")
}

// A track that plays only while keys are held, whatever its pitches are from: from the key, over a chord of a map, latched, and as a kit.
func TestPlaysOnlyWhileHeld(t *testing.T) {
	steps := func(p *score.Project) (steps []int) {
		f := play.NewPerformer(p)
		hold(f, 2*sixteenths, 40)
		release(f, 5*sixteenths, 40)
		hold(f, 8*sixteenths, 90) // does not count
		for _, n := range f.Advance(10*sixteenths, nil) {
			steps = append(steps, int(n.Start/sixteenths))
		}
		return steps
	}
	source := score.PitchSource{Kind: score.KeyPitches, OnlyHeld: true, Highest: 80}
	p := arpeggiated(t, source)
	require.Equal(t, []int{2, 3, 4}, steps(p))
	require.NotContains(t, keysOf(play.Render(p, 0, 10*sixteenths, nil), 1), 40)
	p.Tracks[0].Pitches.Latched = true
	require.Equal(t, []int{2, 3, 4, 5, 6, 7, 8, 9}, steps(p))
	source.Kind, source.Map, source.InTime, source.Order = score.MapPitches, 1, true, score.Up
	p = arpeggiated(t, source)
	p.ChordMaps = []score.ChordMap{{ID: 1, Name: "Tides", Chords: []score.MapChord{{Keys: []int{60}}}}}
	require.Equal(t, []int{2, 3, 4}, steps(p))
	p.Tracks[0].Pitches.InTime, p.Tracks[0].Pitches.ByNote = false, true
	require.Equal(t, []int{2, 3, 4}, steps(p), "the chord that was called stays, and is not played")
	p = sounding(t)
	p.Tracks[0].Kind = score.Kit
	p.Tracks[0].Pitches = &score.PitchSource{Kind: score.KeyPitches, OnlyHeld: true, Highest: 80}
	require.NoError(t, p.Validate())
	require.Equal(t, []int{2, 3, 4}, steps(p))
	p.Tracks[0].Pitches.OnlyHeld = false
	require.Error(t, p.Validate(), "then it says nothing")
	p.Tracks[0].Pitches.Kind = score.HeldPitches
	require.Error(t, p.Validate(), "a kit has notes of its own")
}

// The strum of a map takes the place of the part's, and says the way: downwards the highest note first.
func TestAMapStrums(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.MapPitches, Map: 1})
	part := &p.Tracks[0].Parts()[0]
	part.Voicing.Strum = 20
	p.ChordMaps = []score.ChordMap{{ID: 1, Name: "Tides", Chords: []score.MapChord{{Keys: []int{60, 64, 67}}}}}
	starts := func() (keys []int, starts []score.Tick) {
		for _, n := range play.Render(p, 0, sixteenths, nil) {
			keys, starts = append(keys, int(n.Key)), append(starts, n.Start)
		}
		return keys, starts
	}
	keys, at := starts()
	require.Equal(t, []int{60, 64, 67}, keys)
	require.Equal(t, []score.Tick{0, sixteenths / 10, sixteenths / 5}, at)
	p.ChordMaps[0].Strum = -50
	keys, at = starts()
	require.Equal(t, []int{67, 64, 60}, keys)
	require.Equal(t, []score.Tick{0, sixteenths / 4, sixteenths / 2}, at)
}

// What is held is back before others hear it at that moment, also where the track that is heard has no step of its own there.
func TestWhatIsHeldIsBackBeforeOthersHearIt(t *testing.T) {
	p := testkit.Plain(func(p *score.Project, track *score.Track, part *score.Part) {
		part.Lanes.Gate.Length, part.Lanes.Gate.Rate = 3, "1/4."
		for i := range part.Lanes.Gate.Steps {
			part.Lanes.Gate.Steps[i] = score.On
		}
		track.Hold = 1
		track.Patterns[0].Parts[0].Lanes.Pitch.Linked = false
		track.Patterns[0].Parts[0].Lanes.Pitch.Length = 5
		copy(track.Patterns[0].Parts[0].Lanes.Pitch.Steps, []int{0, 1, 2, 3, 4})
		follower := track.Clone()
		follower.ID, follower.Hold, follower.Name = 2, 0, "Follower"
		follower.Pitches = &score.PitchSource{Kind: score.TrackPitches, Track: 1, Highest: 127}
		follower.Patterns[0].Parts[0].Lanes.Gate.Rate = "1/16"
		p.Tracks = append(p.Tracks, follower)
	})
	var late []score.Tick
	for _, n := range play.Render(p, 0, 6*score.TicksPerQuarter, nil) {
		if n.Track == 2 && n.Start >= 3*score.TicksPerQuarter {
			late = append(late, n.Start)
		}
	}
	require.Equal(t, 3*score.TicksPerQuarter, late[0])
	require.NotContains(t, late, 4*score.TicksPerQuarter, "nothing was struck where the bar that is held began")
	require.Contains(t, late, 9*eighth, "until the track that is heard strikes again")
}
