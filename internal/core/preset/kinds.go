package preset

// KindSpec tells of a kind what a screen shows.
type KindSpec struct {
	Value Kind   `json:"value"`
	Label string `json:"label"`
	// Help says what is kept, and Use what becomes of the project that uses it.
	Help string `json:"help"`
	Use  string `json:"use"`
}

// KindSpecs lists the kinds in the order in which to offer them.
func KindSpecs() []KindSpec {
	return []KindSpec{
		{LaneKind, "lane", "The lane that was selected last: its loop, its values and its chance.", "Use: it takes the place of the lane of its name in the part that is written."},
		{PartKind, "part", "All lanes of the part that is written.", "Use: it takes the place of the part that is written."},
		{PatternKind, "pattern", "The pattern that is written.", "Use: it becomes a pattern of the track that is written, behind the one that is written, and plays; a kit gets a track beside it."},
		{KitKind, "kit", "The pattern of the kit that is written, with all its parts.", "Use: it becomes a pattern of the kit that is written, and plays; without a kit it gets a track of its own."},
		{ScaleKind, "scale", "The scale of the project, and which notes of it are allowed.", "Use: it is the scale of the project, on the root that this has."},
		{TuningKind, "tuning", "The tuning of the project.", "Use: it is the tuning of the project."},
		{WeightsKind, "weights", "The table of weights of the lane that was selected last.", "Use: the lane that was selected last draws its values from it."},
		{RollKind, "roll", "How the lane that was selected last is rolled.", "Use: it is one of the project's ways of rolling, on the roll page."},
		{ValuesKind, "field values", "The notes of the field that is written, and what its cells have of their own.", "Use: the field that is written has these notes, and the project keeps them by name, to be recalled while it plays."},
		{ArrowsKind, "field arrows", "The arrows, letters, repeaters and walls of the field that is written.", "Use: the field that is written has these arrows, and the project keeps them by name, to be recalled while it plays."},
		{TravellersKind, "field travellers", "The travellers of the field that is written.", "Use: the field that is written has these travellers, and the project keeps them by name, to be recalled while it plays."},
		{RulesKind, "field rules", "The rules of the meetings on the field that is written.", "Use: the field that is written has these rules, and the project keeps them by name, to be recalled while it plays."},
	}
}
