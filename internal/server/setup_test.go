package server_test

import (
	"context"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"testing/fstest"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/score"
	"jettyfog/internal/core/testkit"
	"jettyfog/internal/device"
	"jettyfog/internal/health"
	"jettyfog/internal/input"
	"jettyfog/internal/live"
	"jettyfog/internal/memory"
	"jettyfog/internal/osc"
	"jettyfog/internal/server"
	"jettyfog/internal/shelf"
	"jettyfog/internal/studio"
	"jettyfog/internal/voltages"
)

const patience = 30 * time.Second

// house is a whole server on a store of its own.
type house struct {
	t       *testing.T
	url     string
	host    string
	studio  *studio.Studio
	kept    *memory.Store
	board   *health.Board
	devices *workshop
	omitted *atomic.Int64 // notes that were not heard because this machine was too busy
}

func start(t *testing.T) *house { return startLimited(t, server.Limits{}) }

// impatient limits are only for tests of the limits themselves: on a slow machine anything else would meet them too.
var impatient = server.Limits{Body: 300 * time.Millisecond, Write: 300 * time.Millisecond}

func startLimited(t *testing.T, limits server.Limits) *house {
	t.Helper()
	kept := memory.New(testkit.Buoy())
	opened, err := studio.New(t.Context(), kept, kept.Opened())
	require.NoError(t, err)

	var handler *server.Server
	board := health.NewBoard(slog.New(slog.DiscardHandler))
	recorder := live.NewRecorder(kept, live.Reports{
		Finished: func() { handler.TakesChanged() },
		Problem:  func(problem error) { board.Report(health.Recording, problem) },
	})
	journal := memory.New(testkit.Buoy())
	journal.KeepIn(kept)
	wake := live.NewRecorder(journal, live.Reports{})
	omitted := &atomic.Int64{}
	transport := live.New(testkit.Buoy(), live.Options{
		Omitted: func(o live.Omission) { omitted.Add(int64(o.Late)) },
		Notice:  func(text string) { handler.Notice(text) }, Keep: func(bars int) { go handler.Keep(bars) }, Heard: func(in live.Incoming) { handler.Heard(in) },
	}, recorder, wake)
	listener := httptest.NewUnstartedServer(nil)
	host := listener.Listener.Addr().String()
	devices := newWorkshop()
	rack := device.NewRack(device.Options{
		List: devices.list, Open: devices.open, Clock: device.NewClock(transport.Now), Connect: transport.Connect, Disconnect: transport.Disconnect,
		Held:    func(id int64) bool { held, _ := kept.Held(t.Context(), id); return held },
		Changed: func(device.State) { handler.DevicesChanged() }, Notice: func(text string) { handler.Notice(text) },
	}, nil)
	transport.ListenOutputs(rack.SetOutputs)
	keeper := voltages.NewKeeper(voltages.Options{
		Now: transport.Now, Connect: transport.Connect, Disconnect: transport.Disconnect,
		Held: func(id int64) bool { held, _ := kept.Held(t.Context(), id); return held },
		Show: func(shown voltages.Shown) { handler.ShowVoltages(shown) },
	})
	transport.ListenOutputs(keeper.SetOutputs)
	programs := osc.NewKeeper(osc.Options{
		Now: transport.Now, Connect: transport.Connect, Disconnect: transport.Disconnect, Changed: func() { handler.DevicesChanged() },
		Held: func(id int64) bool { held, _ := kept.Held(t.Context(), id); return held },
	}, map[string]string{})
	transport.ListenOutputs(programs.SetOutputs)
	clock := input.NewSimulated(transport.Now, func() { handler.InputsChanged() })
	inputs := input.NewKeeper(input.Options{
		List: devices.listSending, Open: devices.openFeed, StandIns: []device.Device{clock.Device()}, StandIn: clock.Open, Now: transport.Now,
		Held: func(id int64) bool { held, _ := kept.Held(t.Context(), id); return held },
		Hear: func(id int, m midi.Message, at int64) error {
			return transport.Hear(live.Incoming{Source: live.Source{Kind: score.DeviceInput, ID: id}, Message: m, At: at})
		},
		Gone:    func(id int) { transport.Gone(live.Source{Kind: score.DeviceInput, ID: id}) },
		Changed: func() { handler.InputsChanged() }, Notice: func(text string) { handler.Notice(text) },
	}, nil)
	transport.ListenInputs(inputs.SetInputs)
	handler = server.New(server.Options{
		Inputs: inputs, Clock: clock,
		Studio: opened, Transport: transport, Takes: shelf.New(kept), Wake: journal, Machine: kept, Presets: kept, SetLists: kept, Rack: rack, Voltages: keeper, OSC: programs, Hosts: []string{host},
		Health: board, Log: slog.New(slog.DiscardHandler), Limits: limits,
		Page: fstest.MapFS{"index.html": {Data: []byte("<title>Jettyfog</title>")}, "assets/a.js": {Data: []byte("1")}},
	})
	listener.Config.Handler = handler
	listener.Start()

	ctx, stop := context.WithCancel(context.Background())
	var running sync.WaitGroup
	running.Go(func() { transport.Run(ctx) })
	running.Go(func() { rack.Run(ctx) })
	running.Go(func() { keeper.Run(ctx) })
	running.Go(func() { programs.Run(ctx) })
	running.Go(func() { inputs.Run(ctx) })
	running.Go(func() { recorder.Run(ctx) })
	running.Go(func() { wake.Run(ctx) })
	t.Cleanup(func() {
		handler.Close()
		listener.Close()
		stop()
		running.Wait()
	})
	return &house{t: t, url: listener.URL, host: host, studio: opened, kept: kept, board: board, devices: devices, omitted: omitted}
}

// answer is a response that has been read.
type answer struct {
	status int
	header http.Header
	body   string
}

func (h *house) do(method, path, body string, headers ...string) answer {
	h.t.Helper()
	request, err := http.NewRequestWithContext(h.t.Context(), method, h.url+path, strings.NewReader(body))
	require.NoError(h.t, err)
	if method == http.MethodPost {
		request.Header.Set("Content-Type", "application/json")
	}
	for i := 0; i < len(headers); i += 2 {
		if headers[i] == "Host" {
			request.Host = headers[i+1]
		}
		request.Header.Set(headers[i], headers[i+1])
	}
	response, err := http.DefaultClient.Do(request)
	require.NoError(h.t, err)
	defer response.Body.Close()
	read, err := io.ReadAll(response.Body)
	require.NoError(h.t, err)
	return answer{response.StatusCode, response.Header, string(read)}
}

// socket is a page's side of the WebSocket.
type socket struct {
	t *testing.T
	*websocket.Conn
	greeting []server.Message // what a page is told that connects, as far as next has not given it yet
}

// in sends the page's side of a message that comes in there.
func (s *socket) in(input string) {
	s.t.Helper()
	require.NoError(s.t, s.Write(s.t.Context(), websocket.MessageText, []byte(`{"sent":0,"input":`+input+`}`)))
}

// connect opens a page that has been told all that there was to know.
func (h *house) connect() *socket {
	h.t.Helper()
	connection, _, err := websocket.Dial(h.t.Context(), h.url+"/ws", nil)
	require.NoError(h.t, err)
	connection.SetReadLimit(1 << 20)
	h.t.Cleanup(func() { _ = connection.CloseNow() })
	page := &socket{t: h.t, Conn: connection}
	for greeting := []server.Message(nil); page.greeting == nil; {
		message := page.next(func(server.Message) bool { return true })
		greeting = append(greeting, message)
		if message.Problems != nil { // the last of all
			page.greeting = greeting
		}
	}
	return page
}

// next returns the next message for which want is true.
func (s *socket) next(want func(server.Message) bool) server.Message {
	s.t.Helper()
	ctx, cancel := context.WithTimeout(s.t.Context(), patience)
	defer cancel()
	for len(s.greeting) > 0 {
		message := s.greeting[0]
		s.greeting = s.greeting[1:]
		if want(message) {
			return message
		}
	}
	for {
		_, data, err := s.Read(ctx)
		require.NoError(s.t, err)
		var message server.Message
		require.NoError(s.t, json.Unmarshal(data, &message))
		if want(message) {
			return message
		}
	}
}
