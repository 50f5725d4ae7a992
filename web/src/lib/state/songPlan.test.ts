import { expect, test } from "vitest";
import { shownSections } from "./songPlan";

const song = [
  { id: 1, name: "Ebb", bars: 4, repeats: 2 },
  { id: 2, name: "Flood", bars: 2, repeats: 0 },
  { id: 3, name: "Slack", bars: 3, repeats: 1 },
];
const places = (planned: { section: number; bar: number; bars: number; from: number }[], now = 0) =>
  shownSections(song, planned, now).map((s) => [s.section, s.bar, s.length, s.sure]);

test("what is decided comes first, what follows in the song after it", () => {
  expect(places([])).toEqual([
    [1, 0, 8, false],
    [2, 8, 2, false],
    [3, 10, 3, false],
  ]);
  const planned = [
    { section: 1, bar: 0, bars: 8, from: 0 },
    { section: 2, bar: 8, bars: 0, from: 0 },
  ];
  expect(places(planned)).toEqual([
    [1, 0, 8, true],
    [2, 8, 2, true],
    [3, 10, 3, false],
  ]);
  expect(places(planned, 13)).toEqual([
    [1, 0, 8, true],
    [2, 8, 6, true],
    [3, 14, 3, false],
  ]);
});

test("a section that was left early ends there, and a song that was left is shown from its beginning", () => {
  expect(
    places([
      { section: 1, bar: 0, bars: 3, from: 0 },
      { section: 3, bar: 3, bars: 3, from: 0 },
    ]),
  ).toEqual([
    [1, 0, 3, true],
    [3, 3, 3, true],
  ]);
  const left = [
    { section: 1, bar: 0, bars: 3, from: 0 },
    { section: 0, bar: 3, bars: 0, from: 0 },
  ];
  expect(places(left)[0]).toEqual([1, 0, 8, false]);
});
