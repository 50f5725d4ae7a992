//go:build !linux

package device

// List returns ErrNone.
func List() ([]Found, error) { return nil, ErrNone }

// StandIn returns ErrNone.
func StandIn(string) (Found, error) { return Found{}, ErrNone }

func open(Found) (Wire, error) { return nil, ErrNone }
