import { describe, expect, it } from "vitest";
import { heightOf, keyAt, keysOf, layouts, type Placed } from "./layouts";

const dorian = { root: 2, classes: new Set([2, 4, 5, 7, 9, 11, 0]) };
const width = 1000;

const middle = ({ x, y, width, height }: Placed): [number, number] => [
  x + width / 2,
  y + height - 3,
];

describe("keys on the screen", () => {
  it.each(layouts.map(({ value }) => value))(
    "of %s are each hit where they lie, and fill it",
    (layout) => {
      for (const lowest of [0, 1, 48, 61, 100, 120]) {
        const keys = keysOf(layout, lowest, dorian, width);
        expect(keys.length).toBeGreaterThan(3);
        for (const key of keys) {
          expect(keyAt(keys, ...middle(key))).toBe(key);
          expect(key.key).toBeLessThanOrEqual(127);
          expect(key.x).toBeGreaterThanOrEqual(0);
          expect(key.x + key.width).toBeLessThanOrEqual(width + 1e-9);
          expect(key.y + key.height).toBeLessThanOrEqual(heightOf(layout));
        }
        expect(keyAt(keys, -1, 5)).toBeUndefined();
      }
    },
  );

  it("of a piano are white and black: E and F meet, and between C and D is one", () => {
    const keys = keysOf("piano", 48, dorian, 2100); // 21 white keys of 100
    const at = (x: number, y: number) => keyAt(keys, x, y)?.key;
    expect([at(50, 60), at(150, 60), at(250, 60), at(350, 60)]).toEqual([48, 50, 52, 53]);
    expect([at(100, 5), at(200, 5), at(300, 5), at(299, 5), at(400, 5)]).toEqual([
      49, 51, 53, 52, 54,
    ]);
    expect(keys.filter(({ key }) => key === 48 || key === 83)).toHaveLength(2);
  });

  it("of a scale begin with its root, an octave a row", () => {
    const keys = keysOf("scale", 48, dorian, 700).map(({ key }) => key);
    expect(keys.slice(0, 8)).toEqual([38, 40, 41, 43, 45, 47, 48, 50]);
    expect(keys).toHaveLength(21);
    expect(keysOf("scale", 0, dorian, 700)[0]?.key).toBe(2);
  });

  it("in fourths have each chord in one shape", () => {
    const keys = keysOf("fourths", 40, dorian, 1600); // 16 columns of 100
    const shape = (x: number, row: number) =>
      [0, 1].flatMap((up) => [keyAt(keys, x + 150 * up, 127 - 32 * (row + up))?.key ?? 0]);
    expect(shape(50, 0)[1]! - shape(50, 0)[0]!).toBe(shape(850, 2)[1]! - shape(850, 2)[0]!);
    expect(keyAt(keys, 50, 90)?.key).toBe(45);
    expect(keyAt(keys, 50, 100)?.key).toBe(40);
  });
});
