package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"jettyfog/internal/core/cv"
	"jettyfog/internal/core/score"
)

// What belongs to the machine, and to no project: which devices outputs are, which projects may not use them yet, setups, and calibrations.

// bindingRow says which device the outputs of a name are.
type bindingRow struct {
	Output string `gorm:"primaryKey"`
	Device string
}

func (bindingRow) TableName() string { return "bindings" }

// inputRow says which device the inputs of a name are.
type inputRow struct {
	Input  string `gorm:"primaryKey"`
	Device string
}

func (inputRow) TableName() string { return "input_bindings" }

// heldRow names a project whose outputs are not to be played.
type heldRow struct {
	ProjectID int64 `gorm:"primaryKey;autoIncrement:false"`
}

func (heldRow) TableName() string { return "held_projects" }

type setupRow struct {
	Name  string `gorm:"primaryKey"`
	Setup string
}

func (setupRow) TableName() string { return "setups" }

// Bindings returns the name of the device that each output is, by the output's name.
func (s *Store) Bindings(ctx context.Context) (map[string]string, error) {
	var rows []bindingRow
	if err := s.read(ctx, func(tx *gorm.DB) error { return tx.Find(&rows).Error }); err != nil {
		return nil, err
	}
	bound := map[string]string{}
	for _, row := range rows {
		bound[row.Output] = row.Device
	}
	return bound, nil
}

// Bind has the outputs of a name be a device; an empty one is none.
func (s *Store) Bind(ctx context.Context, output, device string) error {
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		if device == "" {
			return tx.Delete(&bindingRow{Output: output}).Error
		}
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&bindingRow{output, device}).Error
	})
}

// InputBindings returns the name of the device that each input is, by the input's name.
func (s *Store) InputBindings(ctx context.Context) (map[string]string, error) {
	var rows []inputRow
	if err := s.read(ctx, func(tx *gorm.DB) error { return tx.Find(&rows).Error }); err != nil {
		return nil, err
	}
	bound := map[string]string{}
	for _, row := range rows {
		bound[row.Input] = row.Device
	}
	return bound, nil
}

// BindInput has the inputs of a name be a device; an empty one is none.
func (s *Store) BindInput(ctx context.Context, input, device string) error {
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		if device == "" {
			return tx.Delete(&inputRow{Input: input}).Error
		}
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&inputRow{input, device}).Error
	})
}

// Held reports whether the outputs of a project are not to be played, as it came from elsewhere and nobody has agreed.
func (s *Store) Held(ctx context.Context, project int64) (bool, error) {
	var rows int64
	err := s.read(ctx, func(tx *gorm.DB) error {
		return tx.Model(&heldRow{}).Where("project_id = ?", project).Count(&rows).Error
	})
	return rows > 0, err
}

// Agree has the outputs of a project be played.
func (s *Store) Agree(ctx context.Context, project int64) error {
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error { return tx.Delete(&heldRow{ProjectID: project}).Error })
}

// Setups returns the names of the setups that are kept, in their order.
func (s *Store) Setups(ctx context.Context) (names []string, err error) {
	err = s.read(ctx, func(tx *gorm.DB) error {
		return tx.Model(&setupRow{}).Order("name").Pluck("name", &names).Error
	})
	return names, err
}

// Setup returns a setup that is kept. The error can be score.ErrNoSetup.
func (s *Store) Setup(ctx context.Context, name string) (setup score.Setup, err error) {
	var row setupRow
	err = s.read(ctx, func(tx *gorm.DB) error { return tx.Where("name = ?", name).First(&row).Error })
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return setup, score.ErrNoSetup
	}
	if err != nil {
		return setup, err
	}
	if err := json.Unmarshal([]byte(row.Setup), &setup); err != nil {
		return setup, fmt.Errorf("read the setup “%s”: %w", name, err)
	}
	return setup, nil
}

// KeepSetup keeps a setup by a name, in the place of one that has it.
func (s *Store) KeepSetup(ctx context.Context, name string, setup score.Setup) error {
	data, err := json.Marshal(setup)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&setupRow{name, string(data)}).Error
	})
}

// DeleteSetup deletes a setup. The error can be score.ErrNoSetup.
func (s *Store) DeleteSetup(ctx context.Context, name string) error {
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		gone := tx.Delete(&setupRow{Name: name})
		if gone.Error == nil && gone.RowsAffected == 0 {
			return score.ErrNoSetup
		}
		return gone.Error
	})
}

// calibrationRow is what was read of a channel of an interface.
type calibrationRow struct {
	Interface string `gorm:"primaryKey"`
	Channel   int    `gorm:"primaryKey;autoIncrement:false"`
	Readings  string
}

func (calibrationRow) TableName() string { return "calibrations" }

// Calibrations returns what was read of channels of interfaces, in the order of their names and numbers.
func (s *Store) Calibrations(ctx context.Context) (all []cv.Calibrated, err error) {
	var rows []calibrationRow
	if err := s.read(ctx, func(tx *gorm.DB) error { return tx.Order("interface, channel").Find(&rows).Error }); err != nil {
		return nil, err
	}
	for _, row := range rows {
		c := cv.Calibrated{Interface: row.Interface, Channel: row.Channel}
		if err := json.Unmarshal([]byte(row.Readings), &c.Readings); err != nil {
			return nil, fmt.Errorf("read the calibration of channel %d of %s: %w", row.Channel, row.Interface, err)
		}
		if c.Calibration, err = cv.Calibrate(c.Readings); err != nil {
			return nil, fmt.Errorf("read the calibration of channel %d of %s: %w", row.Channel, row.Interface, err)
		}
		all = append(all, c)
	}
	return all, nil
}

// Calibrate keeps what was read of a channel of an interface; without readings nothing is kept of it any more.
func (s *Store) Calibrate(ctx context.Context, of string, channel int, readings []cv.VoltageReading) error {
	data, err := json.Marshal(readings)
	if err != nil {
		return err
	}
	return s.write(ctx, plainTurn, func(tx *gorm.DB) error {
		if len(readings) == 0 {
			return tx.Delete(&calibrationRow{Interface: of, Channel: channel}).Error
		}
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&calibrationRow{of, channel, string(data)}).Error
	})
}
