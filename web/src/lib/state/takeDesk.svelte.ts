import { get } from "../api/http";
import type { RollNote, Statistics, TakeComparison, TakeEditJSON } from "../api/types";
import type { Session } from "./session.svelte";
import { TakeActions } from "./takeActions.svelte";
import { TakeHearing } from "./takeHearing.svelte";
import { TakeWav } from "./takeWav.svelte";
import { TakeSelection } from "./takeSelection.svelte";

/** The pages of the sheet beside a roll. */
export type TakePage = "notes" | "time" | "steps" | "numbers" | "files";

/** What of notes can be drawn in the lane below a roll. */
export type NoteLane = "velocities" | "lengths";

/** A channel of an output of voltages, by the ids of both. */
export interface VoltageLane {
  output: number;
  channel: number;
}

/** The take that is open on the Takes screen: what can be done to it, and what there is to know of it. */
export class TakeDesk extends TakeSelection {
  readonly hearing: TakeHearing;
  readonly wav: TakeWav;
  readonly actions: TakeActions;
  page = $state<TakePage>("notes");
  /** What the lane below the roll shows: what can be drawn of notes, a controller by its place, or a channel of voltages. */
  lane = $state<NoteLane | number | VoltageLane>("velocities");

  /** The last of what was asked of the take, which the next waits for. */
  #last = Promise.resolve();
  #statistics = $state.raw<Statistics>();
  #comparedWith = $state<number>();
  #comparison = $state.raw<TakeComparison>();

  constructor(session: Session) {
    super(session);
    this.hearing = new TakeHearing(session);
    this.wav = new TakeWav(session);
    this.actions = new TakeActions();
    $effect(() => this.actions.turnTo(this.summary?.revision ? this.summary.id : undefined));
    $effect(() => {
      const { id, version } = this.summary ?? {};
      if (id === undefined || version === undefined || id < 0 || this.page !== "numbers") return;
      void this.#count(id, this.track, this.#comparedWith);
    });
    // What plays live is heard alone.
    $effect(() => {
      if (!session.previews.may && this.hearing.playing) this.hearing.stop();
    });
  }

  protected override turnTo(id: number | undefined): void {
    this.hearing.stop();
    super.turnTo(id);
    this.#comparedWith = this.#comparison = undefined;
    this.lane = "velocities";
  }

  /** Opens a take once all that was asked of the one before has come. */
  override open(id: number): Promise<void> {
    return this.#inTurn(() => super.open(id));
  }

  edit(edit: TakeEditJSON): Promise<void> {
    return this.#make(() => edit);
  }

  /** Makes an edit of the take that is open now, of what there is once all that was asked before has come: notes have other places by then. */
  #make(edit: () => TakeEditJSON | undefined): Promise<void> {
    const { summary, loop } = this;
    const run = this.session.run.name;
    return this.#inTurn(async () => {
      const now = edit();
      if (!summary || !now) return;
      const { version } = this.summary ?? {};
      if (loop) await this.session.shelf.editLoop(loop.id, now);
      else await this.session.shelf.edit(summary, now, run);
      // Whoever dragged notes waits for them to have come to their new places.
      await this.load(summary.id, this.from, this.to);
      this.settle(this.summary?.version !== version);
    });
  }

  #inTurn(ask: () => Promise<void> | void): Promise<void> {
    return (this.#last = this.#last.then(ask));
  }

  /** Makes an edit of the roll that is shown, unless another take is open once it is its turn. */
  #ofRoll(edit: () => TakeEditJSON | undefined): Promise<void> {
    const id = this.summary?.id;
    return this.#make(() => (this.summary?.id === id ? edit() : undefined));
  }

  /** Makes an edit of the selected notes, unless some were selected and none are any more. */
  #ofSelected(edit: (selected: RollNote[]) => TakeEditJSON): Promise<void> {
    const some = this.selected.size > 0;
    return this.#ofRoll(() => (some && !this.selected.size ? undefined : edit(this.chosenNotes)));
  }

  /** Moves the selected notes, and keeps them selected. */
  move(ticks: number, semitones: number): Promise<void> {
    if (!ticks && !semitones) return Promise.resolve();
    return this.#ofSelected((selected) => {
      const least = Math.min(...selected.map((note) => note.start));
      const late = Math.max(ticks, -least);
      this.expect(
        selected.map((note) => ({ ...note, start: note.start + late, key: note.key + semitones })),
      );
      return { moveNotes: { ...this.choice, ticks, semitones } };
    });
  }

  /** Makes the selected notes longer or louder, and keeps them selected. */
  shape(change: { velocity?: number; length?: number; percent?: number }): Promise<void> {
    return this.#ofSelected((selected) => {
      this.expect(selected);
      return { shapeNotes: { ...this.choice, ...change } };
    });
  }

  delete(): Promise<void> {
    return this.#ofRoll(() => {
      if (!this.selected.size) return;
      const choice = this.choice;
      this.select([]);
      return { deleteNotes: choice };
    });
  }

  /** Adds a note to the selected track, or the first, and selects it. */
  add(start: number, key: number): Promise<void> {
    const track = this.track ?? this.roll?.tracks[0]?.id;
    if (track === undefined) return Promise.resolve();
    const note = { track, start, length: this.gridTicks, key, velocity: 96 };
    return this.#ofRoll(() => {
      this.expect([note]);
      return { addNotes: { notes: [note] } };
    });
  }

  /** Gives notes, by their places, velocities or lengths of their own. */
  setNotes(what: "velocities" | "lengths", values: Map<number, number>): Promise<void> {
    if (!values.size) return Promise.resolve();
    return this.#ofRoll(() => {
      this.expect(this.chosenNotes);
      return { setNotes: { notes: [...values.keys()], [what]: [...values.values()] } };
    });
  }

  undo(): Promise<void> {
    return this.#move("undo");
  }

  redo(): Promise<void> {
    return this.#move("redo");
  }

  #move(direction: "undo" | "redo"): Promise<void> {
    const { summary, loop } = this;
    return this.#inTurn(async () => {
      if (loop) await this.session[direction]();
      else if (summary) await this.session.shelf.move(summary, direction);
    });
  }

  /** Plays the take from the selected stretch or the left edge on, or stops. */
  hear(): Promise<void> {
    if (this.hearing.playing || !this.roll || this.loop) {
      this.hearing.stop();
      return Promise.resolve();
    }
    const { from, to } = this.stretch ?? { from: this.from, to: this.roll.end };
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

  async #count(id: number, track: number | undefined, other: number | undefined): Promise<void> {
    await this.session.attempt(async () => {
      const tracks = track === undefined ? "" : `?tracks=${track}`;
      this.#statistics = await get<Statistics>(`api/takes/${id}/statistics${tracks}`);
      if (other === undefined) return;
      this.#comparison = await get<TakeComparison>(`api/takes/${id}/comparison?with=${other}`);
    });
  }
}
