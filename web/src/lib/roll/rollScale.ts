import type { Pace, RollNote } from "../api/types";

/** Relates ticks and keys to places on a roll; higher keys lie further up. */
export class RollScale {
  readonly row: number;

  constructor(
    readonly from: number,
    readonly to: number,
    readonly width: number,
    readonly lowest: number,
    readonly highest: number,
    readonly height: number,
  ) {
    this.row = height / (highest - lowest + 1);
  }

  x(tick: number): number {
    return ((tick - this.from) / (this.to - this.from)) * this.width;
  }

  tick(x: number): number {
    return this.from + (x / this.width) * (this.to - this.from);
  }

  /** The upper edge of a key's row. */
  y(key: number): number {
    return (this.highest - key) * this.row;
  }

  key(y: number): number {
    return Math.min(this.highest, Math.max(this.lowest, this.highest - Math.floor(y / this.row)));
  }

  /** The note at a place, of several the one that starts last. */
  noteAt(notes: readonly RollNote[], x: number, y: number): RollNote | undefined {
    const key = this.key(y);
    return notes.findLast(
      (note) =>
        note.key === key &&
        x >= this.x(note.start) &&
        x <= Math.max(this.x(note.end), this.x(note.start) + leastWidth),
    );
  }
}

/** How wide a note is drawn at least, so that it can be seen and hit. */
export const leastWidth = 3;

/** When a tick of a take comes, in milliseconds from its beginning. */
export function millisAt(paces: readonly Pace[], tick: number): number {
  const pace = paces.findLast((p) => p.tick <= tick);
  return pace ? pace.millis + (tick - pace.tick) / pace.ticksPerMilli : 0;
}

/** The tick of a take that comes so many milliseconds after its beginning. */
export function tickAt(paces: readonly Pace[], millis: number): number {
  const pace = paces.findLast((p) => p.millis <= millis);
  return pace ? pace.tick + (millis - pace.millis) * pace.ticksPerMilli : 0;
}

/** The multiple of a grid that is nearest to a tick, not below 0. */
export function snap(tick: number, grid: number): number {
  return Math.max(0, Math.round(tick / grid) * grid);
}
