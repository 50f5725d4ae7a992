package score

import (
	"errors"
	"fmt"
	"slices"
)

// Errors of edits of scenes and sections.
var (
	ErrUnknownScene   = errors.New("there is no such scene")
	ErrUnknownSection = errors.New("there is no such section")
)

// SetScene puts a scene in the place of the one with its id, or if there is none adds it.
type SetScene struct {
	// At is its place among the scenes, from 0; without it one that is there stays where it is, and another comes last.
	At *int `json:"at,omitempty" jsonschema:"minimum=0,maximum=63"`
	// Scene is the whole scene. With an id of 0 it is a new one, and gets an id that none has.
	Scene Scene `json:"scene"`
}

// Label implements Edit.
func (e SetScene) Label() string { return fmt.Sprintf("scene “%s”", e.Scene.Name) }

func (e SetScene) apply(p *Project) (Edit, error) {
	scene := e.Scene.clone()
	if scene.ID == 0 {
		scene.ID = p.newID(SceneTerm)
	}
	was := p.sceneIndex(scene.ID)
	next, err := placed(p.Scenes, was, e.At, scene)
	if err != nil {
		return nil, err
	}
	var inverse Edit = RemoveScene{Scene: scene.ID}
	if was >= 0 {
		inverse = SetScene{At: &was, Scene: p.Scenes[was]}
	}
	p.Scenes = next
	return inverse, nil
}

// newID returns an id that no scene has, or no section, by what terms are about, nor anything that names one that is gone.
func (p *Project) newID(about TermKind) (id int) {
	for i := range p.Scenes {
		if about == SceneTerm {
			id = max(id, p.Scenes[i].ID)
		}
	}
	for i := range p.Song {
		if about == SceneTerm {
			id = max(id, p.Song[i].Scene)
		} else {
			id = max(id, p.Song[i].ID)
		}
	}
	for i := range p.Tracks {
		for j := range p.Tracks[i].Patterns {
			for _, term := range p.Tracks[i].Patterns[j].terms() {
				if term.Kind == about {
					id = max(id, term.ID)
				}
			}
		}
	}
	if id < MaxReferenceID {
		return id + 1
	}
	for id = 1; p.Scene(id) != nil && about == SceneTerm || p.Section(id) != nil && about == SectionTerm; {
		id++
	}
	return id
}

// placed returns a list with something at a place, which stood at another before; -1 is nowhere.
func placed[T any](list []T, was int, at *int, value T) ([]T, error) {
	next, to := slices.Clone(list), len(list)
	if was >= 0 {
		next, to = slices.Delete(next, was, was+1), was
	}
	if at != nil {
		if err := checkRange("at", *at, 0, len(next)); err != nil {
			return nil, err
		}
		to = *at
	}
	return slices.Insert(next, to, value), nil
}

// RemoveScene takes a scene away. Sections that name it change nothing by it until it is there again.
type RemoveScene struct {
	Scene int `json:"scene"`
}

// Label implements Edit.
func (e RemoveScene) Label() string { return "removal of a scene" }

func (e RemoveScene) apply(p *Project) (Edit, error) {
	at := p.sceneIndex(e.Scene)
	if at < 0 {
		return nil, fmt.Errorf("scene %d: %w", e.Scene, ErrUnknownScene)
	}
	inverse := SetScene{At: &at, Scene: p.Scenes[at]}
	p.Scenes = without(p.Scenes, at)
	return inverse, nil
}

// SetSection puts a section of the song in the place of the one with its id, or if there is none adds it.
type SetSection struct {
	// At is its place in the song, from 0; without it one that is there stays where it is, and another comes last.
	At *int `json:"at,omitempty" jsonschema:"minimum=0,maximum=127"`
	// Section is the whole section. With an id of 0 it is a new one, and gets an id that none has.
	Section Section `json:"section"`
}

// Label implements Edit.
func (e SetSection) Label() string { return fmt.Sprintf("section “%s”", e.Section.Name) }

func (e SetSection) apply(p *Project) (Edit, error) {
	section := e.Section.clone()
	if section.ID == 0 {
		section.ID = p.newID(SectionTerm)
	}
	was := p.sectionIndex(section.ID)
	next, err := placed(p.Song, was, e.At, section)
	if err != nil {
		return nil, err
	}
	var inverse Edit = RemoveSection{Section: section.ID}
	if was >= 0 {
		inverse = SetSection{At: &was, Section: p.Song[was]}
	}
	p.Song = next
	return inverse, nil
}

// RemoveSection takes a section out of the song.
type RemoveSection struct {
	Section int `json:"section"`
}

// Label implements Edit.
func (e RemoveSection) Label() string { return "removal of a section" }

func (e RemoveSection) apply(p *Project) (Edit, error) {
	at := p.sectionIndex(e.Section)
	if at < 0 {
		return nil, fmt.Errorf("section %d: %w", e.Section, ErrUnknownSection)
	}
	inverse := SetSection{At: &at, Section: p.Song[at]}
	p.Song = without(p.Song, at)
	return inverse, nil
}

// without returns a list without what stands at a place; one of nothing is nil.
func without[T any](list []T, at int) []T {
	if len(list) == 1 {
		return nil
	}
	return slices.Delete(slices.Clone(list), at, at+1)
}
