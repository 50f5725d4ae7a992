import { expect, test } from "vitest";
import { bitsOf, loopControls, stepsFrom, stepsOf, stepsText } from "./loopSteps";

test("steps and bits of rows say the same", () => {
  expect(loopControls).toEqual([
    "loop steps 1-16",
    "loop steps 17-32",
    "loop steps 33-48",
    "loop steps 49-64",
  ]);
  for (const steps of [[], [0], [63], [0, 2, 15, 16, 31, 32, 47, 48, 63]])
    expect(stepsOf(bitsOf(steps))).toEqual(steps);
  expect(bitsOf([0, 2, 16, 63])).toEqual([5, 1, 0, 1 << 15]);
});

test.each([
  ["1", [0]],
  ["1, 3-5", [0, 2, 3, 4]],
  [" 64,1 ", [0, 63]],
  ["2–3, 3", [1, 2]],
  ["", []],
  ["none", []],
])("%j says steps", (text, steps) => {
  expect(stepsFrom(text)).toEqual(steps);
  expect(stepsFrom(stepsText(steps))).toEqual(steps);
});

test.each(["0", "65", "5-3", "1,,2", "a", "1 2", "-3", "1.5"])("%j says none", (text) => {
  expect(stepsFrom(text)).toBeUndefined();
});
