import { SvelteMap } from "svelte/reactivity";
import type { ServerClock } from "../api/serverClock";
import type { WirePlace } from "../api/types";

/** Where a lane stands: on which step, and since which tick. */
export interface Standing {
  step: number;
  tick: number;
}

/** Where every lane stands by now. The server announces the moves ahead of their times. */
export class Places {
  #now = new SvelteMap<string, Standing>();
  #coming: WirePlace[] = [];
  #waits = false;

  constructor(private readonly clock: ServerClock) {}

  /** Where a lane of a part of a track stands; undefined while nothing plays. */
  of(track: number, part: number, lane: string): Standing | undefined {
    return this.#now.get(`${track} ${part} ${lane}`);
  }

  announce(places: WirePlace[]): void {
    this.#coming.push(...places);
    // A page in the background draws no frames, and must not pile up what it will never show.
    if (document.hidden) this.#advance(this.clock.serverNanos(performance.now()));
    this.#wait();
  }

  clear(): void {
    this.#coming = [];
    this.#now.clear();
  }

  /** Looks again with the next frame if moves are to come; a page where nothing moves draws no frames. */
  #wait(): void {
    if (this.#waits || this.#coming.length === 0) return;
    this.#waits = true;
    requestAnimationFrame(() => {
      this.#waits = false;
      this.#advance(this.clock.serverNanos(performance.now()));
      this.#wait();
    });
  }

  #advance(serverNanos: number): void {
    if (this.#coming.length === 0) return;
    this.#coming = this.#coming.filter((place) => {
      if (place.at > serverNanos) return true;
      this.#now.set(`${place.track} ${place.part} ${place.lane}`, {
        step: place.step,
        tick: place.tick,
      });
      return false;
    });
  }
}
