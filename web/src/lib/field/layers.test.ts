import { expect, test } from "vitest";
import type { Field } from "../api/types";
import { withLayer } from "./layers";

const field: Field = {
  columns: 3,
  rows: 1,
  cells: [
    { column: 0, row: 0, note: true, degree: 2, arrows: [{ to: 2, weight: 100 }], locked: true },
    { column: 1, row: 0, letter: "A" },
  ],
};
const held = (of: Field) =>
  (of.cells ?? []).map(({ column, degree, arrows, letter, wall, locked }) =>
    [
      column,
      degree ?? "",
      (arrows ?? []).map(({ to }) => to).join(" "),
      letter ?? "",
      wall ? "wall" : "",
      locked ? "locked" : "",
    ].join("|"),
  );

test("values and arrows of cells take each other's place apart, and what is locked stays so", () => {
  const cells = [
    { column: 1, row: 0, note: true, degree: 5 },
    { column: 2, row: 0, note: true, degree: 7 },
  ];
  expect(
    held(withLayer(field, { id: 1, name: "Ebb", kind: "values", cells, rowNotes: [3] })),
  ).toEqual(["1|5||A||", "2|7||||", "0||2|||locked"]);
  expect(
    held(
      withLayer(field, {
        id: 2,
        name: "Wall",
        kind: "arrows",
        cells: [{ column: 2, row: 0, wall: true }],
      }),
    ),
  ).toEqual(["0|2||||locked", "2||||wall|"]);
});

test("travellers and rules take the place of all", () => {
  const rules = [{ a: 1, b: 2, when: "cell", do: "sounds", odds: 100 } as const];
  expect(withLayer({ ...field, rules }, { id: 3, name: "None", kind: "rules" }).rules).toEqual([]);
  expect(withLayer(field, { id: 4, name: "None", kind: "travellers" })).toEqual({
    ...field,
    travellers: [],
  });
});
