import type { ChartLane, LaneSpec } from "../api/types";

/** A stretch of the chart on which a lane stands on one step. */
export interface Cell {
  x: number;
  width: number;
  tick: number;
  end: number;
  step: number;
  /** How many passes of the loop have gone before this one; 0 if the loop never repeats. */
  pass: number;
  /** Whether a pass of the loop begins here. */
  first: boolean;
}

/** Lays a lane out on a strip of the given width that shows the ticks from `from` up to `to`. */
export function layOut(lane: ChartLane, from: number, to: number, width: number): Cell[] {
  const scale = width / (to - from);
  const loop = lane.loop.ticks;
  return lane.moves.map((move, i) => {
    const tick = Math.max(move.tick, from);
    const end = Math.min(lane.moves[i + 1]?.tick ?? to, to);
    return {
      x: (tick - from) * scale,
      width: (end - tick) * scale,
      tick: move.tick,
      end,
      step: move.step,
      pass: loop ? Math.floor(move.tick / loop) : 0,
      first: loop ? move.tick % loop === 0 : move.tick === 0,
    };
  });
}

/** The cell at a place of the strip; beyond its ends, the nearest. */
export function cellAt(cells: Cell[], x: number): Cell | undefined {
  return cells.find((cell) => x < cell.x + cell.width) ?? cells.at(-1);
}

/** Room above the values for the loop's marks, and below them for the lane's place. */
export const padTop = 13;
export const padBottom = 9;

/** Relates values to heights on a strip; the max is above. */
export class ValueScale {
  constructor(
    readonly least: number,
    readonly most: number,
    private readonly height: number,
  ) {}

  y(value: number): number {
    const share = (value - this.least) / (this.most - this.least);
    return this.height - padBottom - share * (this.height - padTop - padBottom);
  }

  /** The whole value at a height, within the bounds. */
  value(y: number): number {
    const share = (this.height - padBottom - y) / (this.height - padTop - padBottom);
    return this.bounded(this.least + share * (this.most - this.least));
  }

  /** The whole value nearest to a number, within the bounds. */
  bounded(value: number): number {
    return Math.min(this.most, Math.max(this.least, Math.round(value)));
  }
}

/** How high lanes are by their marks: at least, in pixels, and their share of what is left. */
const heights: Record<LaneSpec["marks"], { least: number; share: number }> = {
  gates: { least: 66, share: 82 },
  heads: { least: 176, share: 236 }, // below this the heads of neighbouring degrees would lie on each other
  stems: { least: 66, share: 70 },
  lengths: { least: 66, share: 74 },
  fog: { least: 66, share: 92 },
};

/** How high a lane is at least, in pixels, and its share of what is left. */
export function laneHeight(spec: LaneSpec): { least: number; share: number } {
  return heights[spec.marks];
}
