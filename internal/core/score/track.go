package score

import (
	"slices"

	"jettyfog/internal/core/theory"
)

// Bounds of a track.
const (
	MaxPatterns = 16
	MaxParts    = 16
	MaxPartID   = 255
	// MaxPatternID is the highest id that a pattern of a track can have.
	MaxPatternID = 255
	MaxDelay     = TicksPerQuarter
	MaxBars      = 64
)

// FollowLuck as a track's luck says that it follows the project's.
const FollowLuck = -1

// Kind is what a track plays.
type Kind string

// The kinds.
const (
	Melodic   Kind = "melodic" // one part, which plays its pitch lane
	Kit       Kind = "kit"     // up to MaxParts parts, each with a note of its own
	FieldKind Kind = "field"   // one part, whose field plays
)

// Kinds lists the kinds in the order in which to offer them.
func Kinds() []Kind { return []Kind{Melodic, Kit, FieldKind} }

// Track is one line of music, or one kit, and where it goes.
type Track struct {
	// ID stays with the track for ever, because its random numbers follow from it. From 1 up.
	ID   int    `json:"id" jsonschema:"minimum=1,maximum=2147483647"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Kind Kind   `json:"kind" jsonschema:"enum=melodic,enum=kit,enum=field"`
	// Channel is the MIDI channel, 1 to 16.
	Channel int `json:"channel" jsonschema:"minimum=1,maximum=16"`
	// Program is sent when playing begins, from 1; 0 sends none. Bank, from 1, is sent before it; 0 sends none.
	Program int `json:"program,omitempty" jsonschema:"minimum=0,maximum=128"`
	Bank    int `json:"bank,omitempty" jsonschema:"minimum=0,maximum=16384"`
	// Routes are the outputs to which it goes; none are allowed. Without the list it goes to the built-in sound.
	Routes *[]Route `json:"routes,omitempty" jsonschema:"maxItems=8"`
	// MuteCuts has what sounds of the track end at its outputs when it is silenced; else it finishes.
	MuteCuts bool `json:"muteCuts,omitempty"`
	// ChaseWaits has an output to which the track begins to go while a long note of it sounds play from the next note on; else that one
	// begins there at once.
	ChaseWaits bool `json:"chaseWaits,omitempty"`
	// Mute silences the track; it decides all the same, so unmuting never changes the music.
	Mute bool `json:"mute"`
	// Solo silences all tracks that are not solo too.
	Solo bool `json:"solo"`
	// OffAir says that the track is not active: it is out of the piece, whatever is muted or solo, as one that is not ready yet.
	OffAir bool `json:"offAir"`
	// Source is what makes the gate lanes go on.
	Source Source `json:"source"`
	// Voices is how many notes can sound at a time, up to MaxVoices: a new note ends the oldest. 1 is mono,
	// 0 as many as are played.
	Voices int `json:"voices" jsonschema:"minimum=0,maximum=16"`
	// Overlap is how long a note that a new one ends sounds on into it, for playing legato, in ticks; at 0
	// it ends first.
	Overlap  Tick            `json:"overlap" jsonschema:"minimum=0,maximum=20160"`
	Register theory.Register `json:"register"`
	// Pitches is where a melodic track has its pitches from; without it that is the key.
	Pitches *PitchSource `json:"pitches,omitempty"`
	// Tuned says how a melodic track gets its notes in tune; without it the instrument has the tuning itself.
	Tuned     *Tuned    `json:"tuned,omitempty"`
	Transpose Transpose `json:"transpose"`
	// Speed is the ratio at which the track's time passes.
	Speed Ratio `json:"speed"`
	// Swing is the track's own amount of swing, 500 to 750 tenths of a percent; 0 follows the project.
	Swing int `json:"swing" bounds:"own" jsonschema:"minimum=0,maximum=750"`
	// EntersAsPlayed has a pattern enter as if it had played all along, as far as its lanes move by the clock in orders without
	// chance; else it enters at its first step.
	EntersAsPlayed bool `json:"entersAsPlayed,omitempty"`
	// SwingOwnSteps has pairs of the track's own gate steps swing instead of the project's grid.
	SwingOwnSteps bool `json:"swingOwnSteps,omitempty"`
	// Delay shifts the whole track, in ticks; up to a quarter note either way.
	Delay Tick `json:"delay" jsonschema:"minimum=-20160,maximum=20160"`
	// Jitter is the most by which chance shifts a note either way, in milliseconds.
	Jitter int `json:"jitter" jsonschema:"minimum=0,maximum=100"`
	// Shifts are divisions by which chance also shifts a note: by none or by one of them, early or late, all
	// equally likely. Each is a quarter note at most.
	Shifts []NoteValue `json:"shifts,omitempty" jsonschema:"maxItems=8"`
	// Probability moves the probabilities of all steps that are on: see Probable. 0 leaves them as they are.
	Probability int `json:"probability,omitempty" jsonschema:"minimum=-100,maximum=100"`
	// Luck is the track's own luck; FollowLuck follows the project.
	Luck int `json:"luck" jsonschema:"minimum=-1,maximum=999999"`
	// Hold repeats the same luck every so many bars: all that chance can move is then as it was at the first of
	// them; 0 never does.
	Hold int `json:"hold" jsonschema:"minimum=0,maximum=64"`
	// HoldFrom is how many bars go by before the first of those that are held.
	HoldFrom int `json:"holdFrom,omitempty" jsonschema:"minimum=0,maximum=1000000"`
	// Realign brings all lanes back to their first step every so many bars; 0 never does.
	Realign int `json:"realign" jsonschema:"minimum=0,maximum=64"`
	// Loop, if there is one, plays in place of the patterns, which go on deciding in silence.
	Loop *Loop `json:"loop,omitempty"`
	// Playing is the id of the pattern that plays.
	Playing  int       `json:"playing" jsonschema:"minimum=0,maximum=255"`
	Patterns []Pattern `json:"patterns" jsonschema:"minItems=1,maxItems=16"`
}

// Transpose moves all pitches of a track.
type Transpose struct {
	// Degrees are steps of the scale, before it is spelled.
	Degrees int `json:"degrees" jsonschema:"minimum=-28,maximum=28"`
	// Semitones are added after that, and can lead out of the scale.
	Semitones int `json:"semitones" jsonschema:"minimum=-48,maximum=48"`
}

// Ratio is n:m with both from 1 to 16.
type Ratio struct {
	N int `json:"n" jsonschema:"minimum=1,maximum=16"`
	M int `json:"m" jsonschema:"minimum=1,maximum=16"`
}

// Pattern is what a track plays at a time.
type Pattern struct {
	// ID stays with the pattern; it is different from those of the track's other patterns.
	ID   int    `json:"id" jsonschema:"minimum=0,maximum=255"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// After says where it leads once it has played for some passes; without it it plays on.
	After *Chain `json:"after,omitempty"`
	Parts []Part `json:"parts" jsonschema:"minItems=1,maxItems=16"`
}

// Pattern returns the pattern with the id, or nil.
func (t *Track) Pattern(id int) *Pattern {
	for i := range t.Patterns {
		if t.Patterns[i].ID == id {
			return &t.Patterns[i]
		}
	}
	return nil
}

// Probable returns with what probability a step sounds for which its lane, scaled and varied, has p; both in ten-thousandths.
// Below 0 the track's Probability P is the percentage that is taken away, p × (100 + P)/100; above 0 it is the percentage of
// what is missing to certainty that is added, p + (10,000 − p) × P/100, rounded down. A step that never sounds stays silent.
func (t *Track) Probable(p int) int {
	switch {
	case t.Probability < 0:
		return p * (100 + t.Probability) / 100
	case p > 0:
		return p + (10_000-p)*t.Probability/100
	}
	return 0
}

// Parts returns the parts of the pattern that plays.
func (t *Track) Parts() []Part { return t.Pattern(t.Playing).Parts }

// Part returns the part with the id, or nil.
func (pattern *Pattern) Part(id int) *Part {
	if at := pattern.partIndex(id); at >= 0 {
		return &pattern.Parts[at]
	}
	return nil
}

// partIndex returns where the part with the id stands, or -1.
func (pattern *Pattern) partIndex(id int) int {
	return slices.IndexFunc(pattern.Parts, func(part Part) bool { return part.ID == id })
}

// Clone returns a copy that shares nothing with t.
func (t *Track) Clone() Track {
	clone := *t
	clone.Shifts = slices.Clone(t.Shifts)
	clone.Pitches = t.Pitches.clone()
	if t.Tuned != nil {
		tuned := *t.Tuned
		clone.Tuned = &tuned
	}
	if t.Routes != nil {
		routes := append([]Route{}, *t.Routes...)
		clone.Routes = &routes
	}
	clone.Loop = t.Loop.Clone()
	clone.Patterns = make([]Pattern, len(t.Patterns))
	for i, pattern := range t.Patterns {
		clone.Patterns[i] = pattern.clone()
	}
	return clone
}

func (pattern Pattern) clone() Pattern {
	clone := Pattern{ID: pattern.ID, Name: pattern.Name, After: pattern.After.clone(), Parts: make([]Part, len(pattern.Parts))}
	for i := range pattern.Parts {
		clone.Parts[i] = pattern.Parts[i].Clone()
	}
	return clone
}

// newTrack returns a melodic track of one pattern.
func newTrack(id int, name string, part Part) Track {
	return Track{
		ID: id, Name: name, Kind: Melodic, Channel: 1,
		Register: theory.Register{Lowest: 36, Highest: 96},
		Source:   Source{Kind: OwnClock, Odds: 100},
		Speed:    Ratio{N: 1, M: 1},
		Luck:     FollowLuck,
		Patterns: []Pattern{{Name: "A", Parts: []Part{part}}},
	}
}
