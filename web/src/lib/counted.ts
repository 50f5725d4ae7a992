/** How many there are of something, in words: "0 bars", "1 bar", "1,024 bars", "0.25 bars". The noun takes an s. */
export function counted(count: number, noun: string): string {
  const rounded = Number(count.toFixed(2));
  return `${rounded.toLocaleString("en")} ${noun}${rounded === 1 ? "" : "s"}`;
}
