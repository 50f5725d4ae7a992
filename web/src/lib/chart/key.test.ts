import { expect, it } from "vitest";
import type { Key, Lists } from "../api/types";
import { notesOf, periodOf, scaleNames, stateOf, withAllowed, withNote, withScale } from "./key";

const lists = {
  roots: ["C"],
  scales: [{ name: "minor pentatonic", semitones: [0, 3, 5, 7, 10] }],
} as Lists;
const key: Key = { root: 2, scale: "minor pentatonic" };

it("makes a scale of the user's own from the present one by toggling notes, never the root", () => {
  const own = withNote(key, 4, lists);
  expect(own).toEqual({ root: 2, scale: "custom", notes: [0, 3, 4, 5, 7, 10] });
  expect(withNote(own, 5, lists).notes).toEqual([0, 3, 4, 7, 10]);
  expect(withNote(own, 0, lists).notes).toEqual([0, 3, 4, 5, 7, 10]);
});

it("allows notes of the scale by their places, and never none", () => {
  const less = withAllowed(key, 5, lists);
  expect(less.allowed).toEqual([0, 1, 3, 4]);
  expect([0, 1, 5].map((note) => stateOf(less, note, lists))).toEqual(["in", "out", "kept out"]);
  expect(withAllowed(less, 5, lists).allowed).toEqual([]);
  expect(withAllowed(key, 4, lists)).toBe(key);
  const one = { ...key, allowed: [2] };
  expect(withAllowed(one, 5, lists)).toBe(one);
});

it("keeps to the scales that a tuning has", () => {
  const tuned: Key = {
    root: 0,
    scale: "chromatic",
    tuning: { name: "five", pitches: ["1.", "2.", "3.", "4.", "2/1"] },
  };
  expect(periodOf(tuned)).toBe(5);
  expect(notesOf(tuned, lists)).toEqual([0, 1, 2, 3, 4]);
  expect(scaleNames(tuned, lists)).toEqual(["chromatic", "custom"]);
  expect(withScale(tuned, "custom", lists)).toEqual({
    ...tuned,
    scale: "custom",
    notes: [0, 1, 2, 3, 4],
  });
});
