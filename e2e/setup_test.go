package e2e

import (
	"bufio"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"syscall"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
)

// patience is how long anything may take before a test gives up; a busy machine needs some.
const patience = 40 * time.Second

// journey is how long a whole journey through the interface may take, beside others and on a busy machine.
const journey = 5 * time.Minute

var browser *rod.Browser

func TestMain(m *testing.M) {
	os.Exit(func() int {
		folder, err := os.MkdirTemp("", "jettyfog-chromium")
		if err != nil {
			panic(err)
		}
		defer os.RemoveAll(folder)
		path, found := launcher.LookPath()
		if !found {
			panic("there is no Chromium; `make test` installs it")
		}
		chromium := launcher.New().Bin(path).Headless(true).NoSandbox(true).UserDataDir(folder).
			Set("disable-gpu").Set("disable-quic").Set("disable-component-update").Set("disable-sync").
			Set("disable-background-networking").Set("no-first-run").
			Set("autoplay-policy", "no-user-gesture-required").
			Set("force-color-profile", "srgb").Set("window-size", "1280,800")
		defer chromium.Cleanup()
		browser = rod.New().ControlURL(chromium.MustLaunch()).MustConnect()
		defer browser.MustClose()
		return m.Run()
	}())
}

// app is a running Jettyfog with a data folder of its own.
type app struct {
	t       testing.TB
	data    string
	url     string
	process *exec.Cmd
}

func start(t testing.TB, data string, flags ...string) *app {
	t.Helper()
	binary, err := filepath.Abs("../bin/jettyfog")
	require.NoError(t, err)
	command := exec.Command(binary, append([]string{"demo", "--addr", "127.0.0.1:0", "--data", data}, flags...)...)
	command.Stderr = os.Stderr
	output, err := command.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, command.Start(), "`make e2e` builds the program first")
	line, err := bufio.NewReader(output).ReadString('\n')
	require.NoError(t, err)
	url := regexp.MustCompile(`http://\S+`).FindString(line)
	require.NotEmpty(t, url, line)
	a := &app{t: t, data: data, url: url, process: command}
	t.Cleanup(a.stop)
	return a
}

// stop ends the program as Ctrl+C does; it must go without an error.
func (a *app) stop() {
	if a.process == nil {
		return
	}
	require.NoError(a.t, a.process.Process.Signal(syscall.SIGTERM))
	require.NoError(a.t, a.process.Wait())
	a.process = nil
}

// kill ends the program at once, as a power cut does.
func (a *app) kill() {
	require.NoError(a.t, a.process.Process.Kill())
	_ = a.process.Wait() // always an error: it was killed
	a.process = nil
}

// page is a tab with the app in it.
type page struct {
	*rod.Page
	t       testing.TB
	profile *rod.Browser
}

// open opens the app in a browser profile of its own. The test fails on any exception in the page, and if the page asks for
// something that is not there.
// Scripts are run before those of the page.
func (a *app) open(address string, width, height int, scripts ...string) *page {
	a.t.Helper()
	profile := browser.MustIncognito()
	tab := profile.MustPage().Timeout(journey)
	for _, script := range scripts {
		tab.MustEvalOnNewDocument(script)
	}
	tab.MustSetViewport(width, height, 1, false)
	var exceptions []string
	listening, stop := tab.WithCancel()
	go listening.EachEvent(func(e *proto.RuntimeExceptionThrown) {
		exceptions = append(exceptions, e.ExceptionDetails.Text+" "+e.ExceptionDetails.Exception.Description)
	}, func(e *proto.NetworkResponseReceived) {
		if e.Response.Status == http.StatusNotFound {
			exceptions = append(exceptions, e.Response.URL+" is not there")
		}
	})()
	a.t.Cleanup(func() {
		stop()
		profile.MustClose()
		require.Empty(a.t, exceptions)
	})
	tab.MustNavigate(a.url + address).MustActivate()
	p := &page{Page: tab, t: a.t, profile: profile}
	p.MustElement("[role=slider], main h1")
	p.waitConnected()
	return p
}

func (p *page) waitConnected() {
	p.waitFor(`() => document.querySelector("[role=status]").textContent.includes("built-in sound")`)
}

// waitFor waits until a script returns something true.
func (p *page) waitFor(script string, args ...any) {
	p.t.Helper()
	require.NoError(p.t, p.Wait(rod.Eval("(...args) => Boolean(("+script+")(...args))", args...)), script)
}

// waitForBar waits until playing has come to a bar, counted from 1.
func (p *page) waitForBar(bar int) {
	p.t.Helper()
	p.waitFor(`bar => parseInt(document.querySelector("[data-position]").textContent) >= bar`, bar)
}

// lane returns the strip of a lane.
func (p *page) lane(name string) *rod.Element {
	return p.MustElement(fmt.Sprintf("[data-lane=%s] [role=slider]", name))
}

// point moves the mouse to a step of the first loop that a lane shows and to a share of its height,
// 0 at the top. It counts on 48 steps of a 16th to be on screen.
func (p *page) point(lane string, step int, share float64) {
	p.t.Helper()
	box := p.lane(lane).MustShape().Box()
	const steps = 48
	x := box.X + (float64(step)+0.5)*box.Width/steps
	p.Mouse.MustMoveTo(x, box.Y+share*box.Height)
}

// field returns the number field with a label.
func (p *page) field(label string) *rod.Element {
	return p.MustElement(fmt.Sprintf("input[aria-label=%q]", label))
}

// enter types a value into a number field.
func (p *page) enter(label, value string) {
	p.field(label).MustSelectAllText().MustInput(value).MustType(input.Enter)
}

// picture takes a screenshot once nothing moves any more.
func (p *page) picture(path string) {
	p.waitFor(`() => document.getAnimations().every(a => a.playState !== "running")`)
	require.NoError(p.t, os.WriteFile(path, p.MustScreenshot(), 0o644))
}

// project asks the server for the project.
func (a *app) project() *score.Project {
	a.t.Helper()
	project, err := score.Decode(a.download("/api/project.json"))
	require.NoError(a.t, err)
	return project
}

// waitFor waits until what is stored satisfies a condition.
func (a *app) waitFor(condition func(*score.Project) bool) {
	a.t.Helper()
	require.Eventually(a.t, func() bool { return condition(a.project()) }, patience, 20*time.Millisecond)
}

// download fetches a file as the browser would.
func (a *app) download(path string) []byte {
	a.t.Helper()
	response, err := http.Get(a.url + path)
	require.NoError(a.t, err)
	defer response.Body.Close()
	require.Equal(a.t, http.StatusOK, response.StatusCode, path)
	data, err := io.ReadAll(response.Body)
	require.NoError(a.t, err)
	return data
}

// download presses what gives a file, and returns the file. Only the page's own is waited for: what other journeys
// fetch at the same time is told to the whole browser.
func (p *page) download(press *rod.Element) []byte {
	p.t.Helper()
	folder := p.t.TempDir()
	require.NoError(p.t, proto.BrowserSetDownloadBehavior{
		Behavior:         proto.BrowserSetDownloadBehaviorBehaviorAllowAndName,
		BrowserContextID: p.profile.BrowserContextID,
		DownloadPath:     folder,
	}.Call(p.profile))
	var file string
	wait := p.EachEvent(func(e *proto.PageDownloadWillBegin) {
		file = e.GUID
	}, func(e *proto.PageDownloadProgress) bool {
		return e.GUID == file && e.State == proto.PageDownloadProgressStateCompleted
	})
	press.MustClick()
	wait()
	data, err := os.ReadFile(filepath.Join(folder, file))
	require.NoError(p.t, err)
	return data
}
