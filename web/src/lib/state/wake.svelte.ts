import { get } from "../api/http";
import type { WakeView } from "../api/types";
import type { Session } from "./session.svelte";

/** How many bars the wake shows. */
export const wakeBars = 16;

/** How often the wake is drawn anew while something plays, in milliseconds. */
const drawnEvery = 1_000;

/** The last bars of everything that was played. */
export class Wake {
  #view = $state.raw<WakeView>();

  constructor(private readonly session: Session) {
    $effect(() => {
      if (!session.connected) return;
      void this.#load();
      if (!session.transport.playing) return;
      const watch = setInterval(() => void this.#load(), drawnEvery);
      return () => clearInterval(watch);
    });
  }

  async #load(): Promise<void> {
    try {
      this.#view = await get<WakeView>(`api/wake?bars=${wakeBars}`);
    } catch {
      // Nothing was played yet, or the page says elsewhere that the server is away.
    }
  }

  /** What was played last; undefined before anything was. */
  get view(): WakeView | undefined {
    return this.#view;
  }

  /** How many bars there are to keep. */
  get bars(): number {
    return (this.#view?.end ?? 0) / this.session.bar;
  }
}
