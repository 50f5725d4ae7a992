import { expect, it } from "vitest";
import type { LaneName } from "../api/types";
import { rectangle, stepsWithin, type Strip } from "./box";

const cell = (x: number, step: number) => ({
  x,
  width: 10,
  tick: 0,
  end: 0,
  step,
  pass: 0,
  first: false,
});

it("takes the steps that a box touches in every lane that it crosses, each once", () => {
  const strips = new Map<LaneName, () => Strip>([
    [
      "gate",
      () => ({
        box: { x: 100, y: 0, width: 40, height: 20 },
        cells: [0, 1, 2, 3].map((i) => cell(10 * i, i)),
      }),
    ],
    [
      "pitch",
      () => ({
        box: { x: 100, y: 20, width: 40, height: 20 },
        cells: [cell(0, 2), cell(10, 0), cell(20, 2)],
      }),
    ],
    ["length", () => ({ box: { x: 100, y: 60, width: 40, height: 20 }, cells: [cell(0, 0)] })],
  ]);
  expect(stepsWithin(rectangle({ x: 125, y: 30 }, { x: 105, y: 10 }), strips)).toEqual({
    gate: [0, 1, 2],
    pitch: [0, 2],
  });
  expect(stepsWithin(rectangle({ x: 0, y: 0 }, { x: 50, y: 90 }), strips)).toEqual({});
});
