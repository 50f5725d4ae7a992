package store_test

import (
	"bufio"
	"fmt"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/glebarez/sqlite"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/take"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/health"
	"jettyfog/internal/store"
)

// Whatever the folder is called, the database is in it.
func TestFoldersOfAnyName(t *testing.T) {
	for _, name := range []string{
		"a#b", "a?b", "a%20b", "a%b", "a b", " a ", `a"b`, "a'b", "a&b=c", "a;b", "a:b", `a\b`, "[a]*", "file:a", "?mode=memory",
		"Гавань", "海の音", "مرفأ", "\xff\xfe", strings.Repeat("ö", 100), strings.Repeat("x", 120) + "/" + strings.Repeat("y", 120),
	} {
		t.Run(fmt.Sprintf("%.30q", name), func(t *testing.T) {
			folder := filepath.Join(t.TempDir(), name)
			for revision := range int64(2) {
				s, err := store.Open(folder)
				require.NoError(t, err)
				document, err := s.OpenDocument(ctx, testkit.Buoy())
				require.NoError(t, err)
				require.Equal(t, revision+1, document.Revision, "what was stored is found again")
				document.Revision++
				require.NoError(t, s.SaveMove(ctx, document))
				require.NoError(t, s.Close())
			}
			info, err := os.Stat(filepath.Join(folder, "jettyfog.db"))
			require.NoError(t, err)
			require.Positive(t, info.Size())
			beside, err := os.ReadDir(filepath.Dir(folder))
			require.NoError(t, err)
			require.Len(t, beside, 1, "nothing is beside it")
		})
	}
	long := filepath.Join(t.TempDir(), strings.Repeat(strings.Repeat("x", 200)+"/", 4))
	_, err := store.Open(long)
	require.ErrorContains(t, err, "the path of the folder of data is too long")
	require.NoDirExists(t, long)
}

// A folder has one owner; whoever comes second is told who and where. An owner that dies leaves it free.
func TestAFolderHasOneOwner(t *testing.T) {
	folder := t.TempDir()
	child := exec.Command(os.Args[0])
	child.Env = append(os.Environ(), childFolder+"="+folder)
	output, err := child.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, child.Start())
	lines := bufio.NewScanner(output)
	require.True(t, lines.Scan())
	_, err = store.Open(folder)
	var held *store.HeldError
	require.ErrorAs(t, err, &held)
	require.Equal(t, child.Process.Pid, held.Owner.Process)
	require.ErrorContains(t, err, fmt.Sprintf("open already (process %d): its page is at http://there", child.Process.Pid))
	require.NoError(t, child.Process.Kill())
	_ = child.Wait() // always an error: it was killed

	first, err := store.Open(folder)
	require.NoError(t, err)
	_, err = store.Open(folder)
	require.ErrorContains(t, err, "is starting or stopping", "what the dead one said is true no more")
	_, _, err = store.Restore(folder, now)
	require.ErrorAs(t, err, &held)
	require.NoError(t, first.Close())
	require.NoFileExists(t, filepath.Join(folder, "jettyfog.owner"))
	again, err := store.Open(folder)
	require.NoError(t, err)
	require.NoError(t, again.Close())
}

// connect opens the database of a folder beside the program.
func connect(t *testing.T, folder string) *gorm.DB {
	t.Helper()
	address := url.URL{Scheme: "file", Path: filepath.Join(folder, "jettyfog.db"), RawQuery: "_txlock=immediate"}
	db, err := gorm.Open(sqlite.Open(address.String()))
	require.NoError(t, err)
	t.Cleanup(func() { disconnect(t, db) })
	return db
}

func disconnect(t *testing.T, db *gorm.DB) {
	pool, err := db.DB()
	require.NoError(t, err)
	require.NoError(t, pool.Close())
}

// query runs a statement in the database of a folder that nobody has open.
func query(t *testing.T, folder, statement string) {
	t.Helper()
	db := connect(t, folder)
	require.NoError(t, db.Exec(statement).Error)
	disconnect(t, db)
}

// A database of a newer program is refused, and stays byte for byte as it is.
func TestANewerDatabaseIsLeftUntouched(t *testing.T) {
	folder := t.TempDir()
	first, err := store.Open(folder)
	require.NoError(t, err)
	require.NoError(t, first.Close())
	query(t, folder, `INSERT INTO migrations (id) VALUES ('99')`)
	before, err := os.ReadFile(filepath.Join(folder, "jettyfog.db"))
	require.NoError(t, err)
	_, err = store.Open(folder)
	var newer *store.NewerError
	require.ErrorAs(t, err, &newer)
	require.Equal(t, 99, newer.Version)
	require.ErrorContains(t, err, "nothing was changed; use the newer Jettyfog")
	after, err := os.ReadFile(filepath.Join(folder, "jettyfog.db"))
	require.NoError(t, err)
	require.Equal(t, before, after)
	require.NoFileExists(t, filepath.Join(folder, "copies"))
}

// damage overwrites the middle of a file.
func damage(t *testing.T, file string) {
	t.Helper()
	data, err := os.ReadFile(file)
	require.NoError(t, err)
	for i := len(data) / 4; i < len(data)*3/4; i++ {
		data[i] = byte(i * 7)
	}
	require.NoError(t, os.WriteFile(file, data, 0o600))
}

// A damaged database is found at the start and left as it is; its latest copy that can be read is offered, and put
// in its place when that is asked for. Nothing is thrown away.
func TestADamagedDatabaseIsRestored(t *testing.T) {
	folder := t.TempDir()
	s, err := store.Open(folder)
	require.NoError(t, err)
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	_, err = s.AddTakes(ctx, []*take.Take{take.Render(testkit.Buoy(), 40)}, 1)
	require.NoError(t, err)
	require.NoError(t, s.CopyToday(now))
	require.NoError(t, s.CopyToday(now.AddDate(0, 0, 1)))
	document.Revision = 50
	require.NoError(t, s.SaveMove(ctx, document))
	require.NoError(t, s.Close())
	_, _, err = store.Restore(folder, now)
	require.ErrorContains(t, err, "is not damaged, so nothing was changed")

	file := filepath.Join(folder, "jettyfog.db")
	damage(t, file)
	broken, err := os.ReadFile(file)
	require.NoError(t, err)
	var damaged *store.DamagedError
	_, err = store.Open(folder)
	require.ErrorAs(t, err, &damaged)
	require.ErrorContains(t, err, "start with --restore to put its latest copy in its place, jettyfog-2026-11-27.db")
	damage(t, filepath.Join(folder, "copies", "jettyfog-2026-11-27.db"))
	restored, aside, err := store.Restore(folder, now)
	require.NoError(t, err)
	require.Equal(t, "jettyfog-2026-11-26.db", filepath.Base(restored), "a damaged copy is passed over")
	kept, err := os.ReadFile(aside)
	require.NoError(t, err)
	require.Equal(t, broken, kept)

	again := open(t, folder)
	document, err = again.OpenDocument(ctx, score.Blank())
	require.NoError(t, err)
	require.Equal(t, int64(1), document.Revision)
	takes, err := again.Takes(ctx)
	require.NoError(t, err)
	require.Len(t, takes, 1)
}

// What is no database at all is damaged too, and without a copy there is nothing to be put in its place.
func TestADamagedDatabaseWithoutACopy(t *testing.T) {
	folder := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(folder, "jettyfog.db"), []byte(strings.Repeat("fog ", 2000)), 0o600))
	_, err := store.Open(folder)
	var damaged *store.DamagedError
	require.ErrorAs(t, err, &damaged)
	require.ErrorContains(t, err, "there is no copy; it is left as it is")
	_, _, err = store.Restore(folder, now)
	require.ErrorAs(t, err, &damaged)
}

// A day has one copy, and the latest seven stay.
func TestCopiesAreKeptForAWeek(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	for day := range 10 {
		require.NoError(t, s.CopyToday(now.AddDate(0, 0, day)))
		require.NoError(t, s.CopyToday(now.AddDate(0, 0, day)))
	}
	copies, err := os.ReadDir(filepath.Join(folder, "copies"))
	require.NoError(t, err)
	require.Len(t, copies, 7)
	require.Equal(t, "jettyfog-2026-11-29.db", copies[0].Name())
	require.Equal(t, "jettyfog-2026-12-05.db", copies[6].Name())
}

// A folder that is moved away or deleted while it is used: nothing is acknowledged any more, it is said what to do,
// and when it is put back all goes on.
func TestTheFolderGoes(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	s := open(t, folder)
	document, err := s.OpenDocument(ctx, testkit.Buoy())
	require.NoError(t, err)
	require.NoError(t, os.Rename(folder, folder+" elsewhere"))
	document.Revision = 2
	requireProblem(t, health.Gone, s.SaveMove(ctx, document))
	_, err = s.Wake().CreateTake(ctx, take.Of(testkit.Buoy(), ""), 1)
	requireProblem(t, health.Gone, err)
	requireProblem(t, health.Gone, s.Problem())
	_, err = s.Revision(ctx)
	requireProblem(t, health.Gone, err)

	require.NoError(t, os.Mkdir(folder, 0o700))
	require.NoError(t, os.WriteFile(filepath.Join(folder, "jettyfog.db"), nil, 0o600))
	requireProblem(t, health.Gone, s.SaveMove(ctx, document))
	require.NoError(t, os.RemoveAll(folder))
	require.NoError(t, os.Rename(folder+" elsewhere", folder))
	s.Look()
	require.NoError(t, s.Problem())
	revision, err := s.Revision(ctx)
	require.NoError(t, err)
	require.Equal(t, int64(1), revision, "what was refused was not written")
	require.NoError(t, s.SaveMove(ctx, document))
}

func requireProblem(t *testing.T, kind health.Kind, err error) {
	t.Helper()
	var problem *health.Problem
	require.ErrorAs(t, err, &problem)
	require.Equal(t, kind, problem.Kind, problem.Cause)
	require.NotEmpty(t, problem.Sentence)
}
