import { bounds } from "../api/generated";

/** The largest luck. */
export const mostLuck = bounds.Luck.number.max;

/** A luck that nobody has selected. */
export function randomLuck(): number {
  const [random = 0] = crypto.getRandomValues(new Uint32Array(1));
  return random % (mostLuck + 1);
}
