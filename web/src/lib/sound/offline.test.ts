import { expect, it } from "vitest";
import { renderOffline, type OfflineSound } from "./offline";
import { headerBytes, wavHeader } from "./wav";

const rate = 48_000;

function rendered(sounds: OfflineSound[], seconds: number): Int16Array {
  const pieces = [...renderOffline(sounds, seconds, rate)];
  const all = new Int16Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
}

const note = (seconds: number, key: number, velocity: number) => ({
  of: "1",
  key,
  velocity,
  seconds,
});

it("renders as long as it is told, in two equal channels, each note at its sample", () => {
  const samples = rendered([note(1.5, 69, 100), note(1.75, 69, 0)], 2.3);
  expect(samples.length).toBe(Math.round(2 * 2.3 * rate));
  const first = samples.findIndex((sample) => sample !== 0);
  expect(first).toBeGreaterThanOrEqual(2 * 1.5 * rate);
  expect(first).toBeLessThan(2 * 1.5 * rate + 200);
  for (let i = 0; i < samples.length; i += 2) expect(samples[i]).toBe(samples[i + 1]);
});

it("renders the same each time, whatever comes after", () => {
  const sounds = [note(0, 60, 90), note(0.5, 60, 0), { ...note(0.5, 36, 110), patch: "kit" }];
  const once = rendered(sounds, 1);
  expect(rendered(sounds, 2).slice(0, once.length)).toEqual(once);
});

// RIFF WAVE: the sizes and the format of a file of one second, by hand.
it("begins a file with what says how its samples are to be read", () => {
  const view = new DataView(wavHeader(192_000, rate, 2));
  const text = (at: number) =>
    String.fromCharCode(...[0, 1, 2, 3].map((i) => view.getUint8(at + i)));
  expect([text(0), text(8), text(12), text(36)]).toEqual(["RIFF", "WAVE", "fmt ", "data"]);
  expect(view.byteLength).toBe(headerBytes);
  expect(view.getUint32(4, true)).toBe(192_036);
  const numbers = [20, 22, 32, 34].map((at) => view.getUint16(at, true));
  expect(numbers).toEqual([1, 2, 4, 16]);
  expect([view.getUint32(24, true), view.getUint32(28, true)]).toEqual([48_000, 192_000]);
  expect(view.getUint32(40, true)).toBe(192_000);
});
