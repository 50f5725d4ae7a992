package stage

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/bounds"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// perMille is the unit of what is counted in tenths of a percent.
const perMille = "0.1 %"

// bits is the unit of values of which each bit says something.
const bits = "bits"

// onOff are the values of what is on or off.
var onOff = []string{"off", "on"}

// MaxPush is the most by which the tempo is pushed, in tenths of a percent.
const MaxPush = 500

// What controls write is bounded by the types of the project.
var (
	projectBounds   = bounds.For[score.Project]()
	luckBounds      = bounds.For[score.Luck]()
	trackBounds     = bounds.For[score.Track]()
	transposeBounds = bounds.For[score.Transpose]()
	partBounds      = bounds.For[score.Part]()
	layerBounds     = bounds.For[score.FieldLayer]()
	laneBounds      = bounds.For[score.Lane]()
	spreadBounds    = bounds.For[score.Spread]()
)

// within gives a control the bounds of the field that it writes.
func within[T any](b bounds.Bounds[T], field string, spec Spec) Spec {
	spec.Min, spec.Max = b.Of(field)
	return spec
}

// specs is the registry. It is in the order in which live changes are put on a project. A new control is one entry.
var specs []Spec

func init() { // because rules of entries look others up
	specs = append(moverSpecs(),
		Spec{Name: "meter", Of: OfProject, Words: "meter of a section", Min: 1, Max: score.MaxReferenceID, OfSong: true, byBar: true, control: control{
			read: func(*target) int { return 0 }, edit: timeOf}},
		Spec{Name: "tempo", Of: OfProject, Words: "tempo", Unit: "1/1000 bpm", Min: int(score.MinTempo), Max: int(score.MaxTempo), byBar: true, control: control{
			read: func(t *target) int { return t.writtenTempo() }, edit: timeOf}},
		Spec{Name: "push", Of: OfProject, Words: "tempo push", Unit: perMille, Min: -MaxPush, Max: MaxPush, Momentary: true, control: control{
			read: func(*target) int { return 0 }, edit: timeOf}},
		Spec{Name: "key", Of: OfProject, Words: "key of a section", Min: 1, Max: score.MaxReferenceID, OfSong: true, control: control{
			read: func(*target) int { return 0 },
			edit: func(t *target, value int) (form score.EditJSON) {
				if section := t.project.Section(value); section != nil && section.Key != nil {
					form.SetProject = &score.SetProject{Key: section.Key}
				}
				return form
			}}},
		within(projectBounds, "sceneOn", Spec{Name: SceneOn, Of: OfProject, Words: "scene", hears: hearsSong, control: control{
			read: func(t *target) int { return t.project.SceneOn },
			edit: func(_ *target, value int) score.EditJSON {
				return score.EditJSON{SetProject: &score.SetProject{SceneOn: &value}}
			}}}),
		Spec{Name: SectionOn, Of: OfProject, Words: "section", Max: score.MaxReferenceID, OfSong: true, hears: hearsSong, control: control{
			read: func(t *target) int { return t.project.SectionOn },
			edit: func(_ *target, value int) score.EditJSON {
				return score.EditJSON{SetProject: &score.SetProject{SectionOn: &value}}
			}}},
		Spec{Name: SectionBar, Of: OfProject, Words: "bar of the section", Max: score.MaxMeterBar, OfSong: true, control: control{
			read: func(t *target) int { return t.project.SectionBar },
			edit: func(_ *target, value int) score.EditJSON {
				return score.EditJSON{SetProject: &score.SetProject{SectionBar: &value}}
			}}},
		within(luckBounds, "number", Spec{Name: "luck", Of: OfProject, Words: "luck", control: control{
			read: func(t *target) int { return t.project.Luck.Number },
			edit: func(_ *target, value int) score.EditJSON {
				return score.EditJSON{ChangeLuck: &score.ChangeLuck{Number: value}}
			}}}),
		Spec{Name: "fill", Of: OfProject, Words: "fill", Max: 1, Values: onOff, Momentary: true, control: control{
			read: func(t *target) int { return number(t.project.Filling) },
			edit: func(_ *target, value int) score.EditJSON {
				return score.EditJSON{SetProject: &score.SetProject{Filling: given(value > 0)}}
			}}},
		Spec{Name: "fill level", Of: OfProject, Words: "fill level, 0 as the parts", Unit: "%", Max: 100, control: control{
			read: func(t *target) int { return t.project.FillLevel },
			edit: func(_ *target, value int) score.EditJSON {
				return score.EditJSON{SetProject: &score.SetProject{FillLevel: &value}}
			}}},
		Spec{Name: "swing", Of: OfProject, Words: "swing", Unit: perMille, Min: score.Straight, Max: score.MostSwing, control: control{
			read: func(t *target) int { return t.project.Swing },
			edit: func(_ *target, value int) score.EditJSON {
				return score.EditJSON{SetProject: &score.SetProject{Swing: &value}}
			}}},
	)
	specs = append(specs, trackSpecs()...)
	specs = append(specs, onceSpecs()...)
	specs = append(specs, partSpecs()...)
	specs = append(specs, fieldSpecs()...)
	specs = append(specs, laneSpecs()...)
	for i := range specs {
		specs[i].Movable, specs[i].Modulated = specs[i].movable(), specs[i].modulated()
	}
}

func trackSpecs() []Spec {
	return []Spec{
		onTrack(Spec{Name: "mute", Words: "mute", Max: 1, Values: onOff, silences: true},
			func(t *score.Track) int { return number(t.Mute) },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{Mute: given(value > 0)} }),
		onTrack(Spec{Name: "solo", Words: "solo", Max: 1, Values: onOff, silences: true},
			func(t *score.Track) int { return number(t.Solo) },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{Solo: given(value > 0)} }),
		onTrack(Spec{Name: "active", Words: "active", Max: 1, Values: onOff, silences: true},
			func(t *score.Track) int { return number(!t.OffAir) },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{OffAir: given(value == 0)} }),
		onTrack(within(trackBounds, "playing", Spec{Name: "pattern", Words: "pattern"}),
			func(t *score.Track) int { return t.Playing },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{Playing: &value} }),
		onTrack(within(transposeBounds, "degrees", Spec{Name: "degrees", Words: "transpose by degrees"}),
			func(t *score.Track) int { return t.Transpose.Degrees },
			func(t *score.Track, value int) score.SetTrack {
				return score.SetTrack{Transpose: &score.Transpose{Degrees: value, Semitones: t.Transpose.Semitones}}
			}),
		onTrack(within(transposeBounds, "semitones", Spec{Name: "semitones", Words: "transpose by semitones"}),
			func(t *score.Track) int { return t.Transpose.Semitones },
			func(t *score.Track, value int) score.SetTrack {
				return score.SetTrack{Transpose: &score.Transpose{Degrees: t.Transpose.Degrees, Semitones: value}}
			}),
		onTrack(Spec{Name: "lowest", Words: "lowest note", Max: 116},
			func(t *score.Track) int { return t.Register.Lowest },
			func(t *score.Track, value int) score.SetTrack {
				return score.SetTrack{Register: &theory.Register{Lowest: value, Highest: t.Register.Highest}}
			}),
		onTrack(Spec{Name: "highest", Words: "highest note", Min: 11, Max: theory.HighestNote},
			func(t *score.Track) int { return t.Register.Highest },
			func(t *score.Track, value int) score.SetTrack {
				return score.SetTrack{Register: &theory.Register{Lowest: t.Register.Lowest, Highest: value}}
			}),
		onTrack(Spec{Name: "speed", Words: "speed", Max: 255, Values: speeds()},
			func(t *score.Track) int { return (t.Speed.N-1)*16 + t.Speed.M - 1 },
			func(_ *score.Track, value int) score.SetTrack {
				return score.SetTrack{Speed: &score.Ratio{N: value/16 + 1, M: value%16 + 1}}
			}),
		onTrack(Spec{Name: "swing", Words: "swing, 0 as the project", Unit: perMille, Max: score.MostSwing},
			func(t *score.Track) int { return t.Swing },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{Swing: &value} }),
		onTrack(within(trackBounds, "delay", Spec{Name: "delay", Words: "delay", Unit: "ticks"}),
			func(t *score.Track) int { return int(t.Delay) },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{Delay: given(score.Tick(value))} }),
		onTrack(within(trackBounds, "jitter", Spec{Name: "jitter", Words: "jitter", Unit: "ms"}),
			func(t *score.Track) int { return t.Jitter },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{Jitter: &value} }),
		onTrack(within(trackBounds, "probability", Spec{Name: "probability", Words: "probability, less or more", Unit: "%"}),
			func(t *score.Track) int { return t.Probability },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{Probability: &value} }),
		onTrack(within(trackBounds, "hold", Spec{Name: "hold", Words: "hold", Unit: "bars"}),
			func(t *score.Track) int { return t.Hold },
			func(_ *score.Track, value int) score.SetTrack { return score.SetTrack{Hold: &value} }),
	}
}

// The names of what is done once.
const (
	Realign = "realign"
	Evolve  = "evolve"
	// Section has the song go on with the section that has the id; 0 has it end.
	Section = "section"
	// Release has a section that waits for it end with its pass.
	Release = "release"
)

// The names of what only conditions hear.
const (
	SceneOn   = "scene"
	SectionOn = "section that is on"
)

// SectionBar is the bar with which the section began that plays, from 0, for modulators that it restarts.
const SectionBar = "bar of the section"

// onWords names the section or the scene with an id.
func onWords(p *score.Project, control string, id int) string {
	section, scene := p.Section(id), p.Scene(id)
	switch {
	case control == SectionOn && section != nil:
		return section.Name
	case control == SceneOn && scene != nil:
		return scene.Name
	}
	return "none"
}

// hearsSong reports whether a track hears which section or scene is on.
func hearsSong(t *score.Track) bool {
	return slices.ContainsFunc(t.Patterns, func(pattern score.Pattern) bool { return pattern.HearsSong() })
}

// onceSpecs are what is done to a track once: all its lanes go on at their first steps, or those that evolve do so once more;
// and what is done to the song.
func onceSpecs() (specs []Spec) {
	nothing := control{read: func(*target) int { return 0 }}
	specs = append(specs,
		Spec{Name: Section, Of: OfProject, Words: "section", Max: score.MaxReferenceID, Once: true, control: nothing},
		Spec{Name: Release, Of: OfProject, Words: "release the section", Min: 1, Max: 1, Once: true, control: nothing})
	for _, spec := range []Spec{{Name: Realign, Words: "realign now"}, {Name: Evolve, Words: "evolve now"}} {
		spec.Of, spec.Min, spec.Max, spec.Once = OfTrack, 1, 1, true
		spec.control = nothing
		specs = append(specs, spec)
	}
	return specs
}

// onTrack completes the spec of a control of tracks.
func onTrack(spec Spec, read func(*score.Track) int, set func(*score.Track, int) score.SetTrack) Spec {
	spec.Of = OfTrack
	spec.control = control{
		read: func(t *target) int { return read(t.track) },
		edit: func(t *target, value int) score.EditJSON {
			track := *t.track // of whose values some are two controls each
			track.Transpose.Degrees = t.standing("degrees", track.Transpose.Degrees)
			track.Transpose.Semitones = t.standing("semitones", track.Transpose.Semitones)
			track.Register.Lowest = t.standing("lowest", track.Register.Lowest)
			track.Register.Highest = t.standing("highest", track.Register.Highest)
			edit := set(&track, value)
			edit.Track = track.ID
			return score.EditJSON{SetTrack: &edit}
		},
	}
	return spec
}

// speeds names the ratios n:m, by n and then by m.
func speeds() (names []string) {
	for n := 1; n <= 16; n++ {
		for m := 1; m <= 16; m++ {
			names = append(names, fmt.Sprintf("%d:%d", n, m))
		}
	}
	return names
}

func laneSpecs() []Spec {
	var rates, orders []string
	for _, rate := range score.NoteValues() {
		rates = append(rates, string(rate))
	}
	for _, order := range score.Orders() {
		orders = append(orders, string(order))
	}
	lane := func(spec Spec, read func(*score.Lane) int, set func(t *target, value int) score.SetLane) Spec {
		spec.Of = OfLane
		spec.control = control{
			read: func(t *target) int { return read(t.lane) },
			edit: func(t *target, value int) score.EditJSON {
				edit := set(t, value)
				edit.LaneAddress = score.LaneAddress{PartAddress: score.PartAddress{Track: t.Track, Pattern: t.Pattern, Part: t.Part}, Lane: t.Lane}
				return score.EditJSON{SetLane: &edit}
			},
		}
		return spec
	}
	spread := func(t *target) *score.Spread {
		copied := *t.lane.Spread
		copied.Depth, copied.Lean = t.standing("depth", copied.Depth), t.standing("lean", copied.Lean)
		return &copied
	}
	hasSpread := func(t *target) bool { return t.lane.Spread != nil }
	depth := lane(within(spreadBounds, "depth", Spec{Name: "depth", Words: "spread depth", Unit: "%"}),
		func(l *score.Lane) int { return l.Spread.Depth },
		func(t *target, value int) score.SetLane {
			s := spread(t)
			s.Depth = value
			return score.SetLane{Spread: s}
		})
	lean := lane(within(spreadBounds, "lean", Spec{Name: "lean", Words: "spread lean"}),
		func(l *score.Lane) int { return l.Spread.Lean },
		func(t *target, value int) score.SetLane {
			s := spread(t)
			s.Lean = value
			return score.SetLane{Spread: s}
		})
	depth.has, lean.has = hasSpread, hasSpread
	return []Spec{
		lane(within(laneBounds, "first", Spec{Name: "first", Words: "first step"}),
			func(l *score.Lane) int { return l.First },
			func(t *target, value int) score.SetLane { return loopOf(value, t.standing("length", t.lane.Length)) }),
		lane(within(laneBounds, "length", Spec{Name: "length", Words: "length", Unit: "steps"}),
			func(l *score.Lane) int { return l.Length },
			func(t *target, value int) score.SetLane { return loopOf(t.standing("first", t.lane.First), value) }),
		lane(Spec{Name: "rate", Words: "rate", Max: len(rates) - 1, Values: rates},
			func(l *score.Lane) int { return indexOf(rates, string(l.Rate)) },
			func(_ *target, value int) score.SetLane { return score.SetLane{Rate: &score.NoteValues()[value]} }),
		lane(Spec{Name: "order", Words: "order", Max: len(orders) - 1, Values: orders},
			func(l *score.Lane) int { return indexOf(orders, string(l.Order)) },
			func(_ *target, value int) score.SetLane { return score.SetLane{Order: &score.Orders()[value]} }),
		lane(within(laneBounds, "amount", Spec{Name: "amount", Words: "amount", Unit: "%"}),
			func(l *score.Lane) int { return l.Amount },
			func(_ *target, value int) score.SetLane { return score.SetLane{Amount: &value} }),
		depth, lean,
	}
}

// standing returns the value that another control of the same thing has by a live change, or else the written one.
func (t *target) standing(name string, written int) int {
	c := t.Control
	c.Name, c.Bar = name, 0
	return t.standingOf(c, written)
}

// standingOf returns the value that another control has by a live change or by macros, or else the written one.
func (t *target) standingOf(c Control, written int) int {
	value, changed := t.value(c)
	if !changed {
		value = written
	}
	if !t.unmoved && (t.given == nil || c != t.Control) {
		value, _ = t.stage.moved(t.project, c, value)
	}
	return value
}

// loopOf returns a loop of a lane that begins at a step; it ends with the last step that a lane has at the latest.
func loopOf(first, length int) score.SetLane {
	length = min(length, score.MaxSteps-first)
	return score.SetLane{First: &first, Length: &length}
}

func indexOf(list []string, value string) int {
	for i, one := range list {
		if one == value {
			return i
		}
	}
	return 0
}

func number(is bool) int {
	if is {
		return 1
	}
	return 0
}

func given[T any](value T) *T { return &value }
