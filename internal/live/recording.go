package live

import (
	"cmp"
	"slices"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
)

// recording is a take on its way to disk. Ticks are the take's own.
type recording struct {
	start    score.Tick // in ticks of the transport
	first    score.Tick // in ticks of the transport, of which something is recorded
	tempo    play.TempoMap
	bars     score.Bars     // of run time
	project  *score.Project // that plays now
	tracks   tracks
	heading  take.Heading
	ended    bool
	end      score.Tick
	messages []midi.Message // those that are not on disk yet
	origins  []take.Origin  // those that are not on disk yet, but for the first
	log      log.Log        // of run time; without a project there is none

	// What is on disk.
	id       int64         // 0 until it is created
	origin   take.Origin   // the last one
	stored   int           // how many messages
	standing midi.Settings // what they have told
	grown    bool          // the heading there is not up to date
	stale    int           // for how many writes it has lacked tempos that were followed; 0 if it lacks none
	logged   int           // how many entries of the log; notLogged if not even where it begins
	refused  int           // how often in a row it could not be written

	// Of a copy: how many of its messages and of its origins were brought to disk.
	done, placed int
}

// notLogged says that nothing of a log is on disk.
const notLogged = -1

func newRecording(project *score.Project, revision int64, start, first score.Tick, tempo play.TempoMap, bars score.Bars) *recording {
	r := &recording{start: start, first: first, project: project, origin: take.Origin{Revision: revision, Project: project}, logged: notLogged}
	r.tracks.play(project, 0)
	r.setTime(tempo, bars)
	return r
}

// header returns the take without messages, as it is to be created.
func (r *recording) header() *take.Take {
	t := take.Of(r.origin.Project, "")
	t.Meter, t.Meters = r.heading.Meter, r.heading.Meters
	t.Tempo, t.Markers, t.Tracks = r.heading.Tempo, r.heading.Markers, r.heading.Tracks
	return t
}

// add records a message with a tick of the transport.
func (r *recording) add(m midi.Message) {
	m.Tick -= r.start
	known := len(r.tracks.named)
	m.Track = r.tracks.of(m)
	if len(r.tracks.named) != known {
		r.grow()
	}
	r.messages = append(r.messages, m)
}

// setProject notes that another state of the project plays from a tick of the transport on.
func (r *recording) setProject(project *score.Project, revision int64, from score.Tick) {
	at := from - r.start
	r.origins = append(r.origins, take.Origin{Tick: at, Revision: revision, Project: project})
	r.heading.Markers = take.MarkChanges(r.heading.Markers, r.project, project, at)
	r.project = project
	r.tracks.play(project, at)
	r.grow()
}

// acted notes that the project plays otherwise from a tick of the transport on, by what was done.
func (r *recording) acted(project *score.Project, from score.Tick) {
	before := len(r.heading.Markers)
	r.heading.Markers = take.MarkChanges(r.heading.Markers, r.project, project, from-r.start)
	if r.project = project; len(r.heading.Markers) > before {
		r.grow()
	}
}

// given notes what plays by what the song and chains have given, which puts no marker for each pattern.
func (r *recording) given(project *score.Project) { r.project = project }

// mark puts a marker at a tick of the transport.
func (r *recording) mark(at score.Tick, text string) {
	r.heading.Markers = append(slices.Clone(r.heading.Markers), take.Marker{Tick: max(0, at-r.start), Text: text})
	slices.SortStableFunc(r.heading.Markers, func(a, b take.Marker) int { return cmp.Compare(a.Tick, b.Tick) })
	r.grow()
}

// setTime takes over the part of the transport's tempos and bars that concerns the take.
func (r *recording) setTime(tempo play.TempoMap, bars score.Bars) {
	r.retime(tempo, bars)
	r.grow()
}

// setFollowed takes over tempos that are followed, of which there are many: they are written now and then only, and the log has them too.
func (r *recording) setFollowed(tempo play.TempoMap, bars score.Bars) {
	r.retime(tempo, bars)
	r.stale = max(1, r.stale)
}

func (r *recording) retime(tempo play.TempoMap, bars score.Bars) {
	r.tempo, r.bars = tempo, bars
	var metered take.Take
	metered.SetMeters(bars, r.start)
	r.heading.Meter, r.heading.Meters = metered.Meter, metered.Meters
	var own play.TempoMap
	for _, change := range tempo {
		change.Tick = max(0, change.Tick-r.start)
		if last := len(own) - 1; last >= 0 && own[last].Tick == change.Tick {
			own[last] = change
			continue
		}
		own = append(own, change)
	}
	r.heading.Tempo = own
}

func (r *recording) grow() {
	r.heading.Tracks = slices.Clone(r.tracks.named)
	r.grown = true
}

// finish ends the recording at a tick of the transport.
func (r *recording) finish(at score.Tick) { r.ended, r.end = true, max(0, at-r.start) }

// written notes what a copy of the recording, which was made before more came, has brought to disk.
func (r *recording) written(c *recording) {
	r.standing.Note(r.messages[:c.done])
	r.messages = slices.Delete(r.messages, 0, c.done)
	if c.placed > 0 {
		r.origin = r.origins[c.placed-1]
		r.origins = slices.Delete(r.origins, 0, c.placed)
	}
	r.id, r.stored, r.logged = c.id, c.stored, c.logged
}

// bound returns the beginning of the bar of the first thing that is not on disk.
func (r *recording) bound() score.Tick {
	first := r.end
	switch {
	case len(r.messages) > 0:
		first = r.messages[0].Tick
	case len(r.origins) > 0:
		first = r.origins[0].Tick
	}
	return r.header().Bars().Floor(first)
}

// goOn makes the recording one that is still to be created and begins later: with what instruments were told before.
func (r *recording) goOn(by score.Tick) {
	for len(r.origins) > 0 && r.origins[0].Tick <= by {
		r.origin, r.origins = r.origins[0], r.origins[1:]
	}
	r.origin.Tick = 0
	for i := range r.origins {
		r.origins[i].Tick -= by
	}
	for i := range r.messages {
		r.messages[i].Tick = max(0, r.messages[i].Tick-by)
	}
	r.messages = append(r.standing.Standing(0), r.messages...)
	r.heading.Markers = slices.DeleteFunc(slices.Clone(r.heading.Markers), func(m take.Marker) bool { return m.Tick < by })
	for i := range r.heading.Markers {
		r.heading.Markers[i].Tick -= by
	}
	for i := range r.tracks.eras {
		r.tracks.eras[i].from = max(0, r.tracks.eras[i].from-by)
	}
	r.start, r.end = r.start+by, max(0, r.end-by)
	r.first = max(r.first, r.start)
	r.id, r.stored, r.standing, r.refused, r.logged = 0, 0, midi.Settings{}, 0, notLogged
	r.setTime(r.tempo, r.bars)
}
