import type { FieldMoment, FieldPlace } from "../api/types";

/** Where a traveller is on its way, in cells; it goes on to its next cell all the time that it is due there. */
export interface Way {
  id: number;
  column: number;
  row: number;
  direction: number;
  /** Where it goes next, if that is known and near. */
  next: { column: number; row: number } | undefined;
}

/** The place among moments of the last one that is not after a tick; −1 before the first. */
export function lastAt(moments: readonly FieldMoment[], tick: number): number {
  let low = 0;
  let high = moments.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((moments[middle]?.tick ?? 0) <= tick) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** Where the travellers are at a tick, between the cell that they are in and the next. */
export function waysAt(moments: readonly FieldMoment[], tick: number): Way[] {
  const at = lastAt(moments, tick);
  return (moments[at]?.travellers ?? []).map((place) => {
    const since = arrival(moments, at, place);
    const then = moments
      .slice(at + 1)
      .find((moment) => moment.tick >= place.next)
      ?.travellers.find(({ id }) => id === place.id);
    const near =
      then && Math.abs(then.column - place.column) <= 1 && Math.abs(then.row - place.row) <= 1;
    const share = Math.max(0, Math.min(1, (tick - since) / Math.max(1, place.next - since)));
    return {
      id: place.id,
      column: place.column + (near ? share * (then.column - place.column) : 0),
      row: place.row + (near ? share * (then.row - place.row) : 0),
      direction: place.direction,
      next: then,
    };
  });
}

/** When a traveller came to where it is. */
function arrival(moments: readonly FieldMoment[], at: number, place: FieldPlace): number {
  let first = at;
  while (first > 0) {
    const before = moments[first - 1]?.travellers.find(({ id }) => id === place.id);
    if (before?.next !== place.next) break;
    first--;
  }
  return moments[first]?.tick ?? 0;
}
