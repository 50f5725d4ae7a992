/** The number that a text is in plain digits, with a point or a comma; undefined if it is none. */
export function numberOf(text: string): number | undefined {
  const plain = text.trim().replace(",", ".").replace("−", "-");
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : undefined;
}

/** The bounds of a number of which a user sees a share, as of thousandths the whole. */
export function scaled({ min, max }: { min: number; max: number }, divisor: number) {
  return { min: min / divisor, max: max / divisor };
}
