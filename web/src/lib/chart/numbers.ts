/** The number that a text is in plain digits, with a point or a comma; undefined if it is none. */
export function numberOf(text: string): number | undefined {
  const plain = text.trim().replace(",", ".").replace("−", "-");
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : undefined;
}
