import { describe, expect, it } from "vitest";
import { reweighed, type Reweighing } from "./weights";

describe("the weights of a table", () => {
  const of = (how: Reweighing, ...weights: number[]) =>
    reweighed(
      weights.map((weight, i) => ({ lowest: i, highest: i, weight })),
      how,
    );
  const made = (how: Reweighing, ...weights: number[]) =>
    of(how, ...weights).map(({ weight }) => weight);

  it("are made anew at once", () => {
    expect(made("nothing", 3, 0, 7)).toEqual([0, 0, 0]);
    expect(made("equal", 3, 0, 7)).toEqual([1, 1, 1]);
    expect(made("invert", 3, 1, 7)).toEqual([5, 7, 1]);
    expect(made("sort", 3, 0, 7)).toEqual([0, 3, 7]);
    expect(made("sort", 0, 3, 7)).toEqual([7, 3, 0]);
    expect(made("sort", 2, 2)).toEqual([2, 2]);
    expect(made("sort")).toEqual([]);
  });

  it("leave the values of the lines as they are", () => {
    expect(of("sort", 5, 1)).toEqual([
      { lowest: 0, highest: 0, weight: 1 },
      { lowest: 1, highest: 1, weight: 5 },
    ]);
  });
});
