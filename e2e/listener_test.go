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
// them, as the server sent them to every page. Where the program says that the machine could not keep up, so that it left
// notes out, it plays again.
func (p *page) heard(a *app, track int, bars int) []sound {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.t.Context(), journey)
	defer cancel()
	socket, _, err := websocket.Dial(ctx, strings.Replace(a.url, "http", "ws", 1)+"/ws", nil)
	require.NoError(p.t, err)
	defer func() { _ = socket.CloseNow() }()
	socket.SetReadLimit(8 << 20)
	next := func() (message heardMessage) {
		_, data, err := socket.Read(ctx)
		require.NoError(p.t, err)
		require.NoError(p.t, json.Unmarshal(data, &message))
		return message
	}
	for {
		sounds, complete := p.hear(next, track, score.Tick(bars)*a.project().Meter.Bar())
		if complete {
			slices.SortFunc(sounds, compareSounds)
			return sounds
		}
		p.t.Log("the machine could not keep up; once more")
	}
}

// heardMessage is what of the messages of the server tells what is heard.
type heardMessage struct {
	Batch *struct {
		Sounds []sound `json:"sounds"`
		Places []place `json:"places"`
	} `json:"batch"`
	Notice *struct {
		Text string `json:"text"`
	} `json:"notice"`
	Transport *struct {
		Playing bool `json:"playing"`
	} `json:"transport"`
}

// leftOut reports whether it tells of notes that were left out.
func (m *heardMessage) leftOut() bool {
	return m.Notice != nil && strings.HasPrefix(m.Notice.Text, "This machine could not keep up")
}

// hear plays once up to a tick; complete is false if the program left something out.
func (p *page) hear(next func() heardMessage, track int, end score.Tick) (sounds []sound, complete bool) {
	complete = true
	p.MustElement("[aria-label=Play]").MustClick()
	over := false
	beyond := 0 // how many times lanes have moved on beyond the end
	for !over && beyond < 2 {
		message := next()
		complete = complete && !message.leftOut()
		if message.Batch == nil {
			continue
		}
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
	}
	p.MustElement("[aria-label=Stop]").MustClick()
	for stopped := false; !stopped; { // what was left out last is told before
		message := next()
		complete = complete && !message.leftOut()
		stopped = message.Transport != nil && !message.Transport.Playing
	}
	p.MustElement("[aria-label=Play]")
	return sounds, complete
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
