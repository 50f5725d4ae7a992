import type { Key, Lists } from "../api/types";

/** The scale whose notes the user selects, and the one of all notes. */
export const custom = "custom";
export const chromatic = "chromatic";

/** How many notes there are in an octave of the key's tuning, or in whatever period it has. */
export function periodOf(key: Key): number {
  return key.tuning?.pitches.length ?? 12;
}

/** What the roots are called; those of a tuning of other than twelve notes are numbers. */
export function rootNames(key: Key, lists: Lists): string[] {
  const period = periodOf(key);
  return period === 12 ? lists.roots : Array.from({ length: period }, (_, i) => `note ${i + 1}`);
}

/** The scales that the key's tuning has. */
export function scaleNames(key: Key, lists: Lists): string[] {
  if (periodOf(key) !== 12) return [chromatic, custom];
  return [...lists.scales.map((scale) => scale.name), custom];
}

/** The notes of a scale above its root. */
export function notesOf(key: Key, lists: Lists): number[] {
  if (key.scale === custom) return key.notes ?? [0];
  const all = Array.from({ length: periodOf(key) }, (_, i) => i);
  if (key.scale === chromatic) return all;
  return lists.scales.find((scale) => scale.name === key.scale)?.semitones ?? all;
}

/** The key in another scale, with all its notes allowed; a custom one begins as the present one. */
export function withScale(key: Key, scale: string, lists: Lists): Key {
  const { root, tuning } = key;
  const notes = scale === custom ? { notes: notesOf(key, lists) } : {};
  return { root, scale, ...notes, ...(tuning ? { tuning } : {}) };
}

/** The key with a note above its root put into its scale, or taken out; the root stays. */
export function withNote(key: Key, note: number, lists: Lists): Key {
  const own = withScale(key, custom, lists);
  const notes = own.notes ?? [0];
  if (note === 0) return own;
  const others = notes.filter((n) => n !== note);
  return { ...own, notes: notes.includes(note) ? others : [...others, note].sort((a, b) => a - b) };
}

/** The key with a note of its scale allowed, or no longer; when all are allowed, none is named. */
export function withAllowed(key: Key, note: number, lists: Lists): Key {
  const notes = notesOf(key, lists);
  const place = notes.indexOf(note);
  if (place < 0) return key;
  const before = key.allowed?.length ? key.allowed : notes.map((_, i) => i);
  const others = before.filter((p) => p !== place);
  const allowed = before.includes(place) ? others : [...others, place].sort((a, b) => a - b);
  if (allowed.length === 0) return key;
  return { ...key, allowed: allowed.length === notes.length ? [] : allowed };
}

/** Whether a note above the root is in the scale and allowed. */
export function stateOf(key: Key, note: number, lists: Lists): "out" | "in" | "kept out" {
  const place = notesOf(key, lists).indexOf(note);
  if (place < 0) return "out";
  return !key.allowed?.length || key.allowed.includes(place) ? "in" : "kept out";
}
