import { expect, test } from "vitest";
import { RollScale, millisAt, snap, tickAt } from "./rollScale";

const quarter = 20160;
// 60 beats a minute for a beat, then 120.
const paces = [
  { tick: 0, millis: 0, ticksPerMilli: quarter / 1000 },
  { tick: quarter, millis: 1000, ticksPerMilli: quarter / 500 },
];

test("time passes at the tempo in force", () => {
  expect(millisAt(paces, quarter / 2)).toBe(500);
  expect(millisAt(paces, quarter)).toBe(1000);
  expect(millisAt(paces, 3 * quarter)).toBe(2000);
  for (const tick of [0, 77, quarter, 5 * quarter]) {
    expect(tickAt(paces, millisAt(paces, tick))).toBeCloseTo(tick, 6);
  }
});

test("a place and its tick and key belong together", () => {
  const scale = new RollScale(1000, 3000, 500, 60, 69, 100);
  expect(scale.x(2000)).toBe(250);
  expect(scale.tick(250)).toBe(2000);
  expect(scale.y(69)).toBe(0);
  expect(scale.key(scale.y(62) + 1)).toBe(62);
  expect(scale.key(-50)).toBe(69);
  expect(scale.key(500)).toBe(60);
});

test("the note that starts last is on top, and a short one can be hit", () => {
  const scale = new RollScale(0, 1000, 1000, 60, 69, 100);
  const note = (place: number, start: number, end: number) => ({
    ...{ place, start, end, key: 65, track: 1, velocity: 90, channel: 0 },
  });
  const notes = [note(0, 100, 300), note(1, 200, 400), note(2, 500, 501)];
  const y = scale.y(65) + 5;
  expect(scale.noteAt(notes, 150, y)?.place).toBe(0);
  expect(scale.noteAt(notes, 250, y)?.place).toBe(1);
  expect(scale.noteAt(notes, 502, y)?.place).toBe(2);
  expect(scale.noteAt(notes, 450, y)).toBeUndefined();
  expect(scale.noteAt(notes, 150, scale.y(66) + 5)).toBeUndefined();
});

test("ticks snap to the nearest line", () => {
  expect(snap(2600, 5040)).toBe(5040);
  expect(snap(2500, 5040)).toBe(0);
  expect(snap(-9000, 5040)).toBe(0);
});
