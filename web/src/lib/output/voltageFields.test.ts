import { expect, test } from "vitest";
import type { Track, VoltageChannel } from "../api/types";
import { channelWords, fieldsOf, isOfTrack, isOfVoice, type Signal } from "./voltageFields";

const signals: Signal[] = ["pitch", "gate", "trigger", "velocity", "mod", "clock", "run", "reset"];

test("each signal has fields of its own, and none twice", () => {
  for (const signal of signals) {
    const { numbers, toggles } = fieldsOf(signal);
    const keys = [...numbers, ...toggles].map(({ key }) => key);
    expect(keys.length, signal).toBeGreaterThan(0);
    expect(new Set(keys).size).toBe(keys.length);
    expect(isOfVoice(signal) && !isOfTrack(signal)).toBe(false);
  }
  expect(fieldsOf("clock").numbers.map(({ key }) => key)).toEqual(["height", "length", "pulses"]);
  expect(fieldsOf("run").toggles.map(({ key }) => key)).toEqual(["inverted"]);
});

test("a channel says whose signal it carries", () => {
  const kit = { id: 3, name: "Hull kit", patterns: [{ parts: [{ id: 0, name: "Hatch" }] }] };
  const tracks = [kit] as unknown as Track[];
  const words = (channel: Partial<VoltageChannel>) =>
    channelWords({ channel: 3, signal: "pitch", lowest: 0, highest: 0, ...channel }, tracks);
  expect(words({ track: 3 })).toBe("Hull kit");
  expect(words({ track: 3, voice: 2 })).toBe("Hull kit, voice 2");
  expect(words({ track: 9 })).toBe("a track that is gone");
  expect(words({})).toBe("no track");
  expect(words({ signal: "trigger", track: 3 })).toBe("Hatch, Hull kit");
  expect(words({ signal: "trigger", track: 3, part: 7 })).toBe("a part that is gone, Hull kit");
  expect(words({ signal: "mod", track: 3, mod: 4 })).toBe("Hull kit, mod 4");
  expect(words({ signal: "clock", track: 3 })).toBe("");
  expect(words({ signal: "reset", track: 3 })).toBe("Hull kit");
  expect(words({ signal: "reset" })).toBe("");
});
