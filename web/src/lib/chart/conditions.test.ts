import { expect, test } from "vitest";
import type { TermSpec } from "../api/types";
import { readCondition, writeCondition } from "./conditions";

const kinds: TermSpec[] = [
  "pass # of #",
  "pass # to # of #",
  "pass # to #",
  "pass from #",
  "filling",
  "sounded",
  "track @ sounded",
  "track @ under # notes",
].map((form) => ({ form, label: form, usual: [], numbers: [] }));

test.each([
  ["", 0, false],
  ["pass 3 of 4", 1, false],
  ["not pass 1 to 2 of 4", 1, false],
  ["pass from 2 and not filling", 2, false],
  ["track 7 sounded or filling or not sounded", 3, true],
  ["not track 7 under 3 notes", 1, false],
])("the condition “%s” is taken apart and put together", (condition, count, or) => {
  const sentence = readCondition(condition, kinds);
  expect(sentence.terms).toHaveLength(count);
  expect(sentence.or).toBe(or);
  expect(writeCondition(sentence)).toBe(condition);
});

test("the numbers and the track of a term are found", () => {
  const [term] = readCondition("not track 7 under 3 notes", kinds).terms;
  expect(term).toMatchObject({ not: true, numbers: [3], of: 7 });
});
