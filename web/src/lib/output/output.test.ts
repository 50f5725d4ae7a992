import { describe, expect, it } from "vitest";
import { Activity, routeName } from "./activity";
import { decoded } from "./decoded";
import { PortQueue } from "./portQueue";

const on = (at: number, key: number) => ({ at, output: 1, track: 1, data: [0x90, key, 90] });
const off = (at: number, key: number) => ({ at, output: 1, track: 1, data: [0x80, key, 64] });

function queue() {
  const sent: { data: readonly number[]; at: number }[] = [];
  return { sent, port: new PortQueue((data, at) => sent.push({ data, at })) };
}

describe("a port's queue", () => {
  it("hands messages over once, in the order of their times, when they are due", () => {
    const { sent, port } = queue();
    port.push([on(10, 60), off(30, 60)]);
    port.push([on(20, 61)]);
    const page = (at: number) => at + 1000;
    expect(port.handOver(20, page)).toHaveLength(1);
    expect(port.handOver(31, page)).toHaveLength(2);
    expect(sent.map(({ data, at }) => [data[1], at])).toEqual([
      [60, 1010],
      [61, 1020],
      [60, 1030],
    ]);
  });

  it("takes back what has not been handed over, and ends what has", () => {
    const { sent, port } = queue();
    port.push([on(10, 60), on(10, 61), on(50, 62)]);
    port.unsend([on(10, 61)]);
    port.handOver(20, (at) => at);
    port.release(15);
    port.handOver(99, (at) => at);
    expect(sent.map(({ data }) => data.slice(0, 2))).toEqual([
      [0x90, 60],
      [0x80, 60],
    ]);
  });

  it("sends what machines in time are told, and tuning messages only where they are allowed", () => {
    const { sent, port } = queue();
    const system = (at: number, data: number[]) => ({ at, output: 1, track: 0, data });
    const told = [[0xf2, 44, 2], [0xfb], [0xf8], [0xfc]];
    port.push(told.map((data, i) => system(i, data)));
    port.push([system(5, [0xf0, 0x7f, 0xf7])]);
    port.handOver(9, (at) => at);
    expect(sent.map(({ data }) => data)).toEqual(told);
    const words = told.map((data) => decoded(data, String));
    expect(words).toEqual(["position 300 sixteenths", "continue", "clock", "stop"]);
    expect(decoded([0xf0], String)).toBe("system message");
    port.push([on(20, 60), system(21, [0xf8])]);
    port.panic(20);
    sent.length = 0;
    port.handOver(30, (at) => at);
    expect(sent).toEqual([{ data: [0xf8], at: 21 }]); // it goes on, at its time
  });

  it("never sends a release before what it releases", () => {
    const { sent, port } = queue();
    port.push([on(40, 60)]);
    port.handOver(50, (at) => at);
    port.release(30); // the strike is on its way to the device
    expect(sent.map(({ at }) => at)).toEqual([40, 40]);
  });

  it("ends notes by velocity 0 where that is asked for", () => {
    const { sent, port } = queue();
    port.velocityZero = true;
    port.play([0x93, 60, 90], 0);
    port.release(5);
    expect(sent.at(-1)).toEqual({ data: [0x93, 60, 0], at: 5 });
  });

  it("sends system exclusive messages only where that is allowed", () => {
    const { sent, port } = queue();
    port.play([0xf0, 0x7f, 0xf7], 0);
    expect(sent).toEqual([]);
    port.exclusive = true;
    port.play([0xf0, 0x7f, 0xf7], 1);
    expect(sent).toEqual([{ data: [0xf0, 0x7f, 0xf7], at: 1 }]);
  });

  it("says that it is there once it sent nothing for 0.27 s, at most 0.3 s apart (MIDI 1.0)", () => {
    const { sent, port } = queue();
    port.play([0x90, 60, 90], 1000);
    for (let now = 1000; now <= 2000; now += 25) port.sense(now);
    expect(sent.map(({ data, at }) => [data[0], at])).toEqual([
      [0x90, 1000],
      [0xfe, 1275],
      [0xfe, 1550],
      [0xfe, 1825],
    ]);
  });

  it("takes what brings a device up to date, and nothing twice", () => {
    const { sent, port } = queue();
    port.push([on(30, 61), off(50, 61)]);
    port.pushMissing([on(10, 60), on(30, 61), { ...on(30, 61), output: 2 }, off(40, 60)]);
    port.unsend([{ ...on(30, 61), output: 2 }]);
    port.handOver(99, (at) => at);
    expect(sent.map(({ data, at }) => [data[0], data[1], at])).toEqual([
      [0x90, 60, 10],
      [0x90, 61, 30],
      [0x80, 60, 40],
      [0x80, 61, 50],
    ]);
  });

  it("holds a key that two outputs of one port hold until both have let go of it", () => {
    const { sent, port } = queue();
    port.push([
      on(10, 60),
      { ...on(20, 60), output: 2 },
      off(30, 60),
      { ...off(40, 60), output: 2 },
    ]);
    port.handOver(99, (at) => at);
    expect(sent.map(({ data, at }) => [data[0], at])).toEqual([
      [0x90, 10],
      [0x80, 20],
      [0x90, 20],
      [0x80, 40],
    ]);
  });

  // MIDI 1.0, table III: 64 is the sustain pedal, 120 all sound off, 123 all notes off; a bend of 8192 is the middle.
  it("panics by all that can end a note, no faster than a cable takes it", () => {
    const { sent, port } = queue();
    port.push([on(10, 60), off(11, 60), on(12, 61)]);
    port.handOver(50, (at) => at);
    sent.length = 0;
    port.panic(100);
    for (const channel of [0, 15]) {
      const of = sent.filter(({ data }) => ((data[0] ?? 0) & 0xf) === channel);
      expect(of.slice(0, 4).map(({ data }) => data)).toEqual([
        [0xb0 + channel, 64, 0],
        [0xb0 + channel, 120, 0],
        [0xb0 + channel, 123, 0],
        [0xe0 + channel, 0, 64],
      ]);
    }
    expect(sent.slice(-2).map(({ data }) => data)).toEqual([
      [0x80, 60, 64],
      [0x80, 61, 64],
    ]);
    const bytes = sent.slice(0, -1).reduce((sum, { data }) => sum + data.length, 0);
    expect(sent.at(-1)?.at).toBeCloseTo(100 + bytes * 0.32, 6);
  });

  it("sends no system exclusive messages, which the user was not asked for, and forgets a device that is gone", () => {
    const { sent, port } = queue();
    port.push([{ at: 1, output: 1, track: 1, data: [0xf0, 0x7f, 0xf7] }, on(2, 60)]);
    port.handOver(9, (at) => at);
    port.push([on(20, 61)]);
    port.forget();
    port.handOver(99, (at) => at);
    port.release(100);
    expect(sent).toHaveLength(1);
  });
});

it("routes are seen to play from when a note begins, for a moment", () => {
  const activity = new Activity();
  activity.note(1, 7, 100);
  expect(activity.at(99).size).toBe(0);
  expect([...activity.at(101)]).toEqual([routeName(1, 7)]);
  expect(activity.at(300).size).toBe(0);
});

// MIDI 1.0, table II.
it("messages are read in words", () => {
  const name = (key: number) => `key ${key}`;
  const words = [
    [0x91, 60, 90],
    [0x91, 60, 0],
    [0x82, 61, 64],
    [0xb0, 74, 3],
    [0xc0, 4],
    [0xd0, 99],
    [0xe0, 0, 64],
    [0xa0, 60, 5],
    [0xf9],
  ].map((data) => decoded(data, name));
  expect(words).toEqual([
    ...["note on key 60, velocity 90", "note off key 60", "note off key 61", "CC 74: 3"],
    ...["program 5", "pressure 99", "bend 0", "pressure 5 on key 60", "system message"],
  ]);
});
