package score

import (
	"fmt"
	"strings"
)

// TermSpec tells what a term of a condition says, and how it is put together.
type TermSpec struct {
	// Label chooses it in a list.
	Label string `json:"label"`
	// Form is the term as it stands in a condition, with # for each number and @ for the id that it is about.
	Form string `json:"form"`
	// Of says of what the id is: a track, a section or a scene; empty where there is none.
	Of string `json:"of,omitempty" jsonschema:"enum=,enum=track,enum=section,enum=scene"`
	// Usual are the numbers of a new term.
	Usual []int `json:"usual"`
	// Numbers tells what each number is, in the order of their places.
	Numbers []TermNumber `json:"numbers"`
}

// TermNumber is a number of a term.
type TermNumber struct {
	Label string `json:"label"`
	Min   int    `json:"min"`
	Max   int    `json:"max"`
}

// TermSpecs lists the terms in the order in which to offer them.
func TermSpecs() []TermSpec {
	passes := func(label string, most int) TermNumber { return TermNumber{label, 1, most} }
	notes := []TermNumber{{"Notes", 0, MaxCounts}}
	none := []TermNumber{}
	return []TermSpec{
		{"one pass of every", "pass # of #", "", []int{1, 2}, []TermNumber{passes("Pass", MaxCycle), passes("Of every so many passes", MaxCycle)}},
		{"passes of every", "pass # to # of #", "", []int{1, 2, 4}, []TermNumber{
			passes("From pass", MaxCycle), passes("To pass", MaxCycle), passes("Of every so many passes", MaxCycle),
		}},
		{"passes from … to …", "pass # to #", "", []int{1, 1}, []TermNumber{passes("From pass", MaxPass), passes("To pass", MaxPass)}},
		{"passes from … on", "pass from #", "", []int{2}, []TermNumber{passes("From pass", MaxPass)}},
		{"filling", "filling", "", []int{}, none},
		{"its last step sounded", "sounded", "", []int{}, none},
		{"a track sounded last", "track @ sounded", "track", []int{}, none},
		{"fewer notes of a track", "track @ under # notes", "track", []int{4}, notes},
		{"more notes of a track", "track @ over # notes", "track", []int{4}, notes},
		{"a section is on", "section @ on", "section", []int{}, none},
		{"a scene is on", "scene @ on", "scene", []int{}, none},
	}
}

// Words says when a condition holds, as in "on the 3rd of every 4 passes, and not while filling".
func (c Condition) Words(p *Project) string {
	terms, or, _ := c.Terms()
	if len(terms) == 0 {
		return "always"
	}
	joint := ", and "
	if or {
		joint = ", or "
	}
	words := make([]string, len(terms))
	for i, t := range terms {
		words[i] = t.words(p)
	}
	return strings.Join(words, joint)
}

func (t Term) words(p *Project) string {
	not := func(yes, no string) string {
		if t.Not {
			return no
		}
		return yes
	}
	name := "a track"
	if track := p.Track(t.Track); track != nil {
		name = track.Name
	}
	no := not("", "not ")
	switch t.Kind {
	case SectionTerm:
		name = "a section that is gone"
		if section := p.Section(t.ID); section != nil {
			name = "the section " + section.Name
		}
		return fmt.Sprintf("%swhile %s is on", no, name)
	case SceneTerm:
		name = "a scene that is gone"
		if scene := p.Scene(t.ID); scene != nil {
			name = "the scene " + scene.Name
		}
		return fmt.Sprintf("%swhile %s is on", no, name)
	case FillingTerm:
		return no + "while filling"
	case SoundedTerm:
		return "if its last step on " + not("sounded", "was silent")
	case TrackSoundedTerm:
		return fmt.Sprintf("if %s %s last", name, not("sounded", "was silent"))
	case UnderNotesTerm:
		return fmt.Sprintf("if %s had %s%s %sin the last bar", name, not("fewer than ", ""), Counted(t.Notes, "note"), not("", "or more "))
	case OverNotesTerm:
		return fmt.Sprintf("if %s had %s %s in the last bar", name, not("more than", "at most"), Counted(t.Notes, "note"))
	}
	switch {
	case t.Of > 0 && t.First == t.Last:
		return fmt.Sprintf("%son the %s of every %d passes", no, ordinal(t.First), t.Of)
	case t.Of > 0:
		return fmt.Sprintf("%son the %s to the %s of every %d passes", no, ordinal(t.First), ordinal(t.Last), t.Of)
	case t.Last == 0:
		return fmt.Sprintf("%sfrom the %s pass on", no, ordinal(t.First))
	case t.First == t.Last:
		return fmt.Sprintf("%son the %s pass", no, ordinal(t.First))
	}
	return fmt.Sprintf("%son passes %d to %d", no, t.First, t.Last)
}

// Mark says when a condition holds in few characters, for a mark over its step; it is empty where it always does.
func (c Condition) Mark() string {
	terms, _, _ := c.Terms()
	switch len(terms) {
	case 0:
		return ""
	case 1:
	default:
		return "if …"
	}
	t, no := terms[0], ""
	if t.Not {
		no = "¬"
	}
	switch {
	case t.Kind == FillingTerm:
		return no + "fill"
	case t.Kind == SoundedTerm && t.Not:
		return "if ○"
	case t.Kind == SoundedTerm:
		return "if ●"
	case t.Kind == SectionTerm || t.Kind == SceneTerm:
		return no + "song"
	case t.Kind != PassTerm:
		return "if T"
	case t.Of > 0 && t.First == t.Last:
		return fmt.Sprintf("%s%d of %d", no, t.First, t.Of)
	case t.Of > 0:
		return fmt.Sprintf("%s%d–%d of %d", no, t.First, t.Last, t.Of)
	case t.Last == 0:
		return fmt.Sprintf("%s%d+", no, t.First)
	case t.First == t.Last:
		return fmt.Sprintf("%s%d", no, t.First)
	}
	return fmt.Sprintf("%s%d–%d", no, t.First, t.Last)
}

// ordinal returns 1st, 2nd, 3rd, 4th, … 11th, … 21st.
func ordinal(n int) string {
	ending := "th"
	if n%100 < 11 || n%100 > 13 {
		switch n % 10 {
		case 1:
			ending = "st"
		case 2:
			ending = "nd"
		case 3:
			ending = "rd"
		}
	}
	return fmt.Sprintf("%d%s", n, ending)
}
