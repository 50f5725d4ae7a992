import { counted } from "../counted";
import type { Choice, Roll, RollNote } from "../api/types";
import { snap } from "../roll/rollScale";
import { TakeWindow } from "./takeWindow.svelte";

/** A stretch of a take, in ticks. */
export interface Stretch {
  from: number;
  to: number;
}

/** What of the open take is selected: notes, a stretch of time, a track. */
export abstract class TakeSelection extends TakeWindow {
  #selected = $state.raw<ReadonlySet<number>>(new Set());
  #stretch = $state.raw<Stretch>();
  #track = $state<number>();
  /** Where the selected notes will be once an edit is made: a track, a start and a key each. */
  #expected: Set<string> | undefined;

  protected override turnTo(id: number | undefined): void {
    super.turnTo(id);
    this.#stretch = this.#track = undefined;
    this.#selected = new Set();
  }

  get selected(): ReadonlySet<number> {
    return this.#selected;
  }

  select(places: Iterable<number>): void {
    this.#selected = new Set(places);
  }

  get chosenNotes(): RollNote[] {
    return this.roll?.notes.filter((note) => this.#selected.has(note.place)) ?? [];
  }

  get stretch(): Stretch | undefined {
    return this.#stretch;
  }

  /** Selects a stretch of time, on the lines of the grid or of another distance; one of no length lets go. */
  selectStretch(from: number, to: number, byBars = false): void {
    const nearest = (tick: number) =>
      byBars
        ? this.barLines.start(Math.round(this.barLines.position(Math.max(0, tick))))
        : snap(tick, this.gridTicks);
    const [a, b] = [nearest(Math.min(from, to)), nearest(Math.max(from, to))];
    const end = Math.min(b, this.roll?.end ?? b);
    this.#stretch = a < end ? { from: a, to: end } : undefined;
  }

  /** The track that is worked on alone; undefined is all. */
  get track(): number | undefined {
    return this.#track;
  }

  selectTrack(id: number | undefined): void {
    this.#track = id === this.#track ? undefined : id;
    this.#selected = new Set();
  }

  /** What an edit is about: the selected notes, else those of the selected track in the selected stretch. */
  get choice(): Choice {
    if (this.#selected.size) return { notes: [...this.#selected] };
    return { ...(this.#track === undefined ? {} : { tracks: [this.#track] }), ...this.#stretch };
  }

  /** The same in words. */
  get scope(): string {
    const { size } = this.#selected;
    if (size) return counted(size, "selected note");
    const track = this.roll?.tracks.find(({ id }) => id === this.#track);
    const where = this.#stretch ? "the selected stretch" : "the whole take";
    return track ? `“${track.name}” in ${where}` : where;
  }

  /** Says which notes are to be selected once an edit is made. */
  protected expect(notes: Pick<RollNote, "track" | "start" | "key">[]): void {
    this.#expected = new Set(notes.map(signature));
  }

  protected override arrived(roll: Roll): void {
    const expected = this.#expected;
    const found = roll.notes.filter((note) => expected?.has(signature(note)));
    if (expected && found.length < expected.size) return; // settle selects those that have come
    this.select(found.map(({ place }) => place));
    this.#expected = undefined;
  }

  /** Stops waiting for notes: where an edit was made, those of them are selected that have come, as where two are one now. */
  protected settle(made: boolean): void {
    const expected = this.#expected;
    this.#expected = undefined;
    if (!expected || !made) return;
    const found = this.roll?.notes.filter((note) => expected.has(signature(note))) ?? [];
    this.select(found.map(({ place }) => place));
  }
}

function signature({ track, start, key }: Pick<RollNote, "track" | "start" | "key">): string {
  return `${track} ${start} ${key}`;
}
