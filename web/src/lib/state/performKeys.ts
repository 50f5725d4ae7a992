import { randomLuck } from "./luck";
import type { Held, Perform } from "./perform.svelte";
import type { Session } from "./session.svelte";

/** The keys that are held on the Perform screen. */
const held: Record<string, Held> = { f: "fill", ",": "slower", ".": "faster" };

/** The keys that move a slider, or open the tab beside. */
const moves = new Set([
  "ArrowLeft",
  "ArrowRight",
  "ArrowUp",
  "ArrowDown",
  "Home",
  "End",
  "PageUp",
  "PageDown",
]);

/** Does what a key is for on the Perform screen, and says whether it is for anything. */
export function performKeys(
  event: KeyboardEvent,
  up: boolean,
  perform: Perform,
  session: Session,
): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  if (
    event.target instanceof Element &&
    event.target.matches("[role=slider], [role=tab]") &&
    moves.has(event.key)
  )
    return false;
  const key = event.key.toLowerCase();
  const holds = held[key];
  if (holds) {
    if (up) perform.release(holds);
    else if (!event.repeat) perform.hold(holds);
    return true;
  }
  const action = actions(perform, session)[key];
  if (!action) return false;
  if (!up && !event.repeat) action();
  return !up;
}

function actions(perform: Perform, session: Session): Record<string, () => unknown> {
  const scenes = Array.from({ length: 9 }, (_, i) => [String(i + 1), () => perform.sceneAt(i)]);
  return {
    b: () => session.stage.undo(),
    backspace: () => perform.takeBackLast(),
    e: () => perform.releaseSection(),
    arrowleft: () => session.song.goOver(-1),
    arrowright: () => session.song.goOver(1),
    l: () => session.setLuck(randomLuck()),
    w: () => (perform.moving = !perform.moving),
    o: () => (perform.looping = !perform.looping),
    d: () => session.song.oneIsNow(1),
    "[": () => session.song.move(-5),
    "]": () => session.song.move(5),
    k: () => perform.keepLastBars(),
    ...Object.fromEntries(scenes),
  };
}
