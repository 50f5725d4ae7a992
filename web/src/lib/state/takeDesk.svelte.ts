import { Bars } from "../bars";
import { counted } from "../counted";
import { get } from "../api/http";
import type {
  Choice,
  Roll,
  RollNote,
  Statistics,
  Summary,
  TakeComparison,
  TakeEditJSON,
  Track,
} from "../api/types";
import { snap } from "../roll/rollScale";
import type { Session } from "./session.svelte";
import { TakeHearing } from "./takeHearing.svelte";

/** How many bars a roll can show. */
export const zooms = [1, 2, 4, 8, 16, 32];

/** The pages of the sheet beside a roll. */
export type TakePage = "notes" | "time" | "steps" | "numbers" | "files";

/** What of notes can be drawn in the lane below a roll. */
export type NoteLane = "velocities" | "lengths";

/** A stretch of a take, in ticks. */
export interface Stretch {
  from: number;
  to: number;
}

/** The take that is open on the Takes screen: what of it is shown and chosen, and what can be done to it. */
export class TakeDesk {
  readonly hearing: TakeHearing;
  page = $state<TakePage>("notes");
  /** The distance of the lines to which the hand keeps. */
  grid = $state("1/16");
  /** What the lane below the roll shows: what can be drawn of notes, or a controller by its place. */
  lane = $state<NoteLane | number>("velocities");

  #openId = $state<number>();
  #roll = $state.raw<Roll>();
  /** How many bars are shown if that was chosen. */
  #zoom = $state<number>();
  #first = $state(0);
  #chosen = $state.raw<ReadonlySet<number>>(new Set());
  #stretch = $state.raw<Stretch>();
  #track = $state<number>();
  #statistics = $state.raw<Statistics>();
  #comparedWith = $state<number>();
  #comparison = $state.raw<TakeComparison>();
  /** Where the chosen notes will be once an edit is made: a track, a start and a key each. */
  #expected: Set<string> | undefined;

  constructor(readonly session: Session) {
    this.hearing = new TakeHearing(session);
    $effect.pre(() => {
      void session.document;
      return () => this.#turnTo(undefined); // another project is opened
    });
    $effect(() => {
      const { id, version } = this.summary ?? {};
      if (id === undefined || version === undefined || !session.connected) return;
      void this.#load(id, this.from, this.to);
    });
    $effect(() => {
      const { id, version } = this.summary ?? {};
      if (id === undefined || version === undefined || id < 0 || this.page !== "numbers") return;
      void this.#count(id, this.#track, this.#comparedWith);
    });
    // What plays live is heard alone.
    $effect(() => {
      if (session.transport.playing && this.hearing.playing) this.hearing.stop();
    });
  }

  /** The track whose loop is open in place of a take. */
  get loop(): Track | undefined {
    return this.session.project.tracks.find((t) => t.loop && -t.id === this.#openId);
  }

  /** The take that is open; the latest until one was opened. An open loop is told as a take. */
  get summary(): Summary | undefined {
    if (this.loop) return summaryOf(this.loop, this.session);
    const takes = this.session.shelf.takes.filter((take) => !take.deleted);
    return takes.find((take) => take.id === this.#openId) ?? takes[0];
  }

  open(id: number): void {
    if (id !== this.summary?.id) this.#turnTo(id);
  }

  #turnTo(id: number | undefined): void {
    this.hearing.stop();
    this.#openId = id;
    this.#roll = undefined;
    this.#first = 0;
    this.#zoom = undefined;
    this.#stretch = this.#track = this.#comparedWith = this.#comparison = undefined;
    this.#chosen = new Set();
    this.lane = "velocities";
  }

  /** What is shown of the open take; undefined until it has come. */
  get roll(): Roll | undefined {
    return this.#roll?.summary.id === this.summary?.id ? this.#roll : undefined;
  }

  /** How many bars are shown: as many as were chosen, else as the take has. */
  get bars(): number {
    const all = Math.ceil(this.summary?.bars ?? 0);
    return this.#zoom ?? zooms.find((bars) => bars >= all) ?? (zooms.at(-1) as number);
  }

  get from(): number {
    return this.barLines.tick(this.#first);
  }

  get to(): number {
    return this.barLines.tick(this.#first + this.bars);
  }

  /** The take's bars. */
  readonly barLines = $derived.by(() => {
    const roll = this.#roll;
    if (!roll) return this.session.bars;
    const bars = new Bars(roll.meter, this.session.lists.ticksPerQuarter);
    for (const { tick, meter } of roll.meters) bars.changeAt(tick, meter);
    return bars;
  });

  /** The first of the bars that are shown and the one after the last, from 0. */
  get shown(): { first: number; last: number } {
    return { first: this.#first, last: this.#first + this.bars };
  }

  get gridTicks(): number {
    return (
      this.session.lists.rates.find((rate) => rate.name === this.grid)?.ticks ??
      this.barLines.length
    );
  }

  zoom(bars: number): void {
    this.#zoom = bars;
    this.scroll(0);
  }

  /** Shows so many bars later ones, within the take. */
  scroll(by: number): void {
    const last = Math.max(0, Math.ceil(this.barLines.position(this.roll?.end ?? 0)) - 1);
    this.#first = Math.min(last, Math.max(0, this.#first + by));
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

  async edit(edit: TakeEditJSON): Promise<void> {
    const { summary } = this;
    if (!summary) return;
    if (this.loop) await this.session.shelf.editLoop(this.loop.id, edit);
    else await this.session.shelf.edit(summary, edit);
    // Whoever dragged notes waits for them to have come to their new places.
    await this.#load(summary.id, this.from, this.to);
  }

  /** Moves the chosen notes, and keeps them chosen. */
  move(ticks: number, semitones: number): Promise<void> {
    if (!ticks && !semitones) return Promise.resolve();
    const chosen = this.chosenNotes;
    const least = Math.min(...chosen.map((note) => note.start));
    const late = Math.max(ticks, -least);
    this.#expect(
      chosen.map((note) => ({ ...note, start: note.start + late, key: note.key + semitones })),
    );
    return this.edit({ moveNotes: { ...this.choice, ticks, semitones } });
  }

  /** Makes the chosen notes longer or louder, and keeps them chosen. */
  shape(change: { velocity?: number; length?: number; percent?: number }): Promise<void> {
    this.#expect(this.chosenNotes);
    return this.edit({ shapeNotes: { ...this.choice, ...change } });
  }

  async delete(): Promise<void> {
    if (!this.#chosen.size) return;
    const choice = this.choice;
    this.choose([]);
    await this.edit({ deleteNotes: choice });
  }

  /** Adds a note to the chosen track, or the first, and chooses it. */
  add(start: number, key: number): Promise<void> {
    const track = this.#track ?? this.roll?.tracks[0]?.id;
    if (track === undefined) return Promise.resolve();
    this.#expect([{ track, start, key }]);
    const note = { track, start, length: this.gridTicks, key, velocity: 96 };
    return this.edit({ addNotes: { notes: [note] } });
  }

  /** Gives notes, by their places, velocities or lengths of their own. */
  setNotes(what: "velocities" | "lengths", values: Map<number, number>): Promise<void> {
    if (!values.size) return Promise.resolve();
    this.#expect(this.chosenNotes);
    return this.edit({ setNotes: { notes: [...values.keys()], [what]: [...values.values()] } });
  }

  undo(): Promise<void> {
    if (this.loop) return this.session.undo();
    return this.summary ? this.session.shelf.move(this.summary, "undo") : Promise.resolve();
  }

  redo(): Promise<void> {
    if (this.loop) return this.session.redo();
    return this.summary ? this.session.shelf.move(this.summary, "redo") : Promise.resolve();
  }

  /** Plays the take from the chosen stretch or the left edge on, or stops. */
  hear(): Promise<void> {
    if (this.hearing.playing || !this.roll || this.loop) {
      this.hearing.stop();
      return Promise.resolve();
    }
    const { from, to } = this.#stretch ?? { from: this.from, to: this.roll.end };
    return this.hearing.start(this.roll, from, to);
  }

  get statistics(): Statistics | undefined {
    return this.#statistics;
  }

  get comparedWith(): number | undefined {
    return this.#comparedWith;
  }

  compareWith(id: number | undefined): void {
    this.#comparedWith = id;
    if (id === undefined) this.#comparison = undefined;
  }

  get comparison(): TakeComparison | undefined {
    return this.#comparison;
  }

  #expect(notes: Pick<RollNote, "track" | "start" | "key">[]): void {
    this.#expected = new Set(notes.map(signature));
  }

  async #load(id: number, from: number, to: number): Promise<void> {
    const path = `${pathOf(id)}/roll?from=${from}&to=${to}`;
    await this.session.attempt(async () => {
      const roll = await get<Roll>(path);
      if (id !== this.summary?.id || from !== this.from) return;
      const changed = roll.summary.version !== this.#roll?.summary.version;
      this.#roll = roll;
      if (!changed) return;
      const expected = this.#expected;
      this.#expected = undefined;
      this.choose(
        expected ? roll.notes.filter((n) => expected.has(signature(n))).map((n) => n.place) : [],
      );
    });
  }

  async #count(id: number, track: number | undefined, other: number | undefined): Promise<void> {
    await this.session.attempt(async () => {
      const tracks = track === undefined ? "" : `?tracks=${track}`;
      this.#statistics = await get<Statistics>(`api/takes/${id}/statistics${tracks}`);
      if (other === undefined) return;
      this.#comparison = await get<TakeComparison>(`api/takes/${id}/comparison?with=${other}`);
    });
  }
}

/** Where the server has a take, or with an id below 0 the loop of a track. */
export function pathOf(id: number): string {
  return id < 0 ? `api/loops/${-id}` : `api/takes/${id}`;
}

/** What a list of takes would say of a loop; its version is that of the project. */
function summaryOf({ id, name, loop }: Track, { snapshot, bars }: Session): Summary {
  const { revision: version, undo, redo, project } = snapshot;
  return {
    ...{ id: -id, name, version, undo, redo, position: 0, deleted: false, created: 0 },
    ...{ luck: project.luck.number, revision: 0, seconds: 0 },
    bars: (loop?.length ?? 0) / bars.length,
    notes: loop?.notes?.length ?? 0,
  };
}

function signature({ track, start, key }: Pick<RollNote, "track" | "start" | "key">): string {
  return `${track} ${start} ${key}`;
}
