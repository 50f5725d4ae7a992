package play_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// arpeggiated returns a project whose 16ths all sound, at a pitch lane of 0, with pitches from a source.
func arpeggiated(t require.TestingT, source score.PitchSource) *score.Project {
	p := sounding(t)
	track := &p.Tracks[0]
	track.Register = theory.Register{Lowest: 0, Highest: 127}
	track.Transpose = score.Transpose{}
	part := &track.Parts()[0]
	pitch := *part.Lanes.Pitch
	pitch.Steps, pitch.Spread, pitch.Amount, pitch.Weights, pitch.Own, pitch.Evolve = make([]int, score.MaxSteps), nil, 100, nil, nil, nil
	pitch.Linked, pitch.First, pitch.Length = false, 0, 1
	part.Lanes.Pitch, part.Lanes.Octave, part.Lanes.Chord, part.Lanes.Ratchet, part.Lanes.Alteration = &pitch, nil, nil, nil, nil
	if source.Highest == 0 {
		source.Highest = 127
	}
	track.Pitches = &source
	require.NoError(t, p.Validate())
	return p
}

func hold(f *play.Performer, tick score.Tick, keys ...uint8) {
	for _, key := range keys {
		f.Hear(midi.Message{Tick: tick, Kind: midi.NoteOn, Key: key, Velocity: 90})
	}
}

func release(f *play.Performer, tick score.Tick, keys ...uint8) {
	for _, key := range keys {
		f.Hear(midi.Message{Tick: tick, Kind: midi.NoteOff, Key: key})
	}
}

func keysOf(notes []play.Note, track uint32) (keys []int) {
	for _, n := range notes {
		if n.Track == track {
			keys = append(keys, int(n.Key))
		}
	}
	return keys
}

// All orders over a chord that was pressed as G4, C4, E4, B4, by hand.
func TestOrdersOfAChord(t *testing.T) {
	for name, c := range map[string]struct {
		source score.PitchSource
		want   []int
	}{
		"up":                  {score.PitchSource{Order: score.Up}, []int{60, 64, 67, 71, 60, 64}},
		"down":                {score.PitchSource{Order: score.Down}, []int{71, 67, 64, 60, 71, 67}},
		"up and down":         {score.PitchSource{Order: score.UpDown}, []int{60, 64, 67, 71, 67, 64, 60, 64}},
		"ends twice":          {score.PitchSource{Order: score.UpDownTwice}, []int{60, 64, 67, 71, 71, 67, 64, 60, 60, 64}},
		"as played":           {score.PitchSource{Order: score.AsPlayed}, []int{67, 60, 64, 71, 67, 60}},
		"inward":              {score.PitchSource{Order: score.Inward}, []int{60, 71, 64, 67, 60}},
		"outward":             {score.PitchSource{Order: score.Outward}, []int{67, 64, 71, 60, 67}},
		"over two octaves":    {score.PitchSource{Order: score.Up, Octaves: 2}, []int{60, 64, 67, 71, 72, 76, 79, 83, 60}},
		"to and fro over two": {score.PitchSource{Order: score.UpDown, Octaves: 2}, []int{60, 64, 67, 71, 72, 76, 79, 83, 79, 76}},
		"by the lane, at 0":   {score.PitchSource{}, []int{60, 60, 60}},
	} {
		t.Run(name, func(t *testing.T) {
			c.source.Kind = score.HeldPitches
			f := play.NewPerformer(arpeggiated(t, c.source))
			hold(f, 0, 67, 60, 64, 71)
			require.Equal(t, c.want, keysOf(f.Advance(score.Tick(len(c.want))*sixteenths, nil), 1))
		})
	}
}

// Without an order a pitch is the note of that number, on into the next octaves, downwards too; with octaves it begins anew. All at once is the chord from
// there on, which inverts it. By the definition in fields.md 2.
func TestPitchesAreNotesOfTheChord(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		degree, octaves := rapid.IntRange(-14, 14).Draw(t, "degree"), rapid.IntRange(0, 3).Draw(t, "octaves")
		chord := []int{60, 64, 67}
		at := func(n int) int {
			octave, place := n/3, n%3
			if place < 0 {
				octave, place = octave-1, place+3
			}
			if octaves > 0 {
				octave = ((octave % octaves) + octaves) % octaves
			}
			return chord[place] + 12*octave
		}
		for order, want := range map[score.ChordOrder][]int{score.ByLane: {at(degree)}, score.AllAtOnce: {at(degree), at(degree + 1), at(degree + 2)}} {
			p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: order, Octaves: octaves})
			p.Tracks[0].Transpose.Degrees = degree
			f := play.NewPerformer(p)
			hold(f, 0, 60, 64, 67)
			if order == score.AllAtOnce && octaves > 0 {
				continue // over all octaves
			}
			require.Equal(t, want, keysOf(f.Advance(1, nil), 1))
		}
	})
}

// Held notes count from the next step on and end with their keys; latched ones stay until another is pressed; what is not in the range or on the channel does not
// count, nor more than 24.
func TestHeldNotes(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.Up, Lowest: 50, Highest: 90, Channel: 1})
	f := play.NewPerformer(p)
	require.Empty(t, f.Advance(2*sixteenths, nil), "nothing is held")
	_, counts := f.Hear(midi.Message{Tick: 3*sixteenths - 1, Kind: midi.NoteOn, Key: 95, Velocity: 1})
	require.False(t, counts)
	_, counts = f.Hear(midi.Message{Tick: 3*sixteenths - 1, Kind: midi.NoteOn, Channel: 1, Key: 60, Velocity: 1})
	require.False(t, counts)
	hold(f, 3*sixteenths-1, 60, 64)
	release(f, 6*sixteenths, 60)
	release(f, 8*sixteenths, 64)
	require.Equal(t, []int{60, 64, 60, 64, 64}, keysOf(f.Advance(12*sixteenths, nil), 1))

	p.Tracks[0].Pitches.Latched = true
	f = play.NewPerformer(p)
	hold(f, 0, 60, 64)
	release(f, 1, 60, 64)
	hold(f, 4*sixteenths, 67)
	require.Equal(t, []int{60, 64, 60, 64, 67, 67}, keysOf(f.Advance(6*sixteenths, nil), 1), "latched")

	p.Tracks[0].Pitches.Lowest = 0
	p.Tracks[0].Pitches.Highest = 127
	f = play.NewPerformer(p)
	for key := range uint8(40) {
		hold(f, 0, 20+key)
	}
	all := map[int]bool{}
	for _, key := range keysOf(f.Advance(64*sixteenths, nil), 1) {
		all[key] = true
	}
	require.Len(t, all, 24)
}

// The order and all lanes begin anew with the first step after a key is pressed while none was down.
func TestRestartWithTheFirstKey(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.Up, Restart: true})
	f := play.NewPerformer(p)
	hold(f, 0, 60, 64, 67)
	release(f, 4*sixteenths, 60, 64, 67)
	hold(f, 6*sixteenths, 60, 64, 67)
	notes := f.Advance(8*sixteenths, nil)
	require.Equal(t, []int{60, 64, 67, 60, 60, 64}, keysOf(notes, 1))
	require.Equal(t, notes[0].Step, notes[4].Step, "the gate too")
}

// A track has the notes of another one's last step, whatever is silenced there; at one moment the other one goes first.
func TestPitchesOfAnotherTrack(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.Up})
	other := p.Tracks[0].Clone()
	other.ID, other.Name, other.Channel, other.Pitches, other.Mute = 2, "Other", 2, nil, true
	p.Key = theory.Key{Scale: "major"}
	part := &other.Parts()[0]
	gate, pitch := *part.Lanes.Gate, *part.Lanes.Pitch
	gate.Rate, gate.First, gate.Length = "1/4", 0, 2
	pitch.Linked, pitch.Length = true, 2
	pitch.Steps = make([]int, score.MaxSteps)
	pitch.Steps[1] = 3
	chord := pitch
	chord.Steps = make([]int, score.MaxSteps)
	for i := range chord.Steps {
		chord.Steps[i] = 2 // a triad
	}
	part.Lanes.Gate, part.Lanes.Pitch, part.Lanes.Chord = &gate, &pitch, &chord
	p.Tracks = append(p.Tracks, other)
	p.Tracks[0].Pitches.Kind, p.Tracks[0].Pitches.Track = score.TrackPitches, 2
	require.NoError(t, p.Validate())
	require.Equal(t, []int{60, 64, 67, 60, 69, 72, 65, 69}, keysOf(play.Render(p, 0, 8*sixteenths, nil), 1))
	p.Tracks[1].Pitches = &score.PitchSource{Kind: score.TrackPitches, Track: 1}
	require.ErrorContains(t, p.Validate(), "tracks[0].pitches is a circle (Bell buoy → Other → Bell buoy)")
}

// The pitch lane calls the chords of a map, which are led from one to the next if the map says so; so do notes. Empty ones are silent.
func TestChordMaps(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.MapPitches, Map: 1})
	p.ChordMaps = []score.ChordMap{{ID: 1, Name: "Map", Chords: []score.MapChord{
		{Keys: []int{60, 64, 67}}, {Keys: []int{65, 69, 72}}, {Keys: []int{}}, {Keys: []int{60, 64, 67}, Inversion: 1, Open: true},
	}}}
	pitch := p.Tracks[0].Parts()[0].Lanes.Pitch
	pitch.Linked = true
	copy(pitch.Steps, []int{0, 1, 2, 3, 4})
	gate := p.Tracks[0].Parts()[0].Lanes.Gate
	gate.First, gate.Length = 0, 16
	require.NoError(t, p.Validate())
	chords := func() (chords [][]int) {
		for _, n := range play.Render(p, 0, 5*sixteenths, nil) {
			if step := int(n.Start / sixteenths); step >= len(chords) || len(chords) == 0 {
				for len(chords) <= step {
					chords = append(chords, nil)
				}
			}
			chords[n.Start/sixteenths] = append(chords[n.Start/sixteenths], int(n.Key))
		}
		return chords
	}
	require.Equal(t, [][]int{{60, 64, 67}, {65, 69, 72}, nil, {64, 72, 79}, {60, 64, 67}}, chords())
	p.ChordMaps[0].Led = true
	require.Equal(t, []int{60, 65, 69}, chords()[1], "C, F and A are nearest")
	p.Tracks[0].Pitches.ByNote, p.Tracks[0].Pitches.Lowest, p.ChordMaps[0].Led = true, 36, false
	copy(pitch.Steps, []int{0, 1, 2, 0, 1})
	f := play.NewPerformer(p)
	hold(f, 0, 36)
	release(f, 2*sixteenths, 36)
	hold(f, 3*sixteenths, 37)
	require.Equal(t, []int{60, 64, 67, 65, 69}, keysOf(f.Advance(5*sixteenths, nil), 1), "what was called stays")
}

// A rule moves the notes of a role as often as it says: a fifth becomes a sixth half of the time. Four deviations of the binomial.
func TestRulesByRole(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.Up, Rules: []score.RoleRule{{Role: theory.FifthRole, Semitones: 2, Odds: 50}}})
	f := play.NewPerformer(p)
	hold(f, 0, 60, 64, 67)
	counts := map[int]int{}
	for _, key := range keysOf(f.Advance(3000*sixteenths, nil), 1) {
		counts[key]++
	}
	require.Equal(t, 1000, counts[60])
	require.Equal(t, 1000, counts[64])
	require.InDelta(t, 500, counts[69], 64)
	require.Equal(t, 1000, counts[67]+counts[69])
}

// Each note of a chord in random order is as likely as the others, and the luck repeats it.
func TestRandomNotesOfAChord(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.RandomNote})
	play4000 := func() []int {
		f := play.NewPerformer(p)
		hold(f, 0, 60, 64, 67, 71)
		return keysOf(f.Advance(4000*sixteenths, nil), 1)
	}
	counts := map[int]int{}
	for _, key := range play4000() {
		counts[key]++
	}
	for _, key := range []int{60, 64, 67, 71} {
		require.InDelta(t, 1000, counts[key], 110)
	}
	require.Equal(t, play4000(), play4000())
	first := play4000()
	p.Luck.Number++
	require.NotEqual(t, first, play4000())
}

// A bar from which to play, and an edit while it plays, find the chord as it is held there.
func TestAHeldChordIsKnownFromAnyBar(t *testing.T) {
	p := arpeggiated(t, score.PitchSource{Kind: score.HeldPitches, Order: score.UpDown, Latched: true})
	inputs := []midi.Message{
		{Tick: 1, Kind: midi.NoteOn, Key: 60, Velocity: 1}, {Tick: 2, Kind: midi.NoteOn, Key: 65, Velocity: 1}, {Tick: 90_000, Kind: midi.NoteOff, Key: 60},
	}
	whole := play.NewPerformer(p)
	for _, m := range inputs {
		whole.Hear(m)
	}
	whole.Advance(50*sixteenths, nil)
	want := whole.Advance(90*sixteenths, nil)
	at := play.NewPerformerAt(p, 50*sixteenths, play.Past{Inputs: inputs})
	require.Equal(t, want, at.Advance(90*sixteenths, nil))
	require.NotEmpty(t, want)
}
