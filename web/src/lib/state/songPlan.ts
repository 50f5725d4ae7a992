import type { PlannedSection, Section } from "../api/types";

/** A section on the song line, by bars. */
export interface ShownSection {
  section: number;
  bar: number;
  length: number;
  /** Whether it is decided that it plays there; else it follows in the song if nothing is done. */
  sure: boolean;
}

/** The sections that play, as far as that is decided, and after them what follows in the song. `now` is the bar that plays. */
export function shownSections(
  song: readonly Section[],
  planned: readonly PlannedSection[],
  now: number,
): ShownSection[] {
  const decided = planned.at(-1)?.section === 0 ? [] : planned.filter(({ section }) => section > 0);
  const shown: ShownSection[] = decided.map(({ section, bar, bars }, i) => {
    const length = (decided[i + 1]?.bar ?? bar + (bars || waited(song, section, bar, now))) - bar;
    return { section, bar, length, sure: true };
  });
  const last = shown.at(-1);
  const after = last ? song.findIndex(({ id }) => id === last.section) + 1 : 0;
  let bar = last ? last.bar + last.length : 0;
  for (const { id, bars, repeats } of song.slice(after)) {
    const length = bars * Math.max(1, repeats);
    shown.push({ section: id, bar, length, sure: false });
    bar += length;
  }
  return shown;
}

/** How many bars of a section that waits to be released are shown: those that have gone by, and the pass that plays. */
function waited(song: readonly Section[], section: number, bar: number, now: number): number {
  const pass = song.find(({ id }) => id === section)?.bars ?? 1;
  return (Math.floor(Math.max(0, now - bar) / pass) + 1) * pass;
}
