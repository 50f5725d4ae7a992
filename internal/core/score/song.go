package score

import (
	"fmt"
	"slices"

	"jettyfog/internal/core/theory"
)

// Bounds of scenes and of the song.
const (
	MaxScenes      = 64
	MaxSections    = 128
	MaxSceneValues = 512
	MaxReferenceID = 1_000_000
)

// Scene is a set of values that controls get together, as which pattern each track plays.
type Scene struct {
	// ID stays with the scene. From 1 up; in an edit 0 is a new one.
	ID   int    `json:"id" jsonschema:"minimum=0,maximum=1000000"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Values are those that it names; all else stays as it is. Values of what is gone rest until it is there again.
	Values []SceneValue `json:"values" jsonschema:"maxItems=512"`
}

// SceneValue is the value of a control in a scene.
type SceneValue struct {
	Control ControlAddress `json:"control"`
	Value   int            `json:"value" jsonschema:"minimum=-1000000000,maximum=1000000000"`
}

// ControlAddress names a control of the package stage, by the ids of what it belongs to.
type ControlAddress struct {
	Name    string   `json:"name" jsonschema:"minLength=1,maxLength=60"`
	Track   int      `json:"track,omitempty" jsonschema:"minimum=0"`
	Pattern int      `json:"pattern,omitempty" jsonschema:"minimum=0"`
	Part    int      `json:"part,omitempty" jsonschema:"minimum=0"`
	Lane    LaneName `json:"lane,omitempty"`
	// Bar is that from which a tempo or a meter holds, from 0; without it a tempo holds from the beginning.
	Bar int `json:"bar,omitempty" jsonschema:"minimum=0,maximum=1000000"`
	// ID is that of a macro or a modulator.
	ID int `json:"id,omitempty" jsonschema:"minimum=0,maximum=255"`
}

// Section is a stretch of the song, which begins with a bar. It changes what its scene names and what it says itself; all
// else stays as the sections before it left it.
type Section struct {
	// ID stays with the section. From 1 up; in an edit 0 is a new one.
	ID   int    `json:"id" jsonschema:"minimum=0,maximum=1000000"`
	Name string `json:"name" jsonschema:"minLength=1,maxLength=60"`
	// Scene is the id of the scene that holds from its beginning on; 0 is none. One that is gone changes nothing.
	Scene int `json:"scene,omitempty" jsonschema:"minimum=0,maximum=1000000"`
	// Bars is how many bars a pass of it has, Repeats how many passes; 0 is until it is released, which ends it with a pass.
	Bars    int `json:"bars" jsonschema:"minimum=1,maximum=4096"`
	Repeats int `json:"repeats" jsonschema:"minimum=0,maximum=64"`
	// TakesOver has what it changes count in place of what a hand has changed; else that stays until it is let go of.
	TakesOver bool `json:"takesOver,omitempty"`
	// Luck, Tempo, Meter and Key hold from its beginning on; without one it stays as it is. A tempo holds until the next one
	// that is written.
	Luck  *int        `json:"luck,omitempty" jsonschema:"minimum=0,maximum=999999"`
	Tempo *Tempo      `json:"tempo,omitempty" bounds:"own" jsonschema:"minimum=10000,maximum=400000"`
	Meter *Meter      `json:"meter,omitempty"`
	Key   *theory.Key `json:"key,omitempty"`
}

// Length returns how many bars the section has where it is not waited for being released, which is one pass then.
func (s *Section) Length() int { return s.Bars * max(1, s.Repeats) }

// Scene returns the scene with the id, or nil.
func (p *Project) Scene(id int) *Scene {
	for i := range p.Scenes {
		if p.Scenes[i].ID == id {
			return &p.Scenes[i]
		}
	}
	return nil
}

// Section returns the section with the id, or nil.
func (p *Project) Section(id int) *Section {
	if at := p.sectionIndex(id); at >= 0 {
		return &p.Song[at]
	}
	return nil
}

func (p *Project) sectionIndex(id int) int {
	return slices.IndexFunc(p.Song, func(s Section) bool { return s.ID == id })
}

func (p *Project) sceneIndex(id int) int {
	return slices.IndexFunc(p.Scenes, func(s Scene) bool { return s.ID == id })
}

// Placed is a section of the song, and the bar with which it begins, from 0.
type Placed struct {
	Section int   `json:"section"`
	Bar     int64 `json:"bar"`
	// Bars is how many bars it has; 0 is until it is released.
	Bars int64 `json:"bars"`
}

// Placed returns where the sections of the song are from one of them on, which begins with a bar; with waits those that wait for
// being released do, and nothing is known of what follows, else they play one pass. It is empty if there is no such section.
func (p *Project) Placed(section int, bar int64, waits bool) (placed []Placed) {
	at := p.sectionIndex(section)
	if at < 0 {
		return nil
	}
	for i := range p.Song[at:] {
		s := &p.Song[at+i]
		next := Placed{Section: s.ID, Bar: bar, Bars: int64(s.Length())}
		if s.Repeats == 0 && waits {
			next.Bars = 0
			return append(placed, next)
		}
		placed = append(placed, next)
		bar += next.Bars
	}
	return placed
}

// SongBars returns how many bars the song has where each section that waits for being released plays one pass.
func (p *Project) SongBars() (bars int64) {
	for i := range p.Song {
		bars += int64(p.Song[i].Length())
	}
	return bars
}

// validateSong refuses scenes and sections that cannot be. The error is a *FieldError, or a *FileError about a tuning.
func (p *Project) validateSong() error {
	for i, scene := range p.Scenes {
		field := fmt.Sprintf("scenes[%d]", i)
		if err := firstOf([]error{CheckName(field+".name", scene.Name), checkRange(field+".id", scene.ID, 1, MaxReferenceID)}); err != nil {
			return err
		}
		for j, value := range scene.Values {
			if err := value.Control.validate(fmt.Sprintf("%s.values[%d].control", field, j)); err != nil {
				return err
			}
		}
		if p.sceneIndex(scene.ID) != i {
			return &FieldError{field + ".id", scene.ID, "different from every other scene's"}
		}
	}
	for i, section := range p.Song {
		field := fmt.Sprintf("song[%d]", i)
		if err := section.validate(field); err != nil {
			return err
		}
		if p.sectionIndex(section.ID) != i {
			return &FieldError{field + ".id", section.ID, "different from every other section's"}
		}
	}
	return nil
}

func (s *Section) validate(field string) error {
	if err := firstOf([]error{CheckName(field+".name", s.Name), checkRange(field+".id", s.ID, 1, MaxReferenceID)}); err != nil {
		return err
	}
	if s.Tempo != nil {
		if err := checkTempo(field+".tempo", *s.Tempo); err != nil {
			return err
		}
	}
	if s.Meter != nil {
		if err := s.Meter.validate(field + ".meter"); err != nil {
			return err
		}
	}
	if s.Key != nil {
		return CheckKey(*s.Key)
	}
	return nil
}

// Released returns the project in whose song no section waits for being released: each of them plays one pass.
func (p *Project) Released() *Project {
	released := *p
	released.Song = slices.Clone(p.Song)
	for i := range released.Song {
		released.Song[i].Repeats = max(1, released.Song[i].Repeats)
	}
	return &released
}

func (s Scene) clone() Scene {
	s.Values = slices.Clone(s.Values)
	return s
}

func (s Section) clone() Section {
	s.Luck, s.Tempo = clonePointer(s.Luck), clonePointer(s.Tempo)
	if s.Meter != nil {
		meter := s.Meter.clone()
		s.Meter = &meter
	}
	if s.Key != nil {
		key := s.Key.Clone()
		s.Key = &key
	}
	return s
}

func clonePointer[T any](value *T) *T {
	if value == nil {
		return nil
	}
	copied := *value
	return &copied
}
