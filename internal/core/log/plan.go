package log

import (
	"slices"

	"jettyfog/internal/core/score"
)

// Plan is which sections play, one after the other, by bars: those that have begun as they did, and those that are to come if
// nothing is done. One that waits for being released is the last of them. Without any no song plays; a section of id 0 is none,
// after the song was left.
type Plan []score.Placed

// Valid reports whether the sections of a plan come one after the other, and only the last of them waits.
func (p Plan) Valid() bool {
	for i, placed := range p {
		if placed.Bar < 0 || placed.Bar > score.MaxMeterBar || placed.Bars < 0 || placed.Bars > score.MaxMeterBar || placed.Section < 0 {
			return false
		}
		if i > 0 && (p[i-1].Bars == 0 || p[i-1].Bar+p[i-1].Bars > placed.Bar) {
			return false
		}
	}
	return true
}

// PlanOf returns that of a project whose song plays from its beginning.
func PlanOf(p *score.Project) Plan {
	if len(p.Song) == 0 {
		return nil
	}
	return p.Placed(p.Song[0].ID, 0, true)
}

// At returns the section of a bar, and its place in the plan; -1 is none.
func (p Plan) At(bar int64) (placed score.Placed, index int) {
	for i := len(p) - 1; i >= 0; i-- {
		if p[i].Bar <= bar {
			return p[i], i
		}
	}
	return score.Placed{}, -1
}

// End returns the bar with which the song ends; ends is false if that is not known.
func (p Plan) End() (bar int64, ends bool) {
	if len(p) == 0 {
		return 0, false
	}
	last := p[len(p)-1]
	return last.Bar + last.Bars, last.Bars > 0
}

// with returns the plan in which a section begins with a bar, and those that follow it. An id of 0 leaves the song.
func (p Plan) with(project *score.Project, section int, bar int64) Plan {
	next := []score.Placed{{Section: 0, Bar: bar}}
	if section != 0 {
		if next = project.Placed(section, bar, true); next == nil {
			return p
		}
	}
	cut := slices.DeleteFunc(slices.Clone(p), func(s score.Placed) bool { return s.Bar >= bar })
	if len(cut) > 0 {
		last := &cut[len(cut)-1]
		if last.Bars == 0 || last.Bar+last.Bars > bar {
			last.Bars = bar - last.Bar
		}
	}
	return append(cut, next...)
}

// released returns the plan in which the section that waits for it ends with the pass in which a bar is, or with which it begins.
func (p Plan) released(project *score.Project, bar int64) Plan {
	if len(p) == 0 || p[len(p)-1].Bars > 0 {
		return p
	}
	next := slices.Clone(p)
	last := &next[len(next)-1]
	section := project.Section(last.Section)
	if section == nil {
		return p
	}
	pass := int64(section.Bars)
	last.Bars = max(1, (bar-last.Bar+pass-1)/pass) * pass
	return append(next, following(project, *last)...)
}

// following returns what comes after a section of the plan.
func following(project *score.Project, s score.Placed) []score.Placed {
	for i := range project.Song {
		if project.Song[i].ID == s.Section && i+1 < len(project.Song) {
			return project.Placed(project.Song[i+1].ID, s.Bar+s.Bars, true)
		}
	}
	return nil
}

// edited returns the plan after an edit of the project, where so many of its sections have begun and a bar is the first that has
// not. What has begun stays; a section that has not ended yet gets its new length if it does not end before.
func (p Plan) edited(before, after *score.Project, begun int, bar int64) Plan {
	if begun == 0 || slices.EqualFunc(before.Song, after.Song, sameLength) {
		return p
	}
	next := slices.Clone(p[:begun])
	last := &next[begun-1]
	if last.Section == 0 {
		return next
	}
	was, is := before.Section(last.Section), after.Section(last.Section)
	if is == nil { // what was to follow does, as far as it is there
		for _, later := range p[begun:] {
			if after.Section(later.Section) != nil {
				return append(next, after.Placed(later.Section, last.Bar+last.Bars, true)...)
			}
		}
		return next
	}
	wanted := int64(is.Length())
	if is.Repeats == 0 {
		wanted = 0
	}
	if was != nil && (was.Repeats == 0 && last.Bars == 0 || int64(was.Length()) == last.Bars) && (wanted == 0 || last.Bar+wanted >= bar) {
		last.Bars = wanted
	}
	if last.Bars == 0 {
		return next
	}
	return append(next, following(after, *last)...)
}

// sameLength reports whether two sections are one, of one length.
func sameLength(a, b score.Section) bool {
	return a.ID == b.ID && a.Bars == b.Bars && a.Repeats == b.Repeats
}
