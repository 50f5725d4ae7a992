import { expect, test } from "vitest";
import { conditionMark, conditionWords, readCondition, writeCondition } from "./conditions";

test.each([
  ["", "always", ""],
  ["pass 3 of 4", "on the 3rd of every 4 passes", "3 of 4"],
  ["not pass 1 to 2 of 4", "not on the 1st to the 2nd of every 4 passes", "¬1–2 of 4"],
  ["pass 1 to 1", "on the 1st pass", "1"],
  ["pass from 2 and not filling", "from the 2nd pass on, and not while filling", "if …"],
  ["not sounded", "if its last step on was silent", "if ○"],
  ["track 7 sounded or filling", "if a track sounded last, or while filling", "if …"],
  ["not track 7 under 3 notes", "if a track had 3 notes or more in the last bar", "if T"],
  ["track 7 over 0 notes", "if a track had more than 0 notes in the last bar", "if T"],
])("the condition “%s” is taken apart, said and put together", (condition, words, mark) => {
  expect(conditionWords(condition, [])).toBe(words);
  expect(conditionMark(condition)).toBe(mark);
  expect(writeCondition(readCondition(condition))).toBe(condition);
});
