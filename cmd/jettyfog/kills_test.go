package main

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/glebarez/sqlite"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"jettyfog/internal/core/score"
	"jettyfog/internal/core/smf"
	"jettyfog/internal/core/take"
	"jettyfog/internal/server"
)

// asProgram has this binary be the program instead of its tests.
const asProgram = "JETTYFOG_AS_PROGRAM"

func TestMain(m *testing.M) {
	if os.Getenv(asProgram) != "" {
		os.Exit(run(context.Background(), os.Args[1:], os.Stdout, os.Stderr))
	}
	os.Exit(m.Run())
}

// The whole program is killed fifty times (five in a short run) at any moment while it records, takes edits, imports, corrects takes and
// keeps pieces of the wake, all at once. Whatever was acknowledged is there at the next start, of what was heard at
// most the last second is missing, and the database is sound.
func TestKillsOfTheWholeProgram(t *testing.T) {
	kills := 50
	if testing.Short() {
		kills = 5
	}
	folder := t.TempDir()
	k := &killed{t: t, takes: map[int64]take.Summary{}}
	file, err := smf.FromTake(take.Render(score.Demo(), 2), smf.Options{Format: 1, Division: smf.DefaultDivision})
	require.NoError(t, err)
	if k.midi, err = smf.Encode(file); err != nil {
		t.Fatal(err)
	}
	var starts, losses []time.Duration
	for round := range kills {
		began := time.Now()
		k.start(folder)
		starts = append(starts, time.Since(began))
		k.requireKept(round)
		losses = append(losses, k.loss)
		k.work(time.Duration(150+round*37%1100) * time.Millisecond)
	}
	k.start(folder)
	k.requireKept(kills)
	require.NoError(t, k.process.Process.Kill())
	_ = k.process.Wait() // always an error: it was killed
	requireSound(t, folder)
	slices.Sort(starts)
	slices.Sort(losses)
	t.Logf("%d kills: starts took %v (median) to %v, of what was heard the last %v (median) to %v were missing; acknowledged: %d edits, %d takes",
		kills, starts[len(starts)/2], starts[len(starts)-1], losses[len(losses)/2], losses[len(losses)-1], k.luck, len(k.takes))
}

// killed is a program that is killed, and what it has acknowledged before.
type killed struct {
	t       *testing.T
	process *exec.Cmd
	url     string
	midi    []byte

	mu       sync.Mutex
	revision int64
	luck     int                    // of the last edit that was acknowledged; the next one has one more
	takes    map[int64]take.Summary // as they were acknowledged last
	sounds   []server.WireSound     // of the last start, note-ons
	now      int64                  // on the program's clock, shortly before it was killed
	loss     time.Duration          // how much of what was heard before then is missing
}

func (k *killed) start(folder string) {
	k.process = exec.Command(os.Args[0], "demo", "--addr", "127.0.0.1:0", "--data", folder)
	k.process.Env = append(os.Environ(), asProgram+"=1")
	k.process.Stderr = os.Stderr
	output, err := k.process.StdoutPipe()
	require.NoError(k.t, err)
	require.NoError(k.t, k.process.Start())
	line, err := bufio.NewReader(output).ReadString('\n')
	require.NoError(k.t, err)
	k.url = strings.Fields(line)[3]
}

// send asks for something; false says that it was not answered with success.
func (k *killed) send(method, path, kind, body string, into any) bool {
	request, err := http.NewRequest(method, k.url+path, strings.NewReader(body))
	require.NoError(k.t, err)
	request.Header.Set("Content-Type", kind)
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return false
	}
	defer response.Body.Close()
	data, err := io.ReadAll(response.Body)
	return err == nil && response.StatusCode == http.StatusOK && json.Unmarshal(data, into) == nil
}

func (k *killed) post(path, body string, into any) bool {
	return k.send(http.MethodPost, path, "application/json", body, into)
}

// work has the program do everything at once for a time, and kills it.
func (k *killed) work(lasts time.Duration) {
	ctx, cancel := context.WithCancel(k.t.Context())
	var working sync.WaitGroup
	socket, _, err := websocket.Dial(ctx, k.url+"/ws", nil)
	require.NoError(k.t, err)
	socket.SetReadLimit(1 << 24)
	k.sounds, k.now = nil, 0
	working.Go(func() { k.listen(ctx, socket) })
	var ignored any
	require.True(k.t, k.post("/api/transport", `{"do":"record"}`, &ignored))
	for _, do := range []func(){k.edit, k.bring, k.correct, k.keep} {
		working.Go(func() {
			pace := time.NewTicker(20 * time.Millisecond)
			defer pace.Stop()
			for ctx.Err() == nil {
				<-pace.C
				do()
			}
		})
	}
	timer := time.NewTimer(lasts)
	<-timer.C
	require.NoError(k.t, k.process.Process.Kill())
	_ = k.process.Wait() // always an error: it was killed
	cancel()
	working.Wait()
}

// listen notes what sounds, and what time it is.
func (k *killed) listen(ctx context.Context, socket *websocket.Conn) {
	defer socket.CloseNow()
	for {
		if socket.Write(ctx, websocket.MessageText, []byte(`{"sent":0}`)) != nil {
			return
		}
		for answered := false; !answered; {
			_, data, err := socket.Read(ctx)
			if err != nil {
				return
			}
			var m server.Message
			require.NoError(k.t, json.Unmarshal(data, &m))
			if m.Batch != nil {
				for _, s := range m.Batch.Sounds {
					if s.Velocity > 0 {
						k.sounds = append(k.sounds, s)
					}
				}
			}
			if answered = m.Clock != nil; answered {
				k.now = m.Clock.Server
			}
		}
	}
}

func (k *killed) edit() {
	var state struct{ Revision int64 }
	if k.post("/api/edits", fmt.Sprintf(`{"revision":%d,"edit":{"changeLuck":{"number":%d}}}`, k.revision, k.luck+1), &state) {
		k.revision, k.luck = state.Revision, k.luck+1
	}
}

func (k *killed) bring() {
	var imported server.Imported
	if k.send(http.MethodPost, "/api/takes?name=Ferry", "audio/midi", string(k.midi), &imported) {
		k.mu.Lock()
		defer k.mu.Unlock()
		k.takes[imported.ID] = take.Summary{ID: imported.ID, Notes: imported.Notes}
	}
}

// correct moves the notes of a take.
func (k *killed) correct() {
	k.mu.Lock()
	var chosen take.Summary
	for _, chosen = range k.takes {
		break
	}
	k.mu.Unlock()
	var changed take.Summary
	body := fmt.Sprintf(`{"version":%d,"edit":{"moveNotes":{"ticks":100,"semitones":0}}}`, chosen.Version)
	if chosen.ID != 0 && k.post(fmt.Sprintf("/api/takes/%d/edits", chosen.ID), body, &changed) {
		k.mu.Lock()
		defer k.mu.Unlock()
		k.takes[changed.ID] = changed
	}
}

func (k *killed) keep() {
	var kept server.Imported
	if k.post("/api/wake", `{"bars":1}`, &kept) {
		k.mu.Lock()
		defer k.mu.Unlock()
		k.takes[kept.ID] = take.Summary{ID: kept.ID, Notes: kept.Notes}
	}
}

// requireKept looks for all that was acknowledged, and for what was heard.
func (k *killed) requireKept(round int) {
	t := k.t
	project, takes := k.greeting()
	require.Contains(t, []int{k.luck, k.luck + 1}, luckOf(project))
	k.luck, k.revision = luckOf(project), project.Project.Revision
	found := map[int64]take.Summary{}
	for _, summary := range takes {
		found[summary.ID] = summary
	}
	for id, acknowledged := range k.takes {
		require.Contains(t, found, id)
		require.Equal(t, acknowledged.Notes, found[id].Notes)
		require.GreaterOrEqual(t, found[id].Version, acknowledged.Version)
		require.LessOrEqual(t, found[id].Version, acknowledged.Version+1, "one correction can be there that was not acknowledged")
		k.takes[id] = found[id]
	}
	if round == 0 {
		return
	}
	notes := k.wakeNotes()
	heard := 0
	for _, s := range k.sounds {
		if s.At <= k.now-time.Second.Nanoseconds() {
			heard++
		}
	}
	require.GreaterOrEqual(t, notes, heard)
	k.loss = 0
	if notes < len(k.sounds) {
		k.loss = max(0, time.Duration(k.now-k.sounds[notes].At))
	}
}

// luckOf returns the luck, which edits count from 1, or 0 before the first.
func luckOf(m server.Message) int {
	if luck := m.Project.Project.Luck.Number; luck != score.Demo().Luck.Number {
		return luck
	}
	return 0
}

// wakeNotes returns how many notes the last stretch of the wake has.
func (k *killed) wakeNotes() int {
	var view server.WakeView
	if !k.send(http.MethodGet, "/api/wake?bars=1", "", "", &view) {
		return 0
	}
	var kept server.Imported
	if !k.post("/api/wake", fmt.Sprintf(`{"stretch":%d,"from":0,"to":%d}`, view.Stretch, score.LastTick), &kept) {
		return 0
	}
	return kept.Notes
}

// greeting returns what a page is told first.
func (k *killed) greeting() (project server.Message, takes []take.Summary) {
	socket, _, err := websocket.Dial(k.t.Context(), k.url+"/ws", nil)
	require.NoError(k.t, err)
	defer socket.CloseNow()
	socket.SetReadLimit(1 << 24)
	for {
		_, data, err := socket.Read(k.t.Context())
		require.NoError(k.t, err)
		var m server.Message
		require.NoError(k.t, json.Unmarshal(data, &m))
		if m.Project != nil {
			project = m
		}
		if m.Takes != nil {
			return project, m.Takes.Takes
		}
	}
}

// requireSound looks at a database that nobody has open.
func requireSound(t *testing.T, folder string) {
	t.Helper()
	address := url.URL{Scheme: "file", Path: filepath.Join(folder, "jettyfog.db")}
	db, err := gorm.Open(sqlite.Open(address.String()))
	require.NoError(t, err)
	var sound string
	require.NoError(t, db.Raw("PRAGMA integrity_check").Scan(&sound).Error)
	require.Equal(t, "ok", sound)
	for _, query := range []string{
		`SELECT COUNT(*) FROM takes WHERE NOT finished`,
		`SELECT COUNT(*) FROM pieces WHERE take_id NOT IN (SELECT id FROM takes WHERE LENGTH(contents) = 0)`,
		`SELECT COUNT(*) FROM origins WHERE take_id NOT IN (SELECT id FROM takes)`,
		`SELECT COUNT(*) FROM take_edits WHERE take_id NOT IN (SELECT id FROM takes)`,
	} {
		var count int
		require.NoError(t, db.Raw(query).Scan(&count).Error)
		require.Zero(t, count, query)
	}
	pool, err := db.DB()
	require.NoError(t, err)
	require.NoError(t, pool.Close())
}
