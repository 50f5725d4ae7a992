package take

import (
	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
)

// OfLog returns a take of what a log plays until a tick of run time, note for note as it was played. Notes that last longer
// are ended there.
func OfLog(l *log.Log, end score.Tick) *Take {
	t := Of(l.Project, l.Project.Name)
	heard := l.Hear(end)
	t.SetMeters(heard.Bars, 0)
	t.Tempo, t.Messages = heard.Tempo, heard.Messages
	for _, began := range heard.Sections {
		if began.Run < end {
			t.Markers = append(t.Markers, Marker{Tick: began.Run, Text: began.Name})
		}
	}
	project := l.Project
	for _, entry := range l.Entries {
		if entry.Project != nil && entry.Tick < end {
			t.Markers = MarkChanges(t.Markers, project, entry.Project, entry.Tick)
			project = entry.Project
			t.adopt(project)
		}
	}
	t.Finish(end)
	return t
}

// RenderSong returns a take of the song of a project, in which each section that waits for being released plays one pass. Notes
// that last longer than the song are ended there. The project must have a song.
func RenderSong(p *score.Project) *Take {
	l := &log.Log{Project: p.Released(), PlaysSong: true}
	outset := l.Outset()
	return OfLog(l, outset.Bars().Start(p.SongBars()))
}

// adopt takes over the tracks of a project that the take does not know yet.
func (t *Take) adopt(p *score.Project) {
	known := map[uint32]bool{}
	for _, track := range t.Tracks {
		known[track.ID] = true
	}
	for _, track := range Of(p, "").Tracks {
		if !known[track.ID] {
			t.Tracks = append(t.Tracks, track)
		}
	}
}
