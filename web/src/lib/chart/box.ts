import type { LaneName } from "../api/types";
import type { Cell } from "./geometry";

/** A box in pixels of the window. */
export interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where a lane's strip is and what stands on it. */
export interface Strip {
  box: Rectangle;
  cells: Cell[];
  /** Gives it the focus. */
  focus?: () => void;
}

/** The strips that are on screen, by lane. */
export type Strips = Map<LaneName, () => Strip>;

export function noStrips(): Strips {
  return new Map();
}

/** Some steps and all those between two others, ascending. */
export function withRange(steps: number[], from: number, to: number): number[] {
  const range = Array.from({ length: Math.abs(to - from) + 1 }, (_, i) => Math.min(from, to) + i);
  return [...new Set([...steps, ...range])].sort((a, b) => a - b);
}

interface Point {
  x: number;
  y: number;
}

/** The box between two corners. */
export function rectangle(a: Point, b: Point): Rectangle {
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  };
}

/** The steps that a box touches, by lane; any copy of a step stands for it. */
export function stepsWithin(box: Rectangle, strips: Strips): Partial<Record<LaneName, number[]>> {
  const selected: Partial<Record<LaneName, number[]>> = {};
  for (const [lane, strip] of strips) {
    const { box: at, cells } = strip();
    if (box.y > at.y + at.height || box.y + box.height < at.y) continue;
    const steps = cells
      .filter((c) => at.x + c.x <= box.x + box.width && at.x + c.x + c.width > box.x)
      .map((c) => c.step);
    if (steps.length > 0) selected[lane] = [...new Set(steps)].sort((a, b) => a - b);
  }
  return selected;
}
