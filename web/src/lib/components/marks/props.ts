import type { Cell, ValueScale } from "../../chart/geometry";

/** What every kind of mark is drawn from. */
export interface MarkProps {
  cells: Cell[];
  /** The lane's values by step. */
  values: number[];
  scale: ValueScale;
  /** How strongly a cell is drawn, 0 to 1. */
  ink: (cell: Cell) => number;
  /** Whether a note is struck while the lane stands on a cell. */
  heard: (cell: Cell) => boolean;
}
