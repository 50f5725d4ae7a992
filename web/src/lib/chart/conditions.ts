import type { Track } from "../api/types";

/** Conditions without a number, in words and as a short mark over a step. */
const named: Record<string, { words: string; mark: string }> = {
  "": { words: "always", mark: "" },
  first: { words: "on the first pass only", mark: "1st" },
  "not first": { words: "on all passes but the first", mark: "2nd+" },
  fill: { words: "only while filling", mark: "fill" },
  "after sound": { words: "if the last step on sounded", mark: "if ●" },
  "after silence": { words: "if the last step on was silent", mark: "if ○" },
};

/** The conditions without a number, in the order in which to offer them. */
export const namedConditions = Object.keys(named);

/** The a and b of a condition on the a-th pass of every b. */
export function passesOf(condition: string): { pass: number; of: number } | undefined {
  const [pass, of] = condition.split(":").map(Number);
  return pass && of ? { pass, of } : undefined;
}

/** The id of the track that a condition is about. */
export function trackOf(condition: string): number | undefined {
  return condition.startsWith("track ") ? Number(condition.slice(6)) : undefined;
}

/** A condition in words: "on the 3rd of every 4 passes". */
export function conditionWords(condition: string, tracks: Track[]): string {
  const passes = passesOf(condition);
  if (passes) return `on the ${ordinal(passes.pass)} of every ${passes.of} passes`;
  const track = trackOf(condition);
  if (track !== undefined) {
    return `if ${tracks.find((t) => t.id === track)?.name ?? "a track"} sounded last`;
  }
  return named[condition]?.words ?? condition;
}

/** A condition in few characters. */
export function conditionMark(condition: string): string {
  const passes = passesOf(condition);
  if (passes) return `${passes.pass} of ${passes.of}`;
  if (trackOf(condition) !== undefined) return "if T";
  return named[condition]?.mark ?? "";
}

function ordinal(n: number): string {
  const teen = n % 100 >= 11 && n % 100 <= 13;
  return `${n}${teen ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th")}`;
}
