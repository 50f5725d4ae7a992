package take

import (
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
)

// Renderer makes a take of what a project plays, without playing it, a stretch at a time.
type Renderer struct {
	take   *Take
	from   score.Tick
	player *log.Player
}

// NewRenderer returns a renderer of what the project plays from a tick on. What instruments were told before then,
// and is still in force, is told at the take's beginning.
func NewRenderer(p *score.Project, from score.Tick) *Renderer {
	return &Renderer{take: Of(p, p.Name), from: from, player: log.NewPlayer(log.Log{Project: p, From: from}, nil)}
}

// Advance goes on to a tick of the project.
func (r *Renderer) Advance(to score.Tick) {
	messages, _ := r.player.Advance(to - r.from)
	r.take.Messages = append(r.take.Messages, messages...)
}

// Take returns the take of what was rendered. Notes that last longer are ended there. The renderer must not be
// used any more.
func (r *Renderer) Take() *Take {
	t, end := r.take, r.player.Run()
	t.Messages = append(t.Messages, r.player.Release()...)
	t.SetMeters(r.player.Bars(), 0)
	t.Meters = slices.DeleteFunc(t.Meters, func(change MeterAt) bool { return change.Tick >= end })
	t.End = end
	t.Tempo = r.player.Tempo().Until(end)
	return t
}

// Render returns a take of the first bars of a project. Notes that last longer are ended there.
func Render(p *score.Project, bars int) *Take {
	r := NewRenderer(p, 0)
	r.Advance(p.Bars().Start(int64(bars)))
	return r.Take()
}
