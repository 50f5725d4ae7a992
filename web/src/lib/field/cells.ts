import type { Cell } from "../api/types";

/** A place of a grid, from 0: its column from the left, its row from the top. */
export interface Place {
  readonly column: number;
  readonly row: number;
}

/** The steps of the eight directions, from up on to the right; see score.Direction. */
export const steps = [
  [0, -1],
  [1, -1],
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
] as const;

export const directionMarks = ["↑", "↗", "→", "↘", "↓", "↙", "←", "↖"] as const;
export const directionNames = [
  "up",
  "up and right",
  "right",
  "down and right",
  "down",
  "down and left",
  "left",
  "up and left",
] as const;

/** The direction from a place to one of its neighbours; undefined of others. */
export function directionTo(from: Place, to: Place): number | undefined {
  const at = steps.findIndex(
    ([columns, rows]) => to.column - from.column === columns && to.row - from.row === rows,
  );
  return at < 0 ? undefined : at;
}

export function samePlace(a: Place, b: Place): boolean {
  return a.column === b.column && a.row === b.row;
}

/** Whether a cell holds nothing, so that it need not be listed. */
export function isEmpty(cell: Cell): boolean {
  return !(
    cell.note ||
    cell.wall ||
    cell.repeater ||
    cell.locked ||
    cell.letter ||
    (cell.arrows ?? []).length > 0
  );
}

/** The cell without anything that it holds. */
export const emptied = ({ column, row }: Cell): Cell => ({ column, row });
