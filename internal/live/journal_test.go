package live

import (
	"context"
	"errors"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/memory"
)

// Whatever the store does to whichever call, refuses it, does it without an answer, or loses the take that is
// written, everything that was heard comes to disk once the store is well: each recording in takes of its own, in
// order, under the names of the tracks that played, but for what the store itself has lost.
func TestFaultsLoseNothingThatWasHeard(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		disk := memory.New(testkit.Buoy())
		faults := rapid.SliceOfN(rapid.SampledFrom([]memory.Fault{
			memory.None, memory.None, memory.Refused, memory.Refused, memory.Unanswered, memory.GivenUp, memory.Vanished,
		}), 0, 60).Draw(t, "faults")
		vanishes := false
		disk.SetFault(func(call string) memory.Fault {
			if len(faults) == 0 {
				return memory.None
			}
			next := faults[0]
			faults = faults[1:]
			vanishes = vanishes || next == memory.Vanished && call != "CreateTake"
			return next
		})
		var problem error
		r := NewRecorder(disk, Reports{Problem: func(err error) { problem = err }})
		h := &heardNotes{t: t, recorder: r}
		var others []int64
		for range rapid.IntRange(1, 40).Draw(t, "acts") {
			switch rapid.SampledFrom([]string{"play", "play", "play", "flush", "flush", "open", "stop", "other"}).Draw(t, "act") {
			case "other": // another recorder begins a take in the same store
				if id, err := disk.CreateTake(t.Context(), take.Of(testkit.Buoy(), ""), 1); err == nil {
					others = append(others, id)
				}
			case "play":
				h.play(rapid.IntRange(1, 9).Draw(t, "notes"))
			case "open":
				h.open()
			case "flush":
				err := r.flush(t.Context())
				require.Equal(t, err == nil, problem == nil)
			case "stop":
				h.stop()
			}
		}
		h.stop()
		disk.SetFault(nil)
		for range goOnAfter + 2 {
			_ = r.flush(t.Context())
		}
		require.NoError(t, r.flush(t.Context()))
		require.NoError(t, problem)
		require.Zero(t, r.Left())
		for _, id := range others {
			require.NoError(t, disk.FinishTake(t.Context(), id, 0))
			other, _, _, err := disk.Recording(t.Context(), id)
			require.NoError(t, err)
			require.Empty(t, other.Messages, "nobody writes into another's take")
		}
		h.requireKept(disk, vanishes)
	})
}

// heardNotes are notes that were heard, numbered by how far they are detuned.
type heardNotes struct {
	t        *rapid.T
	recorder *Recorder
	project  *score.Project
	now      score.Tick
	count    int
	names    []string // of the track that played each
	takes    []int    // and the recording in which it is
	begun    int
	opened   int
	lasting  []midi.Message // ends of notes that last on
}

func (h *heardNotes) play(notes int) {
	if !h.recorder.recording() {
		h.begun++
		h.project = testkit.Buoy()
		h.project.Luck.Number = h.begun
		h.recorder.begin(h.project, 1, h.now, h.now, play.TempoMap{{Tempo: 96_000}}, h.project.Bars())
	}
	for range notes {
		track := h.project.Tracks[h.count%len(h.project.Tracks)]
		on := midi.Message{
			Tick: h.now, Track: uint32(track.ID), Kind: midi.NoteOn, Channel: uint8(h.count % 3), Key: uint8(h.count % 128),
			Velocity: 90, Detune: theory.Cents(h.count),
		}
		off := midi.Message{Tick: h.now + 500, Track: on.Track, Channel: on.Channel, Key: on.Key}
		h.recorder.add([]midi.Message{on})
		if rapid.IntRange(0, 3).Draw(h.t, "lasts on") == 0 {
			off.Tick = h.now + 599
			h.lasting = append(h.lasting, off)
		} else {
			h.recorder.add([]midi.Message{off})
		}
		h.now += score.Tick(rapid.SampledFrom([]int{600, 30_000, 200_000}).Draw(h.t, "pause"))
		h.count++
		h.names, h.takes = append(h.names, track.Name), append(h.takes, h.begun)
	}
}

// let ends the notes that last on.
func (h *heardNotes) let() {
	for i := range h.lasting {
		h.lasting[i].Tick = h.now
	}
	h.recorder.add(h.lasting)
	h.lasting = nil
	h.now++
}

// open lets another project play: one more track, other names, or fewer tracks.
func (h *heardNotes) open() {
	if !h.recorder.recording() {
		return
	}
	next := h.project.Clone()
	switch rapid.IntRange(0, 2).Draw(h.t, "what opens") {
	case 0:
		more := next.Tracks[0].Clone()
		h.opened++
		more.ID, more.Name = 100+h.opened, rapid.SampledFrom([]string{"Winch", "Hull", "Ferry"}).Draw(h.t, "name")
		next.Tracks = append(next.Tracks, more)
	case 1:
		next.Tracks[0].Name = rapid.SampledFrom([]string{"Gulls", "Fog horn"}).Draw(h.t, "name")
		next.Tracks[0].Patterns = append(next.Tracks[0].Patterns, score.Pattern{ID: 1, Name: "B", Parts: next.Tracks[0].Patterns[0].Parts})
	case 2:
		next.Tracks = next.Tracks[:1]
	}
	h.project = next
	h.recorder.change(func(now *recording) { now.setProject(next, 2, h.now) })
	h.let()
}

func (h *heardNotes) stop() {
	h.let()
	h.recorder.end(h.now)
	h.now += 50_000
}

func (h *heardNotes) requireKept(disk *memory.Store, vanishes bool) {
	t := h.t
	summaries, err := disk.Takes(t.Context())
	require.NoError(t, err)
	slices.Reverse(summaries)
	kept := map[int]bool{}
	for _, summary := range summaries {
		recording, _, _, err := disk.Recording(t.Context(), summary.ID)
		require.NoError(t, err)
		names := map[uint32]string{}
		for _, track := range recording.Tracks {
			names[track.ID] = track.Name
		}
		last, tick := -1, score.Tick(0)
		down := map[midi.NoteID]bool{}
		for _, m := range recording.Messages {
			require.GreaterOrEqual(t, m.Tick, tick)
			tick = m.Tick
			if m.Kind == midi.NoteOff {
				require.True(t, down[m.NoteID()], "a note ends in the track in which it began")
			}
			down[m.NoteID()] = m.Kind == midi.NoteOn
			if m.Kind != midi.NoteOn {
				continue
			}
			number := int(m.Detune)
			require.Greater(t, number, last, "in order, and no note twice in a take")
			require.Equal(t, recording.Luck, h.takes[number], "a note is in a take of its recording")
			require.Equal(t, h.names[number], names[m.Track])
			last, kept[number] = number, true
		}
		require.Len(t, recording.Notes(), recording.Count())
	}
	if !vanishes {
		require.Len(t, kept, h.count)
	}
}

// A take that is gone from the store, and one that is refused while others are not, go on as new ones, from the
// bar of the first note that is not on disk, with what instruments were told before; that is told once.
func TestARecordingGoesOnInANewPiece(t *testing.T) {
	for name, fault := range map[string]func(*memory.Store, *bool) func(string) memory.Fault{
		"gone": func(_ *memory.Store, done *bool) func(string) memory.Fault {
			return func(string) memory.Fault {
				if *done {
					return memory.None
				}
				*done = true
				return memory.Vanished
			}
		},
		"refused": func(_ *memory.Store, done *bool) func(string) memory.Fault {
			return func(call string) memory.Fault {
				if call == "CreateTake" {
					*done = true
				}
				if *done {
					return memory.None
				}
				return memory.Refused
			}
		},
	} {
		t.Run(name, func(t *testing.T) {
			disk := memory.New(testkit.Buoy())
			var told []error
			r := NewRecorder(disk, Reports{WentOn: func(why error) { told = append(told, why) }})
			bar := testkit.Buoy().Meter.Bar()
			note := func(n int) []midi.Message {
				at := score.Tick(n)*bar + 700
				return []midi.Message{
					{Tick: at, Track: 1, Kind: midi.NoteOn, Key: 60, Velocity: 90}, {Tick: at + 100, Track: 1, Key: 60},
				}
			}
			r.begin(testkit.Buoy(), 1, 0, 0, play.TempoMap{{Tempo: 96_000}, {Tick: 5 * bar, Tempo: 120_000}}, testkit.Buoy().Bars())
			r.add([]midi.Message{{Track: 1, Kind: midi.ControlChange, Key: 74, Value: 9}})
			r.add(note(1))
			require.NoError(t, r.flush(t.Context()))
			later := testkit.Buoy()
			later.Luck.Number = 77
			later.Tracks[0].Patterns = append(later.Tracks[0].Patterns, score.Pattern{ID: 1, Name: "Ebb", Parts: later.Tracks[0].Patterns[0].Parts})
			latest := later.Clone()
			latest.Tracks[0].Playing = 1
			r.change(func(now *recording) { now.setProject(later, 5, 2*bar) })
			done := false
			disk.SetFault(fault(disk, &done))
			r.add(note(3))
			r.change(func(now *recording) { now.setProject(latest, 6, 4*bar+50) })
			for range goOnAfter {
				_ = r.flush(t.Context())
			}
			require.Len(t, told, 1)
			r.add(note(4))
			r.end(6 * bar)
			require.NoError(t, r.flush(t.Context()))
			takes, err := disk.Takes(t.Context())
			require.NoError(t, err)
			second, _, _, err := disk.Recording(t.Context(), takes[0].ID)
			require.NoError(t, err)
			require.Equal(t, midi.Message{Track: 1, Kind: midi.ControlChange, Key: 74, Value: 9}, second.Messages[0])
			require.Equal(t, []score.Tick{700, bar + 700}, []score.Tick{second.Notes()[0].Start, second.Notes()[1].Start})
			require.Equal(t, 3*bar, second.End)
			require.Equal(t, 77, second.Luck, "it is of the project that plays by then")
			require.Equal(t, int64(5), takes[0].Revision)
			require.Equal(t, []take.Marker{{Tick: bar + 50, Text: "Bell buoy: Ebb"}}, second.Markers)
			require.Equal(t, play.TempoMap{{Tempo: 96_000}, {Tick: 2 * bar, Tempo: 120_000}}, second.Tempo)
			if name == "refused" {
				first, _, _, err := disk.Recording(t.Context(), takes[1].ID)
				require.NoError(t, err)
				require.Equal(t, 1, first.Count())
			} else {
				require.ErrorIs(t, told[0], take.ErrUnknown)
			}
		})
	}
}

// Whoever waits for the journal and goes away breaks nothing off: what is written is written to its end.
func TestGivingUpBreaksNothingOff(t *testing.T) {
	onStage(t, testkit.Buoy(), func(t *testing.T, s *rig) {
		entered, release := make(chan struct{}), make(chan struct{})
		first := true
		s.wake.SetFault(func(string) memory.Fault {
			if first {
				first = false
				close(entered)
				<-release
			}
			return memory.None
		})
		s.Play()
		ctx, giveUp := context.WithCancel(t.Context())
		asked := make(chan error)
		go func() { asked <- s.KeepUp(ctx) }()
		<-entered
		giveUp()
		err := <-asked
		require.True(t, errors.Is(err, context.Canceled) || err == nil)
		close(release)
		pass(7e9)
		s.Stop()
		pass(1e9)
		bars, err := s.wake.LastBars(t.Context(), 0, 0, 2)
		require.NoError(t, err)
		require.Equal(t, int64(1), bars.ID)
		require.NotEmpty(t, bars.Take.Messages)
	})
}
