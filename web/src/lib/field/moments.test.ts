import { expect, it } from "vitest";
import type { FieldMoment } from "../api/types";
import { comingOf, lastAt, waysAt } from "./moments";

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

it("says which cell sounds next, after how many steps, and which way of a fork leads there", () => {
  const sounding = moments.map((m) => ({
    ...m,
    sounds:
      m.tick === 100 || m.tick === 200 ? [{ traveller: 1, column: m.tick / 100, row: 0 }] : [],
  }));
  const fork = [
    {
      column: 0,
      row: 0,
      arrows: [
        { to: 2, weight: 30 },
        { to: 4, weight: 10 },
        { to: 3, weight: 50 }, // into the wall
        { to: 5, weight: 90 }, // out of the grid
        { to: 1, weight: 90 },
      ],
    },
  ];
  const wall = { column: 1, row: 1, wall: true };
  const field = { columns: 8, rows: 3, cells: [...fork, wall] };
  expect(comingOf(sounding, 60, 1, field)).toEqual({
    sounds: { column: 1, row: 0, steps: 1 },
    fork: { direction: 2, percent: 75 },
  });
  expect(comingOf(sounding, 100, 1, field)).toEqual({
    sounds: { column: 2, row: 0, steps: 1 },
    fork: undefined,
  });
  expect(comingOf(moments, 0, 1, { columns: 8, rows: 1 })).toEqual({
    sounds: undefined,
    fork: undefined,
  });
  expect(comingOf(moments, 0, 2, { columns: 8, rows: 1 })).toBeUndefined();
});
