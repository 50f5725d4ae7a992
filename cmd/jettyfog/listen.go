package main

import (
	"context"
	"encoding/csv"
	"encoding/hex"
	"fmt"
	"io"
	"os"
	"strconv"
	"time"

	"jettyfog/internal/device"
)

type listenCommand struct {
	Path string `arg:"" help:"The FIFO that stands in for a MIDI device; it is made where there is nothing."`
}

// Run reads what a program sends to a stand-in for a device, until the context ends, and writes down what comes and when: a line of CSV
// for each piece that can be read at once, with seconds since it began and bytes in hexadecimal.
func (c *listenCommand) Run(ctx context.Context, stdout io.Writer) error {
	if _, err := device.StandIn(c.Path); err != nil {
		return usageError{err}
	}
	file, err := os.OpenFile(c.Path, os.O_RDWR, 0) // as a writer too, so that it does not end with the first program that lets go of it
	if err != nil {
		return err
	}
	stop := context.AfterFunc(ctx, func() { _ = file.Close() })
	defer stop()
	began := time.Now()
	out := csv.NewWriter(stdout)
	data := make([]byte, 4096)
	for {
		n, err := file.Read(data)
		if ctx.Err() != nil {
			return nil
		}
		if err != nil {
			return fmt.Errorf("%s cannot be read: %w", c.Path, err)
		}
		seconds := strconv.FormatFloat(time.Since(began).Seconds(), 'f', 6, 64)
		if err := out.Write([]string{seconds, hex.EncodeToString(data[:n])}); err != nil {
			return err
		}
		if out.Flush(); out.Error() != nil {
			return out.Error()
		}
	}
}
