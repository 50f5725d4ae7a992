import { expect, it } from "vitest";
import { mostInTenth, Voices } from "./voices";

function synth() {
  const log: string[] = [];
  return {
    log,
    now: () => 10,
    attack: (hertz: number, velocity: number, at: number) =>
      log.push(`${hertz.toFixed(1)} on ${velocity} ${at}`),
    release: (hertz: number, at: number) => log.push(`${hertz.toFixed(1)} off ${at}`),
  };
}

it("plays at the given moments, and at once what comes late", () => {
  const s = synth();
  const voices = new Voices(s);
  voices.play({ channel: 0, key: 60 }, 90, 0.5);
  voices.play({ channel: 0, key: 60 }, 0, 0.75);
  voices.play({ channel: 0, key: 62 }, 80, -3);
  expect(s.log).toEqual(["261.6 on 90 10.5", "261.6 off 10.75", "293.7 on 80 10"]);
});

it("lets every key go that is down, never before it was struck", () => {
  const s = synth();
  const voices = new Voices(s);
  voices.play({ channel: 0, key: 60 }, 90, 0);
  voices.play({ channel: 0, key: 62 }, 90, 0.04);
  voices.releaseAll();
  voices.releaseAll();
  expect(s.log.slice(2)).toEqual(["261.6 off 10.01", "293.7 off 10.049999999999999"]);
});

it("ignores the end of a note whose beginning it did not hear", () => {
  const s = synth();
  new Voices(s).play({ channel: 0, key: 60 }, 0, 0);
  expect(s.log).toEqual([]);
});

it("sounds a key as many cents beside its pitch as it was told, and lets just that go", () => {
  const s = synth();
  const voices = new Voices(s);
  voices.play({ channel: 0, key: 69 }, 90, 0);
  voices.play({ channel: 1, key: 69, detune: -50 }, 90, 0);
  voices.play({ channel: 0, key: 69 }, 0, 1);
  expect(s.log).toEqual(["440.0 on 90 10", "427.5 on 90 10", "440.0 off 11"]);
});

it("leaves notes out where too many are struck at once, but no end of a note", () => {
  const s = synth();
  const voices = new Voices(s);
  for (let i = 0; i < 2 * mostInTenth; i++) voices.play({ channel: i % 16, key: i }, 90, 0);
  expect(s.log.length).toBe(mostInTenth);
  for (let i = 0; i < 2 * mostInTenth; i++) voices.play({ channel: i % 16, key: i }, 0, 0.05);
  expect(s.log.length).toBe(2 * mostInTenth);
  voices.play({ channel: 0, key: 60 }, 90, 0.1);
  expect(s.log.length).toBe(2 * mostInTenth + 1);
});
