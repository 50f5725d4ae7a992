package server

import (
	"net/http"
	"strconv"
	"strings"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/theory"
)

// maxRollNotes bounds how many notes and points of controllers a page is given at once.
const maxRollNotes = 8_000

// Roll is a stretch of a take, to be drawn.
type Roll struct {
	Summary take.Summary    `json:"summary"`
	Bars    []score.BarSpan `json:"bars"`
	Key     theory.Key      `json:"key"`
	// End is the length of the take, in ticks.
	End    score.Tick  `json:"end"`
	Paces  []Pace      `json:"paces"`
	Tracks []RollTrack `json:"tracks"`
	// Notes are those that sound in the stretch, in order. Crowded says that there are more, and that those
	// that start last are missing.
	Notes    []RollNote    `json:"notes"`
	Crowded  bool          `json:"crowded"`
	Controls []RollControl `json:"controls"`
	// Lowest and Highest are the keys that the whole take reaches.
	Lowest  int           `json:"lowest"`
	Highest int           `json:"highest"`
	Markers []take.Marker `json:"markers"`
}

// Pace is how fast time passes from a tick of a take on.
type Pace struct {
	Tick score.Tick `json:"tick"`
	// Millis is when the tick comes, in milliseconds from the take's beginning.
	Millis float64 `json:"millis"`
	// TicksPerMilli is how many ticks pass in a millisecond from there on.
	TicksPerMilli float64 `json:"ticksPerMilli"`
}

func pacesOf(tempo play.TempoMap) []Pace {
	paces := make([]Pace, len(tempo))
	for i, change := range tempo {
		paces[i] = Pace{change.Tick, float64(tempo.Nanos(change.Tick)) / 1e6, change.Tempo.TicksPerMilli()}
	}
	return paces
}

// RollTrack is a track of a take.
type RollTrack struct {
	take.Track
	// Notes is how many notes it has.
	Notes int `json:"notes"`
}

// RollNote is a note of a take.
type RollNote struct {
	// Place names the note in edits.
	Place    int        `json:"place"`
	Track    uint32     `json:"track"`
	Start    score.Tick `json:"start"`
	End      score.Tick `json:"end"`
	Key      int        `json:"key"`
	Velocity int        `json:"velocity"`
	// Channel and Detune, in cents, are for hearing it.
	Channel int     `json:"channel"`
	Detune  float64 `json:"detune,omitempty"`
}

// RollControl is what a controller, a bend or the pressure of a channel was sent.
type RollControl struct {
	Track   uint32 `json:"track"`
	Channel int    `json:"channel"`
	// Kind is control, control14, bend or pressure; Number is that of a controller.
	Kind   string `json:"kind"`
	Number int    `json:"number"`
	// Most is the highest value that there can be.
	Most   int         `json:"most"`
	Points []RollPoint `json:"points"`
}

// RollPoint is one value that was sent.
type RollPoint struct {
	Tick  score.Tick `json:"tick"`
	Value int        `json:"value"`
}

// roll answers with what is between the ticks ?from= and ?to= of a take.
func (t takesResource) roll(w http.ResponseWriter, r *http.Request) {
	found, summary := t.find(w, r)
	if found == nil {
		return
	}
	from, errFrom := strconv.ParseInt(r.URL.Query().Get("from"), 10, 64)
	to, errTo := strconv.ParseInt(r.URL.Query().Get("to"), 10, 64)
	if errFrom != nil || errTo != nil || from < 0 || to <= from {
		refuse(w, http.StatusBadRequest, "a roll needs the ticks from and to which it is shown")
		return
	}
	reply(w, rollOf(found, summary, score.Tick(from), score.Tick(to)))
}

func rollOf(t *take.Take, summary take.Summary, from, to score.Tick) Roll {
	roll := Roll{
		Summary: summary, Bars: t.Bars().Spans(), Key: t.Key, End: t.End, Paces: pacesOf(t.Tempo),
		Notes: []RollNote{}, Controls: controlsOf(t, from, to), Markers: append([]take.Marker{}, t.Markers...),
	}
	counts := map[uint32]int{}
	lowest, highest := theory.HighestNote, theory.LowestNote
	for place, n := range t.Notes() {
		counts[n.Track]++
		lowest, highest = min(lowest, int(n.Key)), max(highest, int(n.Key))
		if n.End <= from || n.Start >= to {
			continue
		}
		if len(roll.Notes) == maxRollNotes {
			roll.Crowded = true
			continue
		}
		roll.Notes = append(roll.Notes, RollNote{
			Place: place, Track: n.Track, Start: n.Start, End: n.End, Key: int(n.Key), Velocity: int(n.Velocity),
			Channel: int(n.Channel), Detune: float64(n.Detune) / float64(theory.Cent),
		})
	}
	for _, track := range t.Tracks {
		roll.Tracks = append(roll.Tracks, RollTrack{track, counts[track.ID]})
	}
	roll.Lowest, roll.Highest = min(lowest, highest), max(lowest, highest)
	return roll
}

// rollKinds are the kinds of messages that a roll shows beside notes, and their highest values.
var rollKinds = map[midi.Kind]struct {
	name string
	most int
}{
	midi.ControlChange: {"control", 127}, midi.WideControl: {"control14", 16383}, midi.Bend: {"bend", 16383}, midi.Pressure: {"pressure", 127},
}

// controlsOf returns the controllers of a take as they stand at from and change until to.
func controlsOf(t *take.Take, from, to score.Tick) []RollControl {
	type series struct {
		track           uint32
		channel, number uint8
		kind            midi.Kind
	}
	places := map[series]int{}
	controls, points := []RollControl{}, 0
	for _, m := range t.Messages {
		kind, shown := rollKinds[m.Kind]
		if !shown || m.Tick >= to || points == maxRollNotes {
			continue
		}
		of := series{m.Track, m.Channel, m.Key, m.Kind}
		place, known := places[of]
		if !known {
			place = len(controls)
			places[of] = place
			controls = append(controls, RollControl{Track: m.Track, Channel: int(m.Channel) + 1, Kind: kind.name, Number: int(m.Key), Most: kind.most})
		}
		c := &controls[place]
		if last := len(c.Points) - 1; m.Tick <= from && last >= 0 {
			c.Points[last] = RollPoint{m.Tick, int(m.Value)}
			continue
		}
		c.Points = append(c.Points, RollPoint{m.Tick, int(m.Value)})
		points++
	}
	return controls
}

// statistics answers with those of the tracks ?tracks=1,2, or of all.
func (t takesResource) statistics(w http.ResponseWriter, r *http.Request) {
	found, _ := t.find(w, r)
	if found == nil {
		return
	}
	var tracks []uint32
	if listed := r.URL.Query().Get("tracks"); listed != "" {
		for _, text := range strings.Split(listed, ",") {
			id, err := strconv.ParseUint(text, 10, 32)
			if err != nil {
				refuse(w, http.StatusBadRequest, "tracks must be the ids of tracks with commas between them")
				return
			}
			tracks = append(tracks, uint32(id))
		}
	}
	reply(w, take.StatisticsOf(found, tracks...))
}

// TakeComparison tells what another take has in common with one.
type TakeComparison struct {
	// Same is how many notes both have.
	Same int `json:"same"`
	// Changed and Gone are places of notes of the one take that the other has with another velocity or length, or
	// lacks.
	Changed []int `json:"changed"`
	Gone    []int `json:"gone"`
	// Added are the notes of the other that the one lacks.
	Added []RollNote `json:"added"`
}

// compare answers with what the take ?with= has in common with the one that is named.
func (t takesResource) compare(w http.ResponseWriter, r *http.Request) {
	with, _ := strconv.ParseInt(r.URL.Query().Get("with"), 10, 64) // no take has the id 0
	other, _, err := t.takes.Take(r.Context(), with)
	if err != nil {
		fail(w, err)
		return
	}
	found, _ := t.find(w, r)
	if found == nil {
		return
	}
	compared := take.Compare(found, other)
	answer := TakeComparison{Same: compared.Same, Changed: compared.Changed, Gone: compared.Gone, Added: []RollNote{}}
	notes := other.Notes()
	for _, place := range compared.Added[:min(len(compared.Added), maxRollNotes)] {
		n := notes[place]
		answer.Added = append(answer.Added, RollNote{Place: place, Track: n.Track, Start: n.Start, End: n.End, Key: int(n.Key), Velocity: int(n.Velocity)})
	}
	reply(w, answer)
}
