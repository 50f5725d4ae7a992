package device

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"golang.org/x/sys/unix"
)

// List returns the devices of this machine that can be played, ListSending those that send.
func List() ([]Device, error)        { return list(os.DirFS("/proc"), plays) }
func ListSending() ([]Device, error) { return list(os.DirFS("/proc"), sends) }

// StandIn returns a device that a FIFO or a terminal stands in for. Where there is nothing, it makes a FIFO.
func StandIn(path string) (Device, error) {
	path, err := filepath.Abs(path)
	if err != nil {
		return Device{}, err
	}
	if err := unix.Mkfifo(path, 0o600); err != nil && !errors.Is(err, unix.EEXIST) {
		return Device{}, fmt.Errorf("%s cannot be made: %w", path, err)
	}
	info, err := os.Stat(path)
	if err != nil {
		return Device{}, err
	}
	if info.Mode()&(os.ModeNamedPipe|os.ModeCharDevice) == 0 {
		return Device{}, fmt.Errorf("%s is neither a FIFO nor a terminal; name one, or a path at which there is nothing yet", path)
	}
	return Device{Name: filepath.Base(path), Place: "stand-in at " + path, StandIn: true, path: path}, nil
}

// open opens a device for writing. The error says why it cannot be played, in words.
func open(found Device) (Wire, error) {
	file, err := unix.Open(found.path, unix.O_WRONLY|unix.O_NONBLOCK|unix.O_NOCTTY|unix.O_CLOEXEC, 0)
	if err != nil {
		return nil, inWords(err)
	}
	if found.StandIn {
		makeRaw(file)
	}
	return descriptor(file), nil
}

// OpenFeed opens a device for reading. The error says why it cannot be heard, in words.
func OpenFeed(found Device) (Feed, error) {
	how := unix.O_RDONLY
	if found.StandIn {
		how = unix.O_RDWR // so that a FIFO goes on when nobody writes
	}
	file, err := os.OpenFile(found.path, how|unix.O_NONBLOCK|unix.O_NOCTTY, 0)
	if err != nil {
		return nil, inWords(err)
	}
	if raw, err := file.SyscallConn(); err == nil && found.StandIn {
		_ = raw.Control(func(fd uintptr) { makeRaw(int(fd)) }) // a terminal that refuses changes some bytes
	}
	return file, nil
}

// inWords says why a device cannot be opened.
func inWords(err error) error {
	switch {
	case errors.Is(err, unix.ENXIO):
		return errors.New("nobody reads it")
	case errors.Is(err, unix.EACCES):
		return errors.New("this user may not use it; joining the group “audio” is the usual way")
	case errors.Is(err, unix.EBUSY):
		return errors.New("another program uses it")
	}
	return err
}

// makeRaw has a terminal hand bytes on as they are; anything else does.
func makeRaw(file int) {
	settings, err := unix.IoctlGetTermios(file, unix.TCGETS)
	if err != nil {
		return
	}
	settings.Oflag &^= unix.OPOST
	settings.Lflag &^= unix.ECHO | unix.ICANON | unix.ISIG | unix.IEXTEN
	_ = unix.IoctlSetTermios(file, unix.TCSETS, settings) // a terminal that refuses changes some bytes
}

// descriptor is an open file that never blocks.
type descriptor int

// Write implements Wire.
func (d descriptor) Write(data []byte) (int, error) {
	for {
		n, err := unix.Write(int(d), data)
		switch {
		case errors.Is(err, unix.EINTR):
		case errors.Is(err, unix.EAGAIN):
			return 0, nil
		case err != nil:
			return 0, err
		default:
			return n, nil
		}
	}
}

// Close implements Wire.
func (d descriptor) Close() error { return unix.Close(int(d)) }
