package server

import (
	"net/http"
	"sync"

	"github.com/go-chi/chi/v5"

	"jettyfog/internal/core/play"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/studio"
)

// ScenePicture is how the project sounds with a scene, in its first two bars.
type ScenePicture struct {
	Scene int           `json:"scene"`
	Notes []OutlineNote `json:"notes"`
	// Length is how many ticks they last.
	Length score.Tick `json:"length"`
}

type scenesResource struct {
	studio *studio.Studio

	mu       sync.Mutex
	of       *score.Project // of which the pictures were made
	pictures []ScenePicture
}

// Routes lists the resource's routes.
func (s *scenesResource) Routes() chi.Router {
	r := chi.NewRouter()
	r.Get("/", func(w http.ResponseWriter, _ *http.Request) { reply(w, s.show()) })
	return r
}

// show returns the pictures of all scenes, which are made once for each state of the project.
func (s *scenesResource) show() []ScenePicture {
	project := s.studio.State().Project
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.of != project {
		s.of, s.pictures = project, make([]ScenePicture, len(project.Scenes))
		for i := range project.Scenes {
			s.pictures[i] = scenePicture(project, &project.Scenes[i])
		}
	}
	return s.pictures
}

func scenePicture(p *score.Project, scene *score.Scene) ScenePicture {
	performed := stage.Stage{}
	for _, value := range scene.Values {
		if c := stage.Control(value.Control); c.Check(p, value.Value) == nil {
			performed = performed.With(c, value.Value)
		}
	}
	sounds := performed.On(p)
	picture := ScenePicture{Scene: scene.ID, Notes: []OutlineNote{}, Length: sounds.Bars().Start(rosterBars)}
	for i := range sounds.Tracks {
		if track := &sounds.Tracks[i]; !sounds.SilentTrack(track) {
			picture.Notes = append(picture.Notes, outlineOf(play.Course{Project: sounds}, track.ID, 0, picture.Length).Notes...)
		}
	}
	return picture
}
