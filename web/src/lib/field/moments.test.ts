import { expect, it } from "vitest";
import type { FieldMoment } from "../api/types";
import { lastAt, waysAt } from "./moments";

const moment = (tick: number, column: number, next: number): FieldMoment => ({
  tick,
  travellers: [{ id: 1, column, row: 0, direction: 2, next }],
  waves: [],
  sounds: [],
});
const moments = [moment(0, 0, 100), moment(50, 0, 100), moment(100, 1, 200), moment(200, 7, 300)];

it("finds the moment that a tick is in", () => {
  expect([-1, 0, 49, 50, 250].map((tick) => lastAt(moments, tick))).toEqual([-1, 0, 0, 1, 3]);
});

it("moves a traveller evenly from cell to cell, whatever else happens on the way", () => {
  expect([0, 25, 75, 100].map((tick) => waysAt(moments, tick)[0]?.column)).toEqual([
    0, 0.25, 0.75, 1,
  ]);
});

it("does not glide where it jumps, and says where to", () => {
  expect(waysAt(moments, 150)[0]).toMatchObject({ column: 1, next: { column: 7 } });
  expect(waysAt(moments, 250)[0]?.next).toBeUndefined();
  expect(waysAt(moments, -5)).toEqual([]);
});
