package play

import (
	"maps"
	"reflect"
	"slices"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Replayed returns the ids of the tracks that must be played from the beginning on where a project takes the place of
// another while it plays, because where they stand can differ. All others stand where they stood: those that do not hear
// of what has changed, and those whose change moves nothing, as of a pitch, a velocity or a length. Tracks that hear each
// other go together. Edits count as if they had always been; a change that moves nothing counts from the track's first
// step on none of whose notes can begin before. It is quick if no track needs all that comes before to be played.
func Replayed(before, after *score.Project) (ids []int, quick bool) {
	heardBefore, heard := hearingOf(before), hearingOf(after)
	groups := heard.coupled(after)
	far := NewPerformer(after)
	moved := map[int]bool{} // by group
	quick = true
	for i := range after.Tracks {
		track := &after.Tracks[i]
		was := before.Track(track.ID)
		group := groups[track.ID]
		switch {
		case moved[group]:
		case was == nil || !reflect.DeepEqual(whatMoves(before, heardBefore, was), whatMoves(after, heard, track)):
			moved[group] = true
		case far.jumps(track.ID): // so that a change can count at once
			moved[group] = !sameValues(before, after, was, track)
		}
	}
	for i := range after.Tracks {
		if id := after.Tracks[i].ID; moved[groups[id]] {
			ids = append(ids, id)
			quick = quick && far.jumps(id)
		}
	}
	return ids, quick
}

// jumps reports whether a track can be brought to any moment at once.
func (f *Performer) jumps(track int) bool {
	any := false
	for _, g := range f.groups {
		for _, s := range g.alone {
			if s.key().track != track {
				continue
			}
			if any = true; !s.jumps() {
				return false
			}
		}
	}
	return any
}

// sameValues reports whether what moves nothing is the same too.
func sameValues(before, after *score.Project, was, is *score.Track) bool {
	return reflect.DeepEqual(before.Key, after.Key) && reflect.DeepEqual(was.Parts(), is.Parts()) &&
		was.Transpose == is.Transpose && was.Register == is.Register
}

// moving is all of a project that decides where the lanes of a track stand, what they have drawn, and which of its
// notes were played already.
type moving struct {
	track     score.Track
	meter     score.Meter
	meters    []score.MeterChange
	tempo     TempoMap
	luck      int
	swing     int
	grid      score.Tick
	hears     []int // whatever pattern plays
	filling   bool  // if that changes what it plays
	sceneOn   int   // as the section, if a condition is about it
	sectionOn int
	fillLevel int
	key       theory.Key // of a track that tunes its notes

	chords     *score.ChordMap    // that its pitches are from
	modulators []score.Modulator  // that move it, and those that they copy
	moved      []score.MovedValue // of their controls
	section    int                // the bar with which it began, if it restarts one of them
	chance     int                // the luck of those that are random
}

// whatMoves returns what decides where a track stands.
func whatMoves(p *score.Project, h hearing, t *score.Track) moving {
	m := moving{hears: h[t.ID], meter: p.Meter, meters: p.MeterChanges, tempo: TempoMapOf(p), luck: p.Luck.Number, filling: p.Filling && fills(p, t)}
	if m.filling {
		m.fillLevel = p.FillLevel
	}
	if t.Pattern(t.Playing).HearsSong() {
		m.sceneOn, m.sectionOn = p.SceneOn, p.SectionOn
	}
	if t.Luck != score.FollowLuck {
		m.luck = t.Luck
	}
	m.swing, m.grid = p.SwingOf(t)
	m.takeModulators(p, t)
	m.track = *t
	m.track.Name, m.track.Channel, m.track.Program, m.track.Bank, m.track.Overlap = "", 0, 0, 0, 0
	m.track.Routes, m.track.MuteCuts, m.track.ChaseWaits = nil, false, false // of outputs
	m.track.Mute, m.track.Solo, m.track.OffAir = false, false, false         // what is silent decides all the same
	m.track.Patterns = []score.Pattern{*t.Pattern(t.Playing)}
	m.track.Patterns[0].After = nil // which the song decides
	withoutRecalled(m.track.Patterns)
	if t.Pitches != nil && t.Pitches.Kind == score.MapPitches {
		m.chords = p.ChordMap(t.Pitches.Map)
	}
	// Where its notes go depends on those before, or how many there are on their pitches, or others have their pitches from it.
	if t.Retunes() || hasNotes(t) || t.Pitches != nil || givesPitches(p, t) {
		m.key = p.Key
		return m
	}
	m.track.Transpose, m.track.Register = score.Transpose{}, theory.Register{}
	parts := slices.Clone(m.track.Parts())
	for i := range parts {
		parts[i] = withoutValues(parts[i])
	}
	m.track.Patterns[0].Parts = parts
	return m
}

// withoutRecalled forgets by which layers fields hold what they hold.
func withoutRecalled(patterns []score.Pattern) {
	for i := range patterns {
		patterns[i].Parts = slices.Clone(patterns[i].Parts)
		for k := range patterns[i].Parts {
			if of := patterns[i].Parts[k].Field; of != nil {
				field := *of
				field.Recalled = score.RecalledLayers{}
				patterns[i].Parts[k].Field = &field
			}
		}
	}
}

// hasNotes reports whether steps of a track have notes of their own, which can fall on one key.
func hasNotes(t *score.Track) bool {
	return slices.ContainsFunc(t.Parts(), func(part score.Part) bool {
		for _, own := range part.Lanes.Lane(score.Pitch).Own {
			if len(own.Notes) > 0 {
				return true
			}
		}
		return false
	})
}

// givesPitches reports whether another track has its pitches from a track, or a modulator goes with them.
func givesPitches(p *score.Project, t *score.Track) bool {
	return slices.ContainsFunc(p.Tracks, func(other score.Track) bool { return other.Pitches.FollowsTrack() == t.ID }) ||
		slices.ContainsFunc(p.Modulators, func(m score.Modulator) bool { return m.Shape.DrivenByTrack() && m.Track == t.ID })
}

// fills reports whether a fill changes what a track plays.
func fills(p *score.Project, t *score.Track) bool {
	for i := range t.Parts() {
		part := &t.Parts()[i]
		if p.FillOf(part) > 0 {
			return true
		}
		for _, detail := range part.Details {
			terms, _, _ := detail.Condition.Terms()
			if slices.ContainsFunc(terms, func(term score.Term) bool { return term.Kind == score.FillingTerm }) {
				return true
			}
		}
	}
	return false
}

// withoutValues returns a part without the values that move nothing.
func withoutValues(part score.Part) score.Part {
	part.Name, part.Note, part.Mute, part.Ratchet.Ramp = "", 0, false, 0
	for _, name := range []score.LaneName{score.Pitch, score.Octave, score.Alteration, score.Velocity, score.Length} {
		if !part.Lanes.Has(name) {
			continue
		}
		lane := *part.Lanes.Lane(name)
		if lane.Evolve != nil || slices.ContainsFunc(lane.Weights, func(w score.Weight) bool { return w.Rest }) || rests(&lane) {
			continue
		}
		lane.Steps, lane.Spread, lane.Weights, lane.Amount, lane.Locked, lane.Own = nil, nil, nil, 0, nil, nil
		part.Lanes.Set(name, &lane)
	}
	if part.Field != nil { // what moves on it does not hear the notes
		field := *part.Field
		field.RowNotes, field.ColumnNotes, field.Cells = nil, nil, slices.Clone(field.Cells)
		for i := range field.Cells {
			c := &field.Cells[i]
			c.Degree, c.Octave, c.Velocity, c.Length = 0, 0, 0, 0
		}
		part.Field = &field
	}
	return part
}

// With returns the state in which tracks stand as in another.
func (s *State) With(other *State, tracks []int) *State {
	of := func(track int) bool { return slices.Contains(tracks, track) }
	merged := &State{
		played: s.played, silenced: s.silenced, ready: s.ready,
		sources: maps.Clone(s.sources), left: maps.Clone(s.left), tracks: maps.Clone(s.tracks),
	}
	maps.DeleteFunc(merged.left, func(key partKey, _ partState) bool { return of(key.track) })
	for key, left := range other.left {
		if of(key.track) {
			merged.left[key] = left
		}
	}
	maps.DeleteFunc(merged.sources, func(key partKey, _ any) bool { return of(key.track) })
	for key, source := range other.sources {
		if of(key.track) {
			merged.sources[key], merged.tracks[key.track] = source, other.tracks[key.track]
		}
	}
	for from, taken := range map[*State]func(track uint32) bool{
		s:     func(track uint32) bool { return !of(int(track)) },
		other: func(track uint32) bool { return of(int(track)) },
	} {
		merged.notes = append(merged.notes, those(from.notes, func(n Note) bool { return taken(n.Track) })...)
		merged.changes = append(merged.changes, those(from.changes, func(c pendingChange) bool { return taken(c.Track) })...)
		merged.lastSent = append(merged.lastSent, those(from.lastSent, func(c pendingChange) bool { return taken(c.Track) })...)
	}
	return merged
}

func those[T any](list []T, taken func(T) bool) (kept []T) {
	for _, one := range list {
		if taken(one) {
			kept = append(kept, one)
		}
	}
	return kept
}

// takeModulators takes what moves a track by itself.
func (m *moving) takeModulators(p *score.Project, t *score.Track) {
	about := func(c score.ControlAddress) bool { return c.Track == 0 || c.Track == t.ID }
	for i := range p.Modulators {
		one := p.Modulators[i]
		original := p.Original(&one)
		one.Moves = slices.DeleteFunc(slices.Clone(one.Moves), func(move score.ModulatorMove) bool { return !about(move.Control) })
		one.Sends = slices.DeleteFunc(slices.Clone(one.Sends), func(send score.ModulatorSend) bool { return send.Track != t.ID })
		one.Name = ""
		clocks := t.Source.Kind == score.CurveClock && t.Source.Modulator == one.ID
		if len(one.Moves)+len(one.Sends) == 0 && !clocks {
			continue
		}
		m.modulators = append(m.modulators, one)
		if original != nil && original.ID != one.ID {
			curve := *original
			curve.Name, curve.Moves, curve.Sends = "", nil, nil
			m.modulators = append(m.modulators, curve)
		}
		if original != nil && original.RestartSections {
			m.section = p.SectionBar
		}
		m.chance = p.Luck.Number
	}
	if len(m.modulators) > 0 {
		for _, value := range p.Moved {
			if about(value.Control) {
				m.moved = append(m.moved, value)
			}
		}
	}
}
