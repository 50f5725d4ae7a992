package live

import (
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// maxRampSteps bounds in how many steps a tempo goes to another.
const maxRampSteps = 64

// Ramp has the tempo go to another in equal steps, one with each beat, over so many bars from the next one on; over more than 64 beats
// in 64 steps. While standing still it is there at once. The errors are those of Do.
func (t *Transport) Ramp(to score.Tempo, bars int) error {
	tempo, value := stage.Control{Name: "tempo"}, int(to)
	if err := checkMoment(NextBars, bars); err != nil {
		return err
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	if err := t.check([]Doing{{Control: tempo, Value: &value}}); err != nil {
		return err
	}
	t.group++
	if !t.playing {
		t.do(Doing{Control: tempo, Value: &value}, Now, 0, t.group)
		t.notifyStage()
		return nil
	}
	from := t.player.Tempo().At(t.player.Run())
	lines, song, run := t.bars(), t.player.Song(), t.player.Run()
	begins := lines.Ceil(song)
	ends, beats := lines.Start(lines.At(begins)+int64(bars)), 0
	for bar := lines.At(begins); lines.Start(bar) < ends; bar++ {
		beats += lines.Meter(bar).Beats
	}
	steps := min(beats, maxRampSteps)
	t.endRamp()
	if len(t.queue)+steps > MaxQueue {
		return ErrQueueFull
	}
	for i := 1; i <= steps; i++ {
		tempoThen := int(from) + (int(to)-int(from))*i/steps
		at := run + begins - song + (ends-begins)*score.Tick(i-1)/score.Tick(steps)
		t.enqueue(queued{Action: log.Action{Control: tempo, Value: &tempoThen, At: at}, back: i > 1, group: t.group, ramp: true})
	}
	t.notifyStage()
	return nil
}

// endRamp takes back what waits of a tempo that goes to another.
func (t *Transport) endRamp() {
	t.queue = slices.DeleteFunc(t.queue, func(q queued) bool { return q.ramp })
}

// DoScene gives controls the values that a scene names, from a moment on; Back undoes them together. What is gone, or cannot be, is
// left out, and is what it returns how many of. The errors are score.ErrUnknownScene and those of Do.
func (t *Transport) DoScene(id int, when When, bars int) (leftOut int, err error) {
	t.mu.Lock()
	project, now := t.project, t.stage
	t.mu.Unlock()
	scene := project.Scene(id)
	if scene == nil {
		return 0, score.ErrUnknownScene
	}
	var doings []Doing
	for _, value := range scene.Values {
		c := stage.Control(value.Control)
		if c.Steers() || c.Check(now.On(project), value.Value) != nil {
			leftOut++
			continue
		}
		doings = append(doings, Doing{Control: c, Value: &value.Value})
	}
	doings = append(doings, Doing{Control: stage.Control{Name: stage.SceneOn}, Value: &id})
	return leftOut, t.Do(doings, when, bars)
}
