package play

import (
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/wave"
)

// Curve returns where a modulator of a project is at some ticks, ascending, −wave.One to wave.One. For one that notes of a track drive, notes are these
// as far as they are known, ascending. Known is false where that cannot be told: of one that a mod lane or a controller drives, or whose original is gone.
func Curve(p *score.Project, m *score.Modulator, notes []Note, ticks []score.Tick) (levels []int, known bool) {
	tempo := TempoMapOf(p)
	if free, ok := wave.New(p, m, tempo.Nanos); ok {
		for _, tick := range ticks {
			levels = append(levels, free.At(tick))
		}
		return levels, true
	}
	original := p.Original(m)
	if original == nil || !original.Shape.DrivenByTrack() || original.Shape == score.ModShape || p.Track(original.Track) == nil {
		return nil, false
	}
	var d driving
	register := p.Track(original.Track).Register
	for _, tick := range ticks {
		for len(notes) > 0 && notes[0].Start <= tick {
			at := notes[0].Start
			count := 1
			for count < len(notes) && notes[count].Start == at {
				count++
			}
			d.sound(at, notes[:count])
			notes = notes[count:]
		}
		levels = append(levels, d.waveOf(original, register, tick, tempo))
	}
	return levels, true
}
