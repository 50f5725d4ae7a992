import { describe, expect, it } from "vitest";
import type { VoltageChannel } from "../api/types";
import { patchOf, Rack } from "./rack";

const rate = 48_000;

function channel(number: number, signal: VoltageChannel["signal"], more = {}): VoltageChannel {
  return { channel: number, signal, lowest: -5000, highest: 5000, voice: 1, track: 1, ...more };
}

const setup = (channels: VoltageChannel[]) => ({ fullScale: 10_000, channels });

/** What the rack sounds like for a time with steady voltages on channels from 1 on. */
function heard(rack: Rack, volts: number[], seconds = 1): Float32Array {
  const all = new Float32Array(Math.round(seconds * rate));
  const channels = volts.map((v) => new Float32Array(128).fill(v / 10));
  for (let at = 0; at < all.length; at += 128) rack.render(channels, all.subarray(at, at + 128));
  return all;
}

/** The frequency of a sound, by its rises through zero between the first and the last. */
function hertzOf(sound: Float32Array): number {
  const rises: number[] = [];
  for (let i = 1; i < sound.length; i++) {
    const [a, b] = [sound[i - 1]!, sound[i]!];
    if (a < 0 && b >= 0) rises.push(i - b / (b - a));
  }
  return ((rises.length - 1) * rate) / (rises.at(-1)! - rises[0]!);
}

const loud = (sound: Float32Array) => Math.max(...sound.subarray(sound.length / 2).map(Math.abs));

describe("the rack", () => {
  it("plays a volt an octave over five octaves within a cent, and Hz/V", () => {
    for (const hertzPerVolt of [false, true]) {
      const rack = new Rack(rate);
      rack.patch(patchOf(setup([channel(1, "pitch", { hertzPerVolt }), channel(2, "gate")])));
      for (let semitone = -24; semitone <= 36; semitone += 4) {
        const octaves = semitone / 12;
        heard(rack, [hertzPerVolt ? 2 ** octaves : octaves, 5], 0.2);
        const hertz = hertzOf(heard(rack, [hertzPerVolt ? 2 ** octaves : octaves, 5], 2));
        const cents = 1200 * Math.log2(hertz / (261.6255653 * 2 ** octaves)); // ISO 16: A4 = 440 Hz
        expect(Math.abs(cents)).toBeLessThan(1);
      }
    }
  });

  it("sounds while its gate is up, louder by velocity, brighter by mod", () => {
    const rack = new Rack(rate);
    const channels = [channel(1, "pitch"), channel(2, "gate"), channel(3, "velocity")];
    rack.patch(patchOf(setup([...channels, channel(4, "mod", { mod: 1 })])));
    expect(loud(heard(rack, [0, 0, 5, 0]))).toBeLessThan(1e-6);
    const full = loud(heard(rack, [0, 5, 5, 0]));
    expect(full).toBeGreaterThan(0.05);
    expect(loud(heard(rack, [0, 5, 2.5, 0]))).toBeCloseTo(full / 2, 2);
    const steps = (sound: Float32Array) =>
      sound.subarray(rate / 2).reduce((sum, s, i, all) => sum + (s - (all[i - 1] ?? s)) ** 2, 0);
    const bright = steps(heard(rack, [0, 5, 5, 3]));
    expect(bright).toBeGreaterThan(2 * steps(heard(rack, [0, 5, 5, 0])));
    expect(loud(heard(rack, [0, 0, 5, 0]))).toBeLessThan(0.01);
  });

  it("hears an inverted gate, and strikes a drum at each rise of its trigger", () => {
    const rack = new Rack(rate);
    const inverted = channel(2, "gate", { inverted: true });
    const trigger = channel(3, "trigger", { track: 2 });
    rack.patch(patchOf(setup([channel(1, "pitch"), inverted, trigger])));
    expect(loud(heard(rack, [0, 0, 0]))).toBeGreaterThan(0.05);
    heard(rack, [0, 5, 0], 2);
    expect(loud(heard(rack, [0, 5, 0], 0.1))).toBeLessThan(1e-4);
    const struck = heard(rack, [0, 5, 5], 0.1);
    expect(Math.max(...struck)).toBeGreaterThan(0.1);
    heard(rack, [0, 5, 5], 3);
    expect(loud(heard(rack, [0, 5, 5], 0.1))).toBeLessThan(1e-3); // once
  });
});
