package score

import "jettyfog/internal/core/theory"

// How a track bends its notes where it is not said otherwise.
const (
	usualBendRange = 2 // semitones, which instruments have from the start (common practice)
	mostBent       = 8 // channels
)

// Retune returns the edit that gives a project another tuning, so that it is heard at once: melodic tracks that leave
// their notes to the instrument bend them from then on, as many at a time as there are channels for all of them, and
// tracks that would collide with them move to other channels. Tracks whose notes cannot be bent, because a mod lane or a modulator
// bends them already or because no channel is left, still leave them to the instrument, as all do that bend where the
// tuning goes. A nil tuning is equal temperament; with a tuning of the same pitches nothing needs to be bent.
func Retune(p *Project, tuning *theory.Tuning) Edit {
	key := p.Key.InTuning(tuning)
	edits := []Edit{SetProject{Key: &key}}
	if tuning == nil || isEqual(tuning) {
		for i := range p.Tracks {
			if t := &p.Tracks[i]; t.Tuned != nil && t.Tuned.By == BendTuned {
				edits = append(edits, SetTrack{Track: t.ID, Tuned: &Tuned{By: InstrumentTuned}})
			}
		}
		return all("tuning", edits...)
	}
	var bent []*Track
	taken := map[int]bool{percussionChannel: true}
	for i := range p.Tracks {
		if t := &p.Tracks[i]; t.Kind != Kit && !t.Retunes() && !t.bends() && !p.bendsByCurve(t) {
			bent = append(bent, t)
			continue
		}
		for channel := p.Tracks[i].Channel; channel <= p.Tracks[i].lastChannel(); channel++ {
			taken[channel] = true
		}
	}
	for i, channel := range channelsFor(bent, taken) {
		if channel.first == 0 {
			continue
		}
		edit := SetTrack{Track: bent[i].ID, Tuned: &Tuned{By: BendTuned, Channels: channel.count, Range: usualBendRange}}
		if channel.first != bent[i].Channel {
			edit.Channel = &channel.first
		}
		edits = append(edits, edit)
	}
	return all("tuning", edits...)
}

// isEqual reports whether instruments have the pitches of a tuning already.
func isEqual(tuning *theory.Tuning) bool {
	pitches := tuning.Ready()
	for note := range pitches.Notes() {
		const least = theory.Cent / 50 // a finer bend cannot be sent
		if off := pitches.Sounding(note) - theory.Cents(pitches.Nearest(note))*theory.Semitone; off < -least || off > least {
			return false
		}
	}
	return true
}

// bends reports whether a mod lane bends the track.
func (t *Track) bends() bool {
	for _, pattern := range t.Patterns {
		for i := range pattern.Parts {
			for _, mod := range pattern.Parts[i].Mods {
				if mod.Target == BendTarget {
					return true
				}
			}
		}
	}
	return false
}

// channelRun is some channels in a row; a first of 0 is none.
type channelRun struct{ first, count int }

// channelsFor finds channels for tracks, as many for each as all can have, their own first among them where it is free.
// Where there are too few the last tracks get none.
func channelsFor(tracks []*Track, taken map[int]bool) []channelRun {
	var runs []channelRun
	for count := mostBent; count > 0; count-- {
		var all bool
		if runs, all = channelsOf(count, tracks, taken); all {
			break
		}
	}
	return runs
}

func channelsOf(count int, tracks []*Track, taken map[int]bool) (runs []channelRun, all bool) {
	used := map[int]bool{}
	free := func(first int) bool {
		for channel := first; channel < first+count; channel++ {
			if channel > 16 || taken[channel] || used[channel] {
				return false
			}
		}
		return true
	}
	runs, all = make([]channelRun, len(tracks)), true
	for i, t := range tracks {
		first := t.Channel
		for candidate := 1; !free(first) && candidate <= 17; candidate++ {
			first = candidate
		}
		if !free(first) {
			all = false
			continue
		}
		for channel := first; channel < first+count; channel++ {
			used[channel] = true
		}
		runs[i] = channelRun{first, count}
	}
	return runs, all
}
