import { expect, it } from "vitest";
import { SynthVoices } from "../synthVoices";
import { Bell } from "./bell";

const rate = 48_000;

const bell = { patch: "bell", key: 60 };

/** How much of a frequency there is in a second of samples. */
function amplitude(samples: Float32Array, hertz: number): number {
  let [real, imaginary] = [0, 0];
  samples.forEach((sample, i) => {
    real += sample * Math.cos((2 * Math.PI * hertz * i) / rate);
    imaginary += sample * Math.sin((2 * Math.PI * hertz * i) / rate);
  });
  return (2 * Math.hypot(real, imaginary)) / samples.length;
}

const peak = (samples: Float32Array) => samples.reduce((most, s) => Math.max(most, Math.abs(s)), 0);

/** The next samples of a voice. */
function next(voice: Bell, count: number): Float32Array {
  const samples = new Float32Array(count);
  voice.render(samples, 0, count);
  return samples;
}

// Chowning, 1973: the carrier has the amplitude J0(index), the sidebands at carrier ± n × modulator have Jn(index).
// Abramowitz and Stegun, table 9.1: J0(0.6) = 0.9120, J1(0.6) = 0.2867, J2(0.6) = 0.0437.
it("rests on the partials of frequency modulation with an index of 0.6", () => {
  const voice = new Bell(rate);
  voice.attack(500, 127);
  next(voice, 4 * rate);
  const rested = next(voice, rate);
  const of = (order: number) => amplitude(rested, Math.abs(500 + order * 3.01 * 500));
  const whole = 0.25 * 0.25;
  expect(of(0) / whole).toBeCloseTo(0.912, 2);
  expect(of(1) / whole).toBeCloseTo(0.2867, 2);
  expect(of(2) / whole).toBeCloseTo(0.0437, 2);
  expect(amplitude(rested, 700) / whole).toBeCloseTo(0, 2);
});

it("is struck in proportion to velocity, fades after its release and is then exactly silent", () => {
  const [loud, soft] = [new Bell(rate), new Bell(rate)];
  loud.attack(440, 127);
  soft.attack(440, 32);
  const [a, b] = [peak(next(loud, 2400)), peak(next(soft, 2400))];
  expect(a).toBeGreaterThan(0.2);
  expect(a).toBeLessThan(0.25);
  expect(b / a).toBeCloseTo(32 / 127, 2);
  loud.release();
  expect(peak(next(loud, rate))).toBeGreaterThan(0.05);
  next(loud, rate);
  expect(peak(next(loud, 128))).toBe(0);
});

it("goes on without a click where a note is struck in another", () => {
  const voice = new Bell(rate);
  voice.attack(100, 127);
  const before = next(voice, 4801).at(-1) ?? 0;
  voice.attack(100, 127);
  expect(Math.abs((next(voice, 1)[0] ?? 0) - before)).toBeLessThan(0.02);
});

it("does what it was told to the sample, whatever the order it was told in", () => {
  const voices = new SynthVoices(rate);
  voices.tell({ ...bell, voice: 1, at: 10 + 200 / rate, hertz: 880, velocity: 90 });
  voices.tell({ ...bell, voice: 0, at: 10 + 50 / rate, hertz: 440, velocity: 90 });
  const [first, second] = [new Float32Array(128).fill(1), new Float32Array(128)];
  voices.render(first, 10);
  voices.render(second, 10 + 128 / rate);
  expect(first.findIndex((sample) => sample !== 0)).toBe(50);

  const alone = new Bell(rate);
  alone.attack(440, 90);
  const expected = next(alone, 206).map(Math.tanh);
  expect(second.slice(0, 72)).toEqual(expected.slice(78, 150));
  expect(second.slice(73, 80)).not.toEqual(expected.slice(151, 158));
});

it("takes back what a voice was told to do after it is struck anew, and nothing of other voices", () => {
  const voices = new SynthVoices(rate);
  for (const voice of [0, 1]) {
    voices.tell({ ...bell, voice, at: 0, hertz: 440, velocity: 90 });
    voices.tell({ ...bell, voice, at: 0.2, hertz: 0, velocity: 0 });
  }
  voices.tell({ ...bell, voice: 1, at: 0.1, hertz: 660, velocity: 90 });
  const samples = new Float32Array(rate);
  voices.render(samples, 0);
  const end = new Float32Array(rate);
  voices.render(end, 1);
  expect(amplitude(end, 660)).toBeGreaterThan(0.02);
  expect(amplitude(end, 440)).toBeLessThan(0.002);
});

it("stays within full scale, however many voices sound at once", () => {
  const voices = new SynthVoices(rate);
  for (let voice = 0; voice < 32; voice++) {
    voices.tell({ ...bell, voice, at: 0, hertz: 440, velocity: 127 });
  }
  const samples = new Float32Array(rate / 10);
  voices.render(samples, 0);
  expect(peak(samples)).toBeLessThanOrEqual(1);
  expect(peak(samples)).toBeGreaterThan(0.9);
});
