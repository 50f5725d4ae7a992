import { expect, it } from "vitest";
import { SoundQueue } from "./soundQueue";

function sound(at: number) {
  return { at, tick: 0, track: 1, channel: 0, key: 60, velocity: 90 };
}

it("hands each sound over once, in order, when its time has come", () => {
  const queue = new SoundQueue();
  queue.push([sound(10), sound(20)]);
  queue.push([sound(30)]);
  expect(queue.takeBefore(10)).toEqual([]);
  expect(queue.takeBefore(21).map((s) => s.at)).toEqual([10, 20]);
  expect(queue.takeBefore(21)).toEqual([]);
  queue.clear();
  expect(queue.takeBefore(Infinity)).toEqual([]);
});

it("puts what comes late to be known in its place, behind what was there at that time", () => {
  const queue = new SoundQueue();
  queue.push([sound(10), { ...sound(40), velocity: 0 }]);
  queue.push([sound(20), sound(40)]);
  const taken = queue.takeBefore(Infinity);
  expect(taken.map((s) => s.at)).toEqual([10, 20, 40, 40]);
  expect(taken[2]?.velocity).toBe(0);
});

it("takes note-ons out that are withdrawn, and nothing else", () => {
  const queue = new SoundQueue();
  const release = { ...sound(10), velocity: 0 };
  queue.push([sound(5), sound(10), release, { ...sound(10), key: 61 }]);
  queue.withdraw([sound(10), sound(99)]);
  expect(queue.takeBefore(100)).toEqual([sound(5), release, { ...sound(10), key: 61 }]);
});
