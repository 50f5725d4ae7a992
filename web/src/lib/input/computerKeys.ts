import { isTyping } from "../state/focus";
import type { Playing } from "../state/playing.svelte";

/** The keys of the middle row are the white ones from C on, those above the black ones: common practice. */
const places =
  "KeyA KeyW KeyS KeyE KeyD KeyF KeyT KeyG KeyY KeyH KeyU KeyJ KeyK KeyO KeyL KeyP Semicolon".split(
    " ",
  );

/** The letter of the computer's key that plays the key so far above the lowest that the screen shows. */
export function letterOf(place: number): string {
  return places[place]?.replace("Key", "").replace("Semicolon", ";") ?? "";
}

/** How loud the computer's keys are, which cannot tell; with Shift, and without. */
const loud = 120;
const usual = 92;

/** Which note each computer key that is down has struck, since the octave can change meanwhile. */
const struck = new Map<string, number>();

/** Plays the note of a key of the computer. Returns whether the key was one that plays. */
export function playFromKeys(event: KeyboardEvent, playing: Playing): boolean {
  if (!playing.computerKeys || event.ctrlKey || event.metaKey || event.altKey) return false;
  // Lists keep their arrows; their letters play, since a list may have been used last.
  if (event.target instanceof Element && event.target.closest("input, dialog")) return false;
  const act = actions[event.code];
  const place = places.indexOf(event.code);
  if (!act && place < 0) return false;
  event.preventDefault();
  if (event.repeat) return true;
  if (act) {
    act(playing);
    return true;
  }
  const key = playing.lowest + place;
  if (key > 127 || struck.has(event.code)) return true;
  struck.set(event.code, key);
  playing.keyboard.press(key, event.shiftKey ? loud : (playing.velocity ?? usual));
  return true;
}

const actions: Record<string, (playing: Playing) => void> = {
  KeyZ: (playing) => playing.shift(-12),
  KeyX: (playing) => playing.shift(12),
  KeyC: (playing) => void playing.enter("rest"),
  KeyV: (playing) => void playing.enter("tie"),
  KeyB: (playing) => void playing.enter("back"),
};

/** Presses or releases the switch of a key of the computer. Returns whether it is one. */
export function switchFromKeys(event: KeyboardEvent, playing: Playing): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return false;
  if (document.querySelector("dialog[open]") || event.repeat) return false;
  if (!playing.takeKey(event.code, event.type === "keydown")) return false;
  event.preventDefault();
  return true;
}

/** Releases the note of a key of the computer. */
export function releaseFromKeys(event: KeyboardEvent, playing: Playing): void {
  const key = struck.get(event.code);
  if (key === undefined) return;
  struck.delete(event.code);
  playing.keyboard.release(key);
}
