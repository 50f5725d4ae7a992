import type { Degree } from "../api/types";

const names = ["C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B"];
const naturals: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
const accidentals: Record<string, number> = { "": 0, "#": 1, "♯": 1, b: -1, "♭": -1 };

/** A MIDI note's name; 60 is C4. */
export function noteName(note: number): string {
  return `${names[note % 12]}${Math.floor(note / 12) - 1}`;
}

/** The MIDI note of a name as C2, Eb3 or f#4; undefined if it is none. */
export function noteOf(name: string): number | undefined {
  const [, letter = "", accidental = "", octave] =
    /^\s*([A-G])([#♯b♭]?)(-?\d+)\s*$/i.exec(name) ?? [];
  const natural = naturals[letter.toUpperCase()];
  if (natural === undefined) return undefined;
  return natural + (accidentals[accidental.toLowerCase()] ?? 0) + 12 * (Number(octave) + 1);
}

/** The degree of the key that a note's name stands for, or why there is none; undefined if it is no name. */
export function degreeOf(name: string, degrees: Degree[]): number | string | undefined {
  const note = noteOf(name);
  if (note === undefined) return undefined;
  const degree = degrees.find(({ key, detune }) => key === note && detune === 0)?.degree;
  return degree ?? `${noteName(note)} is not in the key; the step stays as it was.`;
}
