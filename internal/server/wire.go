package server

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/live"
)

// Message is what the server sends through the WebSocket: an object with exactly one of these fields.
// After connecting, a page gets a project, a transport, a stage, a takes and a problems message without asking.
type Message struct {
	Project   *ProjectState    `json:"project,omitempty"`
	Transport *live.Status     `json:"transport,omitempty"`
	Stage     *StageMessage    `json:"stage,omitempty"`
	Batch     *WireBatch       `json:"batch,omitempty"`
	Takes     *TakesMessage    `json:"takes,omitempty"`
	Problems  *ProblemsMessage `json:"problems,omitempty"`
	Notice    *NoticeMessage   `json:"notice,omitempty"`
	Clock     *ClockAnswer     `json:"clock,omitempty"`
}

// WireBatch is a live.Batch as it is sent.
type WireBatch struct {
	Sounds []WireSound `json:"sounds"`
	Places []WirePlace `json:"places"`
	Clicks []WireClick `json:"clicks,omitempty"`
}

// WireClick is a beat that is counted in.
type WireClick struct {
	At    int64 `json:"at"`
	First bool  `json:"first"`
}

// WireSound is a note-on, or with velocity 0 a note-off.
type WireSound struct {
	// At is the time of the server's clock at which it is to be heard, in nanoseconds.
	At       int64      `json:"at"`
	Tick     score.Tick `json:"tick"`
	Track    uint32     `json:"track"`
	Channel  uint8      `json:"channel"`
	Key      uint8      `json:"key"`
	Velocity uint8      `json:"velocity"`
	// Detune is how far above the key's pitch it is to sound, in cents.
	Detune float64 `json:"detune,omitempty"`
}

// WirePlace is a lane's going on to a step.
type WirePlace struct {
	At    int64          `json:"at"`
	Tick  score.Tick     `json:"tick"`
	Track int            `json:"track"`
	Part  int            `json:"part"`
	Lane  score.LaneName `json:"lane"`
	Step  int            `json:"step"`
}

// TakesMessage is the list of takes.
type TakesMessage struct {
	Takes []take.Summary `json:"takes"`
}

// ProblemsMessage lists what is wrong at present with the places where things are kept.
type ProblemsMessage struct {
	// Problems are sentences without their full stops.
	Problems []string `json:"problems"`
}

// NoticeMessage tells of something that has happened.
type NoticeMessage struct {
	// Text is one or more whole sentences.
	Text string `json:"text"`
}

// Question is what a page sends through the WebSocket: what time it is. Sent is the page's own clock
// reading, which the answer repeats.
type Question struct {
	Sent float64 `json:"sent"`
}

// ClockAnswer tells the time of the server's clock, in nanoseconds.
type ClockAnswer struct {
	Sent   float64 `json:"sent"`
	Server int64   `json:"server"`
}

// wireBatch leaves out all messages but notes, since the page's bell plays nothing else.
func wireBatch(b live.Batch) *WireBatch {
	wire := &WireBatch{Sounds: []WireSound{}, Places: make([]WirePlace, len(b.Places))}
	for _, s := range b.Sounds {
		if s.Kind == midi.NoteOn || s.Kind == midi.NoteOff {
			wire.Sounds = append(wire.Sounds, WireSound{
				At: s.At, Tick: s.Tick, Track: s.Track, Channel: s.Channel, Key: s.Key, Velocity: s.Velocity,
				Detune: float64(s.Detune) / float64(theory.Cent),
			})
		}
	}
	for _, c := range b.Clicks {
		wire.Clicks = append(wire.Clicks, WireClick(c))
	}
	for i, p := range b.Places {
		wire.Places[i] = WirePlace{At: p.At, Tick: p.Tick, Track: p.Track, Part: p.Part, Lane: p.Lane, Step: p.Step}
	}
	return wire
}
