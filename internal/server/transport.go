package server

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/live"
	"jettyfog/internal/output"
	"jettyfog/internal/studio"
)

// TransportRequest asks the transport to do something.
type TransportRequest struct {
	Do string `json:"do" jsonschema:"enum=play,enum=goOn,enum=jump,enum=loop,enum=song,enum=section,enum=stop,enum=record,enum=endRecording,enum=panic,enum=one,enum=move"`
	// From is the bar from which to play, from 1; 0 is the beginning.
	From int `json:"from,omitempty" jsonschema:"minimum=0,maximum=10000"`
	// Jump says where to go on; without it a jump that waits is taken back.
	Jump *JumpRequest `json:"jump,omitempty"`
	// Loop says which bars to play over and over; without it none are.
	Loop *LoopRange `json:"loop,omitempty"`
	// Song has the song play from where playing begins, or not any more; while playing from the next bar on.
	Song bool `json:"song,omitempty"`
	// Section says to which section of the song to go over.
	Section *SectionRequest `json:"section,omitempty"`
	// Record says what to record; without it all that comes until recording ends.
	Record *RecordOptions `json:"record,omitempty"`
	// At is the moment of the server's clock, in nanoseconds, at which the nearest bar line is to be, by a tempo that is faster or slower for so many
	// Beats: 0, 1 or 4.
	At    int64 `json:"at,omitempty"`
	Beats int   `json:"beats,omitempty" jsonschema:"minimum=0,maximum=4"`
	// Millis is by how much all is to play earlier from now on, in milliseconds, or below 0 later.
	Millis int `json:"millis,omitempty" jsonschema:"minimum=-100,maximum=100"`
}

// JumpRequest says where the song is to go on, and from which moment on.
type JumpRequest struct {
	// To is the bar, from 1.
	To int `json:"to" jsonschema:"minimum=1,maximum=10000"`
	// When is the moment, Bars how many of "bars".
	When live.When `json:"when" jsonschema:"enum=now,enum=step,enum=beat,enum=bar,enum=bars,enum=pattern"`
	Bars int       `json:"bars,omitempty" jsonschema:"minimum=0,maximum=64"`
	// GoesOn has chance go on there, instead of being as it is in the song.
	GoesOn bool `json:"goesOn,omitempty"`
}

// SectionRequest says to which section the song is to go over, so many places after the one that plays, and from which moment on.
type SectionRequest struct {
	Places int       `json:"places" jsonschema:"minimum=-127,maximum=127"`
	When   live.When `json:"when" jsonschema:"enum=now,enum=step,enum=beat,enum=bar,enum=bars,enum=pattern"`
	Bars   int       `json:"bars,omitempty" jsonschema:"minimum=0,maximum=64"`
}

// LoopRange is a range of bars.
type LoopRange struct {
	// From is the first bar, from 1, and Bars how many there are.
	From int `json:"from" jsonschema:"minimum=1,maximum=10000"`
	Bars int `json:"bars" jsonschema:"minimum=1,maximum=4096"`
	// GoesOn has chance go on from pass to pass, instead of being the same in each.
	GoesOn bool `json:"goesOn,omitempty"`
}

// in returns the range in ticks of a project; nil is none.
func (l *LoopRange) in(p *score.Project) live.Range {
	if l == nil {
		return live.Range{}
	}
	bars := p.Bars()
	return live.Range{From: bars.Start(int64(l.From - 1)), To: bars.Start(int64(l.From - 1 + l.Bars)), GoesOn: l.GoesOn}
}

// RecordOptions say what to record.
type RecordOptions struct {
	// CountIn is how many bars are counted in where playing has to begin first.
	CountIn int `json:"countIn" jsonschema:"minimum=0,maximum=8"`
	// From is the bar with which the take begins, from 1; 0 is the present one, or where there are Bars the next.
	From int `json:"from" jsonschema:"minimum=0,maximum=100000"`
	// Start is the bar from which to play where playing has to begin first, from 1; 0 is the beginning.
	Start int `json:"start,omitempty" jsonschema:"minimum=0,maximum=10000"`
	// Bars is how many bars the take has; 0 is until it is ended.
	Bars int `json:"bars" jsonschema:"minimum=0,maximum=4096"`
	// Again has another take of as many Bars begin where one ends.
	Again bool `json:"again"`
}

type transportResource struct {
	transport *live.Transport
	studio    *studio.Studio
	hub       *hub
}

// Routes lists the resource's routes.
func (t transportResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Post("/", t.do)
	r.Get("/log.json", t.log)
	r.Get("/chase", t.chase)
	return r
}

// log answers with what was done since playing began last, as a file that can be rendered.
func (t transportResource) log(w http.ResponseWriter, _ *http.Request) {
	logged, end := t.transport.Log()
	if logged.Project == nil {
		refuse(w, http.StatusConflict, "there is no log: nothing was played yet, or more than 4,000 edits came while it played")
		return
	}
	data, err := log.Encode(&logged, end)
	if err != nil {
		fail(w, err)
		return
	}
	w.Header().Set("Content-Type", "application/json")
	_, _ = w.Write(data) // only a broken connection can make this fail
}

// chase answers with what brings a device up to date that plays an output from now on: what instruments were told, the notes that
// go on, and all that is to come.
func (t transportResource) chase(w http.ResponseWriter, _ *http.Request) {
	batch := &WireBatch{}
	t.transport.Chase(t.hub, func(events []output.Event) {
		if chased := wireBatch(events); chased != nil {
			batch = chased
		}
	})
	reply(w, batch)
}

func (t transportResource) do(w http.ResponseWriter, r *http.Request) {
	var request TransportRequest
	if err := read(r, &request); err != nil {
		fail(w, err)
		return
	}
	switch request.Do {
	case "play":
		t.transport.PlayFrom(int64(max(1, request.From) - 1))
	case "goOn":
		t.transport.GoOn()
	case "jump":
		if err := t.jump(request.Jump); err != nil {
			fail(w, err)
			return
		}
	case "loop":
		if err := t.transport.SetLoop(request.Loop.in(t.studio.State().Project)); err != nil {
			fail(w, err)
			return
		}
	case "song":
		if err := t.transport.SetSong(request.Song); err != nil {
			fail(w, err)
			return
		}
	case "section":
		if err := t.section(request.Section); err != nil {
			fail(w, err)
			return
		}
	case "stop":
		t.transport.Stop()
	case "record":
		var options RecordOptions
		if request.Record != nil {
			options = *request.Record
		}
		if err := t.transport.Record(live.Recording(options)); err != nil {
			fail(w, err)
			return
		}
	case "endRecording":
		t.transport.EndRecording()
	case "panic":
		t.transport.Panic()
	case "one":
		if err := t.transport.OneIsNow(request.At, request.Beats); err != nil {
			fail(w, err)
			return
		}
	case "move":
		if err := t.transport.Move(request.Millis); err != nil {
			fail(w, err)
			return
		}
	default:
		refuse(w, http.StatusUnprocessableEntity, "the transport can play, goOn, jump, loop, song, section, stop, record, endRecording, panic, one and move")
		return
	}
	reply(w, t.transport.Status())
}

// section has the song go over to another section.
func (t transportResource) section(request *SectionRequest) error {
	if request == nil {
		return &score.FieldError{Field: "section", Got: "missing", Allowed: "there"}
	}
	return t.transport.GoOver(request.Places, request.When, request.Bars)
}

// jump has the song go on elsewhere, or takes that back. The error is a *score.FieldError.
func (t transportResource) jump(request *JumpRequest) error {
	if request == nil {
		t.transport.StayOn()
		return nil
	}
	return t.transport.JumpTo(int64(request.To-1), request.When, request.Bars, request.GoesOn)
}
