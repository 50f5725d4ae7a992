package testkit

import (
	"fmt"
	"slices"

	"pgregory.net/rapid"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// Project draws a valid project with up to four tracks, which often share a channel.
func Project(t *rapid.T) *score.Project {
	p := &score.Project{
		Name:  "Drawn",
		Tempo: tempo(t), TempoChanges: tempoChanges(t),
		Meter: meter(t), MeterChanges: meterChanges(t),
		Key: Key(t),
		Luck: score.Luck{
			Number: luck(t),
			Former: rapid.SliceOfN(rapid.IntRange(0, score.MaxLuck), 0, 3).Draw(t, "former"),
		},
		Swing:     rapid.SampledFrom([]int{500, 500, 583, 667, 750}).Draw(t, "swing"),
		SwingGrid: rapid.SampledFrom(score.SwingGrids()).Draw(t, "swing grid"),
		FillLevel: rapid.SampledFrom([]int{0, 0, 0, 30, 100}).Draw(t, "fill level"),
		Filling:   rapid.Bool().Draw(t, "filling"), PatternsCut: rapid.Bool().Draw(t, "patterns cut"),
		Switches: rapid.SampledFrom([][]score.Switch{nil, switches}).Draw(t, "switches"),
		Recipes:  rapid.SampledFrom([][]score.Recipe{nil, recipes}).Draw(t, "recipes"),
	}
	p.Luck.Former = append([]int{}, p.Luck.Former...)
	ids := []int{1, 2, 3, 4}[:rapid.IntRange(1, 4).Draw(t, "tracks")]
	p.Outputs = outputs(t)
	for _, id := range ids {
		drawn := track(t, id, ids)
		drawn.Routes = routes(t, p.Outputs, drawn.Kind)
		p.Tracks = append(p.Tracks, drawn)
	}
	addSong(t, p)
	p.Inputs = rapid.SampledFrom([][]score.Input{nil, inputs}).Draw(t, "inputs")
	p.Macros = rapid.SampledFrom([][]score.Macro{nil, macros}).Draw(t, "macros")
	p.Modulators = modulators(t, p)
	chords(t, p)
	layers(t, p)
	p.Mappings = rapid.SampledFrom([][]score.Mapping{nil, mappings}).Draw(t, "mappings")
	return p
}

// Key draws a key.
func Key(t *rapid.T) theory.Key {
	key := theory.Key{
		Root:  rapid.IntRange(0, theory.Octave-1).Draw(t, "root"),
		Scale: rapid.SampledFrom(append(theory.ScaleNames(), theory.Custom)).Draw(t, "scale"),
	}
	if rapid.IntRange(0, 2).Draw(t, "in a tuning") == 0 {
		key.Tuning = Tuning(t)
		key.Root %= key.Period()
		if key.Period() != theory.Octave && key.Scale != theory.Custom {
			key.Scale = theory.Chromatic
		}
	}
	if key.Scale == theory.Custom {
		key.Notes = append([]int{0}, subset(t, 1, key.Period()-1, "notes")...)
	}
	if rapid.Bool().Draw(t, "some allowed") {
		key.Allowed = subset(t, 0, key.Spelling().Notes()-1, "allowed")
	}
	return key
}

func subset(t *rapid.T, least, most int, label string) []int {
	var chosen []int
	for i := least; i <= most; i++ {
		if rapid.Bool().Draw(t, label) {
			chosen = append(chosen, i)
		}
	}
	return chosen
}

func luck(t *rapid.T) int { return rapid.IntRange(0, score.MaxLuck).Draw(t, "luck") }

// Loop draws a loop, or seldom one.
func Loop(t *rapid.T) *score.Loop {
	if !seldom(t, "loop") {
		return nil
	}
	length := rapid.IntRange(int(score.MinLoop), 100_000).Draw(t, "loop length")
	loop := &score.Loop{Start: score.Tick(rapid.IntRange(0, 200_000).Draw(t, "loop start")), Length: score.Tick(length)}
	starts := rapid.SliceOfN(rapid.IntRange(0, length-1), 0, 6).Draw(t, "loop notes")
	slices.Sort(starts)
	for _, start := range starts {
		loop.Notes = append(loop.Notes, score.LoopNote{
			Start: score.Tick(start), Length: score.Tick(rapid.IntRange(1, length).Draw(t, "note length")),
			Key: rapid.IntRange(0, 127).Draw(t, "key"), Velocity: rapid.IntRange(1, 127).Draw(t, "velocity"),
		})
	}
	return loop
}

func track(t *rapid.T, id int, ids []int) score.Track {
	drawn := score.Track{
		ID:      id,
		Name:    fmt.Sprintf("Track %d", id),
		Kind:    rapid.SampledFrom([]score.Kind{score.Melodic, score.Melodic, score.Kit, score.Kit, score.FieldKind}).Draw(t, "kind"),
		Channel: rapid.IntRange(1, 2).Draw(t, "channel"),
		Mute:    seldom(t, "mute"), Solo: seldom(t, "solo"), OffAir: seldom(t, "off air"),
		Source:         source(t, id, ids),
		Voices:         rapid.SampledFrom([]int{0, 0, 1, 3}).Draw(t, "voices"),
		Overlap:        score.Tick(rapid.SampledFrom([]int{0, 0, 600}).Draw(t, "overlap")),
		Shifts:         rapid.SampledFrom([][]score.NoteValue{nil, nil, {"1/32"}, {"1/64t", "1/4"}}).Draw(t, "shifts"),
		Register:       register(t),
		Transpose:      transpose(t),
		Speed:          ratio(t),
		Swing:          rapid.SampledFrom([]int{0, 0, 500, 661, 750}).Draw(t, "track swing"),
		EntersAsPlayed: seldom(t, "enters as played"),
		SwingOwnSteps:  rapid.Bool().Draw(t, "swing by its own steps"),
		Delay:          score.Tick(rapid.SampledFrom([]int{0, 0, -20160, -300, 700, 20160}).Draw(t, "delay")),
		Jitter:         rapid.SampledFrom([]int{0, 0, 5, 100}).Draw(t, "jitter"),
		Probability:    rapid.SampledFrom([]int{0, 0, 0, -100, -30, 45, 100}).Draw(t, "track probability"),
		Luck:           rapid.SampledFrom([]int{score.FollowLuck, score.FollowLuck, 7}).Draw(t, "track luck"),
		Hold:           rapid.SampledFrom([]int{0, 0, 1, 3}).Draw(t, "hold"),
		HoldFrom:       rapid.SampledFrom([]int{0, 0, 1, 2}).Draw(t, "hold from"),
		Realign:        rapid.SampledFrom([]int{0, 0, 1, 2}).Draw(t, "realign"),
		Program:        rapid.SampledFrom([]int{0, 0, 1, 128}).Draw(t, "program"),
		Bank:           rapid.SampledFrom([]int{0, 1, 16384}).Draw(t, "bank"),
	}
	if drawn.Kind == score.Melodic {
		drawn.Tuned = tuned(t)
	}
	if drawn.Kind == score.FieldKind {
		drawn.Source = score.Source{Kind: score.OwnClock, Odds: 100}
	}
	if drawn.Retunes() { // it needs channels of its own
		drawn.Channel = 3 * id
		if id > 2 {
			drawn.Channel += 2 // beside channel 10, which new kits take
		}
	}
	parts := 1
	if drawn.Kind == score.Kit {
		parts = rapid.IntRange(1, 3).Draw(t, "parts")
	}
	drawn.Patterns = make([]score.Pattern, rapid.IntRange(1, 2).Draw(t, "patterns"))
	for i := range drawn.Patterns {
		drawn.Patterns[i].ID = 3 * i
		drawn.Patterns[i].Name = fmt.Sprintf("Pattern %d", i+1)
		for id := range parts {
			drawn.Patterns[i].Parts = append(drawn.Patterns[i].Parts, part(t, 7*id, ids, drawn.Retunes()))
			if drawn.Kind == score.FieldKind {
				drawn.Patterns[i].Parts[id].Field = Field(t)
			}
		}
	}
	drawn.Playing = rapid.SampledFrom(drawn.Patterns).Draw(t, "playing").ID
	return drawn
}

func seldom(t *rapid.T, label string) bool { return rapid.IntRange(0, 5).Draw(t, label) == 5 }

func transpose(t *rapid.T) score.Transpose {
	return score.Transpose{
		Degrees:   rapid.IntRange(-5, 5).Draw(t, "degrees"),
		Semitones: rapid.SampledFrom([]int{0, 0, -48, 5}).Draw(t, "semitones"),
	}
}

func ratio(t *rapid.T) score.Ratio {
	return rapid.SampledFrom([]score.Ratio{{N: 1, M: 1}, {N: 1, M: 1}, {N: 3, M: 2}, {N: 7, M: 16}, {N: 4, M: 1}}).Draw(t, "speed")
}

func part(t *rapid.T, id int, ids []int, retunes bool) score.Part {
	drawn := score.Part{
		ID: id, Name: "Part", Note: rapid.IntRange(0, 127).Draw(t, "note"), Mute: seldom(t, "mute part"), Fill: rapid.SampledFrom([]int{0, 30}).Draw(t, "fill"),
		Ratchet: shape(t), Voicing: voicing(t), Held: held(t),
		Mods: mods(t, retunes), SlideTime: rapid.IntRange(0, 127).Draw(t, "slide time"),
		LengthUnit: lengthUnit(t), Durations: durations(t),
	}
	for range rapid.IntRange(0, 4).Draw(t, "details") {
		if drawn.Details == nil {
			drawn.Details = map[int]score.StepDetail{}
		}
		if detail := Detail(t, ids); detail != (score.StepDetail{}) {
			drawn.Details[rapid.IntRange(0, score.MaxSteps-1).Draw(t, "step")] = detail
		}
	}
	if len(drawn.Details) == 0 {
		drawn.Details = nil
	}
	for _, spec := range score.LaneSpecs() {
		if spec.Always || rapid.IntRange(0, 2).Draw(t, "has") == 0 {
			drawn.Lanes.Set(spec.Name, lane(t, spec))
		}
	}
	return drawn
}

func shape(t *rapid.T) score.RatchetShape {
	return score.RatchetShape{
		Spacing: rapid.SampledFrom(score.Spacings()).Draw(t, "spacing"),
		Ramp:    rapid.IntRange(-100, 100).Draw(t, "ramp"),
		Odds:    rapid.SampledFrom([]int{0, 50, 100}).Draw(t, "odds"),
	}
}

func lane(t *rapid.T, spec score.LaneSpec) *score.Lane {
	drawn := &score.Lane{
		Linked: spec.Name != score.Gate && rapid.Bool().Draw(t, "linked"),
		Length: laneLength(t),
		Rate:   rapid.SampledFrom(score.NoteValues()).Draw(t, "rate"),
		Order:  rapid.SampledFrom(score.Orders()).Draw(t, "order"),
		Drift:  drift(t),
		Moves:  score.ByClock,
		Amount: rapid.SampledFrom([]int{100, 100, 0, 50, 200}).Draw(t, "amount"),
		Steps:  steps(t, spec),
	}
	drawn.First = rapid.IntRange(0, score.MaxSteps-drawn.Length).Draw(t, "first")
	if spec.Name != score.Gate {
		drawn.Moves = rapid.SampledFrom(spec.Name.Movers()).Draw(t, "moves")
	}
	if drawn.Order == score.Path {
		drawn.Path = path(t)
	}
	if spec.Name == score.Gate {
		return drawn
	}
	if rapid.IntRange(0, 3).Draw(t, "weighs") == 0 {
		drawn.Weights = weights(t, spec)
	}
	if rapid.IntRange(0, 3).Draw(t, "evolves") == 0 {
		evolve := evolve(t, spec)
		drawn.Evolve = &evolve
		drawn.Locked = subset(t, 0, 5, "locked")
	}
	if rapid.Bool().Draw(t, "spreads") {
		spread := Spread(t)
		drawn.Spread = &spread
	}
	if seldom(t, "steps of their own") {
		drawn.Own = owns(t, spec)
	}
	return drawn
}

// steps draws a few values and repeats them, which is quicker than drawing all and as good.
func steps(t *rapid.T, spec score.LaneSpec) []int {
	few := rapid.SliceOfN(rapid.IntRange(spec.Least, spec.Most), 1, 7).Draw(t, "steps")
	return slices.Repeat(few, score.MaxSteps)[:score.MaxSteps:score.MaxSteps]
}

func weights(t *rapid.T, spec score.LaneSpec) []score.Weight {
	drawn := make([]score.Weight, rapid.IntRange(1, 3).Draw(t, "weights"))
	for i := range drawn {
		lowest := rapid.IntRange(spec.Least, spec.Most).Draw(t, "lowest")
		drawn[i] = score.Weight{
			Lowest: lowest, Highest: rapid.IntRange(lowest, spec.Most).Draw(t, "highest"),
			Weight: rapid.IntRange(0, 3).Draw(t, "weight"),
			Rest:   spec.Name == score.Pitch && rapid.Bool().Draw(t, "rest"),
		}
	}
	return drawn
}

func evolve(t *rapid.T, spec score.LaneSpec) score.Evolve {
	lowest := rapid.IntRange(spec.Least, spec.Most).Draw(t, "lowest")
	return score.Evolve{
		Every: rapid.IntRange(1, 3).Draw(t, "every"), Percent: rapid.IntRange(0, 100).Draw(t, "percent"),
		Lowest: lowest, Highest: rapid.IntRange(lowest, spec.Most).Draw(t, "highest"),
	}
}

func lengthUnit(t *rapid.T) score.NoteValue {
	return rapid.SampledFrom([]score.NoteValue{"", "", "1/8.", "1/32t"}).Draw(t, "length unit")
}

func durations(t *rapid.T) []score.Duration {
	if rapid.IntRange(0, 3).Draw(t, "durations") > 0 {
		return nil
	}
	drawn := make([]score.Duration, rapid.IntRange(1, 3).Draw(t, "durations"))
	for i := range drawn {
		drawn[i] = score.Duration{
			Value: rapid.SampledFrom(score.NoteValues()).Draw(t, "value"),
			Rest:  rapid.Bool().Draw(t, "rest"), Weight: rapid.IntRange(0, 3).Draw(t, "weight"),
		}
	}
	return drawn
}

func tempoChanges(t *rapid.T) []score.TempoChange {
	var drawn []score.TempoChange
	at := score.Tick(0)
	for range rapid.IntRange(0, 2).Draw(t, "tempo changes") {
		at += score.Tick(rapid.IntRange(1, 100_000).Draw(t, "at"))
		drawn = append(drawn, score.TempoChange{Tick: at, Tempo: tempo(t)})
	}
	return drawn
}

func meter(t *rapid.T) score.Meter {
	drawn := score.Meter{Beats: rapid.IntRange(1, 16).Draw(t, "beats"), Unit: rapid.SampledFrom([]int{2, 4, 8, 16}).Draw(t, "unit")}
	if rapid.IntRange(0, 3).Draw(t, "grouped") == 3 {
		first := rapid.IntRange(1, drawn.Beats).Draw(t, "group")
		if drawn.Groups = []int{first}; first < drawn.Beats {
			drawn.Groups = append(drawn.Groups, drawn.Beats-first)
		}
	}
	return drawn
}

func meterChanges(t *rapid.T) []score.MeterChange {
	var drawn []score.MeterChange
	bar := 0
	for range rapid.SampledFrom([]int{0, 0, 1, 2}).Draw(t, "meter changes") {
		bar += rapid.IntRange(1, 5).Draw(t, "bar")
		drawn = append(drawn, score.MeterChange{Bar: bar, Meter: meter(t)})
	}
	return drawn
}

func tempo(t *rapid.T) score.Tempo {
	return score.Tempo(rapid.IntRange(int(score.MinTempo), int(score.MaxTempo)).Draw(t, "tempo"))
}

func voicing(t *rapid.T) score.Voicing {
	return score.Voicing{
		Inversion: rapid.IntRange(0, 4).Draw(t, "inversion"), Open: rapid.Bool().Draw(t, "open"),
		Strum: rapid.SampledFrom([]int{0, 0, -100, 40}).Draw(t, "strum"),
	}
}

func mods(t *rapid.T, retunes bool) []score.Mod {
	drawn := make([]score.Mod, rapid.IntRange(0, 2).Draw(t, "mods"))
	for i := range drawn {
		target := rapid.SampledFrom(score.ModTargets()).Draw(t, "target")
		if retunes && target == score.BendTarget {
			target = score.PressureTarget
		}
		most := 127
		if target.Spec().Most > 127 {
			most = 1<<14 - 1
		}
		drawn[i] = score.Mod{
			Target: target, Number: rapid.IntRange(0, 31).Draw(t, "number"),
			Least: rapid.IntRange(0, most).Draw(t, "least"), Most: rapid.IntRange(0, most).Draw(t, "most"),
			Glide: score.Tick(rapid.SampledFrom([]int{0, 1000, 20160}).Draw(t, "glide")),
		}
	}
	if len(drawn) == 0 {
		return nil
	}
	return drawn
}

func held(t *rapid.T) score.HeldSteps {
	return rapid.SampledFrom([]score.HeldSteps{nil, nil, nil, {3, 4, 5, 6, 7}, {63}, {0, 3, 9, 31, 32}}).Draw(t, "held")
}

func drift(t *rapid.T) score.DriftOdds {
	forward := rapid.IntRange(0, 100).Draw(t, "forward")
	return score.DriftOdds{Forward: forward, Back: rapid.IntRange(0, 100-forward).Draw(t, "back")}
}

func path(t *rapid.T) []int {
	return slices.Clip(rapid.SliceOfN(rapid.IntRange(0, score.MaxSteps-1), 1, 6).Draw(t, "path"))
}

// Spread draws a spread.
func Spread(t *rapid.T) score.Spread {
	lowest := rapid.IntRange(-20, 20).Draw(t, "lowest")
	return score.Spread{
		Chance:  rapid.IntRange(0, 100).Draw(t, "chance"),
		Depth:   rapid.IntRange(0, 100).Draw(t, "depth"),
		Lowest:  lowest,
		Highest: rapid.IntRange(lowest, 20).Draw(t, "highest"),
		Lean:    rapid.IntRange(-100, 100).Draw(t, "lean"),
		Grain:   rapid.IntRange(1, 7).Draw(t, "grain"),
		Touches: rapid.SampledFrom([]score.Touch{score.TouchAll, score.TouchAll, score.TouchWithin, score.TouchOutside}).Draw(t, "touches"),
		Limits:  seldom(t, "limits"),
		From:    3, To: rapid.SampledFrom([]int{3, 60}).Draw(t, "to"),
	}
}

// register draws a register that has room for all tunings that are drawn.
func register(t *rapid.T) theory.Register {
	lowest := rapid.IntRange(0, 127-MostKeys+1).Draw(t, "lowest")
	return theory.Register{Lowest: lowest, Highest: rapid.IntRange(lowest+MostKeys-1, 127).Draw(t, "highest")}
}

func laneLength(t *rapid.T) int { return rapid.IntRange(1, score.MaxSteps).Draw(t, "length") }
