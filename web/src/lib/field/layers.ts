import type { Cell, Field, FieldLayer } from "../api/types";
import { isEmpty, samePlace } from "./cells";

/** What a cell holds that is of arrows; all else is of values, see score.LayerKind. */
const ofWays = ({ arrows, letter, jump, repeater, wall }: Cell) => ({
  ...(arrows && { arrows }),
  ...(letter && { letter }),
  ...(jump && { jump }),
  ...(repeater && { repeater }),
  ...(wall && { wall }),
});

const withoutWays = (cell: Cell): Cell => ({
  ...cell,
  arrows: [],
  letter: "",
  jump: "",
  repeater: false,
  wall: false,
});

/** Cells with the values of some and the arrows of others. What is locked stays locked. */
function together(values: readonly Cell[], ways: readonly Cell[], locked: readonly Cell[]): Cell[] {
  const at = (cells: readonly Cell[], place: Cell) =>
    cells.find((cell) => samePlace(cell, place)) ?? { column: place.column, row: place.row };
  const places = [...values, ...ways.filter((cell) => !values.some((v) => samePlace(v, cell)))];
  return places
    .map((place) => ({
      ...withoutWays(at(values, place)),
      ...ofWays(at(ways, place)),
      locked: at(locked, place).locked ?? false,
    }))
    .filter((cell) => !isEmpty(cell));
}

/** The field as it is with a layer in the place of what of its kind it holds. */
export function withLayer(field: Field, layer: FieldLayer): Field {
  const own = field.cells ?? [];
  switch (layer.kind) {
    case "values":
      return {
        ...field,
        cells: together(layer.cells ?? [], own, own),
        rowNotes: layer.rowNotes ?? [],
        columnNotes: layer.columnNotes ?? [],
      };
    case "arrows":
      return { ...field, cells: together(own, layer.cells ?? [], own) };
    case "travellers":
      return { ...field, travellers: layer.travellers ?? [] };
    case "rules":
      return { ...field, rules: layer.rules ?? [] };
  }
}
