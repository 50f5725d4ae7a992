//go:build soak

package e2e

import (
	"os"
	"strconv"
	"sync/atomic"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

// TestRandomPresses presses, types and selects at random for ten minutes, by the number of JETTYFOG_SEED, as `make soak` does: the page throws nothing, the
// program fails at nothing, and what is stored is a valid project.
func TestRandomPresses(t *testing.T) {
	seed, _ := strconv.Atoi(os.Getenv("JETTYFOG_SEED"))
	t.Logf("JETTYFOG_SEED=%d", seed)
	a := start(t, t.TempDir())
	profile := browser.MustIncognito()
	t.Cleanup(profile.MustClose)
	p := &page{Page: profile.MustPage().MustSetViewport(1280, 800, 1, false), t: t, profile: profile}
	var faults atomic.Int64
	go p.EachEvent(func(e *proto.RuntimeExceptionThrown) {
		faults.Add(1)
		t.Log(e.ExceptionDetails.Text, e.ExceptionDetails.Exception.Description)
	}, func(e *proto.NetworkResponseReceived) {
		if e.Response.Status >= 500 {
			faults.Add(1)
			t.Log(e.Response.Status, e.Response.URL)
		}
	})()
	p.MustNavigate(a.url).MustActivate().MustElement("[role=slider]")
	for stretch := range 30 {
		p.MustEval(randomPresses, seed+stretch, stretchOfPresses)
	}
	require.Zero(t, faults.Load(), "exceptions of the page, and requests that made the program fail")
	require.NoError(t, a.project().Validate())
}

// stretchOfPresses is for how many seconds is pressed by one script.
const stretchOfPresses = 20

// randomPresses are made by a script: of what is on the page, or in the dialog that is open, one thing at a time, by numbers that follow from a seed.
// Files are left alone.
const randomPresses = `async (seed, seconds) => {
	const below = (most) => {
		seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
		return (seed >> 8) % most;
	};
	const one = (list) => list[below(list.length)];
	const send = (element, ...events) => events.forEach((event) => element.dispatchEvent(event));
	const happens = (type) => new Event(type, { bubbles: true });
	const key = (key) => new KeyboardEvent("keydown", {
		key, code: "Key" + key.toUpperCase(), bubbles: true, cancelable: true,
		shiftKey: below(4) === 0, altKey: below(4) === 0, ctrlKey: below(8) === 0,
	});
	const nonsense = ["0", "1", "-5", "7", "999999", "x", "", "3.5", "64", "127", "-0", "1e9", "C#4"];
	const keys = ["ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight", "Enter", "Delete", "+", "-", "t", "c", "Home", "End", "r", "[", "]", ".", ","];
	const wanted = "button, input, select, [role=slider], [role=application], [role=listbox], [role=option], a[href^='#'], summary";
	for (const until = performance.now() + seconds * 1000; performance.now() < until; ) {
		const dialog = [...document.querySelectorAll("dialog[open]")].at(-1);
		if (dialog && below(12) === 0) send(dialog, new Event("cancel", { cancelable: true }));
		if (below(40) === 0) location.hash = one(["#write", "#perform", "#takes", "#connect", "#library"]);
		const there = [...(dialog ?? document.body).querySelectorAll(wanted)].filter((element) =>
			!element.disabled && element.type !== "file" && element.getClientRects().length > 0 &&
			!/export|import|\.mid|\.wav|\.csv|download/i.test(element.textContent + element.ariaLabel));
		const element = there.length > 0 ? one(there) : document.body;
		if (element instanceof HTMLSelectElement && element.options.length > 0) {
			element.selectedIndex = below(element.options.length);
			send(element, happens("input"), happens("change"));
		} else if (element instanceof HTMLInputElement && element.type !== "checkbox") {
			element.focus();
			element.value = one(nonsense);
			send(element, happens("input"), happens("change"), key(one(["Enter", "ArrowUp", "ArrowDown", "Escape"])));
		} else if (/slider|application|listbox/.test(element.role)) {
			element.focus();
			for (let i = below(6); i >= 0; i--) send(element, key(one(keys)));
		} else {
			send(element, new MouseEvent("click", { bubbles: true, cancelable: true }));
		}
		await new Promise((done) => setTimeout(done, below(60)));
	}
}`
