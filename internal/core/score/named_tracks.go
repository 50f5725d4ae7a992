package score

import "iter"

// namedTracks yields the ids of all tracks that something names that stays when they are removed, so that it counts again once they are
// back. An id can come several times; 0 is no track.
func (p *Project) namedTracks() iter.Seq[int] {
	return func(yield func(int) bool) {
		for _, ids := range [][]int{p.tracksOfControls(), p.tracksOfPorts(), p.tracksOfFields()} {
			for _, id := range ids {
				if !yield(id) {
					return
				}
			}
		}
	}
}

// tracksOfControls returns the tracks of scenes, macros, modulators, switches and mappings.
func (p *Project) tracksOfControls() (ids []int) {
	for _, scene := range p.Scenes {
		for _, value := range scene.Values {
			ids = append(ids, value.Control.Track)
		}
	}
	for _, macro := range p.Macros {
		for _, move := range macro.Moves {
			ids = append(ids, move.Control.Track)
		}
	}
	for _, m := range p.Modulators {
		ids = append(ids, m.Track)
		for _, move := range m.Moves {
			ids = append(ids, move.Control.Track)
		}
		for _, send := range m.Sends {
			ids = append(ids, send.Track)
		}
	}
	for _, s := range p.Switches {
		ids = append(ids, s.Control.Track)
	}
	for _, m := range p.Mappings {
		ids = append(ids, m.Control.Track)
	}
	return ids
}

// tracksOfPorts returns the tracks of inputs and of channels of voltages.
func (p *Project) tracksOfPorts() (ids []int) {
	for _, input := range p.Inputs {
		for _, passage := range input.PassesTo {
			ids = append(ids, passage.Track)
		}
		if input.Transposes != nil {
			ids = append(ids, input.Transposes.Tracks...)
		}
	}
	for _, output := range p.Outputs {
		if output.Voltages != nil {
			for _, channel := range output.Voltages.Channels {
				ids = append(ids, channel.Track)
			}
		}
	}
	return ids
}

// tracksOfFields returns the tracks whose clocks meetings of travellers have go on.
func (p *Project) tracksOfFields() (ids []int) {
	for _, layer := range p.FieldLayers {
		ids = append(ids, tracksOfRules(layer.Rules)...)
	}
	for i := range p.Tracks {
		for _, pattern := range p.Tracks[i].Patterns {
			for _, part := range pattern.Parts {
				if part.Field != nil {
					ids = append(ids, tracksOfRules(part.Field.Rules)...)
				}
			}
		}
	}
	return ids
}

func tracksOfRules(rules []MeetingRule) (ids []int) {
	for _, rule := range rules {
		ids = append(ids, rule.Track)
	}
	return ids
}
