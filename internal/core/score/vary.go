package score

// Weight is a line of a table of weights: a value, or a band of values that are equally likely.
type Weight struct {
	Lowest  int `json:"lowest" jsonschema:"minimum=-200,maximum=200"`
	Highest int `json:"highest" jsonschema:"minimum=-200,maximum=200"`
	// Weight is how likely the line is, against the sum of all weights. A table whose weights are all 0
	// leaves the steps in force.
	Weight int `json:"weight" jsonschema:"minimum=0,maximum=1000"`
	// Rest, in the pitch lane of a melodic part, silences the step instead.
	Rest bool `json:"rest,omitempty"`
}

// Duration is a line of a table of durations of steps.
type Duration struct {
	// Value is how long the step lasts.
	Value NoteValue `json:"value"`
	// Rest lets it pass in silence, and ends what is tied.
	Rest bool `json:"rest,omitempty"`
	// Weight is how likely the line is, against the sum of all weights. A table whose weights are all 0
	// leaves the rate in force.
	Weight int `json:"weight" jsonschema:"minimum=0,maximum=1000"`
}

// Evolve re-rolls some of a lane's steps every so many bars while it plays. What is stored stays, so
// that playing from the beginning, or taking Evolve away, brings it back.
type Evolve struct {
	// Every is after how many bars, 1 to 64.
	Every int `json:"every" jsonschema:"minimum=1,maximum=64"`
	// Percent is how many of the steps are re-rolled each time.
	Percent int `json:"percent" jsonschema:"minimum=0,maximum=100"`
	// Lowest and Highest bound the new values.
	Lowest  int `json:"lowest" jsonschema:"minimum=-200,maximum=200"`
	Highest int `json:"highest" jsonschema:"minimum=-200,maximum=200"`
}

// Recipe is a way of rolling a lane that was kept under a name.
type Recipe struct {
	Name string   `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Lane LaneName `json:"lane"`
	// Lowest and Highest bound the new values.
	Lowest  int `json:"lowest" jsonschema:"minimum=-200,maximum=200"`
	Highest int `json:"highest" jsonschema:"minimum=-200,maximum=200"`
	// Density is how many of the steps get a new value, in percent; in a gate lane, how many are on.
	Density int `json:"density" jsonschema:"minimum=0,maximum=100"`
	// Lean is where in the range the values tend to land, -100 to 100.
	Lean int `json:"lean" jsonschema:"minimum=-100,maximum=100"`
}

func (r Recipe) validate(field string) error {
	spec := r.Lane.Spec()
	return firstOf([]error{
		checkListed(field+".lane", r.Lane, LaneNames()),
		CheckName(field+".name", r.Name),
		checkRange(field+".lowest", r.Lowest, spec.Least, spec.Most),
		checkRange(field+".highest", r.Highest, r.Lowest, spec.Most),
	})
}
