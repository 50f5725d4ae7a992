import { Note } from "tonal";
import { expect, it } from "vitest";
import type { Degree } from "../api/types";
import { degreeOf, noteName, noteOf } from "./notes";

it("reads the names of all MIDI notes as a reference library does", () => {
  for (const letter of "CDEFGAB") {
    for (const accidental of ["", "#", "b"]) {
      for (let octave = -1; octave <= 9; octave++) {
        const name = `${letter}${accidental}${octave}`;
        const midi = Note.midi(name);
        if (midi === null) continue; // beyond the keys of MIDI
        expect(noteOf(name)).toBe(midi);
        expect(noteOf(` ${name.toLowerCase()} `)).toBe(noteOf(name));
      }
    }
  }
  expect(noteOf("E♭3")).toBe(51);
  expect(noteOf("F♯4")).toBe(66);
});

it("names notes so that they can be read", () => {
  for (let note = 0; note < 128; note++) expect(noteOf(noteName(note))).toBe(note);
});

it("takes nothing else for a note", () => {
  for (const text of ["", "60", "C", "H2", "C##4", "4C", "C4x", "Cm4"]) {
    expect(noteOf(text)).toBeUndefined();
  }
});

it("finds the degree of a note, and says what is not in the key", () => {
  const degree = (degree: number, key: number, detune = 0): Degree => ({
    ...{ degree, key, detune },
    ...{ name: noteName(key), root: degree === 0 },
  });
  const degrees = [degree(-1, 60), degree(0, 62), degree(1, 63, 40), degree(2, 65)];
  expect(degreeOf("d4", degrees)).toBe(0);
  expect(degreeOf("F4", degrees)).toBe(2);
  expect(degreeOf("Eb4", degrees)).toMatch(/D♯4 is not in the key/);
  expect(degreeOf("2", degrees)).toBeUndefined();
});
