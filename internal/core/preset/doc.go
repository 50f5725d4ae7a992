// Package preset keeps what was good for the next piece: lanes, parts, patterns, kits, scales, tunings, tables of weights and ways of rolling, each by
// its name, and as a file. Sixty-two ship with the program.
//
//	kept, err := preset.Of(project, preset.PartKind, "Foghorn line", at, score.Recipe{})
//	edit, err := kept.EditFor(another, place)
package preset
