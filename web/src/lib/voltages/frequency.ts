/** Below this share of its power a sound differs from itself a period later (the threshold of the YIN method). */
const alike = 0.15;

/** By how many periods a period is measured at most, so that a fraction of a sample counts little. */
const manyPeriods = 64;

/**
 * The frequency of a sound with a pitch, in hertz, from 20 Hz up; nothing if it has none. The least lag at which the sound is like itself
 * is found by the cumulative mean normalized difference (A. de Cheveigné and H. Kawahara, YIN, 2002; from memory), then made exact at
 * lags of many periods.
 */
export function frequencyOf(samples: Float32Array, sampleRate: number): number | undefined {
  const most = Math.min(Math.floor(sampleRate / 20), Math.floor(samples.length / 4));
  const length = Math.floor(samples.length / 4);
  let sum = 0;
  let before = Infinity;
  for (let lag = 2; lag < most; lag++) {
    const difference = differenceAt(samples, lag, length);
    sum += difference;
    const now = sum > 0 ? (difference * (lag - 1)) / sum : 1;
    if (before < alike && now >= before) return sampleRate / exact(samples, lag - 1, length);
    before = now;
  }
  return undefined;
}

/** The period near a lag, in samples, measured at twice as many periods again and again. */
function exact(samples: Float32Array, lag: number, length: number): number {
  let period = least(samples, lag, length);
  for (let periods = 2; periods <= manyPeriods; periods *= 2) {
    const at = Math.round(period * periods);
    if (at + length + 2 >= samples.length) break;
    period = least(samples, at, length) / periods;
  }
  return period;
}

/** Where between samples the difference is the least near a lag: the lowest point of the parabola through three. */
function least(samples: Float32Array, lag: number, length: number): number {
  const lags = [lag - 2, lag - 1, lag, lag + 1, lag + 2].filter((at) => at > 0);
  const values = lags.map((at) => differenceAt(samples, at, length));
  const at = Math.max(1, Math.min(values.length - 2, values.indexOf(Math.min(...values))));
  const [a, b, c] = [values[at - 1]!, values[at]!, values[at + 1]!];
  const curve = a - 2 * b + c;
  return lags[at]! + (curve > 0 ? (a - c) / (2 * curve) : 0);
}

function differenceAt(samples: Float32Array, lag: number, length: number): number {
  let sum = 0;
  for (let i = 0; i < length; i++) sum += (samples[i]! - samples[i + lag]!) ** 2;
  return sum;
}
