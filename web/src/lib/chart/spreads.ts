import type { LaneSpec, Spread } from "../api/types";

/** A spread that reaches an eighth of what a lane holds either way. */
export function newSpread({ least, most }: LaneSpec, depth: number): Spread {
  const reach = Math.max(1, Math.round((most - least) / 8));
  return { chance: 100, depth, lowest: -reach, highest: reach, lean: 0, grain: 1 };
}
