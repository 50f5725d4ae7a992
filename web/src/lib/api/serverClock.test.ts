import { describe, expect, it } from "vitest";
import { ServerClock } from "./serverClock";

describe("ServerClock", () => {
  it("believes the quickest of the last answers", () => {
    const clock = new ServerClock();
    // The server is 1,000 ms ahead; slow answers were held up on one way only.
    clock.learn(0, 40, 1_035e6);
    clock.learn(100, 100.5, 1_100.25e6);
    clock.learn(200, 230, 1_201e6);
    expect(clock.serverNanos(500)).toBeCloseTo(1_500e6, 0);
    expect(clock.pageMillis(1_500e6)).toBeCloseTo(500, 6);
  });

  it("forgets old answers, so that clocks that drift apart are followed", () => {
    const clock = new ServerClock();
    clock.learn(0, 0.1, 5_000e6);
    for (let i = 0; i < 8; i++) clock.learn(i, i + 1, (7_000 + i + 0.5) * 1e6);
    expect(clock.serverNanos(0)).toBeCloseTo(7_000e6, 0);
  });

  it("knows nothing before the first answer and after a reset", () => {
    const clock = new ServerClock();
    expect(clock.known).toBe(false);
    clock.learn(0, 1, 1);
    expect(clock.known).toBe(true);
    clock.reset();
    expect(clock.known).toBe(false);
  });
});
