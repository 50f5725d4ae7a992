import { expect, it } from "vitest";
import { numberOf } from "./numbers";

it("reads plain numbers, with a point or a comma", () => {
  const read = ["12", " -3 ", "+4", "−5", "1.5", "1,5", ".5", "7."].map(numberOf);
  expect(read).toEqual([12, -3, 4, -5, 1.5, 1.5, 0.5, 7]);
});

it("takes nothing else for a number", () => {
  for (const text of ["", " ", "fog", "0x10", "1e9", "NaN", "Infinity", "1.2.3", "1 2", ".", "١"]) {
    expect(numberOf(text)).toBeUndefined();
  }
});
