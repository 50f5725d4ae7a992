package play

import (
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/core/wave"
)

// driving is what a track tells the modulators that it drives, and the tracks that have their pitches from it.
type driving struct {
	tick, until   score.Tick // of its last note, by its step
	key, velocity uint8
	struck        bool
	mods          [score.MaxMods]uint8 // of its first part
	struckKeys    heldKeys             // of its last step
}

// sound takes the notes of a step at a tick: the highest and the loudest of them count.
func (d *driving) sound(tick score.Tick, notes []Note) {
	if !d.struck || d.tick != tick {
		d.struckKeys = heldKeys{}
	}
	d.tick, d.until, d.struck, d.key, d.velocity = tick, tick, true, 0, 0
	for _, n := range notes {
		d.struckKeys.press(n.Key)
		d.until = max(d.until, tick+n.End-n.Start)
		d.key, d.velocity = max(d.key, n.Key), max(d.velocity, n.Velocity)
	}
}

// waveOf returns where a modulator that the track drives is at a tick, 0 to One: an envelope that rises with a note as long as it attacks,
// and falls as long as it releases from where the note ends; the velocity; the key, within the track's register; or a mod lane.
func (d *driving) waveOf(m *score.Modulator, register theory.Register, tick score.Tick, tempo TempoMap) int {
	switch {
	case m.Shape == score.ModShape:
		return portionOf(int(d.mods[m.Mod-1]), 127)
	case !d.struck:
		return 0
	case m.Shape == score.VelocityShape:
		return portionOf(int(d.velocity), 127)
	case m.Shape == score.PitchShape:
		return portionOf(int(d.key)-register.Lowest, register.Highest-register.Lowest)
	}
	rises := func(at score.Tick) int { return portion(int(at-d.tick), inTicks(m.Attack, tempo.At(d.tick))) }
	if tick < d.until {
		return rises(tick)
	}
	top := rises(d.until)
	return score.Rounded(top*(wave.One-portion(int(tick-d.until), inTicks(m.Release, tempo.At(d.tick)))), wave.One)
}

func portionOf(value, of int) int { return max(0, min(wave.One, score.Rounded(value*wave.One, of))) }

// portion returns which part of a time has gone by, 0 to One. Of one that has not begun, as what is held is brought back
// for a step whose notes come early, that is nothing.
func portion(gone, of int) int {
	gone = max(0, gone)
	if gone >= of {
		return wave.One
	}
	return gone * wave.One / of
}

// inTicks returns how many ticks so many milliseconds last at a tempo: tempo · ticks per quarter / (60 s · 1000) each.
func inTicks(millis int, tempo score.Tempo) int {
	return millis * int(tempo) * int(score.TicksPerQuarter) / 60_000_000
}
