package device

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/output"
)

// bytesOf reads so many bytes.
func bytesOf(t *testing.T, from io.Reader, count int) []byte {
	t.Helper()
	data := make([]byte, count)
	_, err := io.ReadFull(from, data)
	require.NoError(t, err)
	return data
}

// program sends a middle C, and a note 10, which a terminal could take for the end of a line.
func program(now int64) []output.Event {
	return []output.Event{
		{Message: midi.Message{Kind: midi.NoteOn, Key: 60, Velocity: 10}, At: now + 5_000_000},
		{Message: midi.Message{Kind: midi.NoteOff, Key: 60}, At: now + 10_000_000},
	}
}

// A FIFO that nobody reads is no device yet; one that is read gets the bytes, not before their times; when its reader goes the device is
// lost.
func TestAFIFOStandsIn(t *testing.T) {
	path := filepath.Join(t.TempDir(), "quay")
	found, err := StandIn(path)
	require.NoError(t, err)
	require.Equal(t, "quay", found.Name)
	_, err = open(found)
	require.EqualError(t, err, "nobody reads it")
	again, err := StandIn(path)
	require.NoError(t, err)
	require.Equal(t, found, again)

	reader, err := os.OpenFile(path, os.O_RDWR, 0)
	require.NoError(t, err)
	wire, err := open(found)
	require.NoError(t, err)
	began := time.Now()
	clock := NewClock(func() int64 { return int64(time.Since(began)) })
	lost := make(chan error, 1)
	p := Open(wire, NewLine(), clock, func(err error) { lost <- err })
	p.Send(program(clock.Now()))
	require.Equal(t, []byte{0x90, 60, 10}, bytesOf(t, reader, 3))
	require.GreaterOrEqual(t, clock.Now(), int64(5_000_000))
	require.Equal(t, []byte{0x80, 60, 64}, bytesOf(t, reader, 3))
	require.NoError(t, reader.Close())
	p.Send(program(clock.Now()))
	require.ErrorIs(t, <-lost, unix.EPIPE)
	p.Close()
}

// A FIFO that nobody empties fills, which is no error, and takes the rest once it has room.
func TestAFIFOIsFull(t *testing.T) {
	path := filepath.Join(t.TempDir(), "quay")
	found, err := StandIn(path)
	require.NoError(t, err)
	reader, err := os.OpenFile(path, os.O_RDWR, 0)
	require.NoError(t, err)
	defer reader.Close()
	wire, err := open(found)
	require.NoError(t, err)
	defer wire.Close()
	sent := 0
	for {
		n, err := wire.Write(make([]byte, 1000))
		require.NoError(t, err)
		if n == 0 {
			break
		}
		sent += n
	}
	require.NotZero(t, sent)
	bytesOf(t, reader, sent)
	n, err := wire.Write([]byte{1, 2, 3})
	require.NoError(t, err)
	require.Equal(t, 3, n)
}

// A terminal hands bytes on as they are, those too that it would change for a person.
func TestATerminalStandsIn(t *testing.T) {
	master, err := os.OpenFile("/dev/ptmx", os.O_RDWR|unix.O_NOCTTY, 0)
	require.NoError(t, err)
	defer master.Close()
	require.NoError(t, unix.IoctlSetPointerInt(int(master.Fd()), unix.TIOCSPTLCK, 0))
	number, err := unix.IoctlGetInt(int(master.Fd()), unix.TIOCGPTN)
	require.NoError(t, err)
	found, err := StandIn(fmt.Sprintf("/dev/pts/%d", number))
	require.NoError(t, err)
	wire, err := open(found)
	require.NoError(t, err)
	var all []byte
	for b := range 256 {
		all = append(all, byte(b))
	}
	var writing sync.WaitGroup
	writing.Go(func() { _, err = wire.Write(all) })
	require.Equal(t, all, bytesOf(t, master, len(all)))
	writing.Wait()
	require.NoError(t, err)
	require.NoError(t, wire.Close())
}

// What is neither is refused, and left as it is.
func TestWhatStandsInForNoDevice(t *testing.T) {
	folder := t.TempDir()
	file := filepath.Join(folder, "notes.txt")
	require.NoError(t, os.WriteFile(file, []byte("mine"), 0o600))
	for _, path := range []string{file, folder} {
		_, err := StandIn(path)
		require.ErrorContains(t, err, "is neither a FIFO nor a terminal")
	}
	_, err := StandIn(filepath.Join(folder, "no", "way"))
	require.ErrorIs(t, err, os.ErrNotExist)
	kept, err := os.ReadFile(file)
	require.NoError(t, err)
	require.Equal(t, "mine", string(kept))
	_, err = open(Device{path: filepath.Join(folder, "gone")})
	require.True(t, errors.Is(err, os.ErrNotExist))
}

// A FIFO that stands in for a device that sends is read as bytes come, goes on when its writer is gone, and ends when it is closed, also while
// somebody waits.
func TestAFIFOIsHeard(t *testing.T) {
	found, err := StandIn(filepath.Join(t.TempDir(), "winch"))
	require.NoError(t, err)
	feed, err := OpenFeed(found)
	require.NoError(t, err)
	for range 2 {
		writer, err := os.OpenFile(found.path, os.O_WRONLY, 0)
		require.NoError(t, err)
		_, err = writer.Write([]byte{0x90, 60, 10})
		require.NoError(t, err)
		require.NoError(t, writer.Close())
		require.Equal(t, []byte{0x90, 60, 10}, bytesOf(t, feed, 3))
	}
	ended := make(chan error, 1)
	go func() {
		_, err := feed.Read(make([]byte, 3))
		ended <- err
	}()
	require.NoError(t, feed.Close())
	require.Error(t, <-ended)
	found.path += " that is gone"
	_, err = OpenFeed(found)
	require.ErrorIs(t, err, os.ErrNotExist)
}
