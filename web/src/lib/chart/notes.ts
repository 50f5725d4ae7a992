import type { Degree, NoteNames } from "../api/types";

/** The names of the MIDI notes, from the lists of the server. */
export class Notes {
  #spellings: Map<string, number>;

  constructor(private readonly names: NoteNames[]) {
    this.#spellings = new Map(
      names.flatMap(({ spellings }, note) => spellings.map((spelling) => [spelling, note])),
    );
  }

  /** A MIDI note's name; 60 is C4. */
  name(note: number): string {
    return this.names[note]?.name ?? "";
  }

  /** The MIDI note of a name as C2, Eb3 or f#4; undefined if it is none. */
  of(name: string): number | undefined {
    return this.#spellings.get(name.trim().replace("♯", "#").replace("♭", "b").toUpperCase());
  }

  /**
   * The degree of the key that a note's name stands for, or a number of it as it is counted: 1 is the root, −1 the note below
   * it. Or why there is none; undefined if it is neither.
   */
  degreeOf(name: string, degrees: Degree[]): number | string | undefined {
    const named = degrees.find((degree) => degree.name === name);
    if (named) return named.degree;
    const counted = Number(name.trim().replace("−", "-"));
    if (name.trim() !== "" && Number.isInteger(counted) && counted !== 0)
      return counted > 0 ? counted - 1 : counted;
    const note = this.of(name);
    if (note === undefined) return undefined;
    const degree = degrees.find(({ key, detune }) => key === note && detune === 0)?.degree;
    return degree ?? `${this.name(note)} is not in the key; the step stays as it was.`;
  }
}
