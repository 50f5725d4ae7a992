package store_test

import (
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/health"
	"jettyfog/internal/store"
	"jettyfog/internal/studio"
)

// A full disk, as SQLite reports it: what does not fit is refused with a sentence, ids that come with it do not
// count, and once there is room everything goes on where it was.
func TestAFullDisk(t *testing.T) {
	s := open(t, t.TempDir())
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	var pages int
	require.NoError(t, s.Raw().Raw("PRAGMA page_count").Scan(&pages).Error)
	require.NoError(t, s.Raw().Exec(fmt.Sprintf("PRAGMA max_page_count = %d", pages)).Error)
	large := take.Render(testkit.Buoy(), 400)
	_, err = s.AddTakes(ctx, []*take.Take{large, large}, 1)
	requireProblem(t, health.Full, err)
	requireProblem(t, health.Full, s.Problem())
	name := take.Of(testkit.Buoy(), "")
	name.Markers = slices.Repeat([]take.Marker{{Text: "fog"}}, 100_000)
	id, err := s.CreateTake(ctx, name, 1)
	requireProblem(t, health.Full, err)
	require.Zero(t, id)
	takes, err := s.Takes(ctx)
	require.NoError(t, err, "what is stored can be read")
	require.Empty(t, takes, "all or none")
	require.NoError(t, s.Raw().Exec("PRAGMA max_page_count = 1000000").Error)
	s.Look()
	require.NoError(t, s.Problem())
	_, err = s.AddTakes(ctx, []*take.Take{large}, 1)
	require.NoError(t, err)
	document.Revision++
	require.NoError(t, s.SaveMove(ctx, document))
}

// Real disks that are full and read-only, where this machine lets the test make some.
func TestRealDisks(t *testing.T) {
	disk := filepath.Join(t.TempDir(), "disk")
	require.NoError(t, os.Mkdir(disk, 0o700))
	mount := func(arguments ...string) error { return exec.Command("mount", arguments...).Run() }
	if err := mount("-t", "tmpfs", "-o", "size=2m", "tmpfs", disk); err != nil {
		t.Skipf("this machine lets no test make a disk: %v", err)
	}
	t.Cleanup(func() { require.NoError(t, exec.Command("umount", disk).Run()) })
	folder := filepath.Join(disk, "data")
	s, err := store.Open(folder)
	require.NoError(t, err)
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	id, err := s.CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
	require.NoError(t, err)
	filler := filepath.Join(disk, "filler")
	require.Error(t, os.WriteFile(filler, make([]byte, 4<<20), 0o600))

	piece := take.Piece{Messages: take.Render(testkit.Buoy(), 200).Messages}
	requireProblem(t, health.Full, s.AppendTake(ctx, id, piece, nil))
	require.NoError(t, s.Close())
	again, err := store.Open(folder)
	require.NoError(t, err, "a full disk can still be read and heard")
	_, err = again.OpenDocument(ctx, score.Blank())
	require.NoError(t, err)
	require.NoError(t, os.Remove(filler))
	again.Look()
	require.NoError(t, again.Problem())
	document.Revision++
	require.NoError(t, again.SaveMove(ctx, document))

	if err := mount("-o", "remount,ro", disk); err != nil {
		require.NoError(t, again.Close())
		t.Skipf("this machine lets no test make a disk read-only: %v", err)
	}
	document.Revision++
	requireProblem(t, health.ReadOnly, again.SaveMove(ctx, document))
	_ = again.Close() // it cannot tidy up
	_, err = store.Open(folder)
	requireProblem(t, health.ReadOnly, err)
	require.NoError(t, mount("-o", "remount,rw", disk))
	last := open(t, folder)
	document, err = last.OpenDocument(ctx, score.Blank())
	require.NoError(t, err)
	require.Equal(t, int64(2), document.Revision)
}

// A database that is damaged while it is open is found by whoever reads the damaged place; from then on that is the
// problem, whatever goes well meanwhile, and the next start offers the copy.
func TestDamageWhileItIsOpen(t *testing.T) {
	folder := t.TempDir()
	s, err := store.Open(folder)
	require.NoError(t, err)
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	ids, err := s.AddTakes(ctx, []*take.Take{take.Render(testkit.Buoy(), 400)}, 1)
	require.NoError(t, err)
	require.NoError(t, s.CopyToday(now))
	require.NoError(t, s.Close())
	s, err = store.Open(folder)
	require.NoError(t, err)
	file, err := os.OpenFile(filepath.Join(folder, "jettyfog.db"), os.O_RDWR, 0)
	require.NoError(t, err)
	info, err := file.Stat()
	require.NoError(t, err)
	_, err = file.WriteAt(make([]byte, info.Size()-4096), 4096) // all but the head
	require.NoError(t, err)
	require.NoError(t, file.Close())
	_, _, _, err = s.Recording(ctx, ids[0])
	requireProblem(t, health.Damaged, err)
	_ = s.SaveMove(ctx, document) // however that goes
	s.Look()
	s.Met(nil)
	requireProblem(t, health.Damaged, s.Problem())
	_ = s.Close() // it can fail, since it tidies up
	_, err = store.Open(folder)
	var damaged *store.DamagedError
	require.ErrorAs(t, err, &damaged)
	require.NotEmpty(t, damaged.Copy)
}

// Writes take turns: the journal before all else. Who gives up before his turn has written nothing; what has begun
// is written whole although its asker has gone.
func TestWritesTakeTurns(t *testing.T) {
	s := open(t, t.TempDir())
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	id, err := s.Wake().CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
	require.NoError(t, err)
	release, err := s.Hold()
	require.NoError(t, err)

	var order []string
	done := make(chan error)
	wait := func(count int) {
		require.Eventually(t, func() bool { return s.Waiting() == count }, time.Minute, time.Millisecond)
	}
	begin := func(count int, act func() error) {
		go func() { done <- act() }()
		wait(count)
	}
	givingUp, giveUp := context.WithCancel(ctx)
	begin(1, func() error {
		err := s.SaveMove(givingUp, studio.Document{ID: 1, Project: score.Blank(), Revision: 99})
		order = append(order, "given up")
		return err
	})
	giveUp()
	require.ErrorIs(t, <-done, context.Canceled)
	wait(0)
	begin(1, func() error {
		document.Revision = 2
		err := s.SaveMove(ctx, document)
		order = append(order, "edit")
		return err
	})
	begin(2, func() error {
		defer func() { order = append(order, "journal") }()
		return s.Wake().AppendTake(ctx, id, take.Piece{Messages: []midi.Message{{Kind: midi.NoteOn, Key: 60, Velocity: 1}}}, nil)
	})
	release()
	require.NoError(t, <-done)
	require.NoError(t, <-done)
	require.Equal(t, []string{"given up", "journal"}, order[:2])
	stored, err := s.Revision(ctx)
	require.NoError(t, err)
	require.Equal(t, int64(2), stored)

	ended, end := context.WithCancel(ctx)
	end()
	require.ErrorIs(t, s.SaveMove(ended, document), context.Canceled)
	_, err = s.CreateTake(ended, take.Of(testkit.Buoy(), ""), 1)
	require.ErrorIs(t, err, context.Canceled)
}

// A write that has begun when its asker goes is written to its end.
func TestWhatHasBegunIsNotBrokenOff(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	other := connect(t, folder)
	tx := other.Begin() // another program that writes keeps this one waiting in the middle of its write
	require.NoError(t, tx.Exec("UPDATE projects SET position = position").Error)
	givingUp, giveUp := context.WithCancel(ctx)
	done := make(chan error)
	go func() {
		document.Revision = 2
		done <- s.SaveMove(givingUp, document)
	}()
	require.Eventually(t, s.Busy, time.Minute, time.Millisecond)
	giveUp()
	require.NoError(t, tx.Rollback().Error)
	require.NoError(t, <-done)
	stored, err := s.Revision(ctx)
	require.NoError(t, err)
	require.Equal(t, int64(2), stored)
}

// Given up at any moment, a write is whole or not there at all, and nil says that it is there.
func TestGivingUpAtAnyMoment(t *testing.T) {
	s := open(t, t.TempDir())
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	recording := take.Render(testkit.Buoy(), 30)
	takes := 0
	rapid.Check(t, func(t *rapid.T) {
		limited, cancel := context.WithTimeout(ctx, time.Duration(rapid.IntRange(0, 2000).Draw(t, "µs"))*time.Microsecond)
		defer cancel()
		next := document
		next.Revision++
		if err := s.SaveMove(limited, next); err == nil {
			document = next
		}
		stored, err := s.OpenDocument(ctx, score.Blank())
		require.NoError(t, err)
		require.Equal(t, document.Revision, stored.Revision)
		limited, cancel = context.WithTimeout(ctx, time.Duration(rapid.IntRange(0, 4000).Draw(t, "µs"))*time.Microsecond)
		defer cancel()
		ids, err := s.AddTakes(limited, []*take.Take{recording, recording}, 1)
		takes += len(ids)
		require.Equal(t, err == nil, len(ids) == 2)
		listed, err := s.Takes(ctx)
		require.NoError(t, err)
		require.Len(t, listed, takes)
	})
}

// Reads wait for no write.
func TestReadsDoNotWait(t *testing.T) {
	s := open(t, t.TempDir())
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	ids, err := s.AddTakes(ctx, []*take.Take{take.Render(testkit.Buoy(), 4)}, 1)
	require.NoError(t, err)
	release, err := s.Hold()
	require.NoError(t, err)
	defer release()
	tx := s.Raw().Begin() // a transaction that writes, and is not over
	require.NoError(t, tx.Exec("UPDATE projects SET revision = 77").Error)
	defer tx.Rollback()
	stored, err := s.OpenDocument(ctx, score.Blank())
	require.NoError(t, err)
	require.Equal(t, document.Revision, stored.Revision)
	_, _, _, err = s.Recording(ctx, ids[0])
	require.NoError(t, err)
	_, err = s.Wake().LastBars(ctx, 0, 0, 1)
	require.ErrorIs(t, err, take.ErrUnknown)
}

// A database of version 5, which has a row for each message, is copied and then brought up to date.
func TestRowsBecomePieces(t *testing.T) {
	folder := t.TempDir()
	s, err := store.Open(folder)
	require.NoError(t, err)
	id, err := s.Wake().CreateTake(ctx, take.Of(testkit.Buoy(), ""), 4)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	played := take.Render(testkit.Buoy(), 150)
	query(t, folder, "DROP TABLE pieces")
	for _, table := range []string{"input_bindings", "calibrations", "positions", "set_lists", "held_projects", "bindings", "setups", "presets", "openings", "project_tracks", "project_changes", "project_stages", "projects"} {
		query(t, folder, "DROP TABLE "+table)
	}
	query(t, folder, "DROP INDEX takes_of_projects")
	query(t, folder, "ALTER TABLE takes DROP COLUMN project_id")
	query(t, folder, "CREATE TABLE documents (id INTEGER PRIMARY KEY, project TEXT NOT NULL, revision INTEGER NOT NULL, position INTEGER NOT NULL) STRICT")
	query(t, folder, "CREATE TABLE changes (position INTEGER PRIMARY KEY, edit TEXT NOT NULL, inverse TEXT NOT NULL) STRICT")
	query(t, folder, "DROP TABLE log_entries")
	query(t, folder, "DROP TABLE logs")
	query(t, folder, "DELETE FROM migrations WHERE id IN ('6', '7', '8', '9', '10', '11', '12', '13', '14', '15', '16', '17', '18')")
	query(t, folder, `CREATE TABLE messages (
	take_id INTEGER NOT NULL REFERENCES takes (id) ON DELETE CASCADE, seq INTEGER NOT NULL, tick INTEGER NOT NULL, track INTEGER NOT NULL,
	kind INTEGER NOT NULL, channel INTEGER NOT NULL, key INTEGER NOT NULL, velocity INTEGER NOT NULL, value INTEGER NOT NULL,
	detune INTEGER NOT NULL DEFAULT 0, PRIMARY KEY (take_id, seq)) STRICT, WITHOUT ROWID`)
	rows := ""
	for seq, m := range played.Messages {
		rows += fmt.Sprintf(", (%d, %d, %d, %d, %d, %d, %d, %d, %d, %d)", id, seq, m.Tick, m.Track, m.Kind, m.Channel, m.Key, m.Velocity, m.Value, m.Detune)
	}
	query(t, folder, "INSERT INTO messages VALUES "+rows[2:])

	again := open(t, folder)
	messages, err := again.LastStretch()
	require.NoError(t, err)
	require.Equal(t, played.Messages, messages)
	bar := played.Meter.Bar()
	piece, err := again.Wake().Piece(ctx, id, 100*bar, 120*bar)
	require.NoError(t, err)
	require.Equal(t, take.Cut(played, 100*bar, 120*bar).Messages, piece.Take.Messages)
	copies, err := filepath.Glob(filepath.Join(folder, "copies", "jettyfog-*-before-18.db"))
	require.NoError(t, err)
	require.Len(t, copies, 1)
}

// Every stretch of a wake can be cut anywhere, wherever its pieces begin: as if it was one recording.
func TestPiecesOfPieces(t *testing.T) {
	s := open(t, t.TempDir())
	p := testkit.Buoy()
	p.Tracks[0].Parts()[0].Mods = []score.Mod{{Target: score.ControlTarget, Number: 74, Most: 127}}
	played := take.Render(p, 640)
	require.Greater(t, len(played.Messages), 9000, "more than lies between two pieces that stand by themselves")
	rapid.Check(t, func(t *rapid.T) {
		id, err := s.Wake().CreateTake(ctx, take.Of(p, ""), 1)
		require.NoError(t, err)
		var sent midi.Settings
		var firsts []int
		for next := 0; next < len(played.Messages); {
			count := min(len(played.Messages)-next, rapid.IntRange(1, 2500).Draw(t, "piece"))
			piece := take.Piece{First: next, Messages: played.Messages[next : next+count], Standing: sent.Standing(0)}
			if rapid.IntRange(0, 4).Draw(t, "interrupted") == 0 { // written, not acknowledged, and written again with more
				part := piece
				part.Messages = part.Messages[:(count+1)/2]
				require.NoError(t, s.Wake().AppendTake(ctx, id, part, nil))
			}
			require.NoError(t, s.Wake().AppendTake(ctx, id, piece, nil))
			sent.Note(piece.Messages)
			firsts = append(firsts, next)
			next += count
		}
		from := score.Tick(rapid.IntRange(0, int(played.End)-1).Draw(t, "from"))
		if rapid.Bool().Draw(t, "at the beginning of a piece") {
			from = played.Messages[rapid.SampledFrom(firsts).Draw(t, "piece")].Tick
		}
		to := min(played.End, from+score.Tick(rapid.IntRange(1, 500_000).Draw(t, "length")))
		piece, err := s.Wake().Piece(ctx, id, from, to)
		require.NoError(t, err)
		require.Equal(t, take.Cut(played, from, min(to, played.Messages[len(played.Messages)-1].Tick)).Messages, piece.Take.Messages)
	})
}

// A piece that stands by itself can begin in the middle of a chord, of which all notes are found.
func TestAPieceBeginsInTheMiddleOfAChord(t *testing.T) {
	s := open(t, t.TempDir())
	id, err := s.Wake().CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
	require.NoError(t, err)
	var messages []midi.Message
	for chord := range score.Tick(3000) {
		for _, key := range []uint8{60, 64} {
			messages = append(messages, midi.Message{Tick: chord * 10, Track: 1, Kind: midi.NoteOn, Key: key, Velocity: 90})
		}
		for _, key := range []uint8{60, 64} {
			messages = append(messages, midi.Message{Tick: chord*10 + 5, Track: 1, Key: key})
		}
	}
	const middle = 4 * 1500 // a chord's first message
	for _, piece := range []take.Piece{{Messages: messages[:middle+1]}, {First: middle + 1, Messages: messages[middle+1:]}} {
		require.NoError(t, s.Wake().AppendTake(ctx, id, piece, nil))
	}
	found, err := s.Wake().Piece(ctx, id, messages[middle].Tick, messages[middle].Tick+10)
	require.NoError(t, err)
	require.Equal(t, 2, found.Take.Count())
}

// What is stored of messages that is no whole number of them is refused.
func TestBrokenContents(t *testing.T) {
	s := open(t, t.TempDir())
	ids, err := s.AddTakes(ctx, []*take.Take{take.Render(testkit.Buoy(), 1)}, 1)
	require.NoError(t, err)
	require.NoError(t, s.Raw().Exec("UPDATE takes SET contents = ?", binary.BigEndian.AppendUint32(nil, 7)).Error)
	_, _, _, err = s.Recording(ctx, ids[0])
	require.ErrorContains(t, err, "read the contents of take 1")
	require.False(t, errors.Is(err, take.ErrUnknown))
}
