package score

import (
	"cmp"
	"fmt"
	"reflect"

	"jettyfog/internal/core/theory"
)

// Describe says in a line where an edit of a project changes what, and for a single value from what to what, as in
// "Bell buoy: pitch of step 3, D4 to F4". The edit must be one that can be applied to before, and after is what it makes.
func Describe(before, after *Project, e Edit) string {
	what := e.Label()
	if change, single := singleChange(before, after, e); single {
		what = change
	}
	if where := subjectOf(before, e); where != "" {
		return where + ": " + what
	}
	return what
}

// subjectOf names the track that an edit is about, and of a kit the part; empty if it is about no one track.
func subjectOf(p *Project, e Edit) string {
	switch e := e.(type) {
	case SetTrack:
		return trackName(p, e.Track)
	case RemoveTrack:
		return trackName(p, e.Track)
	case SetLoop:
		return trackName(p, e.Track)
	case CopyPattern:
		return trackName(p, e.Track)
	case RemovePattern:
		return trackName(p, e.Track)
	case MovePattern:
		return trackName(p, e.Track)
	case SetPattern:
		return trackName(p, e.Track)
	case AddPart:
		return trackName(p, e.Track)
	case RemovePart:
		return partName(p, e.PartAddress)
	case MovePart:
		return partName(p, e.PartAddress)
	case SetPart:
		return partName(p, e.PartAddress)
	case SetDetail:
		return partName(p, e.PartAddress)
	case SetField:
		return partName(p, e.PartAddress)
	case RecallLayer:
		return partName(p, e.PartAddress)
	case SetOwn:
		return partName(p, e.PartAddress)
	case ToggleNote:
		return partName(p, e.PartAddress)
	case Reshape:
		return partName(p, e.PartAddress)
	case SetLane:
		return partName(p, e.PartAddress)
	case SetSteps:
		return partName(p, e.PartAddress)
	case All:
		return commonPlace(p, e)
	}
	return ""
}

func commonPlace(p *Project, all All) (common string) {
	for i, form := range all.Edits {
		edit, err := form.Edit()
		if err != nil {
			return ""
		}
		where := subjectOf(p, edit)
		if i > 0 && where != common {
			return ""
		}
		common = where
	}
	return common
}

func trackName(p *Project, id int) string {
	if track := p.Track(id); track != nil {
		return track.Name
	}
	return ""
}

func partName(p *Project, a PartAddress) string {
	part, err := p.Part(a)
	if err != nil || p.Track(a.Track).Kind != Kit {
		return trackName(p, a.Track)
	}
	return trackName(p, a.Track) + ", " + part.Name
}

// singleChange says from what to what an edit of a single value leads.
func singleChange(before, after *Project, e Edit) (change string, single bool) {
	if e, one := e.(SetSteps); one {
		return stepChange(before, after, e)
	}
	name, found := onlyField(e)
	words := valueWords[name]
	if !found || words.say == nil {
		return "", false
	}
	from, to := holderOf(before, e), holderOf(after, e)
	if !from.IsValid() || !to.IsValid() {
		return "", false
	}
	about := words.name
	if lane, of := e.(SetLane); of {
		about = string(lane.Lane) + " " + about
	}
	say := func(p *Project, holder reflect.Value) string {
		return words.say(p, holder.FieldByName(name).Interface())
	}
	return fmt.Sprintf("%s, %s to %s", about, say(before, from), say(after, to)), true
}

// onlyField returns the name of the one property that an edit gives.
func onlyField(e Edit) (name string, found bool) {
	fields := reflect.ValueOf(e)
	for i := range fields.NumField() {
		if f := fields.Field(i); f.Kind() == reflect.Pointer && !f.IsNil() {
			if found {
				return "", false
			}
			name, found = fields.Type().Field(i).Name, true
		}
	}
	return name, found
}

// holderOf returns what of a project an edit sets properties of; the zero Value if it is no such edit.
func holderOf(p *Project, e Edit) reflect.Value {
	switch e := e.(type) {
	case SetProject:
		return reflect.ValueOf(*p)
	case SetTrack:
		return reflect.ValueOf(*p.Track(e.Track))
	case SetPart:
		if part, err := p.Part(e.PartAddress); err == nil {
			return reflect.ValueOf(*part)
		}
	case SetLane:
		if part, err := p.Part(e.PartAddress); err == nil {
			return reflect.ValueOf(*part.Lanes.Lane(e.Lane))
		}
	}
	return reflect.Value{}
}

// valueWords says what properties are called and how their values read, by the names of the fields.
var valueWords = map[string]struct {
	name string
	say  func(p *Project, value any) string
}{
	"Name":        {"name", plain("“%s”")},
	"Tempo":       {"tempo", func(_ *Project, v any) string { return fmt.Sprintf("%.2f bpm", float64(v.(Tempo))/1000) }},
	"Meter":       {"meter", plain("%s")},
	"Key":         {"key", func(_ *Project, v any) string { return keyWords(v.(theory.Key)) }},
	"Swing":       {"swing", func(_ *Project, v any) string { return fmt.Sprintf("%d.%d %%", v.(int)/10, v.(int)%10) }},
	"SwingGrid":   {"swing grid", plain("%s")},
	"Channel":     {"channel", plain("%d")},
	"Program":     {"program", plain("%d")},
	"Bank":        {"bank", plain("%d")},
	"Voices":      {"voices", plain("%d")},
	"Speed":       {"speed", func(_ *Project, v any) string { return fmt.Sprintf("%d:%d", v.(Ratio).N, v.(Ratio).M) }},
	"Delay":       {"delay", milliseconds},
	"Overlap":     {"overlap", milliseconds},
	"Jitter":      {"jitter", plain("%d ms")},
	"Probability": {"probability", plain("%+d %%")},
	"Hold":        {"hold", bars},
	"Realign":     {"realign", bars},
	"Note":        {"note", func(_ *Project, v any) string { return theory.NoteName(v.(int)) }},
	"Fill":        {"fill", plain("%d %%")},
	"SlideTime":   {"slide time", plain("%d")},
	"First":       {"first step", func(_ *Project, v any) string { return fmt.Sprint(v.(int) + 1) }},
	"Length":      {"length", plain("%d")},
	"Rate":        {"rate", plain("%s")},
	"Order":       {"order", plain("%s")},
	"Moves":       {"moved by", func(_ *Project, v any) string { return movers.option(v.(Mover)).Label }},
	"Amount":      {"amount", plain("%d %%")},
	"LengthUnit":  {"unit of lengths", func(_ *Project, v any) string { return cmp.Or(string(v.(NoteValue)), "the step") }},
}

func plain(format string) func(*Project, any) string {
	return func(_ *Project, value any) string { return fmt.Sprintf(format, value) }
}

func bars(_ *Project, value any) string {
	return Counted(value.(int), "bar")
}

// milliseconds reads ticks at the tempo of a project's beginning.
func milliseconds(p *Project, value any) string {
	return fmt.Sprintf("%.0f ms", float64(value.(Tick))*60_000_000/float64(TicksPerQuarter)/float64(p.Tempo))
}

func keyWords(k theory.Key) string {
	root := fmt.Sprintf("note %d", k.Root)
	if k.Period() == theory.Octave {
		root = theory.RootNames()[k.Root]
	}
	return root + " " + cmp.Or(k.Scale, "of its own")
}

// stepChange says what becomes of a single step.
func stepChange(before, after *Project, e SetSteps) (change string, single bool) {
	if len(e.Steps) != 1 {
		return "", false
	}
	from, err := before.Part(e.PartAddress)
	if err != nil {
		return "", false
	}
	to, _ := after.Part(e.PartAddress) // the same parts are there
	step := e.Steps[0].Step
	words := func(p *Project, part *Part) string {
		return stepWords(p, e.Lane, part.Lanes.Lane(e.Lane).Steps[step])
	}
	// Steps are counted from the beginning of the loop, as on the screen; those before it from the first of all.
	number := step + 1
	if first := to.Lanes.Loop(e.Lane).First; step >= first {
		number -= first
	}
	return fmt.Sprintf("%s of step %d, %s to %s", e.Lane, number, words(before, from), words(after, to)), true
}

// signed reads a number with its sign.
func signed(value int) string {
	if value == 0 {
		return "0"
	}
	return fmt.Sprintf("%+d", value)
}

// stepWords reads the value of a step.
func stepWords(p *Project, lane LaneName, value int) string {
	spec := lane.Spec()
	switch spec.Reads {
	case AsWords:
		return spec.Words[value-spec.Least]
	case AsDegree:
		return p.Key.DegreeName(value)
	case AsSigned:
		return signed(value)
	case AsLength:
		if value > WholeStep {
			return Counted(value-WholeStep+1, "step")
		}
		return fmt.Sprintf("%d %%", value)
	case AsPercent:
		return fmt.Sprintf("%d %%", value)
	default:
		return fmt.Sprint(value)
	}
}
