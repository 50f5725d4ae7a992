import { expect, test, vi } from "vitest";
import { EchoGuard } from "./echoGuard";
import { strokeOf } from "./port";
import { SimulatedController } from "./simulatedController";

test("strokes are what MIDI 1.0 says they are", () => {
  const of = (...bytes: number[]) => strokeOf(new Uint8Array(bytes));
  expect(of(0x93, 60, 100)).toEqual({ channel: 3, key: 60, velocity: 100 });
  expect(of(0x93, 60, 0)).toEqual({ channel: 3, key: 60, velocity: 0 });
  expect(of(0x81, 60, 64)).toEqual({ channel: 1, key: 60, velocity: 0 });
  for (const other of [[0xf8], [0xfe], [0xb0, 64, 127], [0xe0, 0, 64], [0xc0, 5], [0x90, 60]]) {
    expect(of(...other)).toBeUndefined();
  }
});

test("the simulated keyboard sends what a keyboard sends, and lets go of all when it is closed", () => {
  vi.useFakeTimers();
  const sent: number[][] = [];
  const keyboard = new SimulatedController(2);
  keyboard.press(60, 90); // nobody is there
  keyboard.release(60);
  const close = keyboard.open((bytes) => sent.push([...bytes]));
  keyboard.press(62, 90);
  keyboard.press(62, 90);
  vi.advanceTimersByTime(300);
  keyboard.release(62);
  keyboard.release(62);
  keyboard.press(64, 1);
  close();
  keyboard.press(65, 1);
  vi.advanceTimersByTime(900);
  expect(sent).toEqual([[0x92, 62, 90], [0xfe], [0x92, 62, 0], [0x92, 64, 1], [0x92, 64, 0]]);
  vi.useRealTimers();
});

test("what went out is known when it comes back, once, and near its time", () => {
  const guard = new EchoGuard();
  const page = (at: number) => at / 1e6;
  const on = { at: 1000e6, data: [0x90, 60, 90] };
  guard.remember([on, { at: 1200e6, data: [0x80, 60, 64] }], page);
  expect(guard.isEcho([0x90, 60, 91], 1010)).toBe(false);
  expect(guard.isEcho([0x90, 61, 90], 1010)).toBe(false);
  expect(guard.isEcho(Uint8Array.from([0x90, 60, 90]), 1010)).toBe(true);
  expect(guard.isEcho([0x90, 60, 90], 1011)).toBe(false);
  expect(guard.isEcho([0x90, 60, 0], 1205)).toBe(true);
  guard.remember([on, { at: 1000e6, data: [0xb0, 74, 3] }, { at: 1000e6, data: [0xf8] }], page);
  expect(guard.isEcho([0x90, 60, 90], 900)).toBe(false);
  expect(guard.isEcho([0xf8], 1000)).toBe(false);
  expect(guard.isEcho([0xb0, 74, 3], 1001)).toBe(true);
  expect(guard.isEcho([0x90, 60, 90], 1600)).toBe(false);
});
