import { expect, test } from "vitest";
import { lengthsOf, withStretch } from "./stretch";

test("a stretched step is struck once where nothing else is said", () => {
  expect(lengthsOf({ stretch: 3 })).toEqual([1, 0, 0]);
});

test("another stretch keeps the lengths that there are", () => {
  expect(withStretch({ stretch: 3, lengths: "121" }, 5)).toEqual({ stretch: 5, lengths: "12100" });
  expect(withStretch({ stretch: 3, lengths: "001" }, 2)).toEqual({ stretch: 2, lengths: "" });
  expect(withStretch({ stretch: 3, lengths: "121" }, 1)).toEqual({ stretch: 0, lengths: "" });
});
