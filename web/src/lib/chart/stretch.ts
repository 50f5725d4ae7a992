import type { StepDetail } from "../api/types";
import { Gate } from "./gate";

/** What becomes of each length of a step, as in the gate lane; empty is struck once, then silent. */
export function lengthsOf(detail: StepDetail): number[] {
  const count = detail.stretch || 1;
  if (detail.lengths) return [...detail.lengths].map(Number);
  return Array.from({ length: count }, (_, i) => (i === 0 ? Gate.on : Gate.off));
}

/** A change of how many lengths a step lasts; those that it has stay as they are. */
export function withStretch(detail: StepDetail, stretch: number): Partial<StepDetail> {
  if (stretch === 1) return { stretch: 0, lengths: "" };
  const kept = detail.lengths ? lengthsOf(detail).slice(0, stretch) : [];
  if (!kept.includes(Gate.on)) return { stretch, lengths: "" };
  return { stretch, lengths: kept.join("").padEnd(stretch, String(Gate.off)) };
}
