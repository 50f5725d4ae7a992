package osc_test

import (
	"bytes"
	"context"
	"encoding/binary"
	"math"
	"net"
	"os/exec"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"jettyfog/internal/core/midi"
	"jettyfog/internal/core/stage"
	"jettyfog/internal/osc"
)

// ear listens, and notes what it heard and was told.
type ear struct {
	port string

	mu     sync.Mutex
	heard  []midi.Message
	turned []stage.Change
	told   []string
}

func listen(t *testing.T) *ear {
	l, err := osc.Listen(0)
	require.NoError(t, err)
	_, port, err := net.SplitHostPort(l.Address())
	require.NoError(t, err)
	e := &ear{port: port}
	ctx, stop := context.WithCancel(context.Background())
	var running sync.WaitGroup
	running.Go(func() {
		l.Run(ctx, osc.Hearer{Hear: func(m midi.Message) error {
			e.mu.Lock()
			defer e.mu.Unlock()
			e.heard = append(e.heard, m)
			return nil
		}, Turn: func(c stage.Control, value int) error {
			e.mu.Lock()
			defer e.mu.Unlock()
			e.turned = append(e.turned, stage.Change{Control: c, Value: value})
			return nil
		}, Notice: func(text string) {
			e.mu.Lock()
			defer e.mu.Unlock()
			e.told = append(e.told, text)
		}})
	})
	t.Cleanup(func() {
		stop()
		running.Wait()
	})
	return e
}

func (e *ear) count() int {
	e.mu.Lock()
	defer e.mu.Unlock()
	return len(e.heard)
}

// A program of others turns controls by their addresses (oscsend of liblo); numbers that are not whole are rounded.
func TestAPeerTurnsControls(t *testing.T) {
	e := listen(t)
	for _, words := range []string{"/macro/3 i 700", "/track/2/probability f -12.4", "/fill-level i 40"} {
		said, err := exec.Command("oscsend", append([]string{"127.0.0.1", e.port}, strings.Fields(words)...)...).CombinedOutput()
		require.NoError(t, err, string(said))
	}
	require.Eventually(t, func() bool {
		e.mu.Lock()
		defer e.mu.Unlock()
		return len(e.turned) == 3
	}, 10*time.Second, time.Millisecond)
	require.ElementsMatch(t, []stage.Change{
		{Control: stage.Control{Name: "macro", ID: 3}, Value: 700}, {Control: stage.Control{Name: "probability", Track: 2}, Value: -12},
		{Control: stage.Control{Name: "fill level"}, Value: 40},
	}, e.turned)
	for wrong, m := range map[string]osc.Message{
		"/macro/3 has 0 arguments: it needs its value":   {Address: "/macro/3"},
		"the value of /macro/3 must be a number":         {Address: "/macro/3", Arguments: []any{"high"}},
		"the value of /fill-level must be a number":      {Address: "/fill-level", Arguments: []any{float32(math.NaN())}},
		"the value of /track/1/degrees must be a number": {Address: "/track/1/degrees", Arguments: []any{float32(math.Inf(1))}},
	} {
		_, _, turns, err := osc.Turned(m)
		require.True(t, turns)
		require.EqualError(t, err, wrong)
	}
}

// A program of others is heard (oscsend of liblo); numbers can be whole or not, and a channel can stand behind them.
func TestAPeerIsHeard(t *testing.T) {
	e := listen(t)
	for _, words := range []string{"/note ii 60 100", "/note iii 60 0 3", "/cc ff 74 99.6", "/program i 5", "/pressure i 7", "/bend ii -8192 16", "/clock", "/start", "/continue", "/stop", "/position i 130"} {
		before := e.count()
		said, err := exec.Command("oscsend", append([]string{"127.0.0.1", e.port}, strings.Fields(words)...)...).CombinedOutput()
		require.NoError(t, err, string(said))
		require.Eventually(t, func() bool { return e.count() > before }, patience, time.Millisecond, words)
	}
	require.Equal(t, []midi.Message{
		{Kind: midi.NoteOn, Key: 60, Velocity: 100}, {Kind: midi.NoteOff, Channel: 2, Key: 60}, {Kind: midi.ControlChange, Key: 74, Value: 100},
		{Kind: midi.Program, Key: 4}, {Kind: midi.Pressure, Value: 7}, {Kind: midi.Bend, Channel: 15},
		{Kind: midi.Clock}, {Kind: midi.Start}, {Kind: midi.Continue}, {Kind: midi.Stop}, {Kind: midi.SongPosition, Value: 130},
	}, e.heard)
	require.Empty(t, e.told)
}

// bundle nests packets.
func bundle(packets ...[]byte) []byte {
	whole := append([]byte("#bundle\x00"), make([]byte, 8)...)
	for _, packet := range packets {
		whole = append(binary.BigEndian.AppendUint32(whole, uint32(len(packet))), packet...)
	}
	return whole
}

func message(address string, arguments ...any) []byte {
	return osc.Message{Address: address, Arguments: arguments}.Append(nil)
}

// What cannot be read is left out as a whole, in words, and what comes after it is heard.
func TestPacketsThatCannotBe(t *testing.T) {
	deep := message("/cc", int32(1), int32(2))
	for range 8 {
		deep = bundle(deep)
	}
	good, err := osc.Parse(deep)
	require.NoError(t, err)
	require.Len(t, good, 1)
	long := message("/" + strings.Repeat("x", 65_000))
	for want, packet := range map[string][]byte{
		"its length is no multiple of four":            []byte("/cc"),
		"bundles within more than 8 bundles":           bundle(deep),
		"it ends too early":                            message("/cc", int32(1))[:8],
		"its address does not begin with /":            message("cc", int32(1)),
		"it has no type tags":                          append(message("/cc")[:4], 'x', 0, 0, 0),
		"it has an argument of the type 'b'":           append([]byte("/cc\x00,b\x00\x00"), 0, 0, 0, 0),
		"it has more than 64 arguments":                message("/cc", make65()...),
		"it has more than 512 messages":                bundle(bytesOf(message("/cc", int32(1), int32(2)), 513)...),
		"nobody hears \"/xxxxxxxxxxxxxxxxxxxxxxxxxxxx": long,
	} {
		messages, err := osc.Parse(packet)
		if err == nil {
			_, err = osc.Heard(messages[0])
		}
		require.ErrorContains(t, err, want)
	}
	for _, packet := range [][]byte{nil, []byte("#bundle\x00"), append(bundle(), 0, 0, 0, 9), bytes.Repeat([]byte{0}, 64)} {
		_, err := osc.Parse(packet)
		require.Error(t, err)
	}
}

func make65() (arguments []any) {
	for range 65 {
		arguments = append(arguments, int32(1))
	}
	return arguments
}

func bytesOf(data []byte, count int) (all [][]byte) {
	for range count {
		all = append(all, data)
	}
	return all
}

func TestMessagesThatAreNothing(t *testing.T) {
	for want, m := range map[string]osc.Message{
		"nobody hears \"/jump\": there are /note, /cc":           {Address: "/jump"},
		"/note has 1 arguments: it needs [key velocity]":         {Address: "/note", Arguments: []any{int32(60)}},
		"/note has 4 arguments":                                  {Address: "/note", Arguments: []any{int32(60), int32(1), int32(1), int32(1)}},
		"the key of /note must be a number of 0 to 127":          {Address: "/note", Arguments: []any{int32(128), int32(1)}},
		"the velocity of /note must be a number":                 {Address: "/note", Arguments: []any{int32(60), "loud"}},
		"the value of /cc must be a number of 0 to 127":          {Address: "/cc", Arguments: []any{int32(60), float32(-0.6)}},
		"the program of /program must be a number of 1 to 128":   {Address: "/program", Arguments: []any{int32(0)}},
		"the channel of /program must be a number of 1 to 16":    {Address: "/program", Arguments: []any{int32(1), int32(0)}},
		"the pressure of /pressure must be a number of 0 to 127": {Address: "/pressure", Arguments: []any{int32(200)}},
		"the position of /position must be a number of 0 to":     {Address: "/position", Arguments: []any{int32(16384)}},
		"/clock has 2 arguments":                                 {Address: "/clock", Arguments: []any{int32(1), int32(1)}},
		"the bend of /bend must be a number of -8192 to 8191":    {Address: "/bend", Arguments: []any{int32(8192)}},
	} {
		_, err := osc.Heard(m)
		require.ErrorContains(t, err, want)
	}
}

// Whatever bytes come in, nothing panics, and what is written is read again.
func TestAnyPacket(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		data := rapid.SliceOfN(rapid.Byte(), 0, 200).Draw(t, "bytes")
		if rapid.Bool().Draw(t, "a bundle") {
			data = append([]byte("#bundle\x00"), data...)
		}
		_, _ = osc.Parse(data)
		m := osc.Message{Address: "/" + rapid.StringMatching("[a-z/0-9]{1,20}").Draw(t, "address")}
		for range rapid.IntRange(0, 5).Draw(t, "arguments") {
			m.Arguments = append(m.Arguments, rapid.SampledFrom([]any{int32(-1), int32(1 << 30), float32(0.25), "", "abc", "abcd"}).Draw(t, "argument"))
		}
		read, err := osc.Parse(bundle(m.Append(nil), bundle(m.Append(nil))))
		require.NoError(t, err)
		require.Equal(t, []osc.Message{m, m}, read)
	})
}

// A flood is heard as far as it is bearable, and that is said once; then all is heard again.
func TestAFlood(t *testing.T) {
	e := listen(t)
	to, err := net.Dial("udp", "127.0.0.1:"+e.port)
	require.NoError(t, err)
	defer to.Close()
	_, err = to.Write([]byte("#bun"))
	require.NoError(t, err)
	packet := bundle(bytesOf(message("/cc", int32(1), int32(2)), 500)...)
	for range 20 { // 10,000 messages
		_, err = to.Write(packet)
		require.NoError(t, err)
	}
	last := message("/note", int32(1), int32(2))
	require.Eventually(t, func() bool {
		_, _ = to.Write(last)
		e.mu.Lock()
		defer e.mu.Unlock()
		return len(e.heard) > 0 && e.heard[len(e.heard)-1].Kind == midi.NoteOn
	}, patience, 50*time.Millisecond)
	e.mu.Lock()
	defer e.mu.Unlock()
	require.Less(t, len(e.heard), 6_500, "in the seconds that it took")
	require.Equal(t, []string{"Of OSC that came in some was left out: a packet cannot be read: it ends too early."}, e.told, "not again within ten seconds")
}
