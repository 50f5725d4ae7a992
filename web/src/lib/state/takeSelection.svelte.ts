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
  #chosen = $state.raw<ReadonlySet<number>>(new Set());
  #stretch = $state.raw<Stretch>();
  #track = $state<number>();
  /** Where the chosen notes will be once an edit is made: a track, a start and a key each. */
  #expected: Set<string> | undefined;

  protected override turnTo(id: number | undefined): void {
    super.turnTo(id);
    this.#stretch = this.#track = undefined;
    this.#chosen = new Set();
  }

  get chosen(): ReadonlySet<number> {
    return this.#chosen;
  }

  choose(places: Iterable<number>): void {
    this.#chosen = new Set(places);
  }

  get chosenNotes(): RollNote[] {
    return this.roll?.notes.filter((note) => this.#chosen.has(note.place)) ?? [];
  }

  get stretch(): Stretch | undefined {
    return this.#stretch;
  }

  /** Chooses a stretch of time, on the lines of the grid or of another distance; one of no length lets go. */
  chooseStretch(from: number, to: number, byBars = false): void {
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

  chooseTrack(id: number | undefined): void {
    this.#track = id === this.#track ? undefined : id;
    this.#chosen = new Set();
  }

  /** What an edit is about: the chosen notes, else those of the chosen track in the chosen stretch. */
  get choice(): Choice {
    if (this.#chosen.size) return { notes: [...this.#chosen] };
    return { ...(this.#track === undefined ? {} : { tracks: [this.#track] }), ...this.#stretch };
  }

  /** The same in words. */
  get scope(): string {
    const { size } = this.#chosen;
    if (size) return counted(size, "chosen note");
    const track = this.roll?.tracks.find(({ id }) => id === this.#track);
    const where = this.#stretch ? "the chosen stretch" : "the whole take";
    return track ? `“${track.name}” in ${where}` : where;
  }

  /** Says which notes are to be chosen once an edit is made. */
  protected expect(notes: Pick<RollNote, "track" | "start" | "key">[]): void {
    this.#expected = new Set(notes.map(signature));
  }

  protected override arrived(roll: Roll): void {
    const expected = this.#expected;
    this.#expected = undefined;
    this.choose(
      expected ? roll.notes.filter((n) => expected.has(signature(n))).map((n) => n.place) : [],
    );
  }
}

function signature({ track, start, key }: Pick<RollNote, "track" | "start" | "key">): string {
  return `${track} ${start} ${key}`;
}
