package cv

import (
	"errors"
	"slices"

	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// Voltages are what the channels of an output do while a take plays.
type Voltages struct {
	// Channels are in the order of their numbers.
	Channels []*Channel
	// From is when they begin, in nanoseconds from the take's beginning: before it by as long as a reset leads the first pulse. End is
	// that of the take.
	From, End int64
	// FullScale is the voltage of a sample of 1.
	FullScale float64
}

// ErrNoProject is returned for a take of which nobody knows where its tracks went.
var ErrNoProject = errors.New("the take knows no project, and so not which of its tracks drive voltages")

// Of returns the voltages of a take at an output of voltages. The error is ErrNoProject.
func Of(t *take.Take, output score.Output) (*Voltages, error) {
	if t.Project == nil {
		return nil, ErrNoProject
	}
	setup := output.Voltages
	v := &Voltages{End: t.Tempo.Nanos(t.End), FullScale: volts(setup.FullScale)}
	for _, c := range setup.Channels {
		if c.Signal == score.ResetSignal {
			v.From = min(v.From, -int64(c.Lead)*tenth)
		}
	}
	tracks := hear(t.Project, route.NewOutlets(t.Project).Play(t.Messages, nil), output.ID, t.Tempo, t.End)
	voices := map[int][][]span{}
	for id, heard := range tracks {
		voices[id] = voicesOf(heard.notes, setup.Voices(id), setup.LowestFree)
	}
	for _, channel := range setup.Channels {
		c := begin(channel, v.From)
		v.Channels = append(v.Channels, c)
		of, known := tracks[c.Track]
		if !known {
			of = &heard{}
		}
		var spans []span
		if at := c.Voice - 1; at >= 0 && at < len(voices[c.Track]) {
			spans = voices[c.Track][at]
		}
		switch c.Signal {
		case score.PitchSignal:
			c.pitches(spans, v.End)
		case score.GateSignal:
			c.gates(spans, v.End)
		case score.VelocitySignal:
			c.velocities(spans, v.End)
		case score.TriggerSignal:
			c.pulses(triggers(t.Project.Track(c.Track), c.Part, of.notes), v.End)
		case score.ModSignal:
			c.mods(of.turns[c.Mod], v.End)
		case score.ClockSignal:
			c.clock(t, v.End)
		case score.RunSignal:
			c.to(0, level(c.VoltageChannel, true, 127))
			c.to(v.End, level(c.VoltageChannel, false, 127))
		case score.ResetSignal:
			c.pulses(resets(t, c.VoltageChannel), v.End)
		}
	}
	slices.SortFunc(v.Channels, func(a, b *Channel) int { return a.Channel - b.Channel })
	return v, nil
}

// triggers returns when a part of a kit is struck, by the notes of its track.
func triggers(t *score.Track, part int, notes []note) (pulses []pulse) {
	if t == nil {
		return nil
	}
	keys := map[uint8]bool{}
	for i := range t.Patterns {
		if p := t.Patterns[i].Part(part); p != nil {
			keys[uint8(p.Note)] = true
		}
	}
	for _, n := range notes {
		if t.Kind != score.Kit || keys[n.key] {
			pulses = append(pulses, pulse{n.from, n.velocity})
		}
	}
	return pulses
}

// clock has a channel pulse so many times a quarter note, each time for its length or half of the time to the next at most.
func (c *Channel) clock(t *take.Take, end int64) {
	for n := score.Tick(0); ; n++ {
		at := t.Tempo.Nanos(n * score.TicksPerQuarter / score.Tick(c.Pulses))
		if at >= end {
			return
		}
		next := t.Tempo.Nanos((n + 1) * score.TicksPerQuarter / score.Tick(c.Pulses))
		c.to(at, level(c.VoltageChannel, true, 127))
		c.to(min(end, at+min(int64(c.Length)*tenth, (next-at)/2)), level(c.VoltageChannel, false, 127))
	}
}

// resets returns when a reset begins: before the beginning, and before each bar in which its track is realigned.
func resets(t *take.Take, c score.VoltageChannel) []pulse {
	lead := int64(c.Lead) * tenth
	pulses := []pulse{{-lead, 127}}
	track := t.Project.Track(c.Track)
	if track == nil || track.Realign == 0 {
		return pulses
	}
	bars := t.Bars()
	for bar := int64(track.Realign); bars.Start(bar) < t.End; bar += int64(track.Realign) {
		pulses = append(pulses, pulse{t.Tempo.Nanos(bars.Start(bar)) - lead, 127})
	}
	return pulses
}
