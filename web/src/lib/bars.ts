import type { Meter, Project } from "./api/types";

/** The bars of a project. */
export function barsOf({ meter, meterChanges = [] }: Project, ticksPerQuarter: number): Bars {
  const bars = new Bars(meter, ticksPerQuarter);
  for (const change of meterChanges) bars.changeAt(bars.start(change.bar), change.meter);
  return bars;
}

/** The meter of a bar of a project, from 0. */
export function meterAt({ meter, meterChanges = [] }: Project, bar: number): Meter {
  return meterChanges.findLast((change) => change.bar <= bar)?.meter ?? meter;
}

interface Span {
  /** The first bar, from 0, and the tick at which it begins. */
  bar: number;
  tick: number;
  /** The length of a bar and of a beat. */
  length: number;
  beat: number;
  /** The beats with which groups begin, from 0. */
  groups: Set<number>;
}

/** A beat: when it comes, in which bar it is (from 0), which it is of that (from 0), and whether a group begins with it. */
export interface Beat {
  tick: number;
  bar: number;
  beat: number;
  group: boolean;
}

/** Relates ticks to bars and beats. */
export class Bars {
  readonly #spans: Span[] = [];

  constructor(
    meter: Meter,
    private readonly ticksPerQuarter: number,
  ) {
    this.#spans.push({ bar: 0, tick: 0, ...this.#measure(meter) });
  }

  /** Another meter from a tick on, at which a bar begins. */
  changeAt(tick: number, meter: Meter): this {
    const last = this.#last;
    const bar = last.bar + Math.ceil((tick - last.tick) / last.length);
    this.#spans.push({ bar, tick, ...this.#measure(meter) });
    return this;
  }

  #measure(meter: Meter): Pick<Span, "length" | "beat" | "groups"> {
    const beat = (this.ticksPerQuarter * 4) / meter.unit;
    const groups = new Set<number>();
    let at = 0;
    for (const group of meter.groups ?? []) {
      groups.add(at);
      at += group;
    }
    return { length: beat * meter.beats, beat, groups };
  }

  get #last(): Span {
    const last = this.#spans.at(-1);
    if (!last) throw new Error("there is always a first meter");
    return last;
  }

  #spanWhere(holds: (span: Span) => boolean): Span {
    const [first] = this.#spans;
    return this.#spans.findLast(holds) ?? first ?? this.#last;
  }

  /** The length of a bar of the meter that holds from the last change on. */
  get length(): number {
    return this.#last.length;
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
    return { tick: this.start(bar) + index * beat, bar, beat: index, group: groups.has(index) };
  }

  /** The beats in [from, to). */
  beats(from: number, to: number): Beat[] {
    const beats: Beat[] = [];
    for (let bar = this.at(from); this.start(bar) < to; bar++) {
      const { beat, groups } = this.#spanWhere((s) => s.bar <= bar);
      const next = this.start(bar + 1);
      for (let i = 0, tick = this.start(bar); tick < next; i++, tick += beat) {
        if (tick >= from && tick < to) beats.push({ tick, bar, beat: i, group: groups.has(i) });
      }
    }
    return beats;
  }
}
