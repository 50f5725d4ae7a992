package live

import (
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
)

// PlannedSection is a section of the song as it plays, or is to come.
type PlannedSection struct {
	score.Placed
	// From is the tick of the song with which it begins.
	From score.Tick `json:"from"`
}

// SongStatus is how the song plays.
type SongStatus struct {
	// Plays says that playing from where it begins plays the song too.
	Plays bool `json:"plays"`
	// Sections are those that play, one after the other, as far as that is known; the last of them ends with the tick End, or with
	// an End of 0 once it is released.
	Sections []PlannedSection `json:"sections"`
	End      score.Tick       `json:"end"`
	// Chains are the patterns to which tracks will lead, as far as that is decided.
	Chains []log.Next `json:"chains"`
	// Bars are those of what plays.
	Bars []score.BarSpan `json:"bars"`
}

// SetSong has the song play, or not, from where playing begins. While playing it begins with the next bar, or is left with it.
func (t *Transport) SetSong(plays bool) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.opening != nil {
		return ErrOpening
	}
	t.playsSong = plays
	if !t.playing {
		t.notify()
		t.notifyStage()
		return nil
	}
	section := 0
	if _, planned := t.sectionNow(); plays && len(t.project.Song) > 0 && !planned {
		section = t.project.Song[0].ID
	} else if plays || !planned {
		return nil
	}
	t.do(Doing{Control: stage.Control{Name: stage.Section}, Value: &section}, NextBar, 0, doneBack)
	t.notify()
	t.notifyStage()
	return nil
}

// Bars returns the bars of what plays, or would play.
func (t *Transport) Bars() score.Bars {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.opening != nil {
		return t.opening.Project.Bars()
	}
	return t.bars()
}

// sectionNow returns the section that plays where nothing has been handed over yet; planned is false if there is none.
func (t *Transport) sectionNow() (placed score.Placed, planned bool) {
	placed, index := t.player.Plan().At(t.bars().At(t.player.Song()))
	return placed, index >= 0 && placed.Section != 0
}

// GoOver has the song go on with the section so many places after the one that plays, at a moment: 1 is the next one, -1 the one
// before. It does nothing where there is none.
func (t *Transport) GoOver(places int, when When, bars int) error {
	t.mu.Lock()
	now, planned := score.Placed{}, false
	if t.playing && t.opening == nil {
		now, planned = t.sectionNow()
	}
	project := t.project
	t.mu.Unlock()
	for i := range project.Song {
		if to := i + places; planned && project.Song[i].ID == now.Section && to >= 0 && to < len(project.Song) {
			return t.Do([]Doing{{Control: stage.Control{Name: stage.Section}, Value: &project.Song[to].ID}}, when, bars)
		}
	}
	return nil
}

// SongStatus returns how the song plays.
func (t *Transport) SongStatus() SongStatus {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.songStatus()
}

func (t *Transport) songStatus() SongStatus {
	status := SongStatus{Plays: t.playsSong, Sections: []PlannedSection{}, Chains: []log.Next{}}
	bars, plan := t.bars(), t.begins()
	planned := plan.Outset().Plan
	if t.playing {
		planned = t.player.Plan()
		status.Chains = append(status.Chains, t.player.Chains()...)
	}
	for _, placed := range planned {
		status.Sections = append(status.Sections, PlannedSection{Placed: placed, From: bars.Start(placed.Bar)})
	}
	if end, ends := planned.End(); ends {
		status.End = bars.Start(end)
	}
	status.Bars = bars.Spans()
	return status
}

// noticeSong tells of what the song and chains have given since it was noticed last.
func (t *Transport) noticeSong() {
	if given := t.player.Given(); given == t.given {
		return
	} else {
		t.given = given
	}
	t.stage = t.player.Stage()
	begun := t.player.Sections()
	for _, r := range []*Recorder{t.recorder, t.wake} {
		r.change(func(now *recording) {
			now.given(t.player.Playing())
			for _, section := range begun[min(t.marked, len(begun)):] {
				now.mark(section.Run, section.Name)
			}
			now.setTime(t.player.Tempo(), t.player.Bars())
		})
	}
	t.marked = len(begun)
	t.prepare()
	t.notify()
	t.notifyStage()
}

// songOver reports whether the song has come to its end, which ends playing once all of it was heard.
func (t *Transport) songOver(now int64) bool {
	end, ends := t.player.SongEnd()
	return ends && now >= t.started && t.tickAt(now) >= end
}
