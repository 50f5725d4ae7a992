/** How keys lie on the screen. */
export type Layout = "piano" | "scale" | "fourths";

/** The layouts, in the order in which they are offered. */
export const layouts: { value: Layout; words: string; help: string }[] = [
  { value: "piano", words: "piano", help: "White keys, and black ones between them." },
  {
    value: "scale",
    words: "scale in rows",
    help: "Only the notes of the scale, an octave a row, the root on the left.",
  },
  {
    value: "fourths",
    words: "rows in fourths",
    help: "A semitone a column, and each row a fourth above the one below, so that a chord has one shape everywhere.",
  },
];

/** A key on the screen. One that lies on others comes behind them. */
export interface Placed {
  key: number;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The keys of General MIDI reach to here. */
const highest = 127;

/** How many keys a piano shows, and how tall it is. */
const pianoKeys = 36;
const pianoHeight = 66;

/** How tall a row is, and how many there are. */
const rowHeight = 32;
const scaleRows = 3;
const fourthRows = 4;
const fourthColumns = 16;

/** How many semitones a fourth is. */
const fourth = 5;

const black = [1, 3, 6, 8, 10];

const isBlack = (key: number) => black.includes(key % 12);

/** How tall the keys of a layout are together. */
export function heightOf(layout: Layout): number {
  if (layout === "piano") return pianoHeight;
  return rowHeight * (layout === "scale" ? scaleRows : fourthRows);
}

/** The keys of a layout from the lowest on, in a width; the scale is that of the project, by its pitch classes. */
export function keysOf(
  layout: Layout,
  lowest: number,
  scale: { root: number; classes: ReadonlySet<number> },
  width: number,
): Placed[] {
  const all =
    layout === "piano"
      ? piano(lowest, width)
      : layout === "scale"
        ? rows(scaleRows, scaleRow(lowest, scale), 12, width)
        : rows(fourthRows, ascending(lowest, fourthColumns), fourth, width);
  return all.filter(({ key }) => key <= highest);
}

/** The key at a place; nothing between them. */
export function keyAt(keys: readonly Placed[], x: number, y: number): Placed | undefined {
  return keys.findLast((k) => x >= k.x && x < k.x + k.width && y >= k.y && y < k.y + k.height);
}

function ascending(from: number, count: number): number[] {
  return Array.from({ length: count }, (_, i) => from + i);
}

/** White keys side by side, and black ones on top of where they meet. */
function piano(lowest: number, width: number): Placed[] {
  const keys = ascending(lowest, pianoKeys);
  const white = keys.filter((key) => !isBlack(key));
  const wide = width / white.length;
  const whites = white.map((key, i) => ({
    ...{ key, x: i * wide, y: 0 },
    ...{ width: wide, height: pianoHeight },
  }));
  const blacks = keys.filter(isBlack).map((key) => {
    const below = white.filter((other) => other < key).length;
    const x = Math.max(0, Math.min(width - 0.6 * wide, (below - 0.3) * wide));
    return { key, x, y: 0, width: 0.6 * wide, height: 0.6 * pianoHeight };
  });
  return [...whites, ...blacks];
}

/** The notes of the scale in an octave from its root on, at or below the lowest key. */
function scaleRow(
  lowest: number,
  { root, classes }: { root: number; classes: ReadonlySet<number> },
): number[] {
  const from = lowest - ((((lowest - root) % 12) + 12) % 12);
  const from0 = from < 0 ? from + 12 : from;
  return ascending(from0, 12).filter((key) => classes.has(key % 12));
}

/** Rows of keys from the bottom up, each so many semitones above the one below. */
function rows(count: number, lowest: readonly number[], apart: number, width: number): Placed[] {
  const wide = width / lowest.length;
  return Array.from({ length: count }, (_, row) =>
    lowest.map((key, i) => ({
      ...{ key: key + row * apart, x: i * wide, y: (count - 1 - row) * rowHeight },
      ...{ width: wide, height: rowHeight },
    })),
  ).flat();
}
