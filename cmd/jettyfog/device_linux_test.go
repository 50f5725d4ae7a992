package main

import (
	"context"
	"encoding/csv"
	"encoding/hex"
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// Without any page a device is played, by what the folder remembers of it: what listens there writes down times and bytes, and when the
// program goes in the middle of a note, that ends.
func TestADeviceIsPlayedWithoutAPage(t *testing.T) {
	folder, path := t.TempDir(), filepath.Join(t.TempDir(), "quay")
	ctx, stopListening := context.WithCancel(t.Context())
	defer stopListening()
	heard := &lineWriter{lines: make(chan string, 100_000)}
	listening := make(chan int, 1)
	r := serve(t, folder, "--stand-in-device", path)
	go func() { listening <- run(ctx, []string{"listen", path}, heard, heard) }()
	require.Equal(t, http.StatusOK, post(t, r.url+"/api/edits", `{"revision":1,"edit":{"all":{"name":"ways","edits":[`+
		`{"setProject":{"outputs":[{"id":1,"name":"Bass","kind":"serverDevice"}]}},{"setTrack":{"track":2,"routes":[`+
		`{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127}]}},{"setTrack":{"track":3,"routes":[`+
		`{"output":0,"lowest":0,"highest":127,"softest":1,"loudest":127}]}}]}}}`))
	require.Equal(t, http.StatusOK, post(t, r.url+"/api/devices/bind", `{"output":"Bass","device":"quay"}`))
	code, _ := r.stop()
	require.Zero(t, code)

	r = serve(t, folder, "--stand-in-device", path)
	require.Equal(t, http.StatusOK, post(t, r.url+"/api/transport", `{"do":"play"}`))
	down, ons, last := map[string]bool{}, 0, 0.0
	hear := func(line string) {
		row, err := csv.NewReader(strings.NewReader(line)).Read()
		require.NoError(t, err)
		seconds, err := strconv.ParseFloat(row[0], 64)
		require.NoError(t, err)
		require.GreaterOrEqual(t, seconds, last)
		last = seconds
		data, err := hex.DecodeString(row[1])
		require.NoError(t, err)
		require.Zero(t, len(data)%3, "%x", data)
		for ; len(data) > 0; data = data[3:] {
			key := string([]byte{data[0] & 0xF, data[1]})
			if down[key] = data[0]&0xF0 == 0x90; down[key] {
				ons++
			}
		}
	}
	sounds := func() bool {
		for _, is := range down {
			if is {
				return true
			}
		}
		return false
	}
	for ons < 3 || !sounds() {
		select {
		case line := <-heard.lines:
			hear(line)
		case <-time.After(time.Minute):
			require.FailNow(t, "nothing is played")
		}
	}
	code, stderr := r.stop()
	require.Zero(t, code, stderr)
	for sounds() {
		select {
		case line := <-heard.lines:
			hear(line)
		case <-time.After(time.Minute):
			require.FailNow(t, "a note stays")
		}
	}
	stopListening()
	require.Zero(t, <-listening)
}

// What cannot stand in for a device is said before anything is served.
func TestWhatStandsInForNoDevice(t *testing.T) {
	folder := t.TempDir()
	notes := filepath.Join(folder, "notes.txt")
	require.NoError(t, os.WriteFile(notes, nil, 0o600))
	require.NoError(t, os.Mkdir(filepath.Join(folder, "pier"), 0o700))
	for want, args := range map[string][]string{
		"--stand-in-device: " + notes + " is neither a FIFO nor a terminal": {"--stand-in-device", notes},
		"two are named quay": {"--stand-in-device", filepath.Join(folder, "quay"), "--stand-in-device", filepath.Join(folder, "pier", "quay")},
	} {
		code, _, stderr := jettyfog(append([]string{"serve", "--addr", "127.0.0.1:0", "--data", filepath.Join(folder, "data")}, args...)...)
		require.Equal(t, 2, code)
		require.Contains(t, stderr, want)
		require.Equal(t, 1, strings.Count(stderr, "\n"), stderr)
	}
	code, _, stderr := jettyfog("listen", notes)
	require.Equal(t, 2, code)
	require.Contains(t, stderr, "neither a FIFO nor a terminal")
}
