package route_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// instrument is what an instrument knows that hears the messages of one port.
type instrument struct {
	bend, bendRange [16]int
	program         [16]int
	keys            [16][128]theory.Cents // of each tuning program
}

func newInstrument() *instrument {
	i := &instrument{}
	for channel := range 16 {
		i.bend[channel], i.bendRange[channel] = 8192, 2
		for key := range 128 {
			i.keys[channel][key] = theory.Cents(key) * theory.Semitone
		}
	}
	return i
}

func (i *instrument) hear(m midi.Message) {
	switch m.Kind {
	case midi.Bend:
		i.bend[m.Channel] = int(m.Value)
	case midi.BendRange:
		i.bendRange[m.Channel] = int(m.Value)
	case midi.TuningProgram:
		i.program[m.Channel] = int(m.Value)
	case midi.KeyTuning:
		i.keys[m.Channel][m.Key] = (theory.Cents(m.Velocity)*16384 + theory.Cents(m.Value)) * theory.Semitone / 16384
	}
}

// sounds returns the pitch of a key that is down.
func (i *instrument) sounds(channel, key uint8) theory.Cents {
	bent := theory.Cents(i.bend[channel]-8192) * theory.Cents(i.bendRange[channel]) * theory.Semitone / 8192
	return i.keys[i.program[channel]][key] + bent
}

// Every note of a track that tunes its notes itself sounds at a pitch of the scale, within the register, and
// stays there while it is down, however the project goes on; the steps of messages are half of 0.3 cents wide
// at a bend range of 24 semitones, and less otherwise.
func TestTunedNotesSoundWhereTheyShould(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Modulators { // which are beside the scale, or within another register then
			p.Modulators[i].Sends = nil // which can bend it
			p.Modulators[i].Moves = slices.DeleteFunc(p.Modulators[i].Moves, func(m score.ModulatorMove) bool {
				return slices.Contains([]string{"semitones", "lowest", "highest"}, m.Control.Name)
			})
		}
		for i := range p.Tracks {
			for j := range p.Tracks[i].Parts() {
				testkit.ChangeNotes(&p.Tracks[i].Parts()[j], func(n *score.StepNote) { n.Alteration = 0 })
				lanes := &p.Tracks[i].Parts()[j].Lanes
				lanes.Alteration = nil
				if lanes.Chord != nil { // the others leave the scale
					for step := range lanes.Chord.Steps {
						lanes.Chord.Steps[step] = rapid.IntRange(0, 4).Draw(t, "chord of degrees")
					}
					lanes.Chord.Spread, lanes.Chord.Evolve, lanes.Chord.Weights, lanes.Chord.Own = nil, nil, nil, nil
				}
			}
			p.Tracks[i].Transpose.Semitones, p.Tracks[i].Pitches = 0, nil
		}
		pitches, spelling := p.Key.Tuning.Ready(), p.Key.Spelling()
		hears := newInstrument()
		const exact = theory.Cent * 15 / 100
		down := map[midi.NoteID]theory.Cents{}
		for _, m := range messages(p, stretch) {
			hears.hear(m)
			switch m.Kind {
			case midi.NoteOff:
				delete(down, m.NoteID())
				continue
			case midi.NoteOn:
			default:
				continue
			}
			if !p.Track(int(m.Track)).Retunes() {
				continue
			}
			want := theory.Cents(m.Key)*theory.Semitone + m.Detune
			requireOfScale(t, &pitches, spelling, want)
			nearest := int((want + theory.Semitone/2) / theory.Semitone)
			require.GreaterOrEqual(t, nearest, p.Track(int(m.Track)).Register.Lowest)
			require.LessOrEqual(t, nearest, p.Track(int(m.Track)).Register.Highest)
			down[m.NoteID()] = want
			for note, pitch := range down {
				require.InDelta(t, int64(pitch), int64(hears.sounds(note.Channel, note.Key)), float64(exact), "%+v beside %+v", note, m)
			}
		}
	})
}

// requireOfScale checks that some allowed degree has the pitch.
func requireOfScale(t *rapid.T, pitches *theory.Pitches, spelling theory.Spelling, pitch theory.Cents) {
	for degree := -2000; degree < 2000; degree++ {
		if spelling.Allow(degree) == degree && pitches.Sounding(spelling.Note(degree)) == pitch {
			return
		}
	}
	t.Fatalf("%d is not a pitch of the scale", pitch)
}

// quarterTones is a tuning of 24 equal notes.
func quarterTones() *theory.Tuning {
	tuning := &theory.Tuning{Name: "quarter tones"}
	for i := 1; i <= 24; i++ {
		tuning.Pitches = append(tuning.Pitches, fmt.Sprintf("%d.", 50*i))
	}
	return tuning
}

// Three quarter tones up from C, by each way of getting in tune.
func TestWaysOfTuning(t *testing.T) {
	tuned := func(tuned *score.Tuned) []midi.Message {
		p := plain(func(p *score.Project, track *score.Track, part *score.Part) {
			p.Key = theory.Key{Scale: theory.Chromatic, Tuning: quarterTones()}
			part.Lanes.Gate.Steps[1] = score.On
			part.Lanes.Pitch.Steps[0], part.Lanes.Pitch.Steps[1] = 3, 0
			track.Tuned = tuned
		})
		require.NoError(t, p.Validate())
		var kept []midi.Message
		for _, m := range messages(p, 2*sixteenth) {
			if m.Kind != midi.NoteOff {
				m.Track = 0
				kept = append(kept, m)
			}
		}
		return kept
	}
	on := func(tick score.Tick, channel, key uint8) midi.Message {
		return midi.Message{Tick: tick, Kind: midi.NoteOn, Channel: channel, Key: key, Velocity: 96}
	}
	// The pitch that the built-in sounds give it, whatever way a foreign instrument has to be told.
	low := func(m midi.Message, cents theory.Cents) midi.Message {
		m.Detune = cents * theory.Cent
		return m
	}
	require.Equal(t, []midi.Message{low(on(0, 0, 63), -150), on(sixteenth, 0, 60)}, tuned(nil), "each key plays the next note")
	require.Equal(t, []midi.Message{
		{Kind: midi.BendRange, Value: 2}, {Kind: midi.Bend, Value: 8192 - 2048}, low(on(0, 0, 62), -50),
		{Tick: sixteenth, Kind: midi.BendRange, Channel: 1, Value: 2}, {Tick: sixteenth, Kind: midi.Bend, Channel: 1, Value: 8192}, on(sixteenth, 1, 60),
	}, tuned(&score.Tuned{By: score.BendTuned, Channels: 2, Range: 2}))
	require.Equal(t, []midi.Message{
		{Kind: midi.TuningProgram}, {Kind: midi.KeyTuning, Key: 62, Velocity: 61, Value: 8192}, low(on(0, 0, 62), -50),
		{Tick: sixteenth, Kind: midi.KeyTuning, Key: 60, Velocity: 60}, on(sixteenth, 0, 60),
	}, tuned(&score.Tuned{By: score.MessageTuned}))
}

// A note that its track has no voice for, as one that is higher starts with it, bends no channel: what lasts on it as overlap stays in tune.
func TestNoteWithoutVoiceBendsNothing(t *testing.T) {
	p := plain(func(p *score.Project, track *score.Track, part *score.Part) {
		p.Key = theory.Key{Scale: theory.Chromatic, Tuning: quarterTones()}
		track.Tuned = &score.Tuned{By: score.BendTuned, Channels: 2, Range: 2}
		track.Voices, track.Overlap = 1, sixteenth
		copy(part.Lanes.Gate.Steps, []int{score.On, score.On, score.On})
		copy(part.Lanes.Pitch.Steps, []int{1, 5, 2})
		for i := range part.Lanes.Length.Steps {
			part.Lanes.Length.Steps[i] = 160
		}
		part.Lanes.Pitch.Own = map[int]score.StepOwn{1: {Notes: []score.StepNote{{Nudge: sixteenth}}}}
	})
	require.NoError(t, p.Validate())
	var bends, offs []midi.Message
	for _, m := range messages(p, 8*sixteenth) {
		switch m.Kind {
		case midi.Bend:
			bends = append(bends, m)
		case midi.NoteOff:
			offs = append(offs, m)
		}
	}
	require.Len(t, bends, 2, "%+v", bends)
	require.Equal(t, []uint8{0, 1}, []uint8{bends[0].Channel, bends[1].Channel})
	require.Equal(t, 3*sixteenth, offs[0].Tick, "it lasts on into the next")
}
