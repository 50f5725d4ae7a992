/** The largest luck. */
export const mostLuck = 999_999;

/** A luck that nobody has chosen. */
export function randomLuck(): number {
  const [random = 0] = crypto.getRandomValues(new Uint32Array(1));
  return random % (mostLuck + 1);
}
