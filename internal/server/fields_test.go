package server_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"jettyfog/internal/core/score"
	"jettyfog/internal/server"
)

// A field is laid out anew and rolled, each as one step of undo; what is wrong is said and changes nothing.
func TestFieldsByRequests(t *testing.T) {
	h := start(t)
	page := h.connect()
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":1,"edit":{"addTrack":{"at":1,"kind":"field"}}}`).status)
	field := func() *score.Field { return h.studio.State().Project.Tracks[1].Parts()[0].Field }
	at := `"track":2,"pattern":0,"part":0`
	require.Equal(t, 2, h.studio.State().Project.Tracks[1].ID)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/fields", `{"revision":2,`+at+`,"do":"turn right"}`).status)
	require.NotNil(t, field().Cell(4, 0), "the row is a column")
	require.Equal(t, score.Direction(4), field().Travellers[0].Direction)
	require.Equal(t, []int{0, 7}, []int{field().RowNote(0), field().RowNote(7)}, "the notes of columns are those of rows")
	require.Equal(t, http.StatusOK, h.do("POST", "/api/undo", `{"revision":3}`).status)
	roll := func(revision, body string) answer {
		return h.do("POST", "/api/fields/roll", `{"revision":`+revision+`,`+at+`,`+body+`}`)
	}
	require.Equal(t, http.StatusOK, roll("4", `"do":"loops","luck":7,"density":50,"lowest":0,"highest":7,"loops":8,"length":64`).status)
	require.Equal(t, "8 loops found no room for their length: they are shorter or left out.", page.next(func(m server.Message) bool { return m.Notice != nil }).Notice.Text)
	before := *field()
	for body, want := range map[string]string{
		`"do":"spirals","luck":7,"density":50,"lowest":0,"highest":7,"loops":1,"length":4`: "notes, loops, tree or noise",
		`"do":"tree","luck":-1,"density":50,"lowest":0,"highest":7,"loops":1,"length":4`:   "luck",
		`"do":"tree","luck":1,"density":101,"lowest":0,"highest":7,"loops":1,"length":4`:   "density",
		`"do":"loops","luck":1,"density":1,"lowest":0,"highest":7,"loops":1,"length":1`:    "length",
	} {
		refused := roll("5", body)
		require.Equal(t, http.StatusUnprocessableEntity, refused.status)
		require.Contains(t, refused.body, want)
	}
	require.Equal(t, http.StatusUnprocessableEntity, h.do("POST", "/api/fields", `{"revision":5,`+at+`,"do":"fold"}`).status)
	require.Equal(t, http.StatusNotFound, h.do("POST", "/api/fields", `{"revision":5,"track":1,"pattern":0,"part":0,"do":"mirror"}`).status, "it has none")
	require.Equal(t, before, *field())
	// A layer that is recalled live is turned with the rest, as it is seen.
	require.Equal(t, http.StatusOK, h.do("POST", "/api/edits", `{"revision":5,"edit":{"insertLayer":{"at":0,"layer":{"id":3,"name":"Ebb","kind":"values","cells":[{"column":0,"row":0,"note":true,"degree":9}]}}}}`).status)
	require.Equal(t, http.StatusNotFound, h.do("POST", "/api/stage", `{"do":[{"control":{"name":"field values",`+at+`},"value":4}],"when":"now"}`).status, "there is no such layer")
	recalled := h.do("POST", "/api/stage", `{"do":[{"control":{"name":"field values",`+at+`},"value":3}],"when":"now"}`)
	require.Equal(t, http.StatusOK, recalled.status, recalled.body)
	require.Contains(t, recalled.body, `"name":"field values"`)
	require.Equal(t, http.StatusOK, h.do("POST", "/api/fields", `{"revision":6,`+at+`,"do":"turn right"}`).status)
	require.Equal(t, 9, field().Cell(7, 0).Degree)
	require.NotContains(t, h.do("GET", "/api/stage", "").body, `"name":"field values"`, "what is written counts")
	entered := h.do("POST", "/api/entry/", `{"revision":7,`+at+`,"step":0,"do":"notes","notes":[{"key":60,"velocity":90}]}`)
	require.Equal(t, http.StatusUnprocessableEntity, entered.status, entered.body)
	require.Contains(t, entered.body, "a field has none into which to play")
}
