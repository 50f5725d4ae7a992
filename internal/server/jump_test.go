package server_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/server"
)

// A jump names its bar from 1; while nothing plays, playing begins there.
func TestAJumpGoesToItsBar(t *testing.T) {
	h := start(t)
	page := h.connect()
	got := h.do("POST", "/api/transport", `{"do":"jump","jump":{"to":3,"when":"now"}}`)
	require.Less(t, got.status, 300, got.body)
	status := page.next(func(m server.Message) bool { return m.Transport != nil && m.Transport.Playing }).Transport
	require.Equal(t, 2*h.studio.State().Project.Meter.Bar(), status.Tick)
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/transport", `{"do":"jump","jump":{"to":0,"when":"now"}}`).status)
}
