import type { TermSpec } from "../api/types";

/** A term of a condition, taken apart. */
export interface Term {
  not: boolean;
  kind: TermSpec;
  numbers: number[];
  /** The id of the track, the section or the scene that it is about. */
  of: number | undefined;
}

/** A condition, taken apart: its terms, and whether one that holds is enough. */
export interface Sentence {
  terms: Term[];
  or: boolean;
}

/** Takes a condition apart. */
export function readCondition(condition: string, kinds: TermSpec[]): Sentence {
  const or = condition.includes(" or ");
  const terms = condition === "" ? [] : condition.split(or ? " or " : " and ");
  return { or, terms: terms.flatMap((term) => readTerm(term, kinds) ?? []) };
}

function readTerm(term: string, kinds: TermSpec[]): Term | undefined {
  const not = term.startsWith("not ");
  const words = (not ? term.slice(4) : term).split(" ");
  for (const kind of kinds) {
    const form = kind.form.split(" ");
    if (form.length !== words.length) continue;
    if (!form.every((word, i) => word === words[i] || word === "#" || word === "@")) continue;
    const at = (place: string) => words.flatMap((w, i) => (form[i] === place ? Number(w) : []));
    return { not, kind, numbers: at("#"), of: at("@")[0] };
  }
  return undefined;
}

/** Puts a condition together. */
export function writeCondition({ terms, or }: Sentence): string {
  return terms.map(writeTerm).join(or ? " or " : " and ");
}

function writeTerm({ not, kind, numbers, of }: Term): string {
  const rest = [...numbers];
  const words = kind.form
    .split(" ")
    .map((word) => (word === "#" ? rest.shift() : word === "@" ? of : word));
  return (not ? "not " : "") + words.join(" ");
}
