import type { Weight } from "../api/types";

/** What can be made of all weights of a table at once. */
export type Reweighing = "nothing" | "equal" | "invert" | "sort";

/**
 * The lines of a table with their weights made anew: all nothing; all equal; the greatest the least and the other way round, within
 * those that there are; or from the least to the greatest in the order of the lines, and where they are that already from the greatest.
 */
export function reweighed(lines: readonly Weight[], how: Reweighing): Weight[] {
  const weights = lines.map(({ weight }) => weight);
  const [least, most] = [Math.min(...weights), Math.max(...weights)];
  const rising = [...weights].sort((a, b) => a - b);
  const risen = weights.every((weight, i) => weight === rising[i]);
  const sorted = risen ? rising.reverse() : rising;
  const made = {
    nothing: () => 0,
    equal: () => 1,
    invert: (weight: number) => most + least - weight,
    sort: (_: number, i: number) => sorted[i] ?? 0,
  }[how];
  return lines.map((line, i) => ({ ...line, weight: made(line.weight, i) }));
}
