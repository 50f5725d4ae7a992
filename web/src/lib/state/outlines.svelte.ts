import { getOutlines } from "../api/chart";
import type { Outline } from "../api/types";
import type { Session } from "./session.svelte";

/** How many bars an outline shows. */
export const outlineBars = 2;

/** What every track will play: in the first two bars, or while playing in the two of which one plays now. */
export class Outlines {
  #outlines = $state.raw<Outline[]>([]);
  #bar = $state(0);

  constructor(session: Session) {
    $effect(() => {
      const { revision } = session.snapshot;
      const bar = this.#bar;
      void session.stage.changes; // what is performed is drawn as it plays
      void session.transport.decidedAt;
      if (revision === 0) return; // the server is away
      const stale = new AbortController();
      getOutlines(bar, stale.signal)
        .then((outlines) => (this.#outlines = outlines))
        // The chart of the selected track reports it if the server is away; here the old picture stays.
        .catch(() => {});
      return () => stale.abort();
    });
    $effect(() => {
      if (!session.transport.playing) {
        this.#bar = 0;
        return;
      }
      const watch = setInterval(() => {
        const tick = session.transport.tickAt(performance.now());
        if (tick !== undefined)
          this.#bar = Math.floor(session.bars.at(tick) / outlineBars) * outlineBars;
      }, 100);
      return () => clearInterval(watch);
    });
  }

  /** The bar at which the outlines begin, from 0. */
  get bar(): number {
    return this.#bar;
  }

  of(track: number): Outline | undefined {
    return this.#outlines.find((outline) => outline.track === track);
  }
}
