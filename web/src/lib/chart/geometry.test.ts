import { describe, expect, it } from "vitest";
import type { ChartLane } from "../api/types";
import { cellAt, layOut, padBottom, padTop, ValueScale } from "./geometry";

// A loop of three steps of 10 ticks, shown from tick 5 to tick 45.
const lane: ChartLane = {
  lane: "pitch",
  reaches: [],
  loop: { ticks: 30 },
  meetsGate: { ticks: 30 },
  moves: [0, 10, 20, 30, 40].map((tick, i) => ({ tick, step: i % 3 })),
};

describe("layOut", () => {
  const cells = layOut(lane, 5, 45, 400);

  it("fills the strip without gaps", () => {
    expect(cells.map((c) => [c.x, c.width])).toEqual([
      [0, 50],
      [50, 100],
      [150, 100],
      [250, 100],
      [350, 50],
    ]);
  });

  it("tells passes of the loop apart", () => {
    expect(cells.map((c) => c.pass)).toEqual([0, 0, 0, 1, 1]);
    expect(cells.map((c) => c.first)).toEqual([true, false, false, true, false]);
  });

  it("finds the cell under the pointer, also beyond the ends", () => {
    expect([-9, 0, 49, 50, 399, 999].map((x) => cellAt(cells, x)?.tick)).toEqual([
      0, 0, 0, 10, 40, 40,
    ]);
  });
});

describe("ValueScale", () => {
  const scale = new ValueScale(-3, 7, 122);

  it("puts the most at the top and the least at the bottom", () => {
    expect(scale.y(7)).toBe(padTop);
    expect(scale.y(-3)).toBe(122 - padBottom);
  });

  it("reads back every value that it draws, and stays within its bounds", () => {
    for (let value = -3; value <= 7; value++) expect(scale.value(scale.y(value))).toBe(value);
    expect(scale.value(-50)).toBe(7);
    expect(scale.value(500)).toBe(-3);
  });
});
