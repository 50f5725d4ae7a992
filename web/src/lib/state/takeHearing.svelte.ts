import { getTakeNotes } from "../api/takeNotes";
import type { Roll, RollNote } from "../api/types";
import { millisAt, tickAt } from "../roll/rollScale";
import { takeSounds } from "../roll/takeSounds";
import type { Player } from "../sound/player.svelte";
import type { Session } from "./session.svelte";
import { pathOf } from "./takeWindow.svelte";

/** How many bars of a take are fetched at once while it is heard. */
const notesAhead = 16;

/** How long after the press a take begins to sound, in milliseconds. */
const delay = 150;

/** Plays a take on the built-in sounds: on the cue, or else while the project stands still. */
export class TakeHearing {
  #heard = $state.raw<{ roll: Roll; tick: number; page: number; end: number }>();
  /** Ends whatever still waits for a hearing that is over. */
  #abort = new AbortController();
  #player: Player | undefined;

  constructor(private readonly session: Session) {}

  get playing(): boolean {
    return this.#heard !== undefined;
  }

  /** The tick of the take that is heard now; undefined while it is not. */
  tickAt(pageMillis: number): number | undefined {
    if (!this.#heard) return undefined;
    const { roll, tick, page } = this.#heard;
    const millis = millisAt(roll.paces, tick) + Math.max(0, pageMillis - page);
    return tickAt(roll.paces, millis);
  }

  /** Plays a take from a tick on, up to another. */
  async start(roll: Roll, from: number, to: number): Promise<void> {
    this.stop();
    this.#player = await this.session.previews.start();
    if (!this.#player) return;
    this.#heard = { roll, tick: from, page: performance.now() + delay, end: to };
    const { signal } = (this.#abort = new AbortController());
    const whole = 4 * this.#quarter;
    const chunk = notesAhead * whole;
    for (let at = from; at < to && !signal.aborted; at += chunk) {
      await this.#wait(at - whole, signal);
      await this.#fetch(roll, at, Math.min(at + chunk, to), signal);
    }
    await this.#wait(to, signal);
    if (!signal.aborted) this.stop();
  }

  stop(): void {
    this.#abort.abort();
    this.#heard = undefined;
    this.#player?.silence();
    this.#player = undefined;
  }

  get #quarter(): number {
    return this.session.lists.ticksPerQuarter;
  }

  /** The page's time at which a tick is heard. */
  #pageMillis(tick: number): number {
    if (!this.#heard) return Infinity;
    const { roll, tick: began, page } = this.#heard;
    return page + millisAt(roll.paces, tick) - millisAt(roll.paces, began);
  }

  #wait(tick: number, signal: AbortSignal): Promise<void> {
    const late = this.#pageMillis(tick) - performance.now();
    if (late <= 0 || signal.aborted) return Promise.resolve();
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, late);
      signal.addEventListener("abort", () => {
        clearTimeout(timer);
        resolve();
      });
    });
  }

  async #fetch(roll: Roll, from: number, to: number, signal: AbortSignal): Promise<void> {
    let notes: RollNote[];
    try {
      notes = await getTakeNotes(pathOf(roll.summary.id), from, to, signal);
    } catch {
      return this.stop(); // it was stopped, or the page says elsewhere that the server is away
    }
    if (signal.aborted || !this.#heard) return;
    const { end } = this.#heard;
    const sounds = takeSounds(roll, notes, from, to).map((sound) => ({
      ...sound,
      at: this.session.serverNanos(this.#pageMillis(Math.min(sound.tick, end))),
    }));
    this.#player?.announce(sounds.sort((a, b) => a.at - b.at || a.velocity - b.velocity));
  }
}
