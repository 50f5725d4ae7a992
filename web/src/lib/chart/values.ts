import type { ChordType, Degree, LaneName, LaneSpec } from "../api/types";

const gateWords = ["off", "on", "tie"];

/** A step's value in words, as it is read out. */
export function valueText(
  spec: LaneSpec,
  value: number,
  degrees: Degree[],
  chords: ChordType[],
): string {
  switch (spec.name as LaneName) {
    case "gate":
      return gateWords[value] ?? "";
    case "pitch":
      return `${degreeName(value, degrees)} · degree ${value}`;
    case "length":
      return `${value > wholeStep ? value - wholeStep + 1 : value} ${lengthUnit(value)}`;
    case "chord":
      return chords[value]?.name ?? "";
    case "slide":
      return value ? "slide" : "none";
    case "octave":
    case "alteration":
      return signed(value);
    case "probability":
    case "nudge":
    case "swing":
      return `${value} %`;
    default:
      return String(value);
  }
}

/** A number with its sign, a true minus below 0. */
export function signed(value: number): string {
  return value > 0 ? `+${value}` : String(value).replace("-", "−");
}

/** What of a value is in force, after the amount of its lane. */
export function effective(name: LaneName, amount: number, value: number, spec: LaneSpec): number {
  if (name !== "velocity" && name !== "probability") return value;
  const scaled = (value * amount) / 100;
  const inForce = name === "velocity" ? Math.round(scaled) : scaled;
  return Math.min(spec.most, Math.max(spec.least, inForce));
}

/** A length up to this is a share of the step in percent; above it counts steps, from 2. */
export const wholeStep = 100;

/** What a length counts. */
export function lengthUnit(value: number): string {
  return value > wholeStep ? "steps" : "%";
}

/** How many steps a length lasts. */
export function lengthInSteps(value: number): number {
  return value > wholeStep ? value - wholeStep + 1 : value / wholeStep;
}

/** The name of the note of a degree, as A4. */
export function degreeName(degree: number, degrees: Degree[]): string {
  const first = degrees[0]?.degree ?? 0;
  return degrees[degree - first]?.name ?? "";
}

const laneHelps: Partial<Record<LaneName, string>> = {
  gate: "Gate: which steps strike a note. Click or drag to switch; Shift ties a step to the note before it.",
  pitch:
    "Pitch: a degree of the key for each step, typed as a number or as a note (C2, Eb3). Draw across it; pull the notes at its left, or turn the wheel, for other octaves.",
  velocity: "Velocity: how hard a note is struck, 1 to 127.",
  length: "Length: how much of its step a note sounds, 1 to 100 %; above that, 2 to 64 steps.",
  alteration: "Alteration: semitones out of the scale, 2 down to 2 up.",
  swing: "Swing: how much of the swing in force a step takes, 100 is all of it.",
  octave: "Octave: octaves up or down.",
  chord: "Chord: a stack of degrees on the note, by its number; 0 is none.",
  slide: "Slide: 1 ties a step to the next note, with portamento.",
  ratchet: "Ratchet: how many times a step is struck, 1 to 16.",
  nudge: "Nudge: how early or late a note comes, in percent of its step.",
  probability: "Probability: how often a step sounds. The fog is what stays open.",
};

/** What a lane is for, in one line. */
export function laneHelp(lane: LaneName): string {
  return (
    laneHelps[lane] ??
    "Mod: a controller, from the least to the most of its range. A project file says which."
  );
}
