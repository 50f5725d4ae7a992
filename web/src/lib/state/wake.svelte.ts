import { get } from "../api/http";
import type { KeepRequest, WakeView } from "../api/types";
import { Bars } from "../bars";
import type { Session } from "./session.svelte";

/** How many bars the wake shows. */
export const wakeBars = 16;

/** How often the wake is drawn anew while something plays, in milliseconds. */
const drawnEvery = 1_000;

/** What is shown: bars that end at a moment of a stretch of playing; undefined is the last ones. */
type Place = { stretch: number; end: number } | undefined;

/** Some bars of everything that was played: the last ones, or those that one has gone back to. */
export class Wake {
  #view = $state.raw<WakeView>();
  /** The places that one has gone back from, the last ones first. */
  #past = $state.raw<Place[]>([]);
  #place = $state.raw<Place>();
  /** The piece that is selected, in ticks of the stretch. */
  #piece = $state.raw<{ from: number; to: number }>();

  constructor(private readonly session: Session) {
    $effect(() => {
      if (!session.connected) return;
      const place = this.#place;
      void this.#load(place);
      if (place) return;
      if (!session.transport.playing) {
        // What was played last comes to disk a moment after the stop.
        const last = setTimeout(() => void this.#load(place), drawnEvery);
        return () => clearTimeout(last);
      }
      const watch = setInterval(() => void this.#load(place), drawnEvery);
      return () => clearInterval(watch);
    });
  }

  async #load(place: Place): Promise<void> {
    const at = place ? `&stretch=${place.stretch}&end=${place.end}` : "";
    try {
      const view = await get<WakeView | null>(`api/wake?bars=${wakeBars}${at}`);
      if (place === this.#place) this.#view = view ?? undefined;
    } catch {
      // The page says elsewhere that the server is away.
    }
  }

  /** What was played; undefined before anything was. */
  get view(): WakeView | undefined {
    return this.#view;
  }

  /** How many bars there are to keep. */
  get bars(): number {
    return this.#view ? this.lines.position(this.#view.to - this.#view.from) : 0;
  }

  /** The bars of what is shown, with ticks from its beginning. */
  readonly lines = $derived.by(() => {
    const view = this.#view;
    if (!view) return this.session.bars;
    return new Bars(view.bars);
  });

  get hasEarlier(): boolean {
    return this.#view !== undefined && (this.#view.from > 0 || this.#view.before > 0);
  }

  /** Whether the last bars are shown. */
  get isNow(): boolean {
    return this.#place === undefined;
  }

  /** Goes back to the bars before those that are shown. */
  earlier(): void {
    const view = this.#view;
    if (!view || !this.hasEarlier) return;
    this.#past = [...this.#past, this.#place];
    this.#place =
      view.from > 0 ? { stretch: view.stretch, end: view.from } : { stretch: view.before, end: 0 };
    this.#piece = undefined;
  }

  /** Goes on to where one has come from. */
  later(): void {
    this.#place = this.#past.at(-1);
    this.#past = this.#past.slice(0, -1);
    this.#piece = undefined;
  }

  get piece(): { from: number; to: number } | undefined {
    return this.#piece;
  }

  /** Selects a piece of what is shown, by whole beats; one of no length lets go. */
  select(a: number, b: number): void {
    const view = this.#view;
    if (!view) return;
    const beats = this.lines.beats(0, view.to - view.from).map(({ tick }) => view.from + tick);
    const from = beats.findLast((tick) => tick <= Math.min(a, b)) ?? view.from;
    const to = beats.find((tick) => tick >= Math.max(a, b)) ?? view.to;
    // While playing, what is shown moves on; what was selected stays where it is.
    this.#place ??= { stretch: view.stretch, end: view.to };
    this.#piece = a !== b && to > from ? { from, to } : undefined;
    if (!this.#piece && this.#past.length === 0) this.#place = undefined;
  }

  /** Clears the selection, and shows the last bars again. */
  letGo(): void {
    this.#piece = this.#place = undefined;
    this.#past = [];
  }

  /** What to keep: the selected piece, or the last bars. */
  request(bars: number): KeepRequest {
    if (!this.#piece || !this.#view) return { bars };
    return { stretch: this.#view.stretch, ...this.#piece };
  }
}
