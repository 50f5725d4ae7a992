import { counted } from "../counted";
import type { Track } from "../api/types";

/** What a term of a condition says, with the words of the trade for each number. */
export interface TermKind {
  /** The words that choose it in a list. */
  words: string;
  /** The term as it stands in a condition, with a place for each number: `#` or `@`, which is a track. */
  form: string;
  /** The numbers of a new term. */
  usual: number[];
  /** What each number is called, in the order of their places, and its bounds. */
  numbers: { name: string; min: number; max: number }[];
}

const pass = (name: string, max: number) => ({ name, min: 1, max });
const notes = { name: "Notes", min: 0, max: 999 };

/** The kinds of terms, in the order in which to offer them. */
export const termKinds: TermKind[] = [
  {
    words: "one pass of every",
    form: "pass # of #",
    usual: [1, 2],
    numbers: [pass("Pass", 64), pass("Of every so many passes", 64)],
  },
  {
    words: "passes of every",
    form: "pass # to # of #",
    usual: [1, 2, 4],
    numbers: [pass("From pass", 64), pass("To pass", 64), pass("Of every so many passes", 64)],
  },
  {
    words: "passes from … to …",
    form: "pass # to #",
    usual: [1, 1],
    numbers: [pass("From pass", 9999), pass("To pass", 9999)],
  },
  {
    words: "passes from … on",
    form: "pass from #",
    usual: [2],
    numbers: [pass("From pass", 9999)],
  },
  { words: "filling", form: "filling", usual: [], numbers: [] },
  { words: "its last step sounded", form: "sounded", usual: [], numbers: [] },
  { words: "a track sounded last", form: "track @ sounded", usual: [], numbers: [] },
  {
    words: "fewer notes of a track",
    form: "track @ under # notes",
    usual: [4],
    numbers: [notes],
  },
  {
    words: "more notes of a track",
    form: "track @ over # notes",
    usual: [4],
    numbers: [notes],
  },
];

/** A term of a condition, taken apart. */
export interface Term {
  not: boolean;
  kind: TermKind;
  numbers: number[];
  track: number | undefined;
}

/** A condition, taken apart: its terms, and whether one that holds is enough. */
export interface Sentence {
  terms: Term[];
  or: boolean;
}

/** How many terms a condition can have. */
export const mostTerms = 3;

/** Takes a condition apart. */
export function readCondition(condition: string): Sentence {
  const or = condition.includes(" or ");
  const terms = condition === "" ? [] : condition.split(or ? " or " : " and ");
  return { or, terms: terms.flatMap((term) => readTerm(term) ?? []) };
}

function readTerm(term: string): Term | undefined {
  const not = term.startsWith("not ");
  const words = (not ? term.slice(4) : term).split(" ");
  for (const kind of termKinds) {
    const form = kind.form.split(" ");
    if (form.length !== words.length) continue;
    if (!form.every((word, i) => word === words[i] || word === "#" || word === "@")) continue;
    const at = (place: string) => words.flatMap((w, i) => (form[i] === place ? Number(w) : []));
    return { not, kind, numbers: at("#"), track: at("@")[0] };
  }
  return undefined;
}

/** Puts a condition together. */
export function writeCondition({ terms, or }: Sentence): string {
  return terms.map(writeTerm).join(or ? " or " : " and ");
}

function writeTerm({ not, kind, numbers, track }: Term): string {
  const rest = [...numbers];
  const words = kind.form
    .split(" ")
    .map((word) => (word === "#" ? rest.shift() : word === "@" ? track : word));
  return (not ? "not " : "") + words.join(" ");
}

/** A condition in words: "on the 3rd of every 4 passes, and not while filling". */
export function conditionWords(condition: string, tracks: Track[]): string {
  const { terms, or } = readCondition(condition);
  if (terms.length === 0) return "always";
  return terms.map((term) => termWords(term, tracks)).join(or ? ", or " : ", and ");
}

function termWords({ not, kind, numbers, track }: Term, tracks: Track[]): string {
  const [a = 1, b = 1, c = 1] = numbers;
  const name = tracks.find((t) => t.id === track)?.name ?? "a track";
  const no = not ? "not " : "";
  switch (kind.form) {
    case "pass # of #":
      return `${no}on the ${ordinal(a)} of every ${b} passes`;
    case "pass # to # of #":
      return `${no}on the ${ordinal(a)} to the ${ordinal(b)} of every ${c} passes`;
    case "pass # to #":
      return `${no}on ${a === b ? `the ${ordinal(a)} pass` : `passes ${a} to ${b}`}`;
    case "pass from #":
      return `${no}from the ${ordinal(a)} pass on`;
    case "filling":
      return `${no}while filling`;
    case "sounded":
      return `if its last step on ${not ? "was silent" : "sounded"}`;
    case "track @ sounded":
      return `if ${name} ${not ? "was silent" : "sounded"} last`;
    case "track @ under # notes":
      return `if ${name} ${not ? "had" : "had fewer than"} ${counted(a, "note")} ${not ? "or more " : ""}in the last bar`;
    default:
      return `if ${name} had ${not ? "at most" : "more than"} ${counted(a, "note")} in the last bar`;
  }
}

/** A condition in few characters, for a mark over its step. */
export function conditionMark(condition: string): string {
  const { terms } = readCondition(condition);
  const [first] = terms;
  if (!first) return "";
  if (terms.length > 1) return "if …";
  const [a, b, c] = first.numbers;
  const no = first.not ? "¬" : "";
  switch (first.kind.form) {
    case "pass # of #":
      return `${no}${a} of ${b}`;
    case "pass # to # of #":
      return `${no}${a}–${b} of ${c}`;
    case "pass # to #":
      return `${no}${a === b ? a : `${a}–${b}`}`;
    case "pass from #":
      return `${no}${a}+`;
    case "filling":
      return `${no}fill`;
    case "sounded":
      return first.not ? "if ○" : "if ●";
    default:
      return "if T";
  }
}

function ordinal(n: number): string {
  const teen = n % 100 >= 11 && n % 100 <= 13;
  return `${n}${teen ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th")}`;
}
