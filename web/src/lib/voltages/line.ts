import type { Corrected, WireSegment } from "../api/types";

/** The voltage of a segment at a moment, in nanoseconds; after its end it stays there. */
export function voltageAt({ at, takes, start, end, bend = 0 }: WireSegment, nanos: number): number {
  if (start === end || nanos >= at + takes) return end;
  const x = (nanos - at) / takes;
  const share = bend > 0 ? Math.expm1(-bend * x) / Math.expm1(-bend) : x;
  return start + (end - start) * share;
}

/** What has to be sent for a voltage by a calibration: in lines between its points and beyond them; without any the voltage itself. */
export function corrected(points: readonly Corrected[], volts: number): number {
  if (points.length < 2) return volts;
  const above = points.findIndex(({ wanted }) => wanted >= volts);
  const to = above < 0 ? points.length - 1 : Math.max(1, above);
  const [low, high] = [points[to - 1]!, points[to]!];
  return low.sent + ((volts - low.wanted) * (high.sent - low.sent)) / (high.wanted - low.wanted);
}
