package score

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Condition is a sentence that says when a gate step may sound, of up to MaxTerms terms that all hold ("pass 2 of 4 and
// not filling") or of which one holds ("filling or track 2 sounded"); empty is always. A term can be negated by "not". The
// terms are:
//
//	pass 3 of 4              the third pass of every four
//	pass 1 to 3 of 4         the first three of every four
//	pass 1 to 8              the first eight passes
//	pass from 5              all passes but the first four
//	filling                  while the project is filling
//	sounded                  the part's last step that was on sounded
//	track 2 sounded          the last step that was on of the track with that id sounded
//	track 2 under 3 notes    its steps in the bar before this one struck fewer notes than that
//	track 2 over 3 notes     or more
//	section 3 on             the section of the song with that id plays
//	scene 2 on               the scene with that id was the last that began
//
// A pass is a whole pass of the gate lane's order, counted from 1, and counted on over realignments. Of notes every note
// of a chord and every hit of a ratchet counts, in the bar in which their step begins.
type Condition string

// Always is the condition of a step that has none.
const Always Condition = ""

// Bounds of conditions.
const (
	MaxTerms  = 3
	MaxCycle  = 64    // passes that are counted anew
	MaxPass   = 9_999 // of those that are not
	MaxCounts = 999   // notes
)

// TermKind is what a term of a condition is about.
type TermKind uint8

// The kinds.
const (
	PassTerm         TermKind = iota // First, Last and Of
	FillingTerm                      //
	SoundedTerm                      //
	TrackSoundedTerm                 // Track
	UnderNotesTerm                   // Track and Notes
	OverNotesTerm                    // Track and Notes
	SectionTerm                      // ID
	SceneTerm                        // ID
)

// Term is a term of a condition.
type Term struct {
	Kind TermKind
	Not  bool
	// First and Last bound the passes, from 1; a Last of 0 is no bound. Of is how many passes there are until they are
	// counted anew, or 0 if they never are.
	First, Last, Of int
	Track           int
	Notes           int
	ID              int // of a section or a scene, which need not be there
}

// UnmarshalText reads a condition, also in the words of before, which had one term.
func (c *Condition) UnmarshalText(text []byte) error {
	*c = Condition(text)
	old := map[Condition]Condition{
		"first": "pass 1 to 1", "not first": "pass from 2", "fill": "filling", "after sound": "sounded", "after silence": "not sounded",
	}
	var a, b, id int
	switch {
	case old[*c] != "":
		*c = old[*c]
	case matches(strings.Split(strings.Replace(string(*c), ":", " : ", 1), " "), &a, ":", &b):
		*c = EveryPass(a, b)
	case matches(strings.Split(string(*c), " "), "track", &id):
		*c = AfterTrack(id)
	}
	return nil
}

// Terms returns the terms, and whether one that holds is enough; ok is false if the condition is not a sentence that
// Condition describes.
func (c Condition) Terms() (terms []Term, or, ok bool) {
	if c == Always {
		return nil, false, true
	}
	parts := strings.Split(string(c), " and ")
	if len(parts) == 1 {
		parts = strings.Split(string(c), " or ")
		or = len(parts) > 1
	}
	for _, part := range parts {
		fact, not := strings.CutPrefix(part, "not ")
		term, ok := readTerm(fact)
		if !ok {
			return nil, false, false
		}
		term.Not = not
		terms = append(terms, term)
	}
	return terms, or, len(terms) <= MaxTerms
}

func readTerm(fact string) (t Term, ok bool) {
	words := strings.Split(fact, " ")
	switch {
	case fact == "filling":
		return Term{Kind: FillingTerm}, true
	case fact == "sounded":
		return Term{Kind: SoundedTerm}, true
	case matches(words, "pass", &t.First, "of", &t.Of):
		t.Last = t.First
		return t, within(t.First, 1, t.Of) && t.Of <= MaxCycle
	case matches(words, "pass", &t.First, "to", &t.Last, "of", &t.Of):
		return t, within(t.First, 1, t.Last) && t.Last <= t.Of && t.Of <= MaxCycle
	case matches(words, "pass", &t.First, "to", &t.Last):
		return t, within(t.First, 1, t.Last) && t.Last <= MaxPass
	case matches(words, "pass", "from", &t.First):
		return t, within(t.First, 1, MaxPass)
	case matches(words, "section", &t.ID, "on"):
		t.Kind = SectionTerm
		return t, within(t.ID, 1, MaxReferenceID)
	case matches(words, "scene", &t.ID, "on"):
		t.Kind = SceneTerm
		return t, within(t.ID, 1, MaxReferenceID)
	case matches(words, "track", &t.Track, "sounded"):
		t.Kind = TrackSoundedTerm
	case matches(words, "track", &t.Track, "under", &t.Notes, "notes"):
		t.Kind = UnderNotesTerm
	case matches(words, "track", &t.Track, "over", &t.Notes, "notes"):
		t.Kind = OverNotesTerm
	default:
		return Term{}, false
	}
	return t, t.Track >= 1 && within(t.Notes, 0, MaxCounts)
}

func within(value, least, most int) bool { return least <= value && value <= most }

// matches reports whether words are those of a form, of strings and of places for whole numbers, and fills the places if
// they are.
func matches(words []string, form ...any) bool {
	if len(words) != len(form) {
		return false
	}
	var numbers [3]int
	for i, word := range words {
		if want, ok := form[i].(string); ok {
			if word != want {
				return false
			}
			continue
		}
		number, err := strconv.Atoi(word)
		if err != nil || strconv.Itoa(number) != word {
			return false
		}
		numbers[i/2] = number // there are no two in a row
	}
	for i := range form {
		if number, ok := form[i].(*int); ok {
			*number = numbers[i/2]
		}
	}
	return true
}

// EveryPass returns the condition of the a-th pass of every b.
func EveryPass(a, b int) Condition { return Condition(fmt.Sprintf("pass %d of %d", a, b)) }

// AfterTrack returns the condition that the track with the id sounded last.
func AfterTrack(id int) Condition { return Condition(fmt.Sprintf("track %d sounded", id)) }

// Tracks returns the ids of the tracks that a condition is about.
func (c Condition) Tracks() (ids []int) {
	terms, _, _ := c.Terms()
	for _, t := range terms {
		if t.Track > 0 {
			ids = append(ids, t.Track)
		}
	}
	return ids
}

// terms returns the terms of all conditions of the pattern.
func (pattern *Pattern) terms() (terms []Term) {
	for i := range pattern.Parts {
		for _, detail := range pattern.Parts[i].Details {
			of, _, _ := detail.Condition.Terms()
			terms = append(terms, of...)
		}
	}
	return terms
}

// HearsSong reports whether a condition of the pattern is about which section or scene is on.
func (pattern *Pattern) HearsSong() bool {
	return slices.ContainsFunc(pattern.terms(), func(t Term) bool { return t.Kind == SectionTerm || t.Kind == SceneTerm })
}

// About reports whether a condition is about the track with the id.
func (c Condition) About(id int) bool {
	return c != Always && strings.Contains(" "+string(c), " track "+strconv.Itoa(id)+" ")
}

// without returns a condition without its terms about a track.
func (c Condition) without(id int) Condition {
	joint := " and "
	if !strings.Contains(string(c), joint) {
		joint = " or "
	}
	about := "track " + strconv.Itoa(id) + " "
	return Condition(strings.Join(slices.DeleteFunc(strings.Split(string(c), joint), func(term string) bool {
		return strings.HasPrefix(strings.TrimPrefix(term, "not "), about)
	}), joint))
}

func (c Condition) validate(field string, p *Project) error {
	if _, _, ok := c.Terms(); !ok {
		return &FieldError{field, fmt.Sprintf("%.80q", string(c)), fmt.Sprintf(`a sentence of up to %d terms joined by "and" or by "or", like "pass 3 of 4 and not filling"; `+
			`a term is "pass 3 of 4", "pass 1 to 3 of 4", "pass 1 to 8", "pass from 5", "filling", "sounded", "track 2 sounded", "track 2 under 3 notes", "track 2 over 3 notes", "section 3 on" or "scene 2 on"`, MaxTerms)}
	}
	for _, id := range c.Tracks() {
		if p.Track(id) == nil {
			return &FieldError{field, fmt.Sprintf("%.80q", string(c)), "about a track that the project has"}
		}
	}
	return nil
}
