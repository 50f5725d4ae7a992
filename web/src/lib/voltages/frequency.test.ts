import { expect, it } from "vitest";
import { frequencyOf } from "./frequency";

const rate = 48_000;

const wave = (hertz: number, shape: (phase: number) => number) =>
  Float32Array.from({ length: 16_384 }, (_, i) => 0.3 * shape((i * hertz) / rate));

it.each([30, 65.41, 261.63, 440, 1046.5, 2093])("finds %f Hz within half a cent", (hertz) => {
  const sine = wave(hertz, (phase) => Math.sin(2 * Math.PI * phase));
  const rich = wave(hertz, (phase) =>
    [1, 2, 3, 4, 5].reduce((sum, n) => sum + Math.sin(2 * Math.PI * phase * n) / n, 0),
  );
  for (const sound of [sine, rich]) {
    const found = frequencyOf(sound, rate) ?? 0;
    expect(Math.abs(1200 * Math.log2(found / hertz))).toBeLessThan(0.5);
  }
});

it("finds none in silence and noise", () => {
  let random = 1;
  const noise = wave(1, () => (random = (random * 16807) % 2147483647) / 2147483647 - 0.5);
  expect(frequencyOf(new Float32Array(16_384), rate)).toBeUndefined();
  expect(frequencyOf(noise, rate)).toBeUndefined();
});
