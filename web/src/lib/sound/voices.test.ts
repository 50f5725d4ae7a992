import { expect, it } from "vitest";
import { Voices } from "./voices";

function synth() {
  const log: string[] = [];
  return {
    log,
    now: () => 10,
    attack: (key: number, velocity: number, at: number) => log.push(`${key} on ${velocity} ${at}`),
    release: (key: number, at: number) => log.push(`${key} off ${at}`),
  };
}

it("plays at the given moments, and at once what comes late", () => {
  const s = synth();
  const voices = new Voices(s);
  voices.play(60, 90, 0.5);
  voices.play(60, 0, 0.75);
  voices.play(62, 80, -3);
  expect(s.log).toEqual(["60 on 90 10.5", "60 off 10.75", "62 on 80 10"]);
});

it("lets every key go that is down, never before it was struck", () => {
  const s = synth();
  const voices = new Voices(s);
  voices.play(60, 90, 0);
  voices.play(62, 90, 0.04);
  voices.releaseAll();
  voices.releaseAll();
  expect(s.log.slice(2)).toEqual(["60 off 10.01", "62 off 10.049999999999999"]);
});

it("ignores the end of a note whose beginning it did not hear", () => {
  const s = synth();
  new Voices(s).play(60, 0, 0);
  expect(s.log).toEqual([]);
});
