import { describe, expect, it } from "vitest";
import { Bars } from "./bars";

const quarter = 20160;

describe("bars", () => {
  // Two bars of 4/4, then 7/8 in 2+2+3.
  const sevenEighths = (7 * quarter) / 2;
  const bars = new Bars([
    {
      ...{ bar: 0, tick: 0, length: 4 * quarter, beat: quarter, groups: [] },
      meter: { beats: 4, unit: 4 },
    },
    {
      ...{ bar: 2, tick: 8 * quarter, length: sevenEighths, beat: quarter / 2, groups: [0, 2, 4] },
      meter: { beats: 7, unit: 8, groups: [2, 2, 3] },
    },
  ]);

  it("begin where the meters say", () => {
    expect([0, 1, 2, 3].map((bar) => bars.start(bar))).toEqual([
      0,
      4 * quarter,
      8 * quarter,
      8 * quarter + sevenEighths,
    ]);
    expect(bars.length).toBe(sevenEighths);
  });

  it("say where a tick is, and the other way around", () => {
    for (const position of [0, 0.5, 1.75, 2, 2.5, 7]) {
      expect(bars.position(bars.tick(position))).toBeCloseTo(position, 4);
    }
    expect(bars.at(8 * quarter - 1)).toBe(1);
    expect([bars.ceil(1), bars.floor(1), bars.ceil(0)]).toEqual([4 * quarter, 0, 0]);
  });

  it("have beats, of which some begin groups", () => {
    const beats = bars.beats(7 * quarter, 8 * quarter + sevenEighths);
    expect(beats.map(({ bar, beat }) => `${bar}.${beat}`)).toEqual([
      ...["1.3", "2.0", "2.1", "2.2", "2.3", "2.4", "2.5", "2.6"],
    ]);
    expect(beats.filter(({ group }) => group).map(({ beat }) => beat)).toEqual([0, 2, 4]);
    expect(bars.beatAt(8 * quarter + 3.2 * (quarter / 2)).beat).toBe(3);
  });

  it("are cut short by a change", () => {
    const cut = new Bars([
      {
        ...{ bar: 0, tick: 0, length: 4 * quarter, beat: quarter, groups: [] },
        meter: { beats: 4, unit: 4 },
      },
      {
        ...{ bar: 2, tick: 5 * quarter, length: 3 * quarter, beat: quarter, groups: [] },
        meter: { beats: 3, unit: 4 },
      },
    ]);
    expect([1, 2, 3].map((bar) => cut.start(bar))).toEqual([4, 5, 8].map((n) => n * quarter));
    expect(cut.beats(4 * quarter, 6 * quarter).map(({ bar, beat }) => `${bar}.${beat}`)).toEqual([
      "1.0",
      "2.0",
    ]);
  });
});
