import type { Chart, Draws, Outline } from "./generated";
import { get } from "./http";

/** A stretch of a track's time, in ticks. */
export interface Stretch {
  track: number;
  /** The pattern, if it is not to be the one that plays. */
  pattern?: number;
  from: number;
  to: number;
}

/** Asks how a track's lanes run through a stretch of time, and what they will do, perhaps under another luck. */
export function getChart(at: Stretch, signal: AbortSignal, luck?: number): Promise<Chart> {
  const under = luck === undefined ? "" : `&luck=${luck}`;
  return get<Chart>(`api/chart?${query(at)}${under}`, signal);
}

/** Asks what a lane's spread should add and what it added to the notes of a stretch. */
export function getDraws(
  at: Stretch,
  part: number,
  lane: string,
  step: number,
  signal: AbortSignal,
): Promise<Draws> {
  return get<Draws>(`api/draws?${query(at)}&part=${part}&lane=${lane}&step=${step}`, signal);
}

/** Asks what every track will play in some bars from one on, counted from 0. */
export function getOutlines(bar: number, signal: AbortSignal, bars = 2): Promise<Outline[]> {
  return get<Outline[]>(`api/roster?bar=${bar}&bars=${bars}`, signal);
}

function query({ track, pattern, from, to }: Stretch): string {
  const of = pattern === undefined ? "" : `&pattern=${pattern}`;
  return `track=${track}&from=${from}&to=${to}${of}`;
}
