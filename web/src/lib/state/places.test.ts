import { afterEach, expect, test, vi } from "vitest";
import { ServerClock } from "../api/serverClock";
import { Places } from "./places.svelte";

afterEach(() => vi.unstubAllGlobals());

test("lanes stand where they have moved to by each frame, and where nothing is to come there are no frames", () => {
  const frames: (() => void)[] = [];
  let now = 0;
  vi.stubGlobal("document", { hidden: false });
  vi.stubGlobal("performance", { now: () => now });
  vi.stubGlobal("requestAnimationFrame", (frame: () => void) => frames.push(frame));
  const clock = new ServerClock();
  clock.learn(0, 0, 0);
  const places = new Places(clock);
  expect(frames).toHaveLength(0);

  const move = (step: number, millis: number) => {
    return { track: 1, part: 0, lane: "gate" as const, step, tick: millis, at: millis * 1e6 };
  };
  places.announce([move(3, 10), move(4, 30)]);
  places.announce([move(5, 50)]);
  const step = () => places.of(1, 0, "gate")?.step;
  for (const [millis, want] of [
    [5, undefined],
    [12, 3],
    [29, 3],
    [31, 4],
    [90, 5],
  ] as const) {
    expect(frames).toHaveLength(1);
    now = millis;
    frames.pop()?.();
    expect(step()).toBe(want);
  }
  expect(frames).toHaveLength(0);

  places.announce([move(6, 100)]);
  places.clear();
  expect(frames).toHaveLength(1);
  frames.pop()?.();
  expect(frames).toHaveLength(0);
  expect(step()).toBe(undefined);
});
