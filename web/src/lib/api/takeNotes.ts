import { get } from "./http";
import type { Roll, RollNote } from "./types";

/**
 * Fetches all notes of a take that sound in [from, to), each once. The server answers with so many at a time; where there are
 * more, each half is asked for.
 */
export async function getTakeNotes(
  path: string,
  from: number,
  to: number,
  signal?: AbortSignal,
): Promise<RollNote[]> {
  const { notes, crowded } = await get<Roll>(`${path}/roll?from=${from}&to=${to}`, signal);
  if (!crowded || to - from < 2) return notes;
  const middle = Math.floor((from + to) / 2);
  const first = await getTakeNotes(path, from, middle, signal);
  const second = await getTakeNotes(path, middle, to, signal);
  const known = new Set(first.map(({ place }) => place));
  return [...first, ...second.filter(({ place }) => !known.has(place))];
}
