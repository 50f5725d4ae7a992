import { describe, expect, it } from "vitest";
import { SynthVoices } from "../synthVoices";
import { drumAt } from "./drums";
import { soundOf } from "./patches";

const rate = 48_000;

function rendered(patch: string, hertz: number, key: number, seconds: number, release: number) {
  const sound = soundOf(patch, rate);
  const samples = new Float32Array(seconds * rate);
  sound.attack(hertz, 100, key);
  sound.render(samples, 0, release * rate);
  sound.release();
  sound.render(samples, release * rate, samples.length);
  return samples;
}

const peak = (samples: Float32Array) => samples.reduce((most, s) => Math.max(most, Math.abs(s)), 0);

/** The frequency at which samples repeat best, near one that is expected: the lag of the highest autocorrelation. */
function pitchOf(samples: Float32Array, near: number): number {
  const alike = (lag: number) => {
    let sum = 0;
    for (let i = 0; i + lag < samples.length; i++)
      sum += (samples[i] ?? 0) * (samples[i + lag] ?? 0);
    return sum / (samples.length - lag);
  };
  const middle = Math.round(rate / near);
  let best = middle;
  for (let lag = middle - 4; lag <= middle + 4; lag++) if (alike(lag) > alike(best)) best = lag;
  const [a, b, c] = [alike(best - 1), alike(best), alike(best + 1)];
  return rate / (best + (a - c) / (2 * (a - 2 * b + c))); // the top of the parabola through three
}

describe.each(["pluck", "bass", "pad", "lead", "organ"])("%s", (patch) => {
  it.each([45, 57, 69])("plays the key %i in tune, within 4 cents", (key) => {
    const hertz = 440 * 2 ** ((key - 69) / 12);
    // An octave below sounds along in some, so the pitch is looked for there: it repeats at half the frequency too.
    const samples = rendered(patch, hertz, key, 1, 1).slice(0.2 * rate, 0.28 * rate);
    const played = pitchOf(samples, hertz / 2) * 2;
    expect(Math.abs(1200 * Math.log2(played / hertz))).toBeLessThan(4);
  });

  it("is within full scale, and silent after it was released", () => {
    for (const hertz of [27.5, 440, 4186]) {
      const samples = rendered(patch, hertz, 60, 12, 1);
      expect(peak(samples)).toBeGreaterThan(0.02);
      expect(peak(samples)).toBeLessThan(0.6);
      expect(peak(samples.slice(11 * rate))).toBeLessThan(1e-4);
    }
  });
});

it("plays something at every key of General MIDI's percussion, louder the harder it is struck, which ends by itself", () => {
  for (const key of [0, ...Array.from({ length: 49 }, (_, i) => 34 + i), 127]) {
    const samples = rendered("kit", 0, key, 4, 0.05);
    expect(peak(samples), `key ${key}`).toBeGreaterThan(0.03);
    expect(peak(samples), `key ${key}`).toBeLessThan(1);
    expect(peak(samples.slice(3.9 * rate)), `key ${key}`).toBeLessThan(5e-3);
  }
});

// General MIDI Level 1: 35 and 36 are bass drums, 42 and 46 the closed and the open hi-hat, 41 to 50 toms from low to high.
it("has low drums low, cymbals high, and the open hi-hat longer than the closed one", () => {
  expect(drumAt(36).tone.hertz).toBeLessThan(drumAt(41).tone.hertz);
  const toms = [41, 43, 45, 47, 48, 50].map((key) => drumAt(key).tone.hertz);
  expect(toms).toEqual([...toms].sort((a, b) => a - b));
  const lasts = (key: number) =>
    rendered("kit", 0, key, 2, 0.05).findLastIndex((s) => Math.abs(s) > 0.003);
  expect(lasts(46)).toBeGreaterThan(4 * lasts(42));
});

it("lets one patch fade while the next one begins on the same voice", () => {
  const voices = new SynthVoices(rate);
  const tell = (patch: string, at: number, velocity: number) =>
    voices.tell({ voice: 0, at, velocity, patch, hertz: 220, key: 57 });
  tell("organ", 0, 100);
  tell("pad", 0.5, 100);
  const samples = new Float32Array(rate);
  voices.render(samples, 0);
  const jump = (i: number) => Math.abs((samples[i + 1] ?? 0) - (samples[i] ?? 0));
  const usual = Math.max(...Array.from({ length: 2000 }, (_, i) => jump(20_000 + i)));
  expect(jump(24_000 - 1)).toBeLessThan(2 * usual);
  expect(peak(samples.slice(30_000))).toBeGreaterThan(0.02);
});
