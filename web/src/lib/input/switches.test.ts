import { expect, test } from "vitest";
import type { Switch } from "../api/types";
import { isSwitch, switchOf, switchWords } from "./switches";

test.each([
  [[0x99, 36, 1], { message: "note", channel: 10, number: 36 }, "note 36, channel 10"],
  [[0xb0, 64, 64], { message: "control", channel: 1, number: 64 }, "CC 64, channel 1"],
  [[0xcf, 0], { message: "program", channel: 16, number: 0 }, "program 1, channel 16"],
] as const)("%j is a switch", (bytes, from, words) => {
  expect(switchOf(bytes)).toEqual(from);
  expect(switchWords(from)).toBe(words);
});

test.each([[[0x90, 36, 0]], [[0x80, 36, 9]], [[0xb0, 64, 63]], [[0xe0, 0, 64]], [[0xf8]], [[]]])(
  "%j is none",
  (bytes) => {
    expect(switchOf(bytes)).toBeUndefined();
  },
);

test("what ends a switch is of it too, on its channel alone or on any", () => {
  const of = (message: Switch["message"], channel: number): Switch => ({
    ...{ message, channel, number: 36, value: 1, when: "bar" },
    control: { name: "scene" },
  });
  expect(isSwitch([of("note", 10)], [0x89, 36, 0])).toBe(true);
  expect(isSwitch([of("note", 10)], [0x99, 36, 0])).toBe(true);
  expect(isSwitch([of("note", 10)], [0x98, 36, 9])).toBe(false);
  expect(isSwitch([of("note", 0)], [0x98, 36, 9])).toBe(true);
  expect(isSwitch([of("note", 0)], [0x98, 37, 9])).toBe(false);
  expect(isSwitch([of("control", 10)], [0xb9, 36, 0])).toBe(true);
  expect(isSwitch([of("program", 0)], [0xb9, 36, 0])).toBe(false);
  expect(isSwitch([], [0xb9, 36, 0])).toBe(false);
});
