package device

import (
	"errors"
	"fmt"
	"io/fs"
	"path"
	"slices"
	"strings"
)

// Device is a device of this machine.
type Device struct {
	// Name tells the device from all others of the list, now and when it is plugged in again.
	Name string `json:"name"`
	// Place is where it is plugged in, in words.
	Place string `json:"place"`
	// StandIn says that it stands in for a device.
	StandIn bool `json:"standIn,omitempty"`

	path string
}

// Feed is a device that is heard. Read waits for bytes and returns how many came, which can be none; the error is why the device is
// gone. Close may be called while Read waits, which then returns an error.
type Feed interface {
	Read(data []byte) (int, error)
	Close() error
}

// ErrNone is why no devices are found where the program does not know how to.
var ErrNone = errors.New("MIDI devices of the machine are found on Linux only; the browser's MIDI ports work everywhere")

// What a kernel says of a device that can be played, and of one that sends.
const (
	plays = "\nOutput "
	sends = "\nInput "
)

// list returns the raw MIDI devices that a kernel names below /proc/asound and that can do something.
func list(proc fs.FS, can string) ([]Device, error) {
	files, err := fs.Glob(proc, "asound/card*/midi*")
	if err != nil {
		return nil, err
	}
	var all []Device
	for _, file := range files {
		var card, number int
		if _, err := fmt.Sscanf(path.Dir(file)+path.Base(file), "asound/card%dmidi%d", &card, &number); err != nil {
			continue
		}
		about, err := fs.ReadFile(proc, file)
		if err != nil || !strings.Contains(string(about), can) { // gone meanwhile, or it only does the other
			continue
		}
		name, _, _ := strings.Cut(string(about), "\n")
		if name = strings.TrimSpace(name); name == "" {
			name = "MIDI device"
		}
		all = append(all, Device{
			Name: name, Place: fmt.Sprintf("card %d, device %d", card, number), path: fmt.Sprintf("/dev/snd/midiC%dD%d", card, number),
		})
	}
	return apart(all), nil
}

// apart names devices of one name by their places too.
func apart(all []Device) []Device {
	named := slices.Clone(all)
	for i, one := range all {
		for j, other := range all {
			if i != j && other.Name == one.Name {
				named[i].Name = fmt.Sprintf("%s (%s)", one.Name, one.Place)
			}
		}
	}
	return named
}
