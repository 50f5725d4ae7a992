import type { BarSpan, Meter } from "./api/types";

/** A beat: when it comes, in which bar it is (from 0), which it is of that (from 0), and whether a group begins with it. */
export interface Beat {
  tick: number;
  bar: number;
  beat: number;
  group: boolean;
}

/** Finds bars and beats in a table of the server's. */
export class Bars {
  constructor(private readonly spans: readonly BarSpan[]) {}

  #spanWhere(holds: (span: BarSpan) => boolean): BarSpan {
    const span = this.spans.findLast(holds) ?? this.spans[0];
    if (!span) throw new Error("there is always a first meter");
    return span;
  }

  /** The length of a bar of the meter that holds from the last change on. */
  get length(): number {
    return this.#spanWhere(() => true).length;
  }

  /** The meter of a bar. */
  meter(bar: number): Meter {
    return this.#spanWhere((s) => s.bar <= bar).meter;
  }

  /** The bar in which a tick is, from 0. */
  at(tick: number): number {
    const span = this.#spanWhere((s) => s.tick <= tick);
    return span.bar + Math.floor((tick - span.tick) / span.length);
  }

  /** The tick at which a bar begins. */
  start(bar: number): number {
    const span = this.#spanWhere((s) => s.bar <= bar);
    return span.tick + (bar - span.bar) * span.length;
  }

  /** Where a tick is, in bars from 0: a half is in the middle of a bar. */
  position(tick: number): number {
    const bar = this.at(tick);
    return bar + (tick - this.start(bar)) / this.#spanWhere((s) => s.bar <= bar).length;
  }

  /** The tick of a position in bars. */
  tick(position: number): number {
    const bar = Math.floor(position);
    const { length } = this.#spanWhere((s) => s.bar <= bar);
    return Math.round(this.start(bar) + (position - bar) * length);
  }

  /** The last beginning of a bar that is not after a tick, and the first that is not before it. */
  floor(tick: number): number {
    return this.start(this.at(tick));
  }

  ceil(tick: number): number {
    const floor = this.floor(tick);
    return floor === tick ? tick : this.start(this.at(tick) + 1);
  }

  /** The last beat that begins by a tick. */
  beatAt(tick: number): Beat {
    const bar = this.at(tick);
    const { beat, groups } = this.#spanWhere((s) => s.bar <= bar);
    const index = Math.floor((tick - this.start(bar)) / beat);
    return {
      tick: this.start(bar) + index * beat,
      bar,
      beat: index,
      group: groups.includes(index),
    };
  }

  /** The beats in [from, to). */
  beats(from: number, to: number): Beat[] {
    const beats: Beat[] = [];
    for (let bar = this.at(from); this.start(bar) < to; bar++) {
      const { beat, groups } = this.#spanWhere((s) => s.bar <= bar);
      const next = this.start(bar + 1);
      for (let i = 0, tick = this.start(bar); tick < next; i++, tick += beat) {
        if (tick >= from && tick < to)
          beats.push({ tick, bar, beat: i, group: groups.includes(i) });
      }
    }
    return beats;
  }
}
