import type { Arrow, Field, FieldMoment, FieldPlace } from "../api/types";
import { directionTo, samePlace, steps, type Place } from "./cells";

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

/** What a traveller comes to next. */
export interface Coming {
  /** The cell that sounds next by it, and after how many of its steps. */
  sounds: { column: number; row: number; steps: number } | undefined;
  /** Where it goes from a fork, and how likely that was in percent; undefined where there is one way only. */
  fork: { direction: number; percent: number } | undefined;
}

/** The arrows of a cell that lead somewhere: of some weight, to cells of the grid without walls. */
function waysOf({ columns, rows, cells = [] }: Field, from: Place): Arrow[] {
  const arrows = cells.find((cell) => samePlace(cell, from))?.arrows ?? [];
  return arrows.filter(({ to, weight }) => {
    const [right, down] = steps[to] ?? [0, 0];
    const place = { column: from.column + right, row: from.row + down };
    const inside =
      place.column >= 0 && place.column < columns && place.row >= 0 && place.row < rows;
    return weight > 0 && inside && !cells.some((cell) => cell.wall && samePlace(cell, place));
  });
}

/** What a traveller comes to after a tick, as far as moments go; undefined where it is not on the field. */
export function comingOf(
  moments: readonly FieldMoment[],
  tick: number,
  id: number,
  field: Field,
): Coming | undefined {
  const at = lastAt(moments, tick);
  const of = (moment: FieldMoment | undefined) => moment?.travellers.find((t) => t.id === id);
  const here = of(moments[at]);
  if (!here) return undefined;
  let [moves, due] = [0, here.next];
  let sounds: Coming["sounds"];
  let then: FieldPlace | undefined;
  for (const moment of moments.slice(at + 1)) {
    const place = of(moment);
    if (place && place.next !== due) {
      moves++;
      due = place.next;
      then ??= place;
    }
    const sound = moment.sounds.find(({ traveller }) => traveller === id);
    if (sound) {
      sounds = { column: sound.column, row: sound.row, steps: moves };
      break;
    }
  }
  const arrows = waysOf(field, here);
  const direction = then && directionTo(here, then);
  const taken = arrows.find(({ to }) => to === direction);
  const all = arrows.reduce((sum, { weight }) => sum + weight, 0);
  const fork =
    taken && arrows.length > 1
      ? { direction: taken.to, percent: Math.round((100 * taken.weight) / all) }
      : undefined;
  return { sounds, fork };
}
