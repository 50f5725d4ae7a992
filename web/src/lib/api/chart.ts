import type { Chart } from "./generated";
import { get } from "./http";

/** Asks how a part's lanes run through a stretch of time, in ticks, and what they will do. */
export function getChart(
  track: number,
  part: number,
  from: number,
  to: number,
  signal: AbortSignal,
): Promise<Chart> {
  return get<Chart>(`api/chart?track=${track}&part=${part}&from=${from}&to=${to}`, signal);
}
