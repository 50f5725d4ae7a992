import type { Degree, LaneSpec } from "../api/types";

/** What values are read with: the notes of the key, and the length that fills a step. */
export interface ReadWith {
  degrees: Degree[];
  /** How many degrees of the scale lie within its period. */
  degreesPerOctave: number;
  wholeStep: number;
}

/** A step's value in words, as it is read out. */
export function valueText(spec: LaneSpec, value: number, by: ReadWith): string {
  switch (spec.reads) {
    case "degree":
      return `${degreeName(value, by.degrees)} · ${degreeText(value, by)}`;
    case "duration":
      return value > by.wholeStep ? `${steps(value, by)} steps` : `${value} %`;
    case "percent":
      return `${value} %`;
    default:
      return shortText(spec, value, by);
  }
}

/** A step's value in as few characters as tell it. */
export function shortText(spec: LaneSpec, value: number, by: ReadWith): string {
  switch (spec.reads) {
    case "words":
      return spec.words?.[value - spec.least] ?? "";
    case "degree":
      return degreeName(value, by.degrees);
    case "duration":
      return value > by.wholeStep ? `${steps(value, by)}×` : String(value);
    case "signed":
      return signed(value);
    default:
      return String(value);
  }
}

/** What a value counts, or the degree that it is. */
export function unitText(spec: LaneSpec, value: number, by: ReadWith): string {
  switch (spec.reads) {
    case "degree":
      return degreeText(value, by);
    case "duration":
      return value > by.wholeStep ? "steps" : "%";
    case "percent":
      return "%";
    default:
      return "";
  }
}

/** A number with its sign, a true minus below 0. */
export function signed(value: number): string {
  return value > 0 ? `+${value}` : String(value).replace("-", "−");
}

/** What of a value is in force by the table of its lane. */
export function effective(inForce: number[] | undefined, value: number, spec: LaneSpec): number {
  return inForce?.[value - spec.least] ?? value;
}

/** How many steps a length lasts. */
export function lengthInSteps(value: number, by: ReadWith): number {
  return value > by.wholeStep ? steps(value, by) : value / by.wholeStep;
}

/** What a length counts that is longer than its step: whole steps, from 2. */
function steps(value: number, { wholeStep }: ReadWith): number {
  return value - wholeStep + 1;
}

/** A degree as it is counted: from 1, the root, up to the next root. */
function degreeText(value: number, { degreesPerOctave: count }: ReadWith): string {
  return `degree ${(((value % count) + count) % count) + 1}`;
}

/** The name of the note of a degree, as A4. */
export function degreeName(degree: number, degrees: Degree[]): string {
  const first = degrees[0]?.degree ?? 0;
  return degrees[degree - first]?.name ?? "";
}
