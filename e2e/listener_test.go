package e2e

import (
	"context"
	"encoding/json"
	"slices"
	"strings"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/route"
	"jettyfog/internal/core/score"
)

// sound is a note-on as the server sends it to pages.
type sound struct {
	Tick     score.Tick `json:"tick"`
	Track    uint32     `json:"track"`
	Channel  uint8      `json:"channel"`
	Key      uint8      `json:"key"`
	Velocity uint8      `json:"velocity"`
}

// place is a move of a lane as the server sends it.
type place struct {
	Tick score.Tick `json:"tick"`
}

// heard plays from the beginning until so many bars have gone out, and returns the note-ons of the track in
// them, as the server sent them to every page.
func (p *page) heard(a *app, track int, bars int) []sound {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.t.Context(), journey)
	defer cancel()
	socket, _, err := websocket.Dial(ctx, strings.Replace(a.url, "http", "ws", 1)+"/ws", nil)
	require.NoError(p.t, err)
	defer func() { _ = socket.CloseNow() }()
	socket.SetReadLimit(8 << 20)
	p.MustElement("[aria-label=Play]").MustClick()
	end := score.Tick(bars) * a.project().Meter.Bar()
	var sounds []sound
	beyond := 0 // how many times lanes have moved on beyond the end
	for {
		_, data, err := socket.Read(ctx)
		require.NoError(p.t, err)
		var message struct {
			Batch *struct {
				Sounds []sound `json:"sounds"`
				Places []place `json:"places"`
			} `json:"batch"`
		}
		require.NoError(p.t, json.Unmarshal(data, &message))
		if message.Batch == nil {
			continue
		}
		over := false
		for _, s := range message.Batch.Sounds {
			over = over || s.Tick >= end
			if s.Velocity > 0 && s.Tick < end && int(s.Track) == track {
				sounds = append(sounds, s)
			}
		}
		// Places are shown before the sounds of the same moment are, so once lanes move on beyond the end again all before is out.
		if slices.ContainsFunc(message.Batch.Places, func(p place) bool { return p.Tick > end }) {
			beyond++
		}
		if over || beyond == 2 {
			break
		}
	}
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")
	slices.SortFunc(sounds, compareSounds)
	return sounds
}

func compareSounds(a, b sound) int {
	if a.Tick != b.Tick {
		return int(a.Tick - b.Tick)
	}
	return int(a.Key) - int(b.Key)
}

// computed returns the same note-ons as the core computes them from the project that is stored.
func (a *app) computed(track, bars int) []sound { return a.computedOf(a.project(), track, bars) }

// computedOf is computed for another state of the project.
func (a *app) computedOf(project *score.Project, track, bars int) []sound {
	end := score.Tick(bars) * project.Meter.Bar()
	var sounds []sound
	for _, m := range route.NewPlayer(project, 0, play.Past{}).Advance(end, nil) {
		if m.Kind == midi.NoteOn && int(m.Track) == track {
			sounds = append(sounds, sound{Tick: m.Tick, Track: m.Track, Channel: m.Channel, Key: m.Key, Velocity: m.Velocity})
		}
	}
	slices.SortFunc(sounds, compareSounds)
	return sounds
}

// pressed waits until the button of a label is pressed, or is not.
func (p *page) pressed(label string, is bool) {
	p.t.Helper()
	p.waitFor(`(label, is) => document.querySelector('button[aria-label="' + label + '"]').ariaPressed === String(is)`, label, is)
}

// undoable waits until the page says that its last edit is the one of that label.
func (p *page) undoable(label string) {
	p.t.Helper()
	p.waitFor(`label => document.querySelector("[aria-label^='Undo']").ariaLabel.replace(/^Undo (.*?: )?/, "").startsWith(label)`, label)
}
