package score

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Tick is a moment or a length of musical time: TicksPerQuarter of them make a quarter note. Valid
// moments are 0 and above; 0 is where playing starts.
type Tick int64

// TicksPerQuarter is 2^6·3^2·5·7: a 16th divides exactly by 1 to 10, and the number still fits the
// 15 bits that a Standard MIDI File has for it.
const TicksPerQuarter Tick = 20160

const whole = 4 * TicksPerQuarter

// NoteValue is the length of a note in the trade's notation: "1/16" is a 16th, "1/16." a dotted one
// and "1/16t" a 16th of a triplet.
type NoteValue string

// noteValues is in the order in which to offer them.
var noteValues, noteValueTicks = listNoteValues()

func listNoteValues() ([]NoteValue, map[NoteValue]Tick) {
	var names []NoteValue
	ticks := map[NoteValue]Tick{}
	add := func(name NoteValue, t Tick) {
		names = append(names, name)
		ticks[name] = t
	}
	for _, plain := range []struct {
		name  NoteValue
		ticks Tick
	}{
		{"1/1", whole}, {"1/2", whole / 2}, {"1/4", whole / 4}, {"1/8", whole / 8},
		{"1/16", whole / 16}, {"1/32", whole / 32}, {"1/64", whole / 64},
	} {
		add(plain.name+".", plain.ticks*3/2)
		add(plain.name, plain.ticks)
		add(plain.name+"t", plain.ticks*2/3)
	}
	return names, ticks
}

// NoteValues lists all note values, from the longest plain one down, each dotted, plain and triplet.
func NoteValues() []NoteValue { return append([]NoteValue(nil), noteValues...) }

// Ticks returns the length; 0 for a note value that does not exist.
func (v NoteValue) Ticks() Tick { return noteValueTicks[v] }

// Meter is a time signature.
type Meter struct {
	// Beats is the number of beats in a bar, 1 to 16.
	Beats int `json:"beats" jsonschema:"minimum=1,maximum=16"`
	// Unit is the note value of a beat: 2, 4, 8 or 16 for a half note to a 16th.
	Unit int `json:"unit" jsonschema:"enum=2,enum=4,enum=8,enum=16"`
	// Groups are how the beats are counted, as 2, 2 and 3 of seven eighths; without any each beat counts for itself.
	Groups []int `json:"groups,omitempty" jsonschema:"maxItems=16"`
}

func (m Meter) clone() Meter {
	m.Groups = slices.Clone(m.Groups)
	return m
}

// GroupStarts returns the beats with which groups begin, from 0.
func (m Meter) GroupStarts() []int {
	starts := []int{0}
	for _, length := range m.Groups {
		starts = append(starts, starts[len(starts)-1]+length)
	}
	if len(m.Groups) > 0 {
		return starts[:len(m.Groups)]
	}
	for beat := 1; beat < m.Beats; beat++ {
		starts = append(starts, beat)
	}
	return starts
}

// String returns the meter as it is written, as 7/8 or 2+2+3/8.
func (m Meter) String() string {
	beats := []string{strconv.Itoa(m.Beats)}
	if len(m.Groups) > 0 {
		beats = nil
		for _, group := range m.Groups {
			beats = append(beats, strconv.Itoa(group))
		}
	}
	return fmt.Sprintf("%s/%d", strings.Join(beats, "+"), m.Unit)
}

// Beat returns the length of a beat.
func (m Meter) Beat() Tick { return whole / Tick(m.Unit) }

// Bar returns the length of a bar.
func (m Meter) Bar() Tick { return Tick(m.Beats) * m.Beat() }

// Tempo is a speed in thousandths of a beat per minute, where a beat is a quarter note as in MIDI:
// 96000 is 96 bpm.
type Tempo int

// TicksPerMilli returns how many ticks pass in a millisecond, for what is drawn: playing counts in whole numbers.
func (t Tempo) TicksPerMilli() float64 { return float64(t) * float64(TicksPerQuarter) / 60e6 }

// TempoChange is a tempo and the moment from which it holds.
type TempoChange struct {
	Tick  Tick  `json:"tick" jsonschema:"minimum=1"`
	Tempo Tempo `json:"tempo" bounds:"own" jsonschema:"minimum=10000,maximum=400000"`
}

// LastTick is the latest moment that a document can name: ten million bars of 4/4.
const LastTick = 10_000_000 * whole

// The slowest and the fastest tempo.
const (
	MinTempo Tempo = 10_000
	MaxTempo Tempo = 400_000
)
