import { Bars } from "../bars";
import { get } from "../api/http";
import { bounds } from "../api/generated";
import type { Roll, Summary, Track } from "../api/types";
import type { Session } from "./session.svelte";

/** How many bars a roll can show. */
export const zooms = [1, 2, 4, 8, 16, 32];

/** How many notes a roll can show above each other, if not all that the take reaches. */
export const keyZooms = [12, 24, 48];

/** A roll shows two octaves at least unless fewer are asked for, so that notes are not as high as doors. */
const leastKeys = 24;

const highestKey = bounds.AddedNote.key.max;

/** The take that is open on the Takes screen, and which of its bars are shown. */
export abstract class TakeWindow {
  /** The distance of the lines to which the pointer keeps. */
  grid = $state("1/16");

  #openId = $state<number>();
  #roll = $state.raw<Roll>();
  /** How many bars are shown if that was selected. */
  #zoom = $state<number>();
  #first = $state(0);
  /** How many notes are shown above each other if that was selected, and the lowest of them. */
  #keys = $state<number>();
  #lowest = $state(0);

  constructor(readonly session: Session) {
    $effect.pre(() => {
      void session.document;
      return () => this.turnTo(undefined); // another project is opened
    });
    $effect(() => {
      const { id, version } = this.summary ?? {};
      if (id === undefined || version === undefined || !session.connected) return;
      void this.load(id, this.from, this.to);
    });
  }

  /** The track whose loop is open in place of a take. */
  get loop(): Track | undefined {
    return this.session.project.tracks.find((t) => t.loop && -t.id === this.#openId);
  }

  /** The take that is open; the latest until one was opened. An open loop is told as a take. */
  get summary(): Summary | undefined {
    if (this.loop) return summaryOf(this.loop, this.session);
    const takes = this.session.shelf.takes.filter((take) => !take.deleted);
    return takes.find((take) => take.id === this.#openId) ?? takes[0];
  }

  open(id: number): void {
    if (id !== this.summary?.id) this.turnTo(id);
  }

  protected turnTo(id: number | undefined): void {
    this.#openId = id;
    this.#roll = undefined;
    this.#first = 0;
    this.#zoom = this.#keys = undefined;
  }

  /** What is shown of the open take; undefined until it has come. */
  get roll(): Roll | undefined {
    return this.#roll?.summary.id === this.summary?.id ? this.#roll : undefined;
  }

  /** Whether what is shown is not yet what the last edit has made of it. */
  get behind(): boolean {
    return this.roll?.summary.version !== this.summary?.version;
  }

  /** How many bars are shown: as many as were selected, else as the take has. */
  get bars(): number {
    const all = Math.ceil(this.summary?.bars ?? 0);
    return this.#zoom ?? zooms.find((bars) => bars >= all) ?? (zooms.at(-1) as number);
  }

  get from(): number {
    return this.barLines.tick(this.#first);
  }

  get to(): number {
    return this.barLines.tick(this.#first + this.bars);
  }

  /** The take's bars. */
  readonly barLines = $derived.by(() =>
    this.#roll ? new Bars(this.#roll.bars) : this.session.bars,
  );

  /** The first of the bars that are shown and the one after the last, from 0. */
  get shown(): { first: number; last: number } {
    return { first: this.#first, last: this.#first + this.bars };
  }

  get gridTicks(): number {
    return (
      this.session.lists.rates.find((rate) => rate.name === this.grid)?.ticks ??
      this.barLines.length
    );
  }

  zoom(bars: number): void {
    this.#zoom = bars;
    this.scroll(0);
  }

  /** The lowest and the highest note that are shown. */
  get keys(): { lowest: number; highest: number } {
    if (this.#keys) return { lowest: this.#lowest, highest: this.#lowest + this.#keys - 1 };
    const { lowest = 0, highest = 0 } = this.roll ?? {};
    const missing = Math.max(2, leastKeys - (highest - lowest + 1));
    return {
      lowest: Math.max(0, lowest - Math.ceil(missing / 2)),
      highest: Math.min(highestKey, highest + Math.floor(missing / 2)),
    };
  }

  /** How many notes are shown above each other; 0 is all that the take reaches. */
  get keyZoom(): number {
    return this.#keys ?? 0;
  }

  /** Shows so many notes above each other around the middle of those that are shown. */
  zoomKeys(count: number): void {
    const { lowest, highest } = this.keys;
    this.#keys = count || undefined;
    this.#lowest = Math.round((lowest + highest + 1 - count) / 2);
    this.scrollKeys(0);
  }

  /** Shows higher notes, or lower ones, where not all are shown. */
  scrollKeys(by: number): void {
    const most = highestKey + 1 - (this.#keys ?? 0);
    this.#lowest = Math.min(most, Math.max(0, this.#lowest + by));
  }

  /** Shows so many bars later ones, within the take. */
  scroll(by: number): void {
    const last = Math.max(0, Math.ceil(this.barLines.position(this.roll?.end ?? 0)) - 1);
    this.#first = Math.min(last, Math.max(0, this.#first + by));
  }

  /** Fetches what is between two ticks of a take. */
  protected async load(id: number, from: number, to: number): Promise<void> {
    const path = `${pathOf(id)}/roll?from=${from}&to=${to}`;
    await this.session.attempt(async () => {
      const roll = await get<Roll>(path);
      if (id !== this.summary?.id || from !== this.from) return;
      const changed = roll.summary.version !== this.roll?.summary.version;
      if (changed && roll.summary.version < (this.roll?.summary.version ?? 0)) return; // it was under way for longer
      this.#roll = roll;
      if (changed) this.arrived(roll);
    });
  }

  /** Is told of each version of the take that has come. */
  protected abstract arrived(roll: Roll): void;
}

/** Where the server has a take, or with an id below 0 the loop of a track. */
export function pathOf(id: number): string {
  return id < 0 ? `api/loops/${-id}` : `api/takes/${id}`;
}

/** What a list of takes would say of a loop; its version is that of the project. */
function summaryOf({ id, name, loop }: Track, { snapshot, bars }: Session): Summary {
  const { revision: version, undo, redo, project } = snapshot;
  return {
    ...{ id: -id, name, version, undo, redo, position: 0, deleted: false, created: 0 },
    ...{ luck: project.luck.number, revision: 0, seconds: 0 },
    bars: (loop?.length ?? 0) / bars.length,
    notes: loop?.notes?.length ?? 0,
  };
}
