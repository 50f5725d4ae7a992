package live

import (
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/memory"
	"jettyfog/internal/output"
)

// withPrograms returns a project whose track plays a program on each step, with notes of half a step's length.
func withPrograms(lead int) *score.Project {
	r := score.WholeRoute(7)
	r.Lead = lead
	p := routed(testkit.Buoy(), 0, []score.Output{synth}, r)
	part := &p.Tracks[0].Parts()[0]
	part.Mods = []score.Mod{{Target: score.ProgramTarget, Most: 127}}
	mod := part.Lanes.Lane(score.Mod1).Clone()
	mod.Linked, mod.First, mod.Length, mod.Rate, mod.Order, mod.Amount = false, 0, 4, "1/2", "forward", 100
	for step := range score.MaxSteps {
		part.Lanes.Gate.Steps[step], part.Lanes.Probability.Steps[step] = score.Off, 100
		mod.Steps[step] = 20 + 30*(step%4)
	}
	part.Lanes.Set(score.Mod1, mod)
	part.Lanes.Gate.First, part.Lanes.Gate.Length, part.Lanes.Gate.Rate = 0, 8, "1/4"
	for step := 0; step < 8; step += 2 {
		part.Lanes.Gate.Steps[step] = score.On
	}
	return p
}

// A program is sent as long before it is due as the route asks for, but not while a note sounds, and not before the program before it is
// due; where it is due nothing is sent again.
func TestAProgramIsSentInTheRestBefore(t *testing.T) {
	for _, lead := range []int{0, 100, 2000} {
		onStage(t, withPrograms(lead), func(t *testing.T, s *rig) {
			s.Play()
			pass(12 * time.Second)
			s.Stop()
			events := of(s.listener.events(), 7)
			beat := s.timeOf(score.TicksPerQuarter) - s.timeOf(0)
			var programs, offs []output.Event
			for _, e := range events {
				switch e.Kind {
				case midi.Program:
					programs = append(programs, e)
				case midi.NoteOff:
					offs = append(offs, e)
				}
			}
			require.Greater(t, len(programs), 4)
			require.Greater(t, len(offs), 4)
			for i, e := range programs[1:] {
				due := s.started + int64(i+1)*2*beat
				switch lead {
				case 0:
					require.InDelta(t, due, e.At, 10)
				case 100:
					require.InDelta(t, due-100*milli, e.At, 10)
				default: // when the note before ends
					require.InDelta(t, offs[i].At, e.At, 10)
				}
			}
		})
	}
}

// Whatever is edited and done meanwhile: each note is played by the program that is in force where it is struck.
func TestEachNoteHasItsProgram(t *testing.T) {
	projects := rapid.Custom(testkit.Project)
	struck, early := 0, 0
	for seed := range seeds(30) {
		synctest.Test(t, func(t *testing.T) {
			with := func(n int) *score.Project {
				p := ofOneOutput(projects.Example(1000*seed + n))
				p.Tracks, p.Tempo, p.TempoChanges = p.Tracks[:1], 120_000, nil
				track := &p.Tracks[0]
				track.ID, track.Program, track.Tuned, track.Source = 1, 3, nil, score.Source{Kind: score.OwnClock}
				testkit.MakeAudible(p)
				p.Outputs = []score.Output{synth}
				r := score.WholeRoute(7)
				r.Lead = 1 + 700*(n%3)
				track.Routes = &[]score.Route{r}
				for i := range track.Patterns {
					for j := range track.Patterns[i].Parts {
						part := &track.Patterns[i].Parts[j]
						part.Mods, part.Details = []score.Mod{{Target: score.ProgramTarget, Most: 127}}, nil
					}
				}
				return p
			}
			if with(0).Validate() != nil {
				return
			}
			s := New(with(0), Options{}, NewRecorder(memory.New(with(0)), Reports{}), NewRecorder(memory.New(with(0)), Reports{}))
			heard := &listener{now: s.Now}
			s.Connect(heard)
			go s.Run(t.Context())
			s.Play()
			pass(3 * time.Second)
			for n := range 6 {
				if next := with(n); next.Validate() == nil {
					s.SetProject(next, Change{New: true})
				}
				pass(time.Duration(300+170*n) * time.Millisecond)
			}
			s.mu.Lock()
			logged, end := s.log, s.player.Run()
			s.mu.Unlock()
			s.Stop()
			inForce := map[score.Tick]uint8{}
			program := uint8(0)
			for _, m := range logged.Play(end) {
				switch m.Kind {
				case midi.Program:
					program = m.Key
				case midi.NoteOn:
					inForce[m.Tick] = program
				}
			}
			selected, last := uint8(0), int64(0)
			for _, e := range heard.events() {
				require.GreaterOrEqual(t, e.At, last)
				last = e.At
				switch e.Kind {
				case midi.Program:
					if selected = e.Key; e.At < s.started+s.player.Tempo().Nanos(e.Tick)-milli {
						early++
					}
				case midi.NoteOn:
					require.Equal(t, inForce[e.Tick], selected, "seed %d, at %d", seed, e.Tick)
					struck++
				}
			}
		})
	}
	require.Greater(t, struck, seeds(50))
	require.Positive(t, early)
}
