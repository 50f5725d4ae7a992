import { laneHeight } from "../chart/geometry";
import type { LaneName, LaneSpec } from "../api/types";

const stored = "lane heights";

/** Below this height, in pixels, a lane is folded to a line. */
const leastOpen = 48;

/** How high a folded lane is, and how high one can be pulled. */
export const foldedHeight = 26;
const mostHeight = 600;

/** How high lanes are where that was selected, in this browser: folded to a line, or pulled to so many pixels. */
export class LaneHeights {
  #heights = $state<Partial<Record<LaneName, number>>>(read());
  /** Heights that lanes had before they were folded. */
  #before: Partial<Record<LaneName, number>> = {};

  isFolded(lane: LaneName): boolean {
    return this.#heights[lane] === foldedHeight;
  }

  /** Folds a lane to a line, or opens it again. */
  toggle(lane: LaneName): void {
    const height = this.#heights[lane];
    if (height === foldedHeight) this.#set(lane, this.#before[lane]);
    else {
      this.#before[lane] = height;
      this.#set(lane, foldedHeight);
    }
  }

  /** Pulls a lane to a height; one that is too low folds it. */
  pull(lane: LaneName, height: number): void {
    this.#set(lane, height < leastOpen ? foldedHeight : Math.min(mostHeight, Math.round(height)));
  }

  /** Gives a lane its share of the room again. */
  release(lane: LaneName): void {
    this.#set(lane, undefined);
  }

  /** The height of a lane's row, for a grid. */
  row(spec: LaneSpec): string {
    const height = this.#heights[spec.name];
    if (height !== undefined) return `${height}px`;
    const { least, share } = laneHeight(spec);
    return `minmax(${least}px, ${share}fr)`;
  }

  #set(lane: LaneName, height: number | undefined): void {
    const heights = { ...this.#heights, [lane]: height };
    if (height === undefined) delete heights[lane];
    this.#heights = heights;
    try {
      localStorage.setItem(stored, JSON.stringify(heights));
    } catch {
      // A browser that keeps nothing forgets it with the page.
    }
  }
}

function read(): Partial<Record<LaneName, number>> {
  try {
    const heights: unknown = JSON.parse(localStorage.getItem(stored) ?? "{}");
    const entries = Object.entries(heights ?? {}).filter(
      ([, height]) => typeof height === "number" && height >= foldedHeight && height <= mostHeight,
    );
    return Object.fromEntries(entries) as Partial<Record<LaneName, number>>;
  } catch {
    return {};
  }
}
