import { expect, it } from "vitest";
import { Voices, type VoiceNote } from "./voices";

/** A synth of some voices that writes down what each is told, at a time of its clock that can be set. */
function synth(count: number) {
  const log: string[] = [];
  const clock = { now: 10 };
  const voices = Array.from({ length: count }, (_, i) => ({
    attack: ({ hertz }: VoiceNote, velocity: number, at: number) =>
      log.push(`${i}: ${hertz.toFixed(1)} on ${velocity} ${at.toFixed(3)}`),
    release: (at: number) => log.push(`${i}: off ${at.toFixed(3)}`),
  }));
  return { log, clock, voices, now: () => clock.now };
}

it("plays at the given moments, and at once what comes late", () => {
  const s = synth(4);
  const voices = new Voices(s);
  voices.play({ of: "0", key: 60 }, 90, 0.5);
  voices.play({ of: "0", key: 60 }, 0, 0.75);
  voices.play({ of: "0", key: 62 }, 80, -3);
  expect(s.log).toEqual(["0: 261.6 on 90 10.500", "0: off 10.750", "1: 293.7 on 80 10.000"]);
});

it("releases every key that is down, never before it was struck", () => {
  const s = synth(4);
  const voices = new Voices(s);
  voices.play({ of: "0", key: 60 }, 90, 0);
  voices.play({ of: "0", key: 62 }, 90, 0.04);
  voices.releaseAll();
  voices.releaseAll();
  expect(s.log.slice(2)).toEqual(["0: off 10.010", "1: off 10.050"]);
});

it("ignores the end of a note whose beginning it did not hear", () => {
  const s = synth(4);
  new Voices(s).play({ of: "0", key: 60 }, 0, 0);
  expect(s.log).toEqual([]);
});

it("sounds a key as many cents beside its pitch as it was told, and releases just that", () => {
  const s = synth(4);
  const voices = new Voices(s);
  voices.play({ of: "0", key: 69 }, 90, 0);
  voices.play({ of: "1", key: 69, detune: -50 }, 90, 0);
  voices.play({ of: "0", key: 69 }, 0, 1);
  expect(s.log).toEqual(["0: 440.0 on 90 10.000", "1: 427.5 on 90 10.000", "0: off 11.000"]);
});

it("gives a key that is struck again the voice that it has", () => {
  const s = synth(4);
  const voices = new Voices(s);
  voices.play({ of: "0", key: 69 }, 90, 0);
  voices.play({ of: "0", key: 69 }, 50, 1);
  voices.play({ of: "0", key: 69 }, 0, 2);
  voices.releaseAll();
  expect(s.log).toEqual(["0: 440.0 on 90 10.000", "0: 440.0 on 50 11.000", "0: off 12.000"]);
});

it("takes the voice that was struck first where none is silent, and does not end its new note with the old", () => {
  const s = synth(2);
  const voices = new Voices(s);
  voices.play({ of: "0", key: 69 }, 90, 0.2);
  voices.play({ of: "1", key: 69 }, 90, 0.1);
  voices.play({ of: "2", key: 69 }, 90, 0.3);
  voices.play({ of: "1", key: 69 }, 0, 0.4);
  expect(s.log.slice(2)).toEqual(["1: 440.0 on 90 10.300"]);
  voices.play({ of: "2", key: 69 }, 0, 0.5);
  expect(s.log.slice(3)).toEqual(["1: off 10.500"]);
});

it("leaves a voice its fading, as long as another is silent", () => {
  const s = synth(2);
  const voices = new Voices(s);
  const tap = (of: string) => {
    voices.play({ of, key: 69 }, 90, 0);
    voices.play({ of, key: 69 }, 0, 0.1);
  };
  tap("0");
  s.clock.now += 0.3;
  tap("1");
  s.clock.now += 0.5;
  tap("2");
  const taken = s.log.filter((line) => line.includes(" on ")).map((line) => line[0]);
  expect(taken).toEqual(["0", "1", "0"]);
});

it("has the closed hi-hat silence the open one, also after its note has ended, and nothing else", () => {
  const s = synth(4);
  const voices = new Voices(s);
  const tap = (key: number, late: number) => {
    voices.play({ of: "3", key, patch: "kit" }, 90, late);
    voices.play({ of: "3", key, patch: "kit" }, 0, late + 0.05);
  };
  tap(46, 0);
  tap(38, 0);
  tap(42, 0.1);
  const struck = s.log.filter((line) => line.includes(" on ")).map((line) => line[0]);
  expect(struck).toEqual(["0", "1", "0"]);
});
