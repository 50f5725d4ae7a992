package theory

import (
	"math/bits"
	"slices"
)

// Role is what a note of a chord is above the chord's root.
type Role string

// The roles. The other ones are sixths, ninths and what else is added.
const (
	RootRole    Role = "root"
	ThirdRole   Role = "third"
	FifthRole   Role = "fifth"
	SeventhRole Role = "seventh"
	OtherRole   Role = "other"
)

// Roles lists the roles in the order in which to offer them.
func Roles() []Role { return []Role{RootRole, ThirdRole, FifthRole, SeventhRole, OtherRole} }

// Quality is a kind of chord, by its notes above the root.
type Quality struct {
	// Name is the short name that is written behind the root's; "" is major.
	Name string `json:"name"`
	// Semitones are above the root, ascending, each below 12.
	Semitones []int `json:"semitones"`
}

// qualities are in the order in which a root is looked for: what is found first counts. Names and contents: common practice, checked in the
// tests against a reference library.
var qualities = []Quality{
	{"", []int{0, 4, 7}},
	{"m", []int{0, 3, 7}},
	{"7", []int{0, 4, 7, 10}},
	{"maj7", []int{0, 4, 7, 11}},
	{"m7", []int{0, 3, 7, 10}},
	{"m7b5", []int{0, 3, 6, 10}},
	{"m/maj7", []int{0, 3, 7, 11}},
	{"dim", []int{0, 3, 6}},
	{"aug", []int{0, 4, 8}},
	{"dim7", []int{0, 3, 6, 9}},
	{"9", []int{0, 2, 4, 7, 10}},
	{"maj9", []int{0, 2, 4, 7, 11}},
	{"m9", []int{0, 2, 3, 7, 10}},
	{"7#5", []int{0, 4, 8, 10}},
	{"7sus4", []int{0, 5, 7, 10}},
	{"sus4", []int{0, 5, 7}},
	{"sus2", []int{0, 2, 7}},
	{"6", []int{0, 4, 7, 9}},
	{"m6", []int{0, 3, 7, 9}},
	{"add9", []int{0, 2, 4, 7}},
	{"m(add9)", []int{0, 2, 3, 7}},
	{"5", []int{0, 7}},
}

// Qualities lists the kinds of chords that are known by name.
func Qualities() []Quality {
	list := slices.Clone(qualities)
	for i := range list {
		list[i].Semitones = slices.Clone(list[i].Semitones)
	}
	return list
}

// Chord is what some keys are as a chord.
type Chord struct {
	// Root is the pitch class of the root, 0 to 11, Bass that of the lowest key.
	Root, Bass int
	// Quality is the name of the kind of chord; Known is false where it has none, and the root is the lowest key then.
	Quality string
	Known   bool

	above classes // the pitch classes of the keys, above the root
}

// ChordOf names the chord of some keys, of which there is at least one: the root is the lowest key if the chord is a known one on it, else the first
// key upward from there on which it is, by the order of kinds.
func ChordOf(keys []int) Chord {
	bass := slices.Min(keys)
	c := Chord{Root: floorMod(bass, Octave), Bass: floorMod(bass, Octave), above: classesOf(keys, bass)}
	named := func(up int) bool {
		at := slices.Index(qualityClasses, c.above.from(up))
		if at < 0 {
			return false
		}
		c = Chord{Root: floorMod(bass+up, Octave), Bass: c.Bass, Quality: qualities[at].Name, Known: true, above: c.above.from(up)}
		return true
	}
	if named(0) {
		return c
	}
	first, best := len(qualities), 0
	for up := range Octave {
		if at := slices.Index(qualityClasses, c.above.from(up)); at >= 0 && at < first {
			first, best = at, up
		}
	}
	if first < len(qualities) {
		named(best)
	}
	return c
}

// classes is a set of pitch classes above a note: bit n is n semitones.
type classes uint16

// qualityClasses are those of the qualities, in their order.
var qualityClasses = func() (all []classes) {
	for _, quality := range qualities {
		all = append(all, classesOf(quality.Semitones, 0))
	}
	return all
}()

func classesOf(keys []int, root int) (c classes) {
	for _, key := range keys {
		c |= 1 << floorMod(key-root, Octave)
	}
	return c
}

// from returns the classes above another note, so many semitones up.
func (c classes) from(up int) classes { return (c>>up | c<<(Octave-up)) & (1<<Octave - 1) }

func (c classes) has(semitones int) bool { return c>>semitones&1 > 0 }

// RoleOf returns what a key is in the chord. A diminished fifth is a fifth only where there is no perfect one, as is an augmented one, and a diminished
// seventh is a seventh in a diminished chord only; else that is a sixth.
func (c Chord) RoleOf(key int) Role {
	has := c.above.has
	switch floorMod(key-c.Root, Octave) {
	case 0:
		return RootRole
	case 4:
		return ThirdRole
	case 3:
		if !has(4) {
			return ThirdRole
		}
	case 7:
		return FifthRole
	case 6, 8:
		if !has(7) && (!has(6) || floorMod(key-c.Root, Octave) == 6) {
			return FifthRole
		}
	case 10, 11:
		return SeventhRole
	case 9:
		if has(3) && has(6) && !has(7) && !has(10) && !has(11) {
			return SeventhRole
		}
	}
	return OtherRole
}

// Name writes the chord as it is common practice: the root, the kind, and the lowest note, spelled by what it is in the chord, after a stroke if that is another. A chord without a name is
// written as its lowest note and a question mark.
func (c Chord) Name() string {
	name := RootNames()[c.Root] + c.Quality
	if !c.Known {
		return name + "?"
	}
	if c.Bass != c.Root {
		name += "/" + c.spelled(c.Bass)
	}
	return name
}

// NoteName names a key with its octave number as it is spelled in the chord, B♭3 in Gm and A♯3 in F♯; where the chord has no name, as NoteName does.
func (c Chord) NoteName(key int) string {
	if !c.Known {
		return NoteName(key)
	}
	return numbered(c.spelled(key), key)
}

// spelled names a note of the chord by the letter that its role has above the root's: a third two on, a fifth four, a seventh six, and others as seconds, fourths and sixths, common
// practice. Where that takes a double accidental it is named as a root is.
func (c Chord) spelled(key int) string {
	steps := map[Role]int{RootRole: 0, ThirdRole: 2, FifthRole: 4, SeventhRole: 6}
	up, there := steps[c.RoleOf(key)]
	if !there {
		up = []int{0, 1, 1, 1, 2, 3, 3, 4, 5, 5, 6, 6}[floorMod(key-c.Root, Octave)]
	}
	name, ok := lettered((letterIndex(RootNames()[c.Root][0])+up)%len(letters), key)
	if !ok {
		return RootNames()[floorMod(key, Octave)]
	}
	return name
}

// Lead returns the keys of a chord where its notes are nearest to those of another one: each note goes to a voice of its own, in such a way that all of
// them together move by the fewest semitones; notes of which there are more than voices stay where they are, and of equal ways the first in the order of
// the notes is taken. Ascending. Both have at most 8 keys.
func Lead(from, to []int) []int {
	if len(from) == 0 {
		return slices.Sorted(slices.Values(to))
	}
	type way struct{ cost, key, before int }
	const never = 1 << 30
	states := 1 << len(from)
	table := make([][]way, len(to)+1)
	for i := range table {
		table[i] = slices.Repeat([]way{{cost: never}}, states)
	}
	table[0][0].cost = 0
	stay := max(0, len(to)-len(from)) // so many notes have no voice
	for i, note := range to {
		for used := range states {
			here := table[i][used]
			if here.cost == never {
				continue
			}
			take := func(next, cost, key int) {
				if entry := &table[i+1][next]; here.cost+cost < entry.cost {
					*entry = way{here.cost + cost, key, used}
				}
			}
			for voice, key := range from {
				if used&(1<<voice) == 0 {
					near := nearestTo(note, key)
					take(used|1<<voice, max(near-key, key-near), near)
				}
			}
			if i-bits.OnesCount(uint(used)) < stay {
				take(used, 0, note)
			}
		}
	}
	best := 0
	for used := range states {
		if table[len(to)][used].cost < table[len(to)][best].cost {
			best = used
		}
	}
	var keys []int
	for i, used := len(to), best; i > 0; i-- {
		keys = append(keys, table[i][used].key)
		used = table[i][used].before
	}
	slices.Sort(keys)
	return slices.Compact(keys)
}

// nearestTo returns the key of a note's pitch class that is nearest to another key, the lower of two, within 0 to 127.
func nearestTo(note, key int) int {
	near := key - floorMod(key-note, Octave)
	if up := near + Octave; up-key < key-near {
		near = up
	}
	for near < LowestNote {
		near += Octave
	}
	for near > HighestNote {
		near -= Octave
	}
	return near
}
