import { get } from "../api/http";
import type { Chart, FieldMoment, Forecast } from "../api/types";
import type { Place } from "../field/cells";
import type { Session } from "./session.svelte";

/** How many bars of a field are looked at, from the one that plays on. */
const bars = 3;

/** Where everything on the field of the part that is written goes, from the bar that plays on; asked for anew whenever that can be something else. */
export class Moments {
  #chart = $state.raw<Chart>();
  #bar = $state(0);

  constructor(private readonly session: Session) {
    $effect(() => {
      if (!session.transport.playing) {
        this.#bar = 0;
        return;
      }
      const frame = (now: number): void => {
        request = requestAnimationFrame(frame);
        const tick = session.transport.tickAt(now);
        if (tick !== undefined) this.#bar = session.bars.at(tick);
      };
      let request = requestAnimationFrame(frame);
      return () => cancelAnimationFrame(request);
    });
    $effect(() => {
      if (session.snapshot.revision === 0) return;
      void [session.stage.changes, session.stage.song, session.transport.decidedAt];
      const { track, pattern } = session.address;
      const stale = new AbortController();
      get<Chart>(
        `api/chart?track=${track}&pattern=${pattern}&from=${this.from}&to=${this.to}`,
        stale.signal,
      )
        .then((chart) => (this.#chart = chart))
        .catch(() => {}); // the old chart stays while the server is away
      return () => stale.abort();
    });
  }

  /** The stretch of time that is looked at, in ticks; it begins with a bar. */
  get from(): number {
    return this.session.bars.start(this.#bar);
  }

  get to(): number {
    return this.session.bars.start(this.#bar + bars);
  }

  get #part(): Chart["parts"][number] | undefined {
    const { track, pattern } = this.session.address;
    const chart = this.#chart;
    return chart?.track === track && chart.pattern === pattern ? chart.parts[0] : undefined;
  }

  get list(): readonly FieldMoment[] {
    return this.#part?.field?.moments ?? [];
  }

  get forecasts(): readonly Forecast[] {
    return this.#part?.forecasts ?? [];
  }

  /** The name of the note of a cell. */
  name({ column, row }: Place): string {
    return this.#part?.field?.names[`${column} ${row}`] ?? "";
  }

  /** In words, after how long the field repeats. */
  get repeats(): string {
    const repeats = this.#part?.field?.repeats;
    if (!repeats) return "";
    if (repeats.never) return `never repeats exactly: ${repeats.never}`;
    if (repeats.ticks === 0) return "comes to rest";
    const inBars = repeats.ticks / this.session.bars.length;
    return `travellers repeat after ${Number(inBars.toFixed(2))} ${inBars === 1 ? "bar" : "bars"}`;
  }

  /** How many waves did not start by now because there were too many. */
  get unstarted(): number {
    return this.list.at(-1)?.unstarted ?? 0;
  }
}
