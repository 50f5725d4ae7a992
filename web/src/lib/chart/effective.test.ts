import { expect, it } from "vitest";
import type { Chart, Forecast, LaneSpec } from "../api/types";
import { effectiveMarks } from "./effective";
import { layOut, type ValueScale } from "./geometry";

const spec = { name: "velocity", marks: "stems", scaled: true } as LaneSpec;
const scale = { y: (value: number) => 127 - value } as ValueScale;
const chart = { from: 0, to: 400 } as Chart;
const move = (tick: number, step: number) => ({ tick, step });
const lane = {
  lane: "velocity",
  moves: [move(0, 0), move(100, 3), move(200, 0)],
  loop: { ticks: 0 },
};
const heard = (tick: number, velocity: number): Forecast => ({
  tick,
  step: 0,
  probability: 100,
  sounds: true,
  hits: [{ odds: 100, sounds: true, velocity, notes: [] }],
});

it("compares the last of what sounds at one moment with where the lane has come to", () => {
  const cells = layOut(lane as never, 0, 400, 400);
  const values = [90, 80, 70, 60];
  const marks = (velocities: number[]) =>
    effectiveMarks(
      spec,
      chart,
      400,
      [heard(0, 90), ...velocities.map((v) => heard(100, v)), heard(200, 50)],
      cells,
      values,
      scale,
    ).map(({ x, is, cell }) => [Math.floor(x / 100), is, cell.step]);
  expect(marks([80, 70, 60])).toEqual([[2, 50, 0]]);
  expect(marks([60, 70, 40])).toEqual([
    [1, 40, 3],
    [2, 50, 0],
  ]);
});
