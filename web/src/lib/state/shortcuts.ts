import type { ChartView } from "./chartView.svelte";
import type { Session } from "./session.svelte";

/** Handles the keys that hold everywhere. Text fields and dialogs keep their keys to themselves. */
export function handleShortcut(
  event: KeyboardEvent,
  session: Session,
  view: ChartView,
  openHelp: () => void,
): void {
  if (document.querySelector("dialog[open]") || isTyping(event.target)) return;
  const command = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  const actions: Record<string, () => void> = command
    ? {
        z: () => void (event.shiftKey ? session.redo() : session.undo()),
        y: () => void session.redo(),
      }
    : {
        " ": () => void session.togglePlaying(),
        r: () => void session.toggleRecording(),
        l: () => click(event.shiftKey ? "[data-luck=back]" : "[data-luck=new]"),
        f: () => (view.following = !view.following),
        m: () =>
          void session.edit({ setTrack: { track: session.track.id, mute: !session.track.mute } }),
        b: () => click("[data-tap]"),
        "?": openHelp,
      };
  const action = event.altKey ? undefined : actions[key];
  if (!action) return;
  event.preventDefault();
  if (!event.repeat || command) action();
}

/** Presses a button of the page, so that a key does exactly what the button does. */
function click(selector: string): void {
  document.querySelector<HTMLButtonElement>(selector)?.click();
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLInputElement ||
    target instanceof HTMLSelectElement ||
    target instanceof HTMLTextAreaElement
  );
}
