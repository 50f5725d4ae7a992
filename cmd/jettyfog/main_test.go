package main

import (
	"bytes"
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	gosmf "gitlab.com/gomidi/midi/v2/smf"

	"jettyfog/internal/core/log"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/theory"
)

func jettyfog(args ...string) (code int, stdout, stderr string) {
	var out, errors bytes.Buffer
	code = run(context.Background(), args, &out, &errors)
	return code, out.String(), errors.String()
}

func TestBadUseIsOneLineAndStatus2(t *testing.T) {
	folder := t.TempDir()
	out := filepath.Join(folder, "out.mid")
	notAProject := filepath.Join(folder, "fog.json")
	require.NoError(t, os.WriteFile(notAProject, []byte("{}"), 0o600))
	for _, c := range []struct {
		args string
		want string
	}{
		{"", "expected one of"},
		{"dance", "unexpected argument dance"},
		{"render --demo --bars 4", "missing flags: --out"},
		{"render --bars 4 --out " + out, "missing flags: --log=FILE.json or --demo or --project"},
		{"render --demo --project x --bars 4 --out " + out, "can't be used together"},
		{"render --demo --bars 0 --out " + out, "--bars is 0; it must be 1 to 100000"},
		{"render --demo --bars four --out " + out, "--bars"},
		{"render --demo --bars 4 --luck 1000000 --out " + out, "--luck: luck.number is 1000000; it must be 0 to 999999"},
		{"render --demo --bars 4 --ppq 96 --out " + out, `--ppq must be one of "960","20160"`},
		{"render --project " + filepath.Join(folder, "none.json") + " --bars 4 --out " + out, "no such file"},
		{"render --project " + notAProject + " --bars 4 --out " + out, "not a project file"},
		{"render --demo --bars 4 --kbm x --out " + out, "name the tuning with --scl"},
		{"render --demo --bars 4 --scl " + notAProject + " --out " + out, "fog.json: the scale file ends"},
		{"tuning --demo", "missing flags: --scl"},
		{"serve --addr nowhere", "--addr nowhere"},
		{"serve --addr :7464", "would let other machines in, which this version does not do; use 127.0.0.1 or localhost"},
		{"serve --addr 0.0.0.0:0", "would let other machines in"},
		{"demo --addr [::]:0", "would let other machines in"},
		{"serve --addr 192.0.2.1:0", "would let other machines in"},
	} {
		code, stdout, stderr := jettyfog(strings.Fields(c.args)...)
		require.Equal(t, 2, code, c.args)
		require.Empty(t, stdout, c.args)
		require.Contains(t, stderr, c.want, c.args)
		require.Equal(t, 1, strings.Count(stderr, "\n"), stderr)
		require.NoFileExists(t, out)
	}
}

func TestHelpAndVersion(t *testing.T) {
	for _, args := range []string{"--help", "serve --help", "demo --help", "render --help", "tuning --help", "schema --help"} {
		code, stdout, stderr := jettyfog(strings.Fields(args)...)
		require.Zero(t, code)
		require.Contains(t, stdout, "Usage: jettyfog")
		require.Empty(t, stderr)
	}
	code, stdout, _ := jettyfog("--version")
	require.Zero(t, code)
	require.Equal(t, version+"\n", stdout)
	code, stdout, _ = jettyfog("schema")
	require.Zero(t, code)
	require.Contains(t, stdout, "Jettyfog project file")
}

// The demo rendered from its own file is the demo; the luck can be chosen; the same luck repeats.
func TestRender(t *testing.T) {
	folder := t.TempDir()
	file := filepath.Join(folder, "demo.json")
	data, err := score.Encode(score.Demo())
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(file, data, 0o600))
	render := func(name string, args ...string) []byte {
		out := filepath.Join(folder, name)
		code, stdout, stderr := jettyfog(append([]string{"render", "--bars", "8", "--out", out}, args...)...)
		require.Zero(t, code, stderr)
		require.Contains(t, stdout, "8 bars")
		written, err := os.ReadFile(out)
		require.NoError(t, err)
		return written
	}
	demo := render("a.mid", "--demo")
	require.Equal(t, demo, render("b.mid", "--project", file))
	require.Equal(t, demo, render("c.mid", "--demo", "--luck", "48213"))
	require.NotEqual(t, demo, render("d.mid", "--demo", "--luck", "7"))
	logFile := filepath.Join(folder, "log.json")
	writeLog := func(entries ...log.Entry) {
		data, err := log.Encode(&log.Log{Project: score.Demo(), Entries: entries}, score.Demo().Bars().Start(8))
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(logFile, data, 0o600))
	}
	renderLog := func(name string) []byte {
		out := filepath.Join(folder, name)
		code, _, stderr := jettyfog("render", "--log", logFile, "--out", out)
		require.Zero(t, code, stderr)
		written, err := os.ReadFile(out)
		require.NoError(t, err)
		return written
	}
	writeLog()
	require.Equal(t, demo, renderLog("log.mid"), "a log in which nothing happened plays what the project plays")
	song := score.Tick(0)
	writeLog(log.Entry{Tick: score.Demo().Bars().Start(4), Jump: &log.Jump{Song: song}})
	require.NotEqual(t, demo, renderLog("jump.mid"))
	code, _, stderr := jettyfog("render", "--log", logFile, "--bars", "8", "--out", filepath.Join(folder, "no.mid"))
	require.Equal(t, 2, code)
	require.Contains(t, stderr, "a log has its own end")
	exact, err := gosmf.ReadFrom(bytes.NewReader(render("e.mid", "--demo", "--ppq", "20160", "--format", "0")))
	require.NoError(t, err)
	require.Equal(t, gosmf.MetricTicks(20160), exact.TimeFormat)
	require.Len(t, exact.Tracks, 1)
}

// A tuning goes into files and comes back from them, and what is played in it is another music.
func TestTunings(t *testing.T) {
	folder := t.TempDir()
	in := func(name string) string { return filepath.Join(folder, name) }
	done := func(args ...string) {
		code, _, stderr := jettyfog(args...)
		require.Zero(t, code, stderr)
	}
	read := func(name string) string {
		data, err := os.ReadFile(in(name))
		require.NoError(t, err)
		return string(data)
	}
	five := " five equal notes\n 5\n 240.\n 480.\n 720.\n 960.\n 2/1\n"
	require.NoError(t, os.WriteFile(in("five.scl"), []byte(five), 0o600))
	done("tuning", "--demo", "--scl", in("twelve.scl"), "--kbm", in("twelve.kbm"))
	require.Contains(t, read("twelve.scl"), "12-tone equal temperament\n 12\n!\n 100.\n")
	require.Contains(t, read("twelve.kbm"), "261.625565\n")

	for name, args := range map[string][]string{
		"plain": nil, "twelve": {"--scl", in("twelve.scl"), "--kbm", in("twelve.kbm")}, "five": {"--scl", in("five.scl")},
	} {
		done(append([]string{"render", "--demo", "--bars", "8", "--out", in(name + ".mid")}, args...)...)
	}
	require.Equal(t, read("plain.mid"), read("twelve.mid"))
	require.NotEqual(t, read("plain.mid"), read("five.mid"))

	demo := score.Demo()
	p, _, err := score.Apply(demo, score.Retune(demo, &theory.Tuning{Name: "five equal notes", Pitches: []string{"240.", "480.", "720.", "960.", "2/1"}}))
	require.NoError(t, err)
	data, err := score.Encode(p)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(in("five.json"), data, 0o600))
	done("tuning", "--project", in("five.json"), "--scl", in("again.scl"))
	require.Equal(t, strings.ReplaceAll(five, " 5\n", " 5\n!\n"), strings.TrimPrefix(read("again.scl"), "! a scale of Jettyfog\n!\n"))
	done("render", "--project", in("five.json"), "--bars", "8", "--out", in("again.mid"))
	require.Equal(t, read("five.mid"), read("again.mid"))
}
