package memory

import (
	"context"
	"maps"
	"slices"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/preset"
	"jettyfog/internal/core/score"
	"jettyfog/internal/studio"
)

// Bind implements server.MachineStore.
func (s *Store) Bind(ctx context.Context, output, device string) error {
	return s.change(ctx, "Bind", func() error {
		if s.bound[output] = device; device == "" {
			delete(s.bound, output)
		}
		return nil
	})
}

// BindInput implements server.MachineStore.
func (s *Store) BindInput(ctx context.Context, input, device string) error {
	return s.change(ctx, "BindInput", func() error {
		if s.inputs[input] = device; device == "" {
			delete(s.inputs, input)
		}
		return nil
	})
}

// InputBindings returns the devices by the names of inputs.
func (s *Store) InputBindings() map[string]string {
	s.mu.Lock()
	defer s.mu.Unlock()
	return maps.Clone(s.inputs)
}

// Bindings returns the devices by the names of outputs.
func (s *Store) Bindings() map[string]string {
	s.mu.Lock()
	defer s.mu.Unlock()
	return maps.Clone(s.bound)
}

// Agree implements server.MachineStore.
func (s *Store) Agree(ctx context.Context, project int64) error {
	return s.change(ctx, "Agree", func() error {
		s.kept[project].held = false
		return nil
	})
}

// Setups implements server.MachineStore.
func (s *Store) Setups(context.Context) ([]string, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return slices.Sorted(maps.Keys(s.setups)), nil
}

// Setup implements server.MachineStore.
func (s *Store) Setup(_ context.Context, name string) (score.Setup, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	setup, found := s.setups[name]
	if !found {
		return score.Setup{}, score.ErrNoSetup
	}
	return setup, nil
}

// KeepSetup implements server.MachineStore.
func (s *Store) KeepSetup(ctx context.Context, name string, setup score.Setup) error {
	return s.change(ctx, "KeepSetup", func() error {
		s.setups[name] = setup
		return nil
	})
}

// DeleteSetup implements server.MachineStore.
func (s *Store) DeleteSetup(ctx context.Context, name string) error {
	return s.change(ctx, "DeleteSetup", func() error {
		if _, found := s.setups[name]; !found {
			return score.ErrNoSetup
		}
		delete(s.setups, name)
		return nil
	})
}

// Presets implements server.PresetStore.
func (s *Store) Presets(context.Context) ([]preset.Preset, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return slices.Clone(s.presets), nil
}

// KeepPreset implements server.PresetStore.
func (s *Store) KeepPreset(ctx context.Context, kept preset.Preset) error {
	return s.change(ctx, "KeepPreset", func() error {
		s.dropPreset(kept.Kind, kept.Name)
		s.presets = append(s.presets, kept)
		return nil
	})
}

// DeletePreset implements server.PresetStore.
func (s *Store) DeletePreset(ctx context.Context, kind preset.Kind, name string) (was bool, err error) {
	err = s.change(ctx, "DeletePreset", func() error {
		was = s.dropPreset(kind, name)
		return nil
	})
	return was, err
}

func (s *Store) dropPreset(kind preset.Kind, name string) (was bool) {
	before := len(s.presets)
	s.presets = slices.DeleteFunc(s.presets, func(p preset.Preset) bool { return p.Kind == kind && p.Name == name })
	return len(s.presets) < before
}

// SetLists implements server.SetListStore.
func (s *Store) SetLists(context.Context) ([]studio.SetList, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return slices.Clone(s.setLists), nil
}

// KeepSetList implements server.SetListStore.
func (s *Store) KeepSetList(ctx context.Context, list studio.SetList) error {
	return s.change(ctx, "KeepSetList", func() error {
		s.setLists = slices.DeleteFunc(s.setLists, func(other studio.SetList) bool { return other.Name == list.Name })
		if len(list.Projects) > 0 {
			s.setLists = append(s.setLists, list)
		}
		return nil
	})
}

// Calibrations implements server.MachineStore.
func (s *Store) Calibrations(context.Context) ([]cv.Calibrated, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return slices.Clone(s.read), nil
}

// Calibrate implements server.MachineStore.
func (s *Store) Calibrate(ctx context.Context, of string, channel int, readings []cv.VoltageReading) error {
	return s.change(ctx, "Calibrate", func() error {
		s.read = slices.DeleteFunc(s.read, func(c cv.Calibrated) bool { return c.Interface == of && c.Channel == channel })
		calibration, err := cv.Calibrate(readings)
		if len(readings) > 0 {
			s.read = append(s.read, cv.Calibrated{Interface: of, Channel: channel, Readings: readings, Calibration: calibration})
		}
		return err
	})
}
