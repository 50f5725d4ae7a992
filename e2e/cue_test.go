package e2e

import (
	"testing"
)

// standInForAudio gives the page two audio outputs besides the usual one, and four channels there. It writes down on which outputs the
// page plays, and the channels that it uses of the usual one; one output refuses.
const standInForAudio = `
	window.sinks = [];
	window.audible = [];
	navigator.mediaDevices.getUserMedia = async () => new MediaStream();
	navigator.mediaDevices.enumerateDevices = async () => [
		{ kind: "audiooutput", deviceId: "default", label: "Default" },
		{ kind: "audiooutput", deviceId: "head", label: "Harbour headphones" },
		{ kind: "audiooutput", deviceId: "gone", label: "Lost speakers" },
		{ kind: "audioinput", deviceId: "mic", label: "Microphone" },
	];
	AudioContext.prototype.setSinkId = async function (id) {
		if (id === "gone") throw new Error("no such output");
		this.sink = id;
	};
	Object.defineProperty(AudioDestinationNode.prototype, "maxChannelCount", { get: () => 4 });
	Object.defineProperty(AudioDestinationNode.prototype, "channelCount", { get: () => 4, set: (count) => window.sinks.push(count + " channels") });
	const connect = AudioNode.prototype.connect;
	AudioNode.prototype.connect = function (to, output, input) {
		if (to instanceof AudioDestinationNode) window.sinks.push(this.context.sink ?? "usual");
		if (to instanceof ChannelMergerNode) window.sinks.push("channel " + (input + 1));
		return connect.apply(this, arguments);
	};
`

// While it plays nothing is heard beside it until somebody says so or there is a cue, which then has all previews, a take too, and none of
// what plays.
func TestPreviewsGoToTheCue(t *testing.T) {
	t.Parallel()
	a := start(t, t.TempDir())
	p := a.open("/#takes", 1280, 800, standInForAudio)
	p.press("render a take")
	p.MustElement("[data-note='0']")
	p.MustElement("[aria-label=Play]").MustClick()
	p.waitForBar(1)
	p.waitFor(`() => window.sinks.join() === "usual"`)
	p.MustElement("[aria-label='Hear the take']").MustClick()
	p.MustElementR("[role=alert]", "Nothing is heard beside what plays, as no audio output is the cue")
	p.MustElement("[aria-label='Hear the take']")

	p.MustElementR("a", "^Connect$").MustClick()
	p.press("find audio outputs")
	p.choice("Audio output of the cue", "Lost speakers")
	p.press("try a preview")
	p.MustElementR("[role=alert]", "Lost speakers cannot be used as the cue, so nothing is heard")
	p.choice("Audio output of the cue", "Harbour headphones")
	p.press("try a preview")
	p.waitFor(`() => window.sinks.join() === "usual,head"`)

	p.MustElementR("a", "^Takes$").MustClick()
	p.MustElement("[aria-label='Hear the take']").MustClick()
	p.MustElement("[aria-label='Stop the take']")
	p.MustElement("[aria-label=Stop]") // it plays on
	p.MustElement("[aria-label='Stop the take']").MustClick()

	// It stays with the browser, and the other two channels of the usual output can be it.
	p.MustElement("[aria-label=Stop]").MustClick()
	p.MustElement("[aria-label=Play]")
	p.MustReload()
	p.MustElement("[role=status]")
	p.waitConnected()
	p.MustElement("[aria-label=Play]").MustClick()
	p.MustElementR("a", "^Connect$").MustClick()
	p.press("try a preview")
	p.waitFor(`() => window.sinks.includes("head")`)
	p.press("find audio outputs")
	p.choice("Audio output of the cue", "channels 3 and 4")
	p.press("try a preview")
	p.waitFor(`() => window.sinks.join().endsWith("4 channels,channel 3,channel 4,usual")`)
	p.choice("Audio output of the cue", "none")
	p.press("previews beside what plays")
	p.press("try a preview")
	p.waitFor(`() => window.sinks.at(-1) === "usual"`)
}
