package server

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/field"
	"jettyfog/internal/core/preset"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/core/theory"
)

// Lists are what there is to choose from.
type Lists struct {
	Lanes      []score.LaneSpec      `json:"lanes"`
	Rates      []Rate                `json:"rates"`
	Orders     []score.OrderSpec     `json:"orders"`
	Shapes     []score.Shape         `json:"shapes"`
	Sources    []score.Option        `json:"sources"`
	Spacings   []score.Option        `json:"spacings"`
	ModTargets []score.ModTargetSpec `json:"modTargets"`
	TunedBys   []score.Option        `json:"tunedBys"`
	// WholeRoute is a route by which all of a track goes to the built-in sound.
	WholeRoute score.Route `json:"wholeRoute"`
	// Patches are those of the built-in sound.
	Patches []score.Option `json:"patches"`
	// VoltageChannels is a new channel of each signal.
	VoltageChannels []score.VoltageChannel `json:"voltageChannels"`
	// Terms are those of conditions.
	Terms    []score.TermSpec `json:"terms"`
	MaxTerms int              `json:"maxTerms"`
	// WholeStep is the value of a length that fills its step; above it values count steps, from 2.
	WholeStep int `json:"wholeStep"`
	// Notes are the MIDI notes, from 0.
	Notes           []NoteNames     `json:"notes"`
	Percussion      []PercussionKey `json:"percussion"`
	Roots           []string        `json:"roots"`
	Scales          []Scale         `json:"scales"`
	TicksPerQuarter score.Tick      `json:"ticksPerQuarter"`
	// PitchKinds are what tracks can have their pitches from, ChordOrders the orders of a chord's notes, ChordRoles what notes are in it, and ChordQualities the kinds
	// of chords that have names.
	PitchKinds     []score.Option   `json:"pitchKinds"`
	ChordOrders    []score.Option   `json:"chordOrders"`
	ChordRoles     []theory.Role    `json:"chordRoles"`
	ChordQualities []theory.Quality `json:"chordQualities"`
	// Fields are the values of what fields have.
	Fields FieldLists `json:"fields"`
	// ChordMaps are those that ship.
	ChordMaps []score.ChordMap `json:"chordMaps"`
	// WaveShapes are those of modulators.
	WaveShapes []score.WaveShapeSpec `json:"waveShapes"`
	// Controls are all that can be changed while playing.
	Controls []stage.Listing `json:"controls"`
	// PresetKinds are those of presets.
	PresetKinds []preset.KindSpec `json:"presetKinds"`
}

// NoteNames is what a MIDI note is called.
type NoteNames struct {
	Name string `json:"name"`
	// Spellings are all ways to type it, in capitals, with # and B for the accidentals.
	Spellings []string `json:"spellings"`
}

// PercussionKey is a key of a kit, and what General MIDI plays there.
type PercussionKey struct {
	Note int    `json:"note"`
	Name string `json:"name"`
}

// Scale is a scale and the semitones of its notes above the root.
type Scale struct {
	Name      string `json:"name"`
	Semitones []int  `json:"semitones"`
}

// Rate is a note value and its length.
type Rate struct {
	Name  score.NoteValue `json:"name"`
	Ticks score.Tick      `json:"ticks"`
}

// FieldLists are the values of what fields have: how travellers move, turn at edges and where they meet, rings of waves, jumps of letters, rules of meetings,
// and ways to lay a field out anew.
type FieldLists struct {
	Motions  []score.Option `json:"motions"`
	Edges    []score.Option `json:"edges"`
	Meetings []score.Option `json:"meetings"`
	Shapes   []score.Option `json:"shapes"`
	Jumps    []score.Option `json:"jumps"`
	Whens    []score.Option `json:"whens"`
	Dos      []score.Option `json:"dos"`
	Changes  []score.Option `json:"changes"`
	Rolls    []score.Option `json:"rolls"`
	// Layers are what of a field is kept and recalled by name; a control has the name "field " and the value.
	Layers []score.Option `json:"layers"`
}

type listsResource struct{}

// Routes lists the resource's routes.
func (listsResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", func(w http.ResponseWriter, _ *http.Request) {
		lists := Lists{
			Lanes: score.LaneSpecs(), Orders: score.OrderSpecs(), Shapes: score.Shapes(),
			Sources: score.SourceOptions(), Spacings: score.SpacingOptions(),
			ModTargets: score.ModTargetSpecs(), TunedBys: score.TunedByOptions(), WholeRoute: score.WholeRoute(score.BuiltIn), Patches: score.PatchOptions(),
			Terms: score.TermSpecs(), MaxTerms: score.MaxTerms, WholeStep: score.WholeStep,
			Roots: theory.RootNames(), TicksPerQuarter: score.TicksPerQuarter, PresetKinds: preset.KindSpecs(), Controls: stage.Listed(), WaveShapes: score.WaveShapeSpecs(),
			Fields: FieldLists{
				Motions: score.TravellerMotions(), Edges: score.EdgeTurns(), Meetings: score.MeetingTurns(), Shapes: score.RingShapes(),
				Jumps: score.LetterJumpOptions(), Whens: score.MeetingWhens(), Dos: score.MeetingDos(), Changes: field.ChangeOptions(), Rolls: field.RollOptions(), Layers: score.LayerKindOptions(),
			},
			PitchKinds: score.PitchOptions(), ChordOrders: score.ChordOrderOptions(), ChordRoles: theory.Roles(), ChordQualities: theory.Qualities(), ChordMaps: score.ReadyChordMaps(),
		}
		for _, signal := range score.Signals() {
			lists.VoltageChannels = append(lists.VoltageChannels, score.NewVoltageChannel(1, signal))
		}
		for _, v := range score.NoteValues() {
			lists.Rates = append(lists.Rates, Rate{Name: v, Ticks: v.Ticks()})
		}
		for _, name := range theory.ScaleNames() {
			scale, _ := theory.ScaleByName(name)
			lists.Scales = append(lists.Scales, Scale{Name: name, Semitones: scale.Semitones})
		}
		for note := range theory.HighestNote + 1 {
			lists.Notes = append(lists.Notes, NoteNames{Name: theory.NoteName(note), Spellings: theory.NoteSpellings(note)})
		}
		for note := theory.LowestPercussion; note <= theory.HighestPercussion; note++ {
			name, _ := theory.PercussionName(note)
			lists.Percussion = append(lists.Percussion, PercussionKey{Note: note, Name: name})
		}
		reply(w, lists)
	})
	return r
}
