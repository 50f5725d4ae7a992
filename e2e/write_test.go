package e2e

import (
	"fmt"
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

// press presses the button of that name.
func (p *page) press(name string) { p.MustElementR("button", "^"+name+"$").MustClick() }

// sheet opens a page of the sheet.
func (p *page) sheet(name string) {
	p.MustElementR("[role=tab]", "^"+name+"$").MustClick()
	p.MustElement("[role=tab][aria-selected=true]#sheet-tab-" + name)
}

// stroke drags from one step of a lane to another.
func (p *page) stroke(lane string, from int, fromShare float64, to int, toShare float64) {
	p.point(lane, from, fromShare)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.point(lane, (from+to)/2, (fromShare+toShare)/2)
	p.point(lane, to, toShare)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
}

// fast sets a tempo at which a journey need not wait long for its bars.
func (p *page) fast() {
	p.enter("Tempo in beats per minute", "400")
	p.undoable("tempo, 96.00 bpm to 400.00 bpm")
}

// A bass line: a new track, gates drawn as a Euclidean rhythm, pitches as a line over a loop of seven steps
// against sixteen, and a velocity that spreads. What the server sends is what the core computes, and the
// pitches come round every seven 16ths.
func TestABassLineOfSevenAgainstSixteen(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.press(`\+ track`)
	p.undoable("new melodic track")
	p.sheet("track")
	p.MustElement("input[aria-label='Track name']").MustSelectAllText().MustInput("Tide bass").MustType(input.Enter)
	p.MustElementR("nav button", "Tide bass")
	p.enter("highest note", "c4")
	p.undoable("register")
	require.Equal(t, 60, a.project().Tracks[6].Register.Highest)

	p.lane("gate").MustFocus()
	p.sheet("lane")
	p.enter("Gates of a Euclidean rhythm", "9")
	p.press("Euclid")
	p.undoable("euclid gate")
	p.MustElement("[data-lane=pitch] [aria-pressed]").MustClick()
	p.undoable("pitch unlinked")
	p.enter("pitch loop length in steps", "7")
	p.undoable("pitch length, 16 to 7")
	p.press("line")
	p.stroke("pitch", 0, 0.75, 6, 0.3)
	p.undoable("pitch of 7 steps")
	p.lane("velocity").MustFocus()
	p.MustElementR("#sheet-page button[aria-pressed=false]", "^\\s*spread").MustClick()
	p.undoable("velocity spread")
	p.MustElement("[data-drawn]")
	p.fast()

	track := a.project().Tracks[6]
	lanes := track.Parts()[0].Lanes
	require.Equal(t, score.Euclid(9, 16), lanes.Gate.Steps[:16])
	for i := range 6 {
		require.Less(t, lanes.Pitch.Steps[i], lanes.Pitch.Steps[i+1], "a rising line")
	}
	heard := p.heard(a, track.ID, 8)
	require.Equal(t, a.computed(track.ID, 8), heard)
	require.Len(t, heard, 9*8)
	key := a.project().Key
	velocities := map[uint8]bool{}
	for _, s := range heard {
		step := s.Tick / (score.TicksPerQuarter / 4) % 7
		require.Equal(t, track.Register.Fold(key.Note(lanes.Pitch.Steps[step])), int(s.Key))
		velocities[s.Velocity] = true
	}
	require.Greater(t, len(velocities), 5, "the velocities spread")
}

// A kit of six parts of different lengths, each drawn on its own row; each repeats after its own length.
func TestAKitOfSixParts(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.press(`\+ kit`)
	p.undoable("new kit track")
	p.MustElement("[data-part='0']")
	for part := 1; part < 6; part++ {
		p.press(`\+ part`)
		p.MustElement(fmt.Sprintf("[data-part='%d']", part))
	}
	lengths := map[string]int{
		"Bass Drum 1": 16, "Acoustic Snare": 12, "Closed Hi-Hat": 3, "Open Hi-Hat": 7, "Hand Clap": 11, "Side Stick": 5,
	}
	for part, length := range lengths {
		if length != 16 {
			p.enter(part+" loop length in steps", fmt.Sprint(length))
			p.undoable(fmt.Sprintf("gate length, 16 to %d", length))
		}
	}
	const sixteenths = 48
	for part := range 6 {
		box := p.MustElement(fmt.Sprintf("[data-part='%d'] [role=slider]", part)).MustShape().Box()
		p.Mouse.MustMoveTo(box.X+1.5*box.Width/sixteenths, box.Y+box.Height/2)
		p.Mouse.MustClick(proto.InputMouseButtonLeft)
		a.waitFor(func(project *score.Project) bool {
			return project.Tracks[6].Parts()[part].Lanes.Gate.Steps[1] == score.On
		})
	}
	p.fast()
	p.MustElement("[aria-label='Solo Track 7']").MustClick()
	p.pressed("Solo Track 7", true)

	heard := p.heard(a, 7, 6)
	require.Equal(t, a.computed(7, 6), heard)
	got := map[uint8][]score.Tick{}
	for _, s := range heard {
		require.Equal(t, uint8(9), s.Channel)
		got[s.Key] = append(got[s.Key], s.Tick/(score.TicksPerQuarter/4))
	}
	for _, part := range a.project().Tracks[6].Parts() {
		var want []score.Tick
		for at := score.Tick(1); at < 6*16; at += score.Tick(lengths[part.Name]) {
			want = append(want, at)
		}
		require.Equal(t, want, got[uint8(part.Note)], part.Name)
	}
}

// A phrase made by rolling: roll the pitches, lock three that please, roll the rest, keep the recipe.
func TestRollingAroundLockedSteps(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.lane("pitch").MustFocus()
	p.sheet("roll")
	p.enter("Roll lowest", "-3")
	p.enter("Roll highest", "12")
	p.MustElementR("#sheet-page button", "^roll$").MustClick()
	p.undoable("roll of pitch")
	pitches := func() []int { return a.project().Tracks[0].Parts()[0].Lanes.Pitch.Steps[:11] }
	first := pitches()

	p.press("select")
	p.stroke("pitch", 2, 0.1, 4, 0.9)
	p.sheet("step")
	p.MustElementR("h2", "3 steps")
	p.press("lock them")
	p.undoable("pitch locks")
	p.Keyboard.MustType(input.Escape)
	p.MustElementR("h2", "Step")
	p.sheet("roll")
	p.MustElementR("#sheet-page button", "^roll$").MustClick()
	a.waitFor(func(project *score.Project) bool {
		return fmt.Sprint(project.Tracks[0].Parts()[0].Lanes.Pitch.Steps[:11]) != fmt.Sprint(first)
	})
	second := pitches()
	require.Equal(t, first[2:5], second[2:5], "locked steps stay")
	for _, pitch := range second {
		require.True(t, -3 <= pitch && pitch <= 12)
	}

	p.MustElement("input[aria-label='Name of the recipe']").MustInput("Gulls").MustType(input.Enter)
	p.undoable("recipes")
	require.Equal(t, []score.Recipe{{Name: "Gulls", Lane: score.Pitch, Lowest: -3, Highest: 12, Density: 100}}, a.project().Recipes)
	p.press("Gulls")
	p.undoable("roll of pitch")
	p.fast()
	require.Equal(t, a.computed(1, 4), p.heard(a, 1, 4))
}

// Ratchets and probability on hats: some steps are struck four times, some are left to chance, and both come
// out as they were seen.
func TestRatchetsAndProbabilityOnHats(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.press(`\+ kit`)
	p.undoable("new kit track")
	p.sheet("part")
	p.MustElement("select[aria-label=plays]").MustSelect("42 Closed Hi-Hat")
	p.MustElementR("[data-part='0'] button", "Closed Hi-Hat")
	p.MustElement("[data-part='0'] [role=slider]").MustFocus()
	p.sheet("lane")
	p.enter("Gates of a Euclidean rhythm", "16")
	p.press("Euclid")
	p.undoable("euclid gate")
	p.sheet("step")
	p.MustElement("select[aria-label='Add a lane']").MustSelect("ratchet")
	p.undoable("ratchet linked")
	p.lane("ratchet").MustFocus()
	p.enter("ratchet of step 1", "4")
	p.undoable("ratchet of step 1")
	p.stroke("probability", 8, 0.55, 11, 0.55)
	p.undoable("probability of 4 steps")
	p.fast()
	p.MustElement("[aria-label='Solo Track 7']").MustClick()
	p.pressed("Solo Track 7", true)

	heard := p.heard(a, 7, 6)
	require.Equal(t, a.computed(7, 6), heard)
	struck := map[score.Tick]int{}
	const sixteenth = score.TicksPerQuarter / 4
	for _, s := range heard {
		require.Equal(t, uint8(42), s.Key)
		struck[s.Tick/sixteenth]++
	}
	require.Equal(t, 4, struck[0])
	require.Equal(t, 1, struck[1])
	doubtful := 0
	for bar := range score.Tick(6) {
		for step := score.Tick(8); step < 12; step++ {
			doubtful += struck[16*bar+step]
		}
	}
	require.Greater(t, doubtful, 0)
	require.Less(t, doubtful, 4*6)
}

// Another scale, a scale of one's own and fewer allowed notes spell the same music anew, on the screen and in
// what the server sends; undoing everything, by the list of edits, brings the demo back.
func TestTheMusicIsSpelledAnew(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.fast()
	classes := func() map[int]bool {
		heard := p.heard(a, 1, 6)
		require.Equal(t, a.computed(1, 6), heard)
		sounding := map[int]bool{}
		for _, s := range heard {
			sounding[int(s.Key)%theory.Octave] = true
		}
		return sounding
	}
	require.Contains(t, classes(), 4, "E is in D dorian")
	p.MustElement("[aria-label^='keys:']").MustClick()
	p.MustElement("input[aria-label='Find a scale']").MustInput("phryg")
	p.MustElementR("dialog li button", "^phrygian$").MustClick()
	p.undoable("key")
	p.MustElement("dialog [role=checkbox]")
	p.waitFor(`() => [...document.querySelectorAll("[data-lane=pitch] text")].some(t => t.textContent === "E♭4")`)
	p.MustElement("dialog [role=checkbox][aria-label^='A,']").MustClick()
	p.waitFor(`() => document.querySelector("dialog [role=checkbox][aria-label^='A,']").ariaLabel.includes("kept out")`)
	p.Keyboard.MustType(input.Escape)
	p.waitFor(`() => !document.querySelector("dialog[open]")`)
	after := classes()
	require.Contains(t, after, 3, "E flat is in D phrygian")
	require.NotContains(t, after, 4)
	require.NotContains(t, after, 9, "A is not allowed")

	p.MustElement("[aria-label=History]").MustClick()
	p.MustElementR("dialog ol button", "tempo, 96.00 bpm to 400.00 bpm")
	p.MustElementR("dialog ol button", "the beginning").MustClick()
	a.waitFor(func(project *score.Project) bool { return project.Tempo == score.Demo().Tempo })
	require.Equal(t, score.Demo(), a.project())
	p.MustElementR("dialog ol button", "tempo, 96.00 bpm to 400.00 bpm").MustClick()
	a.waitFor(func(project *score.Project) bool { return project.Tempo == 400_000 })
	require.Equal(t, score.Demo().Key, a.project().Key)
}

// Copying a box of steps into another track, and one lane into another, by keys.
func TestCopyingSteps(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.Keyboard.MustType(input.Digit5)
	p.stroke("gate", 0, 0.5, 3, 0.5)
	p.sheet("step")
	p.MustElementR("h2", "4 steps")
	command := func(key input.Key) {
		p.Keyboard.Press(input.ControlLeft)
		p.Keyboard.MustType(key)
		p.Keyboard.Release(input.ControlLeft)
	}
	command(input.KeyC)
	p.MustElementR("[role=alert]", "Copied 4 steps")
	p.press(`\+ track`)
	p.undoable("new melodic track")
	p.waitFor(`() => document.querySelector("section[aria-label='Chart of Track 7'] [data-lane=gate] svg")`)
	p.Keyboard.MustType(input.Escape)
	p.lane("gate").MustFocus()
	p.Keyboard.MustType(input.Home, input.ArrowRight, input.ArrowRight)
	command(input.KeyV)
	p.undoable("gate of 4 steps")
	demo := score.Demo().Tracks[0].Parts()[0].Lanes.Gate.Steps
	require.Equal(t, append([]int{0, 0}, demo[:4]...), a.project().Tracks[6].Parts()[0].Lanes.Gate.Steps[:6])

	// The whole loop of velocities, chosen by a key, moves up by ten, and goes into the probabilities.
	p.lane("velocity").MustFocus()
	command(input.KeyA)
	p.Keyboard.Press(input.ShiftLeft)
	p.Keyboard.MustType(input.ArrowDown)
	p.Keyboard.Release(input.ShiftLeft)
	p.undoable("velocity of 16 steps")
	command(input.KeyC)
	p.Keyboard.MustType(input.Escape)
	p.lane("probability").MustFocus()
	p.Keyboard.MustType(input.Home)
	command(input.KeyV)
	p.undoable("probability of 16 steps")
	require.Equal(t, slices.Repeat([]int{86}, 16), a.project().Tracks[6].Parts()[0].Lanes.Probability.Steps[:16])
}

// Another luck is heard before it is taken, and let go with the dialog; taken, it can be gone back from. A hold
// makes four bars of it a loop.
func TestComparingTwoLucks(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.fast()
	own := a.computed(1, 4)
	p.MustElement("[data-luck=compare]").MustClick()
	p.enter("The other luck", "7")
	p.waitFor(`() => document.querySelector("dialog svg[aria-label^='Luck 7:']")`)
	p.MustElementR("dialog button[aria-pressed=false]", "hear this").MustClick()
	p.waitForBar(2)
	p.Keyboard.MustType(input.Escape)
	p.waitFor(`() => !document.querySelector("dialog[open]")`)
	require.Equal(t, 48_213, a.project().Luck.Number, "nothing was taken")
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")
	require.Equal(t, own, p.heard(a, 1, 4), "the project's own luck is heard again")

	p.MustElement("[data-luck=compare]").MustClick()
	p.enter("The other luck", "7")
	p.enter("Hold of all tracks in bars", "4")
	p.undoable("hold of all tracks")
	p.MustElementR("dialog button[aria-pressed=false]", "hear this").MustClick()
	p.waitForBar(3)
	p.enter("Last bars to hold", "1")
	p.MustElementR("dialog button", "hold the luck of the last bars").MustClick()
	p.undoable("hold of the last bars")
	for _, track := range a.project().Tracks {
		require.Equal(t, 1, track.Hold)
		require.GreaterOrEqual(t, track.HoldFrom, 1, "bar 3 had begun: the last whole one is the second or later")
	}
	p.MustElementR("dialog button", "use this luck").MustClick()
	p.undoable("luck 7")
	p.waitFor(`() => !document.querySelector("dialog[open]")`)
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")
	heard := p.heard(a, 1, 4)
	require.Equal(t, a.computed(1, 4), heard)
	require.NotEqual(t, own, heard)
	p.MustElement("[data-luck=back]").MustClick()
	p.undoable("back to the former luck")
	require.Equal(t, 48_213, a.project().Luck.Number)

	// The track's page says after how much the held bars repeat exactly.
	p.sheet("track")
	p.MustElementR("[aria-label='What the hold repeats']", "What is held")
	p.enter("Track realign", "1")
	p.MustElementR("[aria-label='What the hold repeats']", "repeats exactly after 1 bar")
}
