import { describe, expect, it } from "vitest";
import { meterOf, meterText } from "./meter";

describe("meters", () => {
  it("are read as they are written", () => {
    for (const text of ["4/4", "7/8", "2+2+3/8"]) {
      const meter = meterOf(text);
      expect(meter && meterText(meter)).toBe(text);
    }
    expect(meterOf(" 3 + 2 / 16 ")).toEqual({ beats: 5, unit: 16, groups: [3, 2] });
  });

  it("are refused where they are none", () => {
    for (const text of ["", "4", "4/3", "x/4", "2+/8", "/8"]) expect(meterOf(text)).toBeUndefined();
  });
});
