package score

import (
	"slices"

	"jettyfog/internal/core/theory"
)

// PitchSource is where a melodic track has its pitches from, in place of the key: a chord, of which a pitch of 0 is the first note, of 1 the second, and
// so on into the next octaves, downwards too. What lanes, orders, chance and transposition by degrees do to degrees they do to its notes.
type PitchSource struct {
	// Kind is what the chord comes from.
	Kind PitchKind `json:"kind" jsonschema:"enum=key,enum=held,enum=track,enum=map"`
	// Track is the id of the track of whose last step the notes are.
	Track int `json:"track,omitempty" jsonschema:"minimum=0,maximum=2147483647"`
	// Map is the id of the chord map. ByNote says that notes that come in call its chords, Lowest the first of them; InTime that they come in time, each
	// as long as it lasts, from the beginning of the song over and over. Else the pitch lane calls them, 0 the first, and the notes of each are played
	// all at once or in an order.
	Map    int  `json:"map,omitempty" jsonschema:"minimum=0,maximum=255"`
	ByNote bool `json:"byNote,omitempty"`
	InTime bool `json:"inTime,omitempty"`
	// Channel is the channel of notes that come in, 1 to 16; 0 hears all. Lowest and Highest bound those that count.
	Channel int `json:"channel,omitempty" jsonschema:"minimum=0,maximum=16"`
	Lowest  int `json:"lowest,omitempty" jsonschema:"minimum=0,maximum=127"`
	Highest int `json:"highest,omitempty" jsonschema:"minimum=0,maximum=127"`
	// Latched has held notes stay when the last is let go, until another is pressed.
	Latched bool `json:"latched,omitempty"`
	// Restart has all lanes begin anew, and the order too, with the first step after a note is pressed while none was down.
	Restart bool `json:"restart,omitempty"`
	// OnlyHeld has the track play only while a key is down, or, where it is latched, since one was.
	OnlyHeld bool `json:"onlyHeld,omitempty"`
	// Order is the order in which the notes of the chord are played, one with each strike; the pitch lane moves along it from there.
	Order ChordOrder `json:"order,omitempty" jsonschema:"enum=,enum=up,enum=down,enum=up and down,enum=up and down twice,enum=as played,enum=outward,enum=inward,enum=random,enum=all"`
	// Octaves is over how many octaves the chord goes before it begins anew; 0 is without end, or one in an order.
	Octaves int `json:"octaves,omitempty" jsonschema:"minimum=0,maximum=4"`
	// Rules change notes by what they are in the chord.
	Rules []RoleRule `json:"rules,omitempty" jsonschema:"maxItems=8"`
}

// PitchKind is what a track has its pitches from.
type PitchKind string

// The kinds.
const (
	KeyPitches   PitchKind = "key"
	HeldPitches  PitchKind = "held"
	TrackPitches PitchKind = "track"
	MapPitches   PitchKind = "map"
)

var pitchKinds = options[PitchKind]{
	{KeyPitches, "the key", "Pitches are degrees of the key."},
	{HeldPitches, "held notes", "Pitches are the notes that are held at an input that is played in."},
	{TrackPitches, "a track", "Pitches are the notes of the last step of another track."},
	{MapPitches, "a chord map", "Pitches are the notes of a chord of a map."},
}

// PitchOptions lists the kinds as options.
func PitchOptions() []Option { return pitchKinds.list() }

// ChordOrder is the order in which the notes of a chord are played.
type ChordOrder string

// The orders.
const (
	ByLane      ChordOrder = ""
	Up          ChordOrder = "up"
	Down        ChordOrder = "down"
	UpDown      ChordOrder = "up and down"
	UpDownTwice ChordOrder = "up and down twice"
	AsPlayed    ChordOrder = "as played"
	Outward     ChordOrder = "outward"
	Inward      ChordOrder = "inward"
	RandomNote  ChordOrder = "random"
	AllAtOnce   ChordOrder = "all"
)

var chordOrders = options[ChordOrder]{
	{ByLane, "by the pitch lane", "The pitch lane says which note of the chord, from 0, on into the next octaves."},
	{Up, "up", "From the lowest note to the highest."},
	{Down, "down", "From the highest note to the lowest."},
	{UpDown, "up and down", "Up and back, with the ends once."},
	{UpDownTwice, "up and down, ends twice", "Up and back, with the ends twice."},
	{AsPlayed, "as played", "In the order in which they were pressed or struck."},
	{Outward, "outward", "From the middle to the ends, the lower first."},
	{Inward, "inward", "From the ends to the middle, the lowest first."},
	{RandomNote, "random", "One of them for each ratchet hit, by the luck."},
	{AllAtOnce, "all at once", "The whole chord; the pitch lane inverts it."},
}

// ChordOrderOptions lists the orders as options.
func ChordOrderOptions() []Option { return chordOrders.list() }

// RoleRule adds semitones to those notes of a chord that have a role, now and then.
type RoleRule struct {
	Role      theory.Role `json:"role" jsonschema:"enum=root,enum=third,enum=fifth,enum=seventh,enum=other"`
	Semitones int         `json:"semitones" jsonschema:"minimum=-24,maximum=24"`
	// Odds is how often, in percent.
	Odds int `json:"odds" jsonschema:"minimum=0,maximum=100"`
}

// HearsKeys reports whether notes that come in decide what is played.
func (s *PitchSource) HearsKeys() bool {
	return s != nil && (s.OnlyHeld || s.Kind == HeldPitches || s.Kind == MapPitches && s.ByNote)
}

// OfChord reports whether pitches are from a chord, not from the key.
func (s *PitchSource) OfChord() bool { return s != nil && s.Kind != KeyPitches }

// Calls reports whether the pitch lane calls the chords of a map.
func (s *PitchSource) Calls() bool { return s.Kind == MapPitches && !s.ByNote && !s.InTime }

// AtOnce reports whether all notes of the chord are struck together.
func (s *PitchSource) AtOnce() bool {
	return s.OfChord() && (s.Order == AllAtOnce || s.Order == ByLane && s.Calls())
}

// FollowsTrack returns the id of the track whose notes the chord is, or 0.
func (s *PitchSource) FollowsTrack() int {
	if s == nil || s.Kind != TrackPitches {
		return 0
	}
	return s.Track
}

// Counts reports whether a key that comes in on a channel, from 0, counts.
func (s *PitchSource) Counts(channel, key uint8) bool {
	return (s.Channel == 0 || s.Channel == int(channel)+1) && int(key) >= s.Lowest && int(key) <= s.Highest
}

func (s *PitchSource) validate(field string, t *Track, p *Project) error {
	if s == nil {
		return nil
	}
	switch {
	case t.Kind == Kit && s.OfChord():
		return &FieldError{field + ".kind", string(s.Kind), "left out, as a kit has notes of its own"}
	case s.Kind == KeyPitches && !s.OnlyHeld:
		return &FieldError{field + ".kind", string(s.Kind), "left out, as pitches are from the key without it"}
	case s.ByNote && s.InTime:
		return &FieldError{field + ".inTime", s.InTime, "left out where notes call the chords"}
	case s.Kind == TrackPitches && p.Track(s.Track) == nil:
		return &FieldError{field + ".track", s.Track, "the id of a track that the project has"}
	case s.HearsKeys():
		return checkRange(field+".highest", s.Highest, s.Lowest, theory.HighestNote)
	}
	return nil
}

// swapPitches is swap for a property that can be missing, which an edit has as KeyPitches that are not only played while keys are held.
func swapPitches(field **PitchSource, value *PitchSource) *PitchSource {
	if value == nil {
		return nil
	}
	before := &PitchSource{Kind: KeyPitches}
	if *field != nil {
		before = *field
	}
	*field = nil
	if value.OfChord() || value.OnlyHeld {
		*field = value.clone()
	}
	return before
}

func (s *PitchSource) clone() *PitchSource {
	if s == nil {
		return nil
	}
	clone := *s
	clone.Rules = slices.Clone(s.Rules)
	return &clone
}
