package take

import (
	"slices"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// Renderer makes a take of what a project plays, without playing it, a stretch at a time.
type Renderer struct {
	take   *Take
	from   score.Tick
	done   score.Tick // up to here, in ticks of the project
	player *route.Player
}

// NewRenderer returns a renderer of what the project plays from a tick on. What instruments were told before then,
// and is still in force, is told at the take's beginning.
func NewRenderer(p *score.Project, from score.Tick) *Renderer {
	r := &Renderer{take: Of(p, p.Name), from: from, done: from, player: route.NewPlayer(p, from, play.Past{})}
	if from > 0 {
		r.add(r.player.Standing())
	}
	return r
}

// Advance goes on to a tick of the project.
func (r *Renderer) Advance(to score.Tick) {
	r.add(r.player.Advance(to, nil))
	r.done = to
}

func (r *Renderer) add(messages []midi.Message) {
	for _, m := range messages {
		m.Tick -= r.from
		r.take.Messages = append(r.take.Messages, m)
	}
}

// Take returns the take of what was rendered. Notes that last longer are ended there. The renderer must not be
// used any more.
func (r *Renderer) Take() *Take {
	r.add(r.player.Release(r.done))
	t := r.take
	t.SetMeters(t.Project.Bars(), r.from)
	t.Meters = slices.DeleteFunc(t.Meters, func(change MeterAt) bool { return change.Tick >= r.done-r.from })
	t.End = r.done - r.from
	var tempo play.TempoMap
	for _, change := range t.Tempo.From(r.from) {
		change.Tick -= r.from
		tempo = append(tempo, change)
	}
	t.Tempo = tempo.Until(t.End)
	return t
}

// Render returns a take of the first bars of a project. Notes that last longer are ended there.
func Render(p *score.Project, bars int) *Take {
	r := NewRenderer(p, 0)
	r.Advance(p.Bars().Start(int64(bars)))
	return r.Take()
}
