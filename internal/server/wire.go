package server

import (
	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/theory"
	"jettyfog/internal/live"
	"jettyfog/internal/output"
)

// Message is what the server sends through the WebSocket: an object with exactly one of these fields.
// After connecting, a page gets a devices, an inputs, a project, a transport, a stage, a takes, a calibrations and a problems message without asking.
type Message struct {
	Project   *ProjectState    `json:"project,omitempty"`
	Transport *live.Status     `json:"transport,omitempty"`
	Stage     *StageMessage    `json:"stage,omitempty"`
	Batch     *WireBatch       `json:"batch,omitempty"`
	Takes     *TakesMessage    `json:"takes,omitempty"`
	Problems  *ProblemsMessage `json:"problems,omitempty"`
	Notice    *NoticeMessage   `json:"notice,omitempty"`
	Devices   *DevicesMessage  `json:"devices,omitempty"`
	Inputs    *InputsMessage   `json:"inputs,omitempty"`
	// Calibrations are sent after connecting and whenever they change.
	Calibrations *CalibrationsMessage `json:"calibrations,omitempty"`
	Clock        *ClockAnswer         `json:"clock,omitempty"`
	// Heard came in at a device of the machine or from a program.
	Heard *HeardInput `json:"heard,omitempty"`
}

// WireBatch is what is about to happen, and what is not to any more.
type WireBatch struct {
	// Sounds are for the built-in sound, Messages for all other outputs.
	Sounds   []WireSound   `json:"sounds,omitempty"`
	Messages []WireMessage `json:"messages,omitempty"`
	Places   []WirePlace   `json:"places,omitempty"`
	Clicks   []WireClick   `json:"clicks,omitempty"`
	// Voltages are what channels of outputs of voltages do.
	Voltages []WireVoltages `json:"voltages,omitempty"`
	// Withdrawn are sounds that were announced and must not be heard after all.
	Withdrawn []WireSound `json:"withdrawn,omitempty"`
	// Unsent are messages that were announced and must not be sent after all.
	Unsent []WireMessage `json:"unsent,omitempty"`
	// Release says that all that was announced is dropped, and all that sounds ends.
	Release bool `json:"release,omitempty"`
	// Panic says that instruments are to be sent all that can end a note besides.
	Panic bool `json:"panic,omitempty"`
}

// WireMessage is a MIDI message for an output other than the built-in sound.
type WireMessage struct {
	// At is the time of the server's clock at which it is to be sent, in nanoseconds.
	At     int64  `json:"at"`
	Output int    `json:"output"`
	Track  uint32 `json:"track"`
	// Data are its bytes, the status byte first.
	Data []int `json:"data"`
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

// HeardInput is a message that came in at the machine.
type HeardInput struct {
	Kind score.InputKind `json:"kind" jsonschema:"enum=serverDevice,enum=osc"`
	// ID is that of the input; 0 is one that the project does not list.
	ID int `json:"id"`
	// At is when it came, in nanoseconds of the server's clock.
	At      int64 `json:"at"`
	Message []int `json:"message"`
}

// Question is what a page sends through the WebSocket: what time it is, or with an Input what has come in there. Sent is the page's own clock
// reading, which the answer repeats.
type Question struct {
	Sent  float64    `json:"sent"`
	Input *PageInput `json:"input,omitempty"`
}

// PageInput is a message that came in at a page.
type PageInput struct {
	Kind score.InputKind `json:"kind" jsonschema:"enum=screen,enum=browserPort"`
	// ID is that of the input, of browser ports; 0 is one that the project does not list.
	ID int `json:"id,omitempty" jsonschema:"minimum=0,maximum=255"`
	// At is when it came, in nanoseconds of the server's clock.
	At int64 `json:"at"`
	// Message holds its bytes, the status byte first; with none, and no key, the input is gone.
	Message []int `json:"message" jsonschema:"maxItems=3"`
	// Key is a key of the computer, by KeyboardEvent.code, that goes Down or up.
	Key  string `json:"key,omitempty" jsonschema:"maxLength=20"`
	Down bool   `json:"down,omitempty"`
}

// ClockAnswer tells the time of the server's clock, in nanoseconds.
type ClockAnswer struct {
	Sent   float64 `json:"sent"`
	Server int64   `json:"server"`
}

// wireBatch returns events as pages are told of them; nil if no page has to know of any.
func wireBatch(events []output.Event) *WireBatch {
	batch := &WireBatch{Sounds: wireSounds(events), Messages: wireMessages(events)}
	if len(batch.Sounds)+len(batch.Messages) == 0 {
		return nil
	}
	return batch
}

// wireMessages returns what other outputs than the built-in sound are sent, as MIDI 1.0 has it.
func wireMessages(events []output.Event) (messages []WireMessage) {
	for _, e := range events {
		if e.Output == score.BuiltIn {
			continue
		}
		for _, data := range e.Bytes() {
			message := WireMessage{At: e.At, Output: e.Output, Track: e.Track}
			for _, b := range data {
				message.Data = append(message.Data, int(b))
			}
			messages = append(messages, message)
		}
	}
	return messages
}

// wireSounds leaves out all messages but notes, since the built-in sound plays nothing else.
func wireSounds(events []output.Event) (sounds []WireSound) {
	for _, e := range events {
		if e.Output == score.BuiltIn && (e.Kind == midi.NoteOn || e.Kind == midi.NoteOff) {
			sounds = append(sounds, WireSound{
				At: e.At, Tick: e.Tick, Track: e.Track, Channel: e.Channel, Key: e.Key, Velocity: e.Velocity,
				Detune: float64(e.Detune) / float64(theory.Cent),
			})
		}
	}
	return sounds
}
