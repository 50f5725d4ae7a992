import type { Degree, LaneName, LaneSpec } from "../api/types";

const gateWords = ["off", "on", "tie"];

/** A step's value in words, as it is read out. */
export function valueText(spec: LaneSpec, value: number, degrees: Degree[]): string {
  switch (spec.name as LaneName) {
    case "gate":
      return gateWords[value] ?? "";
    case "pitch":
      return `${degreeName(value, degrees)} · degree ${value}`;
    case "velocity":
      return String(value);
    case "length":
    case "probability":
      return `${value} %`;
  }
}

/** The name of the note of a degree, as A4. */
export function degreeName(degree: number, degrees: Degree[]): string {
  const first = degrees[0]?.degree ?? 0;
  return degrees[degree - first]?.name ?? "";
}

/** What a lane is for, in one line. */
export const laneHelp: Record<LaneName, string> = {
  gate: "Gate: which steps strike a note. Click or drag to switch; Shift ties a step to the note before it.",
  pitch:
    "Pitch: a degree of the key for each step. Draw across it; the wheel moves the rows up and down.",
  velocity: "Velocity: how hard a note is struck, 1 to 127.",
  length: "Length: how much of its step a note sounds, 1 to 100 %.",
  probability: "Probability: how often a step sounds. The fog is what stays open.",
};
