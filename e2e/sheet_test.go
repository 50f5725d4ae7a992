package e2e

import (
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// part returns the first part of a track as it is stored.
func (a *app) part(place int) *score.Part { return &a.project().Tracks[place].Parts()[0] }

// in clicks on a button of the sheet.
func (p *page) in(name string) { p.MustElementR("#sheet-page button", "^"+name+"$").MustClick() }

// choice chooses from a list.
func (p *page) choice(label, value string) {
	p.MustElement("select[aria-label='" + label + "']").MustSelect(value)
}

// Tracks and parts are moved, copied, silenced and deleted from the roster and the sheet.
func TestTracksAndPartsInOrder(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	names := func() (names []string) {
		for _, track := range a.project().Tracks {
			names = append(names, track.Name)
		}
		return names
	}
	p.MustElement("[aria-label='Move Bell buoy down']").MustClick()
	p.undoable("order of tracks")
	require.Equal(t, []string{"Tide bass", "Bell buoy", "Hull kit", "Quay lamps", "Lamp chain", "Mooring field"}, names())
	p.MustElement("[aria-label='Copy Bell buoy']").MustClick()
	p.MustElement("[aria-label='Delete Bell buoy copy']").MustClick()
	p.undoable("removal of a track")
	require.Equal(t, []string{"Tide bass", "Bell buoy", "Hull kit", "Quay lamps", "Lamp chain", "Mooring field"}, names())
	p.MustElement("[aria-label='Active Tide bass']").MustClick()
	p.pressed("Active Tide bass", false)

	p.MustElementR("nav button", "Hull kit").MustClick()
	p.MustElement("[data-part='3'] [role=slider] svg")
	p.MustElement("[aria-label='Mute Hatch']").MustClick()
	p.pressed("Mute Hatch", true)
	p.MustElementR("[data-part='3'] button", "Chain").MustClick()
	p.sheet("part")
	p.MustElement("[aria-label='Move the part up']").MustClick()
	p.undoable("order of parts")
	p.in("copy")
	p.undoable("copy of a part")
	p.in("delete")
	p.undoable("removal of a part")
	var parts []string
	for _, part := range a.project().Tracks[2].Parts() {
		parts = append(parts, part.Name)
	}
	require.Equal(t, []string{"Hull boom", "Hatch", "Chain", "Winch"}, parts)
}

// Every way of reshaping, by its button and by its key; walks, movers and amounts of a lane.
func TestTheLanePage(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.lane("length").MustFocus()
	p.sheet("lane")
	steps := func() []int {
		lane := a.part(0).Lanes.Length
		return lane.Steps[lane.First : lane.First+lane.Length]
	}
	for _, c := range []struct {
		button, label string
		want          []int
	}{
		{"reverse", "reverse length", []int{70, 30, 100, 45, 90}},
		{"invert", "invert length", []int{60, 100, 30, 85, 40}},
		{"double", "double length", []int{60, 100, 30, 85, 40, 60, 100, 30, 85, 40}},
		{"halve", "halve length", []int{60, 100, 30, 85, 40}},
		{"← rotate", "rotate length", []int{100, 30, 85, 40, 60}},
	} {
		p.in(c.button)
		p.undoable(c.label)
		require.Equal(t, c.want, steps(), c.button)
	}
	p.lane("length").MustFocus()
	p.Keyboard.MustType(input.BracketRight)
	a.waitFor(func(*score.Project) bool { return steps()[0] == 60 })
	p.Keyboard.MustType(input.KeyO)
	p.undoable("length linked")
	p.Keyboard.MustType(input.KeyO)
	p.undoable("length unlinked")
	p.in("clear")
	p.undoable("clear length")
	require.Equal(t, []int{60, 60, 60, 60, 60}, steps())

	p.enter("length first step", "3")
	p.undoable("length first step")
	p.MustElement("#sheet-page [aria-label=drift]").MustClick()
	p.undoable("length order, ")
	p.enter("step on", "70")
	p.undoable("length drift")
	p.choice("moved by", "notes")
	p.undoable("length moved by, its own rate to notes")
	p.enter("length amount", "150")
	p.undoable("length amount, 100 % to 150 %")
	lane := a.part(0).Lanes.Length
	require.Equal(t, 2, lane.First)
	require.Equal(t, score.DriftOdds{Forward: 70, Back: 25}, lane.Drift)
	require.Equal(t, score.ByHit, lane.Moves)

	p.enter("length evolves by", "30")
	p.undoable("length evolve")
	p.in(`\+ value`)
	p.undoable("length weights")
	p.in(`\+ value`)
	p.enter("Weight of line 2", "3")
	p.MustElementR("#sheet-page", `75\.0 %`)
	require.Len(t, a.part(0).Lanes.Length.Weights, 2)
	require.Equal(t, 30, a.part(0).Lanes.Length.Evolve.Percent)
}

// Many steps at once: a range is shown, typing sets all, arrows move all, a double click brings the usual value.
func TestManyStepsAtOnce(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.press("select")
	p.stroke("velocity", 0, 0.2, 4, 0.8)
	field := p.field("velocity of selected steps")
	require.Equal(t, "78–112", field.MustText())
	field.MustFocus()
	p.Keyboard.MustType(input.ArrowUp)
	p.undoable("velocity of 3 steps")
	require.Equal(t, []int{113, 79, 91}, a.part(0).Lanes.Velocity.Steps[:3])
	p.enter("velocity of selected steps", "50")
	a.waitFor(func(*score.Project) bool { return a.part(0).Lanes.Velocity.Steps[2] == 50 })
	box := p.field("velocity of selected steps").MustShape().Box()
	p.Mouse.MustMoveTo(box.X+8, box.Y+8)
	require.NoError(t, p.Mouse.Click(proto.InputMouseButtonLeft, 2))
	a.waitFor(func(*score.Project) bool { return a.part(0).Lanes.Velocity.Steps[2] == 96 })
	require.Equal(t, []int{96, 96, 96, 64}, a.part(0).Lanes.Velocity.Steps[:4])
}

// A finger draws as the mouse does; Alt draws a line, Ctrl moves all, and the read-out tells what is in force.
func TestFingerAndModifiers(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.sheet("lane")
	p.lane("velocity").MustFocus()
	p.enter("velocity amount", "50")
	p.undoable("velocity amount, 100 % to 50 %")
	p.point("velocity", 0, 0.5)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.waitFor(`() => /→/.test(document.querySelector("[data-lane=velocity] [role=slider] svg").textContent)`)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.undoable("velocity of step 1")

	box := p.lane("probability").MustShape().Box()
	at := func(step, share float64) proto.Point {
		return proto.Point{X: box.X + (step+0.5)*box.Width/48, Y: box.Y + share*box.Height}
	}
	p.fingers(proto.InputDispatchTouchEventTypeTouchStart, at(0, 0.5))
	p.fingers(proto.InputDispatchTouchEventTypeTouchMove, at(3, 0.5))
	p.fingers(proto.InputDispatchTouchEventTypeTouchEnd)
	p.undoable("probability of 4 steps")

	// The notes beside the pitch lane are pulled down by a finger, to see higher ones.
	axis := p.MustElement("[data-axis=pitch]").MustShape().Box()
	before := p.MustElement("[data-axis=pitch]").MustText()
	finger := func(y float64) proto.Point {
		return proto.Point{X: axis.X + axis.Width/2, Y: axis.Y + y*axis.Height}
	}
	p.fingers(proto.InputDispatchTouchEventTypeTouchStart, finger(0.2))
	p.fingers(proto.InputDispatchTouchEventTypeTouchMove, finger(0.9))
	p.fingers(proto.InputDispatchTouchEventTypeTouchEnd)
	p.waitFor(`before => document.querySelector("[data-axis=pitch]").textContent !== before`, before)

	// A pitch is typed as a note; one that is not in the key is refused with its name.
	p.sheet("step")
	p.lane("pitch").MustFocus()
	pitch := p.MustElement("input[aria-label^='pitch of step']")
	pitch.MustSelectAllText().MustInput("d5").MustType(input.Enter)
	p.waitFor(`() => /pitch of step \d+, .* to D5$/.test(document.querySelector("[aria-label^=Undo]").ariaLabel)`)
	pitch.MustSelectAllText().MustInput("C#5").MustType(input.Enter)
	p.MustElementR("[role=alert]", "C♯5 is not in the key; the step stays as it was")

	p.Keyboard.Press(input.AltLeft)
	p.stroke("pitch", 0, 0.9, 10, 0.2)
	p.Keyboard.Release(input.AltLeft)
	p.undoable("pitch of 11 steps")
	line := a.part(0).Lanes.Pitch.Steps[:11]
	for i := range 10 {
		require.LessOrEqual(t, line[i], line[i+1])
	}
	p.Keyboard.Press(input.ControlLeft)
	p.stroke("pitch", 4, 0.6, 4, 0.5)
	p.Keyboard.Release(input.ControlLeft)
	a.waitFor(func(*score.Project) bool {
		moved := a.part(0).Lanes.Pitch.Steps[:11]
		return moved[0] > line[0] && moved[10]-moved[0] == line[10]-line[0]
	})
}

// Patterns, clocks, durations, and scales and tunings of one's own.
func TestPatternsClocksAndTunings(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.sheet("track")
	p.in(`\+`)
	p.undoable("copy of a pattern")
	require.Equal(t, 0, a.project().Tracks[0].Playing, "the copy is written, and does not play yet")
	p.in("play B")
	p.MustElement("#sheet-page button[aria-label='B, plays'][aria-pressed=true]")
	p.choice("clock source", "note starts of a track")
	p.undoable("clock")
	p.choice("Track that is followed", "Hull kit")
	a.waitFor(func(s *score.Project) bool { return s.Tracks[0].Source.Track == 3 })
	p.MustElementR("#sheet-page button", "own luck").MustClick()
	p.undoable("track luck")
	p.choice("tuning method", "tuning messages")
	p.undoable("tuning")
	p.choice("Add a shift", "1/32")
	p.undoable("shifts")
	p.sheet("part")
	p.in(`\+ length`)
	p.undoable("durations")
	p.enter("inversion", "2")
	p.undoable("voicing")

	p.MustElement("[aria-label^='keys:']").MustClick()
	p.MustElementR("dialog button", "scale of your own").MustClick()
	p.MustElement("dialog [role=checkbox][aria-label^='E♭,'], dialog [role=checkbox][aria-label^='D♯,']").MustClick()
	p.undoable("key")
	require.Equal(t, []int{0, 1, 2, 3, 5, 7, 9, 10}, a.project().Key.Notes)
	scale := filepath.Join(t.TempDir(), "five.scl")
	require.NoError(t, os.WriteFile(scale, []byte("! five\nfive equal notes\n 5\n 240.\n 480.\n 720.\n 960.\n 2/1\n"), 0o600))
	p.MustElement("dialog input[type=file]").MustSetFiles(scale)
	p.MustElementR("dialog", "five equal notes")
	require.Len(t, a.project().Key.Tuning.Pitches, 5)
	p.MustElementR("dialog [aria-label='How tracks are tuned'] li", `Bell buoy\s*by messages`)
	p.MustElementR("dialog [aria-label='How tracks are tuned'] li", `Tide bass\s*bent on channels 2 to 4`)
	require.Equal(t, &score.Tuned{By: score.BendTuned, Channels: 3, Range: 2}, a.project().Tracks[1].Tuned)
	p.MustElementR("dialog button", "equal temperament").MustClick()
	a.waitFor(func(project *score.Project) bool { return project.Key.Tuning == nil })
}

// A condition is put together of terms, a stretched step of lengths, and a swing of the project and of a track.
func TestConditionsLengthsAndSwing(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.enter("stretch", "6")
	p.MustElement("[aria-label='Length 2: silent']").MustClick()
	p.MustElement("[aria-label='Length 2: played']").MustClick()
	p.MustElement("[aria-label='Length 5: silent']").MustClick()
	p.MustElement("[aria-label='Length 5: played']")
	require.Equal(t, "120010", a.part(0).Details[0].Lengths)

	p.choice("Add a term", "passes from … on")
	p.choice("Add a term", "fewer notes of a track")
	p.MustElement("[aria-label='Term 2'] button[aria-pressed]").MustClick()
	p.MustElement("[aria-label='Term 2'] button[aria-pressed=true]")
	p.enter("Notes", "7")
	p.choice("How the terms are joined", "if one holds")
	p.MustElementR("#sheet-page p", "from the 2nd pass on, or if Tide bass had 7 notes or more in the last bar")
	require.Equal(t, score.Condition("pass from 2 or not track 2 under 7 notes"), a.part(0).Details[0].Condition)
	p.MustElement("[aria-label='Take term 1 out']").MustClick()
	p.waitFor(`() => document.querySelectorAll("[aria-label^='Term ']").length === 1`)
	require.Equal(t, score.Condition("not track 2 under 7 notes"), a.part(0).Details[0].Condition)

	p.MustElementR("header button", "4/4").MustClick()
	p.choice("Swing grid", "1/8")
	p.enter("Swing in percent", "66.7")
	a.waitFor(func(project *score.Project) bool { return project.Swing == 667 && project.SwingGrid == "1/8" })
	p.enter("Meter", "3+2/4")
	a.waitFor(func(project *score.Project) bool { return len(project.Meter.Groups) == 2 && project.Meter.Beats == 5 })
	p.MustElementR("dialog button", `\+ meter change`).MustClick()
	p.MustElement("[aria-label='Meter from bar 5']")
	p.enter("Meter from bar 5", "7/8")
	p.MustElementR("dialog button", `\+ tempo change`).MustClick()
	p.enter("Tempo from bar 5", "120")
	a.waitFor(func(project *score.Project) bool {
		return len(project.TempoChanges) == 1 && project.TempoChanges[0] == score.TempoChange{Tick: 4 * 5 * score.TicksPerQuarter, Tempo: 120_000} &&
			project.MeterChanges[0].Bar == 4 && project.MeterChanges[0].Meter.Unit == 8
	})
	p.enter("Bar of the meter change", "3")
	a.waitFor(func(project *score.Project) bool { return project.MeterChanges[0].Bar == 2 })
	p.MustElement("dialog [aria-label=Close], dialog button[aria-label=Close]").MustClick()
	p.MustElementR("header button", `3\+2/4 … · 66.7 %`)
	p.sheet("track")
	p.choice("What swings", "by its own steps")
	p.undoable("track swing")
	require.True(t, a.project().Tracks[0].SwingOwnSteps)
}

// A step stutters by a ratchet of its own: its hits lie as they are drawn, climb, and are as many as chance has; the forecast has what plays, and
// the step is as the part again.
func TestAStepHasARatchetOfItsOwn(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.point("gate", 0, 0.5)
	p.Mouse.MustClick("left")
	p.sheet("step")
	p.press("own ratchet")
	p.enter("hit lengths", "3 2 1")
	p.enter("Walk of the step", "2")
	p.enter("hits drawn", "0 0 4 1")
	ratchet := func() *score.StepRatchet { return a.project().Tracks[0].Patterns[0].Parts[0].Details[0].Ratchet }
	a.waitFor(func(*score.Project) bool {
		own := ratchet()
		return own != nil && slices.Equal(own.Counts, []int{0, 0, 4, 1}) && slices.Equal(own.Shares, []int{3, 2, 1}) && own.Walk == 2
	})
	p.enter("hit lengths", "3 x")
	p.MustElementR("[role=alert]", "“3 x” is no list of whole numbers; hit lengths stays as it was")
	p.enter("hits drawn", "101")
	p.MustElementR("[role=alert]", `count 1 is 101; it must be 0 to 100`)
	require.Equal(t, []int{0, 0, 4, 1}, ratchet().Counts)
	p.enter("hit lengths", "")
	a.waitFor(func(*score.Project) bool { return len(ratchet().Shares) == 0 })
	p.press("own ratchet")
	a.waitFor(func(*score.Project) bool { return ratchet() == nil })
}

// A spread leaves the written values of a range alone, which are named as the notes that they are.
func TestASpreadLeavesValuesAlone(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800)
	p.point("pitch", 2, 0.5)
	p.Mouse.MustClick("left")
	p.sheet("lane")
	p.press("spread")
	p.choice("pitch spread touches", "all but from … to")
	p.enter("pitch spread to", "G4")
	p.waitFor(`() => document.querySelector('input[aria-label="pitch spread to"]').value === "G4"`)
	a.waitFor(func(s *score.Project) bool {
		spread := s.Tracks[0].Parts()[0].Lanes.Pitch.Spread
		return spread.Touches == score.TouchOutside && spread.From == 0 && spread.To == 3
	})
}
