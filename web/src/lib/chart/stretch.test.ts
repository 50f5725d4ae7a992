import { expect, test } from "vitest";
import { lengthsOf, segmentsOf, withStretch } from "./stretch";

test("a stretched step is struck once where nothing else is said", () => {
  expect(lengthsOf({ stretch: 3 })).toEqual([1, 0, 0]);
  expect(segmentsOf({})).toEqual([{ first: 0, lengths: 1 }]);
});

test("lengths that are tied sound as one, and a tie to silence is silent", () => {
  expect(segmentsOf({ stretch: 8, lengths: "01202211" })).toEqual([
    { first: 1, lengths: 2 },
    { first: 6, lengths: 1 },
    { first: 7, lengths: 1 },
  ]);
});

test("another stretch keeps the lengths that there are", () => {
  expect(withStretch({ stretch: 3, lengths: "121" }, 5)).toEqual({ stretch: 5, lengths: "12100" });
  expect(withStretch({ stretch: 3, lengths: "001" }, 2)).toEqual({ stretch: 2, lengths: "" });
  expect(withStretch({ stretch: 3, lengths: "121" }, 1)).toEqual({ stretch: 0, lengths: "" });
});
