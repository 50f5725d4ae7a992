import type { Meter } from "../api/types";

/** A meter as it is written: 7/8, or 2+2+3/8 where its beats are grouped. */
export function meterText({ beats, unit, groups = [] }: Meter): string {
  return `${groups.length > 0 ? groups.join("+") : beats}/${unit}`;
}

/** The meter that a text stands for; undefined if it is none. The server refuses what it cannot have. */
export function meterOf(text: string): Meter | undefined {
  const [, counts, unitText] = /^(\d+(?:\+\d+)*)\/(\d+)$/.exec(text.replace(/\s/g, "")) ?? [];
  const unit = ([2, 4, 8, 16] as const).find((u) => String(u) === unitText);
  if (counts === undefined || unit === undefined) return undefined;
  const groups = counts.split("+").map(Number);
  const beats = groups.reduce((sum, group) => sum + group, 0);
  return groups.length > 1 ? { beats, unit, groups } : { beats, unit };
}
