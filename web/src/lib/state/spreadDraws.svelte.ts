import { getDraws } from "../api/chart";
import type { Draws, LaneName } from "../api/types";
import type { Session } from "./session.svelte";

/** How many bars are looked back upon. */
const barsBack = 32;

/** What the spread in force at a step of a lane of the part that is written has added lately, and how likely each number is. */
export class SpreadDraws {
  #draws = $state.raw<Draws>();
  #bar = $state(0);

  /** Must be made while a component is. */
  constructor(session: Session, at: () => { lane: LaneName; step: number }) {
    $effect(() => {
      if (!session.transport.playing) {
        this.#bar = 0;
        return;
      }
      const watch = setInterval(() => {
        const tick = session.transport.tickAt(performance.now()) ?? 0;
        this.#bar = Math.floor(session.bars.position(tick) * 2) / 2;
      }, 200);
      return () => clearInterval(watch);
    });
    $effect(() => {
      const { revision } = session.snapshot;
      const { track, part } = session.address;
      const { lane: name, step } = at();
      const lane = session.lane(name);
      if (revision === 0 || !(lane.own?.[step]?.spread ?? lane.spread)) return;
      // While it stands still, the bars from the beginning on, as the luck has decided them.
      const last = this.#bar > 0 ? this.#bar : barsBack;
      const to = session.bars.tick(last);
      const from = session.bars.tick(Math.max(0, last - barsBack));
      const stale = new AbortController();
      getDraws({ track, from, to }, part, name, step, stale.signal)
        .then((answer) => (this.#draws = answer))
        .catch(() => {}); // the chart reports a server that is away
      return () => stale.abort();
    });
  }

  get draws(): Draws | undefined {
    return this.#draws;
  }
}
