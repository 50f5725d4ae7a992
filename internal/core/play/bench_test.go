package play_test

import (
	"testing"
	"time"

	"jettyfog/internal/core/chance"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

// BenchmarkRender renders 512 bars of 16 tracks, whose every lane runs a loop of its own, in windows of a
// bar. It reports events a second, a note being two, and how many times longer it takes than the floor: two
// blocks of random numbers for each step that is on, and appending as many events, in the same run.
func BenchmarkRender(b *testing.B) { render(b, busyProject(), 512) }

// BenchmarkRenderOwnSteps is the same, shorter, where every step has four notes with their own times, a spread and allowed notes of its own, velocities of their
// own weights, and a ratchet of its own.
func BenchmarkRenderOwnSteps(b *testing.B) {
	p := busyProject()
	spread := &score.Spread{Chance: 60, Depth: 100, Lowest: -3, Highest: 4, Grain: 1}
	notes := []score.StepNote{{}, {Degree: 2, Velocity: -9}, {Degree: 4, Nudge: 300}, {Degree: 9, Length: 2000}}
	for i := range p.Tracks {
		part := &p.Tracks[i].Parts()[0]
		part.Details, part.Lanes.Pitch.Own, part.Lanes.Velocity.Own = map[int]score.StepDetail{}, map[int]score.StepOwn{}, map[int]score.StepOwn{}
		for step := range score.MaxSteps {
			part.Lanes.Pitch.Own[step] = score.StepOwn{Spread: spread, Allowed: []int{0, 1, 2, 4, 5}, Notes: notes, Each: step%2 == 0}
			part.Lanes.Velocity.Own[step] = score.StepOwn{Weights: []score.Weight{{Lowest: 40, Highest: 80, Weight: 2}, {Lowest: 100, Highest: 120, Weight: 1}}}
			part.Details[step] = score.StepDetail{Ratchet: &score.StepRatchet{RatchetShape: score.RatchetShape{Spacing: score.Gathering, Odds: 70}, Counts: []int{2, 1, 1}}}
		}
	}
	render(b, p, 64)
}

// BenchmarkRenderModulated is BenchmarkRender, shorter, where 16 modulators move 64 controls: four of each track.
func BenchmarkRenderModulated(b *testing.B) { render(b, modulated(busyProject()), 64) }

// BenchmarkRenderUnmodulated is the same without them.
func BenchmarkRenderUnmodulated(b *testing.B) { render(b, busyProject(), 64) }

// BenchmarkRenderChords is BenchmarkRender, shorter, where all tracks but the first have their pitches from it: up and down over two octaves, with a rule.
func BenchmarkRenderChords(b *testing.B) {
	p := busyProject()
	for i := 1; i < len(p.Tracks); i++ {
		p.Tracks[i].Pitches = &score.PitchSource{
			Kind: score.TrackPitches, Track: p.Tracks[0].ID, Order: score.UpDown, Octaves: 2, Rules: []score.RoleRule{{Role: theory.FifthRole, Semitones: 2, Odds: 25}},
		}
	}
	render(b, p, 64)
}

// Eight fields of 16 by 16 cells, each with 16 travellers of all motions.
func BenchmarkRenderFields(b *testing.B) {
	p := testkit.Buoy()
	p.Tracks = nil
	rates := []score.NoteValue{"1/16", "1/16t", "1/8", "1/8.", "1/32"}
	for id := 1; id <= 8; id++ {
		track := score.TrackOf(p, score.FieldKind, "Field", score.Pattern{Name: "A", Parts: []score.Part{score.NewFieldPart()}})
		f := track.Patterns[0].Parts[0].Field
		f.Columns, f.Rows, f.Cells, f.Travellers = 16, 16, nil, nil
		for i := range 256 {
			f.Cells = append(f.Cells, score.Cell{
				Column: i % 16, Row: i / 16, Note: i%3 > 0, Degree: i % 15,
				Arrows: []score.Arrow{{To: score.Direction(i % 8), Weight: 60}, {To: score.Direction((i + 3) % 8), Weight: 40}},
			})
		}
		for i := range 16 {
			of := score.NewTraveller(i+1, i, 5*i%16)
			of.Direction, of.Rate, of.Motion = score.Direction(i%8), rates[i%5], []score.TravellerMotion{score.StraightMotion, score.ArrowsMotion, score.StraightMotion, score.WaveMotion}[i%4]
			of.Every = 16
			f.Travellers = append(f.Travellers, of)
		}
		p.Tracks = append(p.Tracks, track)
	}
	if err := p.Validate(); err != nil {
		b.Fatal(err)
	}
	render(b, p, 64)
}

func modulated(p *score.Project) *score.Project {
	shapes := score.WaveShapes()[:6]
	for i := range score.MaxModulators {
		track := p.Tracks[i%len(p.Tracks)]
		part := track.Parts()[0].ID
		lane := func(name string, lane score.LaneName) score.ControlAddress {
			return score.ControlAddress{Name: name, Track: track.ID, Pattern: track.Playing, Part: part, Lane: lane}
		}
		m := score.Modulator{
			ID: i + 1, Name: string(rune('A' + i)), Amount: 100, Shape: shapes[i%len(shapes)], Times: i + 1, Value: "1/4", Points: []int{-100, 40, 100}, Between: score.LineBetween,
		}
		for k, c := range []score.ControlAddress{lane("amount", score.Velocity), lane("amount", score.Probability), {Name: "degrees", Track: track.ID}, {Name: "semitones", Track: track.ID}} {
			m.Moves = append(m.Moves, score.ModulatorMove{Control: c, Depth: 50 * (k + 1)})
		}
		p.Modulators = append(p.Modulators, m)
	}
	return p
}

func render(b *testing.B, p *score.Project, bars score.Tick) {
	bar := p.Meter.Bar()
	steps := 0
	for i := range p.Tracks {
		steps += len(play.Look(p, p.Tracks[i].ID, 0, bars*bar)[0].Forecasts)
	}
	notes := make([]play.Note, 0, 1<<18)
	changes := make([]play.Change, 0, 1<<20)
	var rendering, floor time.Duration
	var events int
	for b.Loop() {
		began := time.Now()
		notes, changes = notes[:0], changes[:0]
		performer := play.NewPerformer(p)
		for n := range bars {
			notes = performer.Advance((n+1)*bar, notes)
			changes = performer.Changes(changes)
		}
		rendering += time.Since(began)
		events = 2*len(notes) + len(changes)
		floor += drawAndAppend(steps, events)
	}
	b.ReportMetric(float64(events)*float64(b.N)/rendering.Seconds(), "events/s")
	b.ReportMetric(float64(events)*float64(b.N)/floor.Seconds(), "floor-events/s")
	b.ReportMetric(float64(rendering)/float64(floor), "x-floor")
}

var floorMessages = make([]midi.Message, 0, 1<<20)
var floorSum uint32

func drawAndAppend(steps, events int) time.Duration {
	began := time.Now()
	floorMessages = floorMessages[:0]
	for n := range 2 * steps {
		floorSum += chance.Draw(chance.Address{Luck: 1, Track: 1, N: uint64(n)})
	}
	for n := range events {
		floorMessages = append(floorMessages, midi.Message{Tick: score.Tick(n), Key: uint8(n)})
	}
	return time.Since(began)
}

// busyProject is 16 tracks whose every gate is on and whose every lane runs a loop of its own.
func busyProject() *score.Project {
	p := testkit.Buoy()
	p.Tracks = nil
	for i := range 16 {
		track := testkit.Buoy().Tracks[0]
		track.ID, track.Channel = i+1, i+1
		part := &track.Parts()[0]
		for place, spec := range score.LaneSpecs() {
			lane := part.Lanes.Lane(spec.Name).Clone()
			lane.Linked, lane.Length, lane.Rate = false, 5+(i+3*place)%29, "1/16"
			for step := range lane.Steps {
				switch spec.Name {
				case score.Gate:
					lane.Steps[step] = score.On
				case score.Chord, score.Slide, score.Ratchet: // which would only multiply the notes
				default:
					lane.Steps[step] = spec.Least + (7*step+place)%(spec.Most-spec.Least+1)
				}
			}
			part.Lanes.Set(spec.Name, lane)
		}
		part.Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Most: 127}}
		p.Tracks = append(p.Tracks, track)
	}
	return p
}
