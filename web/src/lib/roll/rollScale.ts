import type { RollNote, TempoChange } from "../api/types";

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

/** How long a take lasts up to a tick, in milliseconds; a tempo counts thousandths of a beat a minute. */
export function millisAt(tempo: readonly TempoChange[], tick: number, quarter: number): number {
  let sum = 0;
  tempo.forEach((change, i) => {
    const end = Math.min(tick, tempo[i + 1]?.tick ?? tick);
    if (end > change.tick) sum += ((end - change.tick) * 60e6) / (change.tempo * quarter);
  });
  return sum;
}

/** The tick at a number of milliseconds from a take's beginning. */
export function tickAt(tempo: readonly TempoChange[], millis: number, quarter: number): number {
  let left = millis;
  for (const [i, change] of tempo.entries()) {
    const rate = (change.tempo * quarter) / 60e6;
    const next = tempo[i + 1];
    const lasts = next ? (next.tick - change.tick) / rate : Infinity;
    if (left < lasts) return change.tick + left * rate;
    left -= lasts;
  }
  return 0;
}

/** The multiple of a grid that is nearest to a tick, not below 0. */
export function snap(tick: number, grid: number): number {
  return Math.max(0, Math.round(tick / grid) * grid);
}
