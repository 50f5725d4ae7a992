import type { Ratio } from "../api/types";

/** How many steps a control of looped steps is about: its value is a bit for each, the lowest for the first. */
const row = 16;
const rows = 4;

/** The names of the controls of looped steps. */
export const loopControls = Array.from(
  { length: rows },
  (_, i) => `loop steps ${i * row + 1}-${(i + 1) * row}`,
);

/** The steps, from 0, that the bits of all rows say. */
export function stepsOf(bits: number[]): number[] {
  return bits.flatMap((of, at) =>
    Array.from({ length: row }, (_, i) => i).flatMap((i) => ((of >> i) & 1 ? [at * row + i] : [])),
  );
}

/** The bits of all rows that say which steps there are. */
export function bitsOf(steps: number[]): number[] {
  const bits = Array<number>(rows).fill(0);
  for (const step of steps) bits[Math.floor(step / row)]! |= 1 << (step % row);
  return bits;
}

/** Steps as they are written, from 1: "1, 3-5". */
export function stepsText(steps: number[]): string {
  const words: string[] = [];
  for (let i = 0; i < steps.length; i++) {
    const from = i;
    while (steps[i + 1] === steps[i]! + 1) i++;
    words.push(from === i ? `${steps[i]! + 1}` : `${steps[from]! + 1}-${steps[i]! + 1}`);
  }
  return words.join(", ");
}

/** The steps that a text says; undefined if it says none. "none" and nothing at all are no steps. */
export function stepsFrom(text: string): number[] | undefined {
  const steps = new Set<number>();
  if (["", "none"].includes(text.trim())) return [];
  for (const word of text.split(",")) {
    const range = /^\s*(\d+)\s*(?:[-–]\s*(\d+)\s*)?$/.exec(word);
    if (!range) return undefined;
    const [first, last] = [Number(range[1]), Number(range[2] ?? range[1])];
    if (first < 1 || last < first || last > row * rows) return undefined;
    for (let step = first; step <= last; step++) steps.add(step - 1);
  }
  return [...steps].sort((a, b) => a - b);
}

/** The value by which a control names a speed. */
export function speedValue({ n, m }: Ratio): number {
  return (n - 1) * 16 + m - 1;
}

/** A speed beside the written one; it has no value where it would be beyond the ratios that there are. */
export interface OtherSpeed {
  label: string;
  words: string;
  value: number | undefined;
}

/** The speeds at which a track is looped in a hurry, by the one that is written. */
export function otherSpeeds(written: Ratio): OtherSpeed[] {
  const at = (n: number, m: number): number | undefined => {
    const [over, under] = [written.n * n, written.m * m];
    const by = divisor(over, under);
    const speed = { n: over / by, m: under / by };
    return Math.max(speed.n, speed.m) > 16 ? undefined : speedValue(speed);
  };
  return [
    { label: "half", words: "half speed", value: at(1, 2) },
    { label: "1:1", words: "written speed", value: speedValue(written) },
    { label: "triplet", words: "triplet speed", value: at(3, 2) },
    { label: "double", words: "double speed", value: at(2, 1) },
  ];
}

function divisor(a: number, b: number): number {
  return b === 0 ? a : divisor(b, a % b);
}
