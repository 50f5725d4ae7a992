package store_test

import (
	"bufio"
	"fmt"
	"os"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/store"
)

// childFolder names the folder in which a child process journals until it is killed.
const childFolder = "JETTYFOG_JOURNAL_UNTIL_KILLED"

func TestMain(m *testing.M) {
	if folder := os.Getenv(childFolder); folder != "" {
		journal(folder)
		return
	}
	os.Exit(m.Run())
}

// journal writes a stretch of the wake without end, and tells after each piece how many messages are on disk.
func journal(folder string) {
	s, err := store.Open(folder)
	if err != nil {
		panic(err)
	}
	if err := s.Announce("http://there"); err != nil {
		panic(err)
	}
	id, err := s.Wake().CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
	if err != nil {
		panic(err)
	}
	for seq := 0; ; {
		var messages []midi.Message
		for range 25 {
			messages = append(messages, journaled(seq+len(messages)))
		}
		if err := s.Wake().AppendTake(ctx, id, take.Piece{First: seq, Messages: messages}, nil); err != nil {
			panic(err)
		}
		seq += len(messages)
		fmt.Println(seq)
	}
}

// journaled returns the message that a child writes at a place.
func journaled(seq int) midi.Message {
	m := midi.Message{Tick: score.Tick(seq * 10), Track: 1, Key: uint8(seq / 2 % 128)}
	if seq%2 == 0 {
		m.Kind, m.Velocity = midi.NoteOn, uint8(1+seq%127)
	}
	return m
}

// Fifty times a process that journals is killed at any moment. The file is never corrupt, and everything of which
// the process knew that it is on disk is there, as it was written.
func TestFiftyKillsLoseNothingThatWasWritten(t *testing.T) {
	folder := t.TempDir()
	for round := range 50 {
		child := exec.Command(os.Args[0])
		child.Env = append(os.Environ(), childFolder+"="+folder)
		child.Stderr = os.Stderr
		output, err := child.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, child.Start())
		told := 0
		lines := bufio.NewScanner(output)
		for range 1 + round%7 {
			require.True(t, lines.Scan())
			_, err := fmt.Sscan(lines.Text(), &told)
			require.NoError(t, err)
		}
		require.NoError(t, child.Process.Kill())
		for lines.Scan() { // what it told before it died
			if _, err := fmt.Sscan(lines.Text(), &told); err != nil {
				break
			}
		}
		_ = child.Wait() // always an error: it was killed

		s, err := store.Open(folder)
		require.NoError(t, err)
		var sound string
		require.NoError(t, s.Raw().Raw("PRAGMA integrity_check").Scan(&sound).Error)
		require.Equal(t, "ok", sound)
		requireNoOrphans(t, s)
		messages, err := s.LastStretch()
		require.NoError(t, err)
		require.GreaterOrEqual(t, len(messages), told)
		for seq, m := range messages {
			require.Equal(t, journaled(seq), m)
		}
		require.NoError(t, s.Close())
	}
}

// requireNoOrphans finds rows that belong to nothing, or to a take that is over.
func requireNoOrphans(t *testing.T, s *store.Store) {
	t.Helper()
	for _, query := range []string{
		`SELECT COUNT(*) FROM takes WHERE NOT finished`,
		`SELECT COUNT(*) FROM pieces WHERE take_id NOT IN (SELECT id FROM takes WHERE LENGTH(contents) = 0)`,
		`SELECT COUNT(*) FROM origins WHERE take_id NOT IN (SELECT id FROM takes)`,
		`SELECT COUNT(*) FROM take_edits WHERE take_id NOT IN (SELECT id FROM takes)`,
		`SELECT COUNT(*) FROM logs WHERE take_id NOT IN (SELECT id FROM takes)`,
		`SELECT COUNT(*) FROM log_entries WHERE take_id NOT IN (SELECT take_id FROM logs)`,
	} {
		var count int
		require.NoError(t, s.Raw().Raw(query).Scan(&count).Error)
		require.Zero(t, count, query)
	}
}
