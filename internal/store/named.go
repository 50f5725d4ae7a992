package store

import (
	"context"
	"errors"
	"fmt"
	"path/filepath"
	"strings"

	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// Named returns the project of a list that has a name, of several the one that was changed last. The error names those that
// there are.
func Named(listed []studio.Listed, name string) (studio.Listed, error) {
	var names []string
	for _, one := range listed {
		if one.Deleted {
			continue
		}
		if one.Name == name {
			return one, nil
		}
		names = append(names, fmt.Sprintf("“%s”", one.Name))
	}
	if len(names) == 0 {
		return studio.Listed{}, fmt.Errorf("there is no project “%s”: the folder has none", name)
	}
	return studio.Listed{}, fmt.Errorf("there is no project “%s”; the folder has %s", name, strings.Join(names, ", "))
}

// ReadNamed returns a project of a folder by its name; see Named. It only reads, so another program may have the folder.
func ReadNamed(ctx context.Context, folder, name string) (project *score.Project, err error) {
	folder, err = filepath.Abs(folder)
	if err != nil {
		return nil, err
	}
	switch version, err := inspect(folder); {
	case err != nil:
		return nil, err
	case version == 0:
		return nil, fmt.Errorf("there is no project in %s", folder)
	case version < len(migrations()):
		return nil, fmt.Errorf("the folder %s is of an older Jettyfog; start it once with this one, which brings it up to date", folder)
	}
	s := &Store{folder: folder}
	if s.reads, err = connect(databaseFile(folder), inspecting); err != nil {
		return nil, explain(err)
	}
	defer func() {
		if pool, poolErr := s.reads.DB(); poolErr == nil {
			err = errors.Join(err, pool.Close())
		}
	}()
	listed, err := s.Projects(ctx)
	if err != nil {
		return nil, err
	}
	one, err := Named(listed, name)
	if err != nil {
		return nil, err
	}
	document, err := s.Document(ctx, one.ID)
	return document.Project, err
}
