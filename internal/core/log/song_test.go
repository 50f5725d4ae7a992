package log_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/core/theory"
)

const bar = 4 * quarter

// twoPatterns returns a project of one track, of 4/4: pattern A has 12 steps of degrees 0 to 11, pattern B 10 steps of degrees
// 14 down to 5.
func twoPatterns() *score.Project {
	p := testkit.Plain(func(_ *score.Project, track *score.Track, part *score.Part) {
		part.Lanes.Gate.Length, part.Lanes.Pitch.Length, part.Lanes.Pitch.Linked = 12, 12, true
		for step := range score.MaxSteps {
			part.Lanes.Gate.Steps[step], part.Lanes.Probability.Steps[step] = score.On, 100
			part.Lanes.Pitch.Steps[step] = min(step, 28)
		}
		b := track.Clone().Patterns[0]
		b.ID, b.Name = 1, "B"
		b.Parts[0].Lanes.Gate.Length, b.Parts[0].Lanes.Pitch.Length = 10, 10
		for step := range score.MaxSteps {
			b.Parts[0].Lanes.Pitch.Steps[step] = max(14-step, 0)
		}
		track.Patterns = append(track.Patterns, b)
		track.Register.Lowest, track.Register.Highest = 0, 127
	})
	return p
}

// scenes gives a project a scene for each of its first track's patterns, of the patterns' ids and one more.
func scenes(p *score.Project) {
	for _, pattern := range p.Tracks[0].Patterns {
		p.Scenes = append(p.Scenes, score.Scene{ID: pattern.ID + 1, Name: pattern.Name, Values: []score.SceneValue{
			{Control: score.ControlAddress{Name: "pattern", Track: 1}, Value: pattern.ID},
		}})
	}
}

// keysOf returns the keys that begin in [from, to) of a log, a sixteenth each; 0 is none.
func keysOf(t require.TestingT, l *log.Log, from, to score.Tick) []int {
	const sixteenth = quarter / 4
	keys := make([]int, (to-from)/sixteenth)
	for _, m := range noteOns(l, from, to) {
		require.Zero(t, m.Tick%sixteenth)
		keys[(m.Tick-from)/sixteenth] = int(m.Key)
	}
	return keys
}

// aKeys and bKeys are the keys of the two patterns from their first step on: degrees of C major above middle C, and above it.
func aKeys(first, n int) (keys []int) {
	major := []int{0, 2, 4, 5, 7, 9, 11}
	for i := range n {
		degree := (first + i) % 12
		keys = append(keys, 60+degree/7*12+major[degree%7])
	}
	return keys
}

func bKeys(first, n int) (keys []int) {
	major := []int{0, 2, 4, 5, 7, 9, 11}
	for i := range n {
		degree := 14 - (first+i)%10
		keys = append(keys, 60+degree/7*12+major[degree%7])
	}
	return keys
}

// A section's pattern enters at its first step, or with the track so set as if it had played all along.
func TestSectionsHaveTheirScenesEnter(t *testing.T) {
	for _, asPlayed := range []bool{false, true} {
		p := twoPatterns()
		scenes(p)
		p.Tracks[0].EntersAsPlayed = asPlayed
		p.Song = []score.Section{{ID: 5, Name: "Ebb", Scene: 1, Bars: 1, Repeats: 3}, {ID: 2, Name: "Flood", Scene: 2, Bars: 2, Repeats: 1}, {ID: 9, Name: "Slack", Scene: 1, Bars: 1, Repeats: 1}}
		require.NoError(t, p.Validate())
		require.Equal(t, int64(6), p.SongBars())
		l := &log.Log{Project: p, PlaysSong: true}
		firstB, firstA := 0, 0
		if asPlayed {
			firstB, firstA = 3*16%10, 5*16%12
		}
		require.Equal(t, aKeys(0, 48), keysOf(t, l, 0, 3*bar))
		require.Equal(t, bKeys(firstB, 32), keysOf(t, l, 3*bar, 5*bar), "as played: %v", asPlayed)
		require.Equal(t, aKeys(firstA, 16), keysOf(t, l, 5*bar, 6*bar))
		require.Equal(t, aKeys(0, 96), keysOf(t, &log.Log{Project: p}, 0, 6*bar), "without its song only what is written plays")
	}
}

// The key of a section spells what plays from its beginning on, and stays until another section has one; its luck decides from there on.
func TestSectionsHaveKeysAndLucks(t *testing.T) {
	p := twoPatterns()
	minor := theory.Key{Root: 9, Scale: "minor"}
	luck := 77
	p.Song = []score.Section{
		{ID: 1, Name: "Ebb", Bars: 1, Repeats: 1}, {ID: 2, Name: "Flood", Bars: 1, Repeats: 1, Key: &minor}, {ID: 3, Name: "Slack", Bars: 1, Repeats: 1, Luck: &luck},
	}
	l := &log.Log{Project: p, PlaysSong: true}
	require.Equal(t, aKeys(0, 16), keysOf(t, l, 0, bar))
	natural := []int{0, 2, 3, 5, 7, 8, 10} // the natural minor scale above A
	for i, key := range keysOf(t, l, bar, 3*bar) {
		degree := (16 + i) % 12
		require.Equal(t, 69+degree/7*12+natural[degree%7], key, i)
	}
	for step := range score.MaxSteps {
		p.Tracks[0].Patterns[0].Parts[0].Lanes.Probability.Steps[step] = 50
	}
	other := p.Clone()
	other.Luck.Number = luck
	require.Equal(t, noteOns(&log.Log{Project: other, PlaysSong: true}, 2*bar, 3*bar), noteOns(l, 2*bar, 3*bar))
	require.NotEqual(t, noteOns(&log.Log{Project: other, PlaysSong: true}, 0, 2*bar), noteOns(l, 0, 2*bar))
}

// Lengths by hand: 2 bars of 4/4 at 120, 3 of 6/8 at 90, 1 of 7/8 at 60, which stay until another section has others.
func TestSectionsHaveMetersAndTempos(t *testing.T) {
	p := twoPatterns()
	p.Tempo = 120_000
	tempo := func(bpm int) *score.Tempo { t := score.Tempo(bpm * 1000); return &t }
	p.Song = []score.Section{
		{ID: 1, Name: "Ebb", Bars: 2, Repeats: 1},
		{ID: 2, Name: "Flood", Bars: 1, Repeats: 2, Tempo: tempo(90), Meter: &score.Meter{Beats: 6, Unit: 8}},
		{ID: 3, Name: "Slack", Bars: 1, Repeats: 1},
		{ID: 4, Name: "Night", Bars: 1, Repeats: 1, Tempo: tempo(60), Meter: &score.Meter{Beats: 7, Unit: 8}},
	}
	l := log.Log{Project: p, PlaysSong: true}
	require.NoError(t, p.Validate())
	player := log.NewPlayer(l, nil)
	end := 8*quarter + 3*3*quarter + 7*quarter/2
	player.Advance(end + quarter)
	bars := player.Bars()
	for i, start := range []score.Tick{0, 4 * quarter, 8 * quarter, 11 * quarter, 14 * quarter, 17 * quarter, end} {
		require.Equal(t, start, bars.Start(int64(i)), i)
	}
	run, ends := player.SongEnd()
	require.True(t, ends)
	require.Equal(t, end, run)
	// 8 quarters at 120 are 4 s, 9 at 90 are 6 s, 3.5 at 60 are 3.5 s.
	require.Equal(t, int64(4_000_000_000), player.Tempo().Nanos(8*quarter))
	require.Equal(t, int64(10_000_000_000), player.Tempo().Nanos(17*quarter))
	require.Equal(t, int64(13_500_000_000), player.Tempo().Nanos(end))

	held := log.Log{Project: p, PlaysSong: true, Stage: stage.Stage{}.With(stage.Control{Name: "tempo"}, 240_000)}
	player = log.NewPlayer(held, nil)
	player.Advance(end)
	require.Equal(t, int64(end)*250_000_000/int64(quarter), player.Tempo().Nanos(end), "a tempo of a hand stays")
	p.Song[3].TakesOver = true
	player = log.NewPlayer(held, nil)
	player.Advance(end)
	require.Equal(t, int64(17*250_000_000+3_500_000_000), player.Tempo().Nanos(end), "until a section takes over")
	require.Empty(t, player.Stage().Changes())
}

// A section that waits is played in passes until it is released, which ends it with its pass; other sections are gone to with the
// next bar.
func TestSectionsAreReleasedAndGoneTo(t *testing.T) {
	p := twoPatterns()
	scenes(p)
	p.Song = []score.Section{{ID: 1, Name: "Ebb", Scene: 1, Bars: 2}, {ID: 2, Name: "Flood", Scene: 2, Bars: 1, Repeats: 2}, {ID: 3, Name: "Slack", Scene: 1, Bars: 1, Repeats: 1}}
	require.NoError(t, p.Validate())
	act := func(tick score.Tick, name string, value int) log.Entry {
		return log.Entry{Tick: tick, Action: &log.Action{Control: stage.Control{Name: name}, Value: &value, At: tick}}
	}
	plan := func(entries ...log.Entry) (begins [][2]int64) {
		player := log.NewPlayer(log.Log{Project: p, PlaysSong: true}, nil)
		for _, entry := range entries {
			player.Advance(entry.Tick)
			player.Do(entry)
		}
		for _, placed := range player.Plan() {
			begins = append(begins, [2]int64{int64(placed.Section), placed.Bar})
		}
		return begins
	}
	require.Equal(t, [][2]int64{{1, 0}}, plan())
	require.Equal(t, [][2]int64{{1, 0}, {2, 4}, {3, 6}}, plan(act(2*bar+1, stage.Release, 1)), "in its second pass")
	require.Equal(t, [][2]int64{{1, 0}, {2, 2}, {3, 4}}, plan(act(2*bar, stage.Release, 1)), "at the end of its first")
	require.Equal(t, [][2]int64{{1, 0}, {2, 2}, {3, 4}}, plan(act(0, stage.Release, 1)), "at once, but a pass it plays")
	require.Equal(t, [][2]int64{{1, 0}, {3, 2}}, plan(act(bar+1, stage.Section, 3)))
	require.Equal(t, [][2]int64{{1, 0}, {2, 2}, {1, 3}}, plan(act(bar+1, stage.Section, 2), act(2*bar+1, stage.Section, 1)))
	require.Equal(t, [][2]int64{{1, 0}}, plan(act(bar+1, stage.Section, 77)), "one that is gone leads nowhere")
	require.Equal(t, [][2]int64{{1, 0}, {0, 2}}, plan(act(bar+1, stage.Section, 0)), "the song is left")
	player := log.NewPlayer(log.Log{Project: p, PlaysSong: true}, nil)
	player.Do(act(0, stage.Section, 2))
	player.Advance(bar + 1)
	player.Do(act(bar+1, stage.Section, 3))
	require.Equal(t, log.Plan{{Section: 2, Bars: 2}, {Section: 3, Bar: 2, Bars: 1}}, player.Plan())
	for bar, want := range []int{2, 2, 3, 3} {
		placed, _ := player.Plan().At(int64(bar))
		require.Equal(t, want, placed.Section)
	}
	l := &log.Log{Project: p, PlaysSong: true, Entries: []log.Entry{act(2*bar+1, stage.Release, 1)}}
	require.Equal(t, slices.Concat(aKeys(0, 64), bKeys(0, 32), aKeys(0, 16)), keysOf(t, l, 0, 7*bar))
}

// A track that sounds early enters early too, a section mutes with its bar, and one that is gone to after what follows was given
// comes in its place.
func TestSectionsOfTracksThatSoundEarly(t *testing.T) {
	p := twoPatterns()
	scenes(p)
	const early = 2520
	p.Tracks[0].Delay = -early
	p.Scenes = append(p.Scenes, score.Scene{ID: 9, Name: "Night", Values: []score.SceneValue{{Control: score.ControlAddress{Name: "mute", Track: 1}, Value: 1}}})
	p.Song = []score.Section{{ID: 1, Name: "Ebb", Scene: 1, Bars: 1, Repeats: 1}, {ID: 2, Name: "Flood", Scene: 2, Bars: 1, Repeats: 1}, {ID: 3, Name: "Slack", Scene: 9, Bars: 1, Repeats: 1}, {ID: 4, Name: "Neap", Scene: 1, Bars: 1, Repeats: 1}}
	keys := func(l *log.Log, to score.Tick) (keys []int) {
		for _, m := range noteOns(l, 0, to) {
			require.Zero(t, (m.Tick+early)%(quarter/4))
			keys = append(keys, int(m.Key))
		}
		return keys
	}
	l := &log.Log{Project: p, PlaysSong: true}
	muted := slices.Concat(aKeys(1, 15), bKeys(0, 16))
	require.Equal(t, muted, keys(l, 3*bar-early)[:31])
	require.LessOrEqual(t, len(keys(l, 3*bar)), 32, "what began before the bar is heard")
	four := 4
	l.Entries = []log.Entry{{Tick: bar - 1000, Action: &log.Action{Control: stage.Control{Name: stage.Section}, Value: &four, At: bar - 1000}}}
	player := log.NewPlayer(*l, nil)
	player.Advance(bar - 1000)
	player.Do(l.Entries[0])
	player.Advance(2 * bar)
	require.Equal(t, log.Plan{{Section: 1, Bars: 1}, {Section: 4, Bar: 1, Bars: 1}}, player.Plan())
	require.Zero(t, player.Playing().Tracks[0].Playing, "the scene of the one that was gone to")
}

// What a hand has changed stays over sections until it is let go of; then what the song gives is heard.
func TestAHandStaysOverSections(t *testing.T) {
	p := twoPatterns()
	scenes(p)
	p.Song = []score.Section{{ID: 1, Name: "Ebb", Scene: 1, Bars: 2, Repeats: 1}, {ID: 2, Name: "Flood", Scene: 2, Bars: 2, Repeats: 1}, {ID: 3, Name: "Slack", Scene: 2, Bars: 1, Repeats: 1}}
	pattern, a := stage.Control{Name: "pattern", Track: 1}, 0
	held := log.Entry{Tick: bar, Action: &log.Action{Control: pattern, Value: &a, At: bar}}
	letGo := log.Entry{Tick: 3 * bar, Action: &log.Action{Control: pattern, At: 3 * bar}}
	keys := keysOf(t, &log.Log{Project: p, PlaysSong: true, Entries: []log.Entry{held, letGo}}, 0, 5*bar)
	require.Equal(t, aKeys(0, 48), keys[:48], "the pattern of the hand")
	require.Subset(t, bKeys(0, 10), keys[49:], "and once it is let go of that of the section")
	p.Song[1].TakesOver = true
	keys = keysOf(t, &log.Log{Project: p, PlaysSong: true, Entries: []log.Entry{held}}, 0, 5*bar)
	require.Equal(t, slices.Concat(aKeys(0, 32), bKeys(0, 48)), keys)
}

// Edits of the song count for what has not begun; a section, a scene or a track that is gone changes nothing, and comes back.
func TestTheSongIsEditedWhileItPlays(t *testing.T) {
	p := twoPatterns()
	scenes(p)
	p.Song = []score.Section{{ID: 1, Name: "Ebb", Scene: 1, Bars: 2, Repeats: 1}, {ID: 2, Name: "Flood", Scene: 2, Bars: 1, Repeats: 1}, {ID: 3, Name: "Slack", Scene: 1, Bars: 1, Repeats: 1}}
	edited := func(at score.Tick, edit score.Edit) *log.Log {
		next, _, err := score.Apply(p, edit)
		require.NoError(t, err)
		return &log.Log{Project: p, PlaysSong: true, Entries: []log.Entry{{Tick: at, Project: next}}}
	}
	longer := p.Song[1]
	longer.Bars = 3
	require.Equal(t, slices.Concat(aKeys(0, 32), bKeys(0, 48), aKeys(0, 16)), keysOf(t, edited(bar, score.SetSection{Section: longer}), 0, 6*bar), "before it begins")
	require.Equal(t, slices.Concat(aKeys(0, 32), bKeys(0, 48), aKeys(0, 16)), keysOf(t, edited(2*bar+quarter, score.SetSection{Section: longer}), 0, 6*bar), "while it plays")
	require.Equal(t, slices.Concat(aKeys(0, 32), bKeys(0, 16), aKeys(0, 16)), keysOf(t, edited(3*bar+quarter, score.SetSection{Section: longer}), 0, 4*bar), "once it is over")
	require.Equal(t, slices.Concat(aKeys(0, 48)), keysOf(t, edited(bar, score.RemoveSection{Section: 2}), 0, 3*bar))
	require.Equal(t, aKeys(0, 64), keysOf(t, edited(bar, score.RemoveScene{Scene: 2}), 0, 4*bar), "a section without its scene changes nothing")
	require.Equal(t, aKeys(0, 32), keysOf(t, edited(bar, score.RemovePattern{Track: 1, Pattern: 1}), 0, 2*bar), "nor does one of a pattern that is gone")
}

// Playing from a bar of the song plays what is there when it is played from its beginning, and cut up in any way the same.
func TestASongIsTheSameFromAnywhere(t *testing.T) {
	compared := 0
	rapid.Check(t, func(t *rapid.T) {
		p := testkit.Project(t)
		testkit.MakeAudible(p)
		if len(p.Song) == 0 && !p.Chained() {
			return
		}
		whole := &log.Log{Project: p, PlaysSong: rapid.IntRange(0, 2).Draw(t, "plays its song") > 0}
		bars := whole.Outset()
		from := bars.Bars().Start(int64(rapid.IntRange(1, 6).Draw(t, "bar")))
		end := from + 6*quarter
		want := noteOns(whole, from, end)
		for i := range want {
			want[i].Tick -= from
		}
		later := &log.Log{Project: p, PlaysSong: whole.PlaysSong, From: from}
		got := noteOns(later, 0, end-from)
		require.Equal(t, want, got)
		player, cut := log.NewPlayer(*later, nil), []midi.Message(nil)
		for player.Run() < end-from {
			messages, _ := player.Advance(min(end-from, player.Run()+score.Tick(rapid.SampledFrom([]int{1, 700, 5040, 20_160, 90_000}).Draw(t, "slice"))))
			cut = append(cut, messages...)
		}
		require.Equal(t, later.Play(end-from), cut)
		compared += len(want)
	})
	require.Greater(t, compared, 10)
}
