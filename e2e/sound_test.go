package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
)

// tap listens to everything that goes to the loudspeakers, and counts the connections made and the notes struck.
const tap = `
	window.connected = 0;
	const connect = AudioNode.prototype.connect;
	AudioNode.prototype.connect = function (to, ...rest) {
		window.connected++;
		if (to instanceof AudioDestinationNode) {
			window.tap ??= new AnalyserNode(this.context, { fftSize: 2048 });
			connect.call(this, window.tap);
		}
		return connect.call(this, to, ...rest);
	};
	window.struck = 0;
	const post = MessagePort.prototype.postMessage;
	MessagePort.prototype.postMessage = function (told, ...rest) {
		if (told?.velocity > 0) window.struck++;
		return post.call(this, told, ...rest);
	};
	window.loudness = () => {
		if (!window.tap) return 0;
		const samples = new Float32Array(2048);
		window.tap.getFloatTimeDomainData(samples);
		return Math.max(...samples.map(Math.abs));
	};`

// Playing is heard, in the background too, and no note makes anything new; stopping is silence.
func TestTheBellSounds(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, tap)
	require.Zero(t, p.MustEval(`() => window.loudness()`).Num())
	p.Keyboard.MustType(input.Space)
	p.waitFor(`() => window.loudness() > 0.02`)

	p.profile.MustPage("about:blank").MustActivate()
	p.waitFor(`() => document.hidden`)
	struck, connected := p.MustEval(`() => window.struck`).Int(), p.MustEval(`() => window.connected`).Int()
	require.NotZero(t, connected)
	p.waitFor(`before => window.struck > before + 20`, struck)
	require.Equal(t, connected, p.MustEval(`() => window.connected`).Int())
	p.MustActivate()

	p.Keyboard.MustType(input.Space)
	p.waitFor(`() => window.loudness() < 0.0005`)
}

// While it plays, a page that is loaded anew sounds again at the first press; another page sounds if it is told to; and
// each says whether it does.
func TestEachPageSaysWhetherItSounds(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, tap)
	sounds := func(p *page, pressed string) {
		p.MustElement("[aria-label='Sound in this page'][aria-pressed=" + pressed + "]")
	}
	sounds(p, "false")
	p.MustElement("[aria-label=Play]").MustClick()
	sounds(p, "true")
	closing, answer := p.MustHandleDialog()
	reloaded := make(chan struct{})
	go func() {
		defer close(reloaded)
		p.MustReload()
	}()
	require.Equal(t, "beforeunload", string(closing().Type), "what plays is not cut off by mistake")
	answer(true, "")
	<-reloaded
	sounds(p, "false")
	p.MustElementR("header a", "Night opening").MustClick()
	sounds(p, "true")
	p.waitFor(`() => window.loudness() > 0.02`)

	other := a.open("/", 1024, 700, tap)
	sounds(other, "false")
	other.MustElement("[aria-label='Sound in this page']").MustClick()
	other.waitFor(`() => window.loudness() > 0.02`)
	other.MustElement("[aria-label='Sound in this page']").MustClick()
	sounds(other, "false")
	other.waitFor(`() => window.loudness() < 0.0005`)
}

// A sound card that never answers does not keep the sequence from playing.
func TestPlayingDoesNotWaitForSound(t *testing.T) {
	a := start(t, t.TempDir())
	p := a.open("/", 1280, 800, `
		Object.defineProperty(BaseAudioContext.prototype, "state", { get: () => "suspended" });
		AudioContext.prototype.resume = () => new Promise(() => {});
	`)
	p.MustElement("[aria-label=Play]").MustClick()
	p.MustElementR("[role=alert]", "The built-in sound has not started yet; the sequence plays without it.")
	p.waitForBar(2)
}
