package cv

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// note is a note that goes to the output.
type note struct {
	from, to int64
	// pitch is a MIDI note, with cents as its fraction.
	pitch    float64
	key      uint8
	velocity int
	slides   bool // into it, from the note before
}

// turn is a value of a controller, from 0 to 1, from a moment on; takes is how long a smooth one takes.
type turn struct {
	at, takes int64
	share     float64
}

// heard is what goes to the output of a track.
type heard struct {
	notes []note
	turns map[int][]turn // by mod lanes, from 1
}

// hear sorts what goes to an output by the ids of its tracks.
func hear(p *score.Project, sent []route.Sent, output int, tempo play.TempoMap, end score.Tick) map[int]*heard {
	tracks := map[int]*heard{}
	open, sliding := map[midi.NoteID]int{}, map[uint32]bool{}
	targets := map[int][score.MaxMods][]score.Mod{}
	for i := range p.Tracks {
		tracks[p.Tracks[i].ID], targets[p.Tracks[i].ID] = &heard{turns: map[int][]turn{}}, modsOf(&p.Tracks[i])
	}
	for _, m := range sent {
		of := tracks[int(m.Track)]
		if m.Output != output || of == nil {
			continue
		}
		at := tempo.Nanos(m.Tick)
		switch {
		case m.Kind == midi.NoteOn:
			open[m.NoteID()] = len(of.notes)
			of.notes = append(of.notes, note{
				from: at, to: tempo.Nanos(end), pitch: float64(m.Key) + float64(m.Detune)/float64(theory.Semitone), key: m.Key,
				velocity: int(m.Velocity), slides: sliding[m.Track],
			})
		case m.Kind == midi.NoteOff:
			if i, sounds := open[m.NoteID()]; sounds {
				of.notes[i].to = at
				delete(open, m.NoteID())
			}
		case m.Kind == midi.ControlChange && m.Key == midi.PortamentoSwitch:
			sliding[m.Track] = m.Value >= 64
		}
		for lane, mods := range targets[int(m.Track)] {
			if share, is := shareOf(m.Message, mods); is {
				grid := tempo.Nanos(m.Tick+score.TicksPerQuarter/24) - at
				of.turns[lane+1] = append(of.turns[lane+1], turn{at, grid, share})
			}
		}
	}
	return tracks
}

// modsOf returns where each mod lane of a track goes, in any of its patterns.
func modsOf(t *score.Track) (mods [score.MaxMods][]score.Mod) {
	for i := range t.Patterns {
		for j := range t.Patterns[i].Parts {
			for lane, mod := range t.Patterns[i].Parts[j].Mods {
				if !slices.Contains(mods[lane], mod) {
					mods[lane] = append(mods[lane], mod)
				}
			}
		}
	}
	return mods
}

// shareOf returns which share of the range of a mod a message says, and whether it is of one of some.
func shareOf(m midi.Message, mods []score.Mod) (share float64, is bool) {
	for _, mod := range mods {
		number := m.Key == uint8(mod.Number)
		switch {
		case mod.Target == score.ControlTarget && m.Kind == midi.ControlChange && number, mod.Target == score.PressureTarget && m.Kind == midi.Pressure:
			return float64(m.Value) / 127, true
		case mod.Target == score.Control14Target && m.Kind == midi.WideControl && number:
			return float64(m.Value) / 16383, true
		case mod.Target == score.BendTarget && m.Kind == midi.Bend:
			return float64(m.Value) / 16384, true // 8192 is the middle
		}
	}
	return 0, false
}
