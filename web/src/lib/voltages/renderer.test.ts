import { describe, expect, it } from "vitest";
import agreed from "../../../../internal/core/cv/testdata/agreed.json";
import type { WireSegment } from "../api/types";
import { AudioClock } from "./audioClock";
import { corrected, voltageAt } from "./line";
import { VoltageRenderer } from "./renderer";

const rate = 48_000;

/** Renders samples of channel 1 in blocks of 128, as browsers do. */
function rendered(renderer: VoltageRenderer, samples: number): Float32Array {
  const all = new Float32Array(samples);
  for (let at = 0; at < samples; at += 128) renderer.render([all.subarray(at, at + 128)]);
  return all;
}

const steady = (volts: number): WireSegment => ({ at: 0, takes: 0, start: volts, end: volts });
const clock = { audio: 0, nanos: 0, perSecond: 1e9 };

describe("what the page renders", () => {
  it("is what the core writes into files: the same edges, the same values", () => {
    for (const { segments, samples } of agreed.lines) {
      const renderer = new VoltageRenderer(rate);
      renderer.tell({ lines: [{ channel: 1, segments }], fullScale: 10, clock }, 0);
      const got = rendered(renderer, samples.length);
      samples.forEach((want, i) => expect(Math.abs(got[i]! - want)).toBeLessThanOrEqual(2 ** -23));
    }
  });

  it("is at rest once nothing was heard for as long as was set, and raised again after", () => {
    const renderer = new VoltageRenderer(rate);
    const lines = [{ channel: 1, rest: 0, segments: [steady(5)] }];
    renderer.tell({ lines, playing: true, silence: 0.5, clock }, 0);
    const first = rendered(renderer, rate);
    expect(first[rate / 2 - 200]).toBeCloseTo(0.5);
    expect(first[rate / 2 + 200]).toBe(0);
    renderer.tell({ lines }, 1);
    expect(rendered(renderer, 128)[127]).toBeCloseTo(0.5);
    renderer.tell({ silence: 0, lines }, 1);
    expect(rendered(renderer, rate)[rate - 1]).toBeCloseTo(0.5); // held until stop
    renderer.tell({ silence: 0.5, lines, playing: false }, 2);
    expect(rendered(renderer, rate)[rate - 1]).toBeCloseTo(0.5); // nothing more was to come
  });

  it("never goes back in time, however the clock is set", () => {
    const renderer = new VoltageRenderer(rate);
    const segments = [steady(0), { at: 5e8, takes: 1e9, start: 0, end: 10 }];
    renderer.tell({ lines: [{ channel: 1, segments }], clock }, 0);
    let before = 0;
    for (let block = 0; block < 370; block++) {
      const audio = (block * 128) / rate;
      const late = block % 2 ? 3e6 : -3e6;
      renderer.tell({ clock: { audio, nanos: audio * 1e9 + late, perSecond: 1e9 } }, audio);
      for (const sample of rendered(renderer, 128)) {
        expect(sample).toBeGreaterThanOrEqual(before);
        before = sample;
      }
    }
    expect(before).toBeGreaterThan(0.4);
  });

  it("leaves the channels that carry nothing, and clips nothing but what is beyond full scale", () => {
    const renderer = new VoltageRenderer(rate);
    const lines = [{ channel: 3, segments: [steady(12)] }];
    renderer.tell({ lines, fullScale: 10, clock }, 0);
    const channels = Array.from({ length: 4 }, () => new Float32Array(128));
    renderer.render(channels);
    expect(channels.map((c) => c[100])).toEqual([0, 0, 1, 0]);
    renderer.render(channels.slice(0, 2)); // of an interface that has fewer
  });
});

it("corrects as the core does, and leaves test voltages as they are", () => {
  for (const { wanted, sent } of agreed.corrected)
    expect(corrected(agreed.calibration, wanted)).toBeCloseTo(sent, 12);
  expect(corrected([], 1.25)).toBe(1.25);
  const renderer = new VoltageRenderer(rate);
  const corrections = { 1: agreed.calibration };
  const line = { channel: 1, segments: [steady(1.9)] };
  renderer.tell({ lines: [line], corrections, clock }, 0);
  expect(rendered(renderer, 128)[5]).toBeCloseTo(corrected(agreed.calibration, 1.9) / 10, 6);
  renderer.tell({ lines: [{ ...line, uncorrected: true }] }, 0);
  expect(rendered(renderer, 128)[5]).toBeCloseTo(0.19, 6);
});

it("tells the voltage of a channel, and of a trigger that it was on", () => {
  const renderer = new VoltageRenderer(rate);
  const on = { at: 1e6, takes: 0, start: 5, end: 5 };
  const segments = [steady(0), on, { ...steady(0), at: 2e6 }];
  const lines = [
    { channel: 1, rest: 0, segments },
    { channel: 2, segments },
  ];
  renderer.tell({ lines, clock }, 0);
  const channels = [new Float32Array(480), new Float32Array(480)];
  renderer.render(channels);
  expect(renderer.takeLevels()).toEqual({ 1: 5, 2: 0 });
  renderer.render(channels);
  expect(renderer.takeLevels()).toEqual({ 1: 0, 2: 0 });
});

it("slides fast first by the formula of the core", () => {
  const bent = { at: 0, takes: 1000, start: 1, end: 3, bend: Math.log(1000) };
  expect(voltageAt(bent, 0)).toBe(1);
  expect(voltageAt(bent, 500)).toBeCloseTo(1 + (2 * (1 - 1000 ** -0.5)) / (1 - 1 / 1000), 9);
  expect(voltageAt(bent, 1000)).toBe(3);
});

describe("an audio clock that is 50 ppm off, read every 100 ms with an unevenness of 1 ms", () => {
  it("is followed within 0.2 ms for an hour, and by 5 µs on average", () => {
    const follower = new AudioClock();
    let [worst, sum, count] = [0, 0, 0];
    let random = 1;
    for (let reading = 0; reading < 36_000; reading++) {
      const audio = reading * 0.1;
      random = (random * 16807) % 2147483647; // the minimal standard generator (Park and Miller, 1988)
      const uneven = (random / 2147483647 - 0.5) * 1e6;
      const exact = audio * 1e9 * (1 + 50e-6) + 7e9;
      follower.read(audio, exact + uneven);
      if (audio < 120) continue;
      const off = Math.abs(follower.serverNanos(audio) - exact);
      [worst, sum, count] = [
        Math.max(worst, off),
        sum + (follower.serverNanos(audio) - exact),
        count + 1,
      ];
    }
    expect(worst).toBeLessThan(200e3);
    expect(Math.abs(sum / count)).toBeLessThan(5e3);
    expect(follower.nanosPerSecond / 1e9 - 1).toBeCloseTo(50e-6, 4);
  });
});
