package play_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
)

// drawActs draws what is done while a project plays.
func drawActs(t *rapid.T, p *score.Project) (acts []play.Act) {
	var s stage.Stage
	told := score.Tick(0)
	for number := range rapid.IntRange(1, 6).Draw(t, "acts") {
		change := testkit.Change(t, p)
		s = s.With(change.Control, change.Value)
		told += score.Tick(rapid.SampledFrom([]int{0, 1, 700, 5040, 20160, 80640}).Draw(t, "told"))
		acts = append(acts, actOf(p, s, change.Control, int64(number+1), told, told+score.Tick(rapid.SampledFrom([]int{0, 0, 1, 5040, 40000}).Draw(t, "later"))))
	}
	return acts
}

func actOf(p *score.Project, s stage.Stage, c stage.Control, number int64, told, tick score.Tick) play.Act {
	act := play.Act{Moves: map[string]play.Moves{stage.Realign: play.Realigning, stage.Evolve: play.Evolving}[c.Name], Number: number, Issued: told, Tick: tick, Silences: c.Silences(), Change: s.Step(p, c)}
	if c.Track > 0 {
		act.Tracks = []int{c.Track}
	}
	return act
}

// Invariant 2 for what is done while a project plays: told as it comes or known from the beginning, in one stretch or in
// any, saved and restored at any tick, it plays the same.
func TestActsAreTheSameHoweverTimeIsCut(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		for i := range p.Tracks {
			if rapid.IntRange(0, 5).Draw(t, "loops") == 5 {
				p.Tracks[i].Loop = testkit.Loop(t)
			}
		}
		acts := drawActs(t, p)
		var moves, cutMoves []play.Move
		watch := func(moves *[]play.Move) play.Watch {
			return func(track, part int, lane score.LaneName, move play.Move) { *moves = append(*moves, move) }
		}
		whole := play.NewPerformerAt(p, 0, play.Past{Watch: watch(&moves)})
		for _, act := range acts {
			whole.Act(act)
		}
		const end = 2 * stretch
		want := whole.Advance(end, nil)
		cut := play.NewPerformerAt(p, 0, play.Past{Watch: watch(&cutMoves)})
		var got []play.Note
		var changes []play.Change
		done, base := 0, 0
		for at := score.Tick(0); at < end; {
			next := min(end, at+score.Tick(rapid.IntRange(1, 60_000).Draw(t, "slice")))
			if done < len(acts) {
				next = min(next, max(acts[done].Issued, at))
			}
			if at = next; done < len(acts) && at == acts[done].Issued && at == 0 {
				cut.Act(acts[done])
				done++
				continue
			}
			got = cut.Advance(at, got)
			changes = cut.Changes(changes)
			if rapid.Bool().Draw(t, "saves") {
				state := cut.Save()
				before := p
				for base < done && acts[base].Number <= cut.Done() { // those that are over stand in the project itself
					before = acts[base].Change(before)
					base++
				}
				p = before
				cut = play.Resume(p, state, acts[base:done], watch(&cutMoves))
			}
			for done < len(acts) && acts[done].Issued == at {
				cut.Act(acts[done])
				done++
			}
		}
		require.Equal(t, want, got)
		require.Equal(t, whole.Changes(nil), changes)
		require.Equal(t, whole.Standing(nil), cut.Standing(nil))
		within := func(moves []play.Move) []play.Move { // later ones can have been told, or not yet
			return slices.DeleteFunc(moves, func(move play.Move) bool { return move.Tick >= end })
		}
		require.ElementsMatch(t, within(moves), within(cutMoves))
	})
}

// What is done to a track changes nothing of tracks that do not hear it, and nothing before it is done; and every note
// has an end after its beginning, in the range of MIDI.
func TestActsKeepToTheirTracks(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		testkit.MakeAudible(p)
		acts := drawActs(t, p)
		acts = slices.DeleteFunc(acts, func(a play.Act) bool { return a.Tracks == nil })
		plain, acted := play.NewPerformer(p), play.NewPerformer(p)
		hearing, touched := play.Coupled(p), map[int]bool{}
		first := score.Tick(1 << 40)
		solo := false
		for _, act := range acts {
			acted.Act(act)
			first = min(first, act.Issued)
			touched[hearing[act.Tracks[0]]] = true
			solo = solo || act.Silences
		}
		want, got := plain.Advance(2*stretch, nil), acted.Advance(2*stretch, nil)
		of := func(notes []play.Note, which func(play.Note) bool) (kept []play.Note) {
			for _, n := range notes {
				require.Greater(t, n.End, n.Start)
				require.LessOrEqual(t, n.Key, uint8(127))
				if which(n) {
					kept = append(kept, n)
				}
			}
			return kept
		}
		before := func(n play.Note) bool { return n.Start < first }
		require.Equal(t, of(want, before), of(got, before))
		if solo { // which silences others
			return
		}
		apart := func(n play.Note) bool { return !touched[hearing[int(n.Track)]] }
		require.Equal(t, of(want, apart), of(got, apart))
	})
}
