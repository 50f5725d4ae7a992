//go:build !linux

package device

// List returns ErrNone.
func List() ([]Device, error) { return nil, ErrNone }

// ListSending returns ErrNone.
func ListSending() ([]Device, error) { return nil, ErrNone }

// OpenFeed returns ErrNone.
func OpenFeed(Device) (Feed, error) { return nil, ErrNone }

// StandIn returns ErrNone.
func StandIn(string) (Device, error) { return Device{}, ErrNone }

func open(Device) (Wire, error) { return nil, ErrNone }
