import { Note } from "tonal";
import { expect, it } from "vitest";
import type { Degree } from "../api/types";
import { Notes } from "./notes";

// The names that the server lists, of two octaves.
const notes = new Notes(
  Array.from({ length: 128 }, (_, note) => ({
    name: Note.fromMidiSharps(note).replace("#", "♯"),
    spellings: [Note.fromMidiSharps(note), Note.fromMidi(note)].map((name) => name.toUpperCase()),
  })),
);

it("reads names in small letters, with signs of music, and with space around them", () => {
  for (const [text, note] of [
    ["c4", 60],
    [" Eb3 ", 51],
    ["e♭3", 51],
    ["F♯4", 66],
    ["f#4", 66],
  ] as const)
    expect(notes.of(text)).toBe(note);
});

it("takes nothing else for a note", () => {
  for (const text of ["", "60", "C", "H2", "C##4", "4C", "C4x", "Cm4"]) {
    expect(notes.of(text)).toBeUndefined();
  }
});

it("finds the degree of a note, and says what is not in the key", () => {
  const degree = (degree: number, key: number, detune = 0): Degree => ({
    ...{ degree, key, detune },
    ...{ name: notes.name(key), root: degree === 0 },
  });
  const degrees = [degree(-1, 60), degree(0, 62), degree(1, 63, 40), degree(2, 65)];
  expect(notes.degreeOf("d4", degrees)).toBe(0);
  expect(notes.degreeOf("F4", degrees)).toBe(2);
  expect(notes.degreeOf("Eb4", degrees)).toMatch(/D♯4 is not in the key/);
  expect(notes.degreeOf("1", degrees)).toBe(0);
  expect(notes.degreeOf("3", degrees)).toBe(2);
  expect(notes.degreeOf("−1", degrees)).toBe(-1);
  expect(notes.degreeOf("0", degrees)).toBeUndefined();
  expect(notes.degreeOf(degrees[2]?.name ?? "", degrees)).toBe(1); // a name that is shown, whatever its tuning
});
