package server_test

import (
	"encoding/binary"
	"fmt"
	"math"
	"net"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/server"
)

const toTheModular = `{"revision":1,"edit":{"all":{"name":"way","edits":[{"setProject":{"outputs":[{"id":1,"name":"Modular","kind":"voltages","voltages":{"fullScale":10000,` +
	`"channels":[{"channel":3,"signal":"pitch","track":1,"voice":1,"zero":60,"lowest":-5000,"highest":5000},{"channel":4,"signal":"gate","track":1,"voice":1,"lowest":0,"highest":5000,"height":5000}]}}]}},` +
	`{"setTrack":{"track":1,"routes":[{"output":1,"lowest":0,"highest":127,"softest":1,"loudest":127}]}}]}}}`

// joined returns a page that has been greeted, so that it is told all that is told to pages from then on.
func (h *house) joined() *socket {
	page := h.connect()
	page.next(func(m server.Message) bool { return m.Problems != nil })
	return page
}

// volts waits until a channel is shown to stay at a voltage.
func (s *socket) volts(channel int, volts float64) {
	s.next(func(m server.Message) bool {
		if m.Batch == nil {
			return false
		}
		for _, v := range m.Batch.Voltages {
			for _, line := range v.Lines {
				if line.Channel == channel && line.Segments[len(line.Segments)-1].End == volts {
					return true
				}
			}
		}
		return false
	})
}

// gated waits until a gate is shown to rise.
func (s *socket) gated() {
	s.next(func(m server.Message) bool {
		if m.Batch == nil {
			return false
		}
		for _, v := range m.Batch.Voltages {
			for _, line := range v.Lines {
				for _, segment := range line.Segments {
					if line.Channel == 4 && segment.End == 5 && v.Playing {
						return true
					}
				}
			}
		}
		return false
	})
}

// Pages are shown voltages while something plays, also when the setup is changed meanwhile, and rest once it stops; a page that comes later
// is shown what there is.
func TestPagesAreShownVoltages(t *testing.T) {
	h := start(t)
	page := h.joined()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", toTheModular).status)
	page.volts(4, 0)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/transport", `{"do":"play"}`).status)
	page.gated()
	change := `{"revision":2,"edit":{"setProject":{"outputs":[{"id":1,"name":"Modular","kind":"voltages","voltages":{"fullScale":10000,"channels":[` +
		`{"channel":4,"signal":"gate","track":1,"voice":1,"lowest":0,"highest":8000,"height":5000,"gap":30}]}}]}}}`
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", change).status)
	page.gated()
	later := h.joined()
	later.gated()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/transport", `{"do":"stop"}`).status)
	page.volts(4, 0)
	last := h.joined()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/voltages/show", `{}`).status)
	last.volts(4, 0)
}

func TestTestVoltagesAndCalibrations(t *testing.T) {
	h := start(t)
	page := h.joined()
	test := func(body string) answer { return h.do(http.MethodPost, "/api/voltages/test", body) }
	calibrate := func(channel int, readings string) answer {
		return h.do(http.MethodPost, "/api/voltages/calibrate", fmt.Sprintf(`{"output":1,"channel":%d,"interface":"Quay interface","readings":%s}`, channel, readings))
	}
	refused := func(a answer, status int, words string) {
		t.Helper()
		require.Equal(t, status, a.status, a.body)
		require.Contains(t, a.body, words)
	}
	refused(test(`{"output":1,"channel":3,"millivolts":1000}`), http.StatusConflict, "not marked as one that carries voltages")
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", toTheModular).status)
	page.volts(4, 0)
	require.Equal(t, http.StatusOK, test(`{"output":1,"channel":3,"millivolts":-2500}`).status)
	page.volts(3, -2.5)
	require.Equal(t, http.StatusOK, test(`{"output":1,"channel":3}`).status)
	page.volts(3, 0)
	refused(test(`{"output":1,"channel":5,"millivolts":0}`), http.StatusConflict, "not marked")
	refused(test(`{"output":1,"channel":3,"millivolts":10001}`), http.StatusUnprocessableEntity, "beyond the full scale")

	const good = `[{"asked":0,"read":100},{"asked":10000,"read":9900}]`
	require.Equal(t, http.StatusOK, calibrate(3, good).status)
	page.next(func(m server.Message) bool {
		return m.Calibrations != nil && len(m.Calibrations.Calibrations) == 1 && len(m.Calibrations.Calibrations[0].Calibration) == 2
	})
	refused(calibrate(5, good), http.StatusConflict, "not marked")
	refused(calibrate(3, `[{"asked":0,"read":0}]`), http.StatusUnprocessableEntity, "nothing was kept: a calibration is of 2 to 24 readings, not of 1")
	h.kept.Fail(true)
	require.GreaterOrEqual(t, calibrate(3, `[]`).status, 500)
	h.kept.Fail(false)
	require.Equal(t, http.StatusOK, calibrate(3, `[]`).status)
	page.next(func(m server.Message) bool { return m.Calibrations != nil && len(m.Calibrations.Calibrations) == 0 })
}

// An output that is a program is bound to an address, which must be one, and is tried by a test note.
func TestAProgramIsBound(t *testing.T) {
	h := start(t)
	page := h.joined()
	edit := `{"revision":1,"edit":{"setProject":{"outputs":[{"id":5,"name":"Lantern","kind":"osc"}]}}}`
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", edit).status)
	page.state("no address is given")
	require.Equal(t, http.StatusConflict, h.do(http.MethodPost, "/api/devices/test", `{"output":5,"channel":1}`).status)
	refused := h.do(http.MethodPost, "/api/devices/bind", `{"output":"Lantern","device":"example.org:9000"}`)
	require.Equal(t, http.StatusUnprocessableEntity, refused.status)
	require.Contains(t, refused.body, "write an IP address and a port, as 127.0.0.1:9000")
	program, err := net.ListenUDP("udp", &net.UDPAddr{IP: net.IPv4(127, 0, 0, 1)})
	require.NoError(t, err)
	defer program.Close()
	address := program.LocalAddr().String()
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/bind", `{"output":"Lantern","device":"`+address+`"}`).status)
	page.state("sends to " + address)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/devices/test", `{"output":5,"channel":1}`).status)
	require.NoError(t, program.SetReadDeadline(time.Now().Add(patience)))
	packet := make([]byte, 2000)
	n, err := program.Read(packet)
	require.NoError(t, err)
	require.Contains(t, string(packet[:n]), "/track/0/note")
}

// The .wav of a take is as it was asked for: uncorrected, or corrected by what was read of an interface.
func TestCorrectedFile(t *testing.T) {
	h := start(t)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/edits", toTheModular).status)
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/takes/render", `{"from":1,"bars":1}`).status)
	const readings = `[{"asked":0,"read":1000},{"asked":10000,"read":11000}]` // 0.1 V too high
	body := `{"output":1,"channel":4,"interface":"Quay interface","readings":` + readings + `}`
	require.Equal(t, http.StatusOK, h.do(http.MethodPost, "/api/voltages/calibrate", body).status)
	highest := func(query string) float64 {
		file := h.do(http.MethodGet, "/api/takes/1/voltages.wav?output=1"+query, "")
		require.Equal(t, http.StatusOK, file.status)
		data, most := []byte(file.body), float32(-10)
		for at := 58 + 4; at+4 <= len(data); at += 8 { // behind the header, the second of two channels
			most = max(most, math.Float32frombits(binary.LittleEndian.Uint32(data[at:])))
		}
		return float64(most) * 10
	}
	require.InDelta(t, 5, highest(""), 1e-5)
	require.InDelta(t, 4.9, highest("&interface=Quay%20interface"), 1e-5)
	require.InDelta(t, 5, highest("&interface=Pier%20interface"), 1e-5)
}
