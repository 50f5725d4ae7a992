import { post } from "../api/http";
import type { EditJSON, LaneName, ProjectState, StepNote } from "../api/types";
import type { Tool } from "../chart/tools";
import { ChartSelection } from "./chartSelection.svelte";
import { FieldView } from "./fieldView.svelte";
import { LaneHeights } from "./laneHeights.svelte";
import { Roller } from "./roller.svelte";

/** Values by step of a lane, counted from 0. */
export type Values = Readonly<Record<number, number>>;

/** The notes of a step that has none of its own. */
const theOne: readonly StepNote[] = [{}];

type Drafts = Partial<Record<LaneName, Values>>;

/** The chart of the Write screen: what is shown and selected, and how steps are written. */
export class ChartView extends ChartSelection {
  /** What the pointer does on a strip. */
  tool = $state<Tool>("draw");
  /** How far the random tool spreads values, in percent of a lane's range either way. */
  scatter = $state(20);

  /** Which page of the sheet is open. */
  sheet = $state<"step" | "field" | "lane" | "part" | "track" | "roll">("step");

  /** Values that are seen and are not yet stored, by lane, and of which part. */
  #drafts = $state.raw<{ part: string; lanes: Drafts }>({ part: "", lanes: {} });
  #writing = 0;
  /** The last adding or removing of a note, which the next one waits for. */
  #lastNote = Promise.resolve();

  readonly roller = new Roller(this);
  readonly field = new FieldView(this.session);
  readonly heights = new LaneHeights();

  /** What is not yet stored of the part that is written. */
  get #draft(): Drafts {
    return this.#drafts.part === this.partName ? this.#drafts.lanes : {};
  }

  /** The values of a lane as they are seen: stored ones under those that are being painted. */
  values(lane: LaneName): number[] {
    const stored = this.session.lane(lane).steps;
    const draft = this.#draft[lane];
    if (!draft) return stored;
    return stored.map((value, step) => draft[step] ?? value);
  }

  /** Shows values that are being painted over the stored ones; without values, nothing any more. */
  overlay(lane: LaneName, values?: Values): void {
    this.#drafts = { part: this.partName, lanes: { ...this.#draft, [lane]: values } };
  }

  /** Writes values into steps as one edit. They are seen at once, so the next key can build on them. */
  write(lane: LaneName, values: Values): Promise<void> {
    return this.writeAll({ [lane]: values });
  }

  /** Writes values into steps of several lanes as one edit. */
  async writeAll(lanes: Partial<Record<LaneName, Values>>): Promise<void> {
    const edits: EditJSON[] = [];
    for (const [name, values] of Object.entries(lanes)) {
      const lane = name as LaneName;
      const steps = Object.entries(values).map(([step, value]) => ({ step: Number(step), value }));
      if (steps.length === 0) continue;
      this.overlay(lane, { ...this.#draft[lane], ...values });
      edits.push({ setSteps: { ...this.session.address, lane, steps } });
    }
    if (edits.length === 0) return;
    this.#writing++;
    await this.session.editAll("values of several lanes", edits);
    this.#writing--;
    if (this.#writing === 0) this.#drafts = { part: "", lanes: {} };
  }

  /** Adds a note to a step of the pitch lane, or takes it away, and lets one that is added be heard. */
  async toggleNote(lane: LaneName, step: number, degree: number): Promise<void> {
    const count = () => this.notesOf(lane, step).length;
    const before = count();
    await this.session.edit({ toggleNote: { ...this.session.address, step, degree } });
    if (count() > before) this.hearDegree(degree);
  }

  /** The notes of a step; usually the one that the lanes have. */
  notesOf(lane: LaneName, step: number): readonly StepNote[] {
    const notes = this.session.lane(lane).own?.[step]?.notes ?? [];
    return notes.length > 0 ? notes : theOne;
  }

  /** Adds a note to a step, two degrees above its highest, or takes the highest away: after what was asked for before. */
  addOrRemoveNote(lane: LaneName, step: number, add: boolean): Promise<void> {
    this.#lastNote = this.#lastNote.then(() => this.#addOrRemoveNote(lane, step, add));
    return this.#lastNote;
  }

  async #addOrRemoveNote(lane: LaneName, step: number, add: boolean): Promise<void> {
    const octave = this.degreesPerOctave;
    const above = ({ degree = 0, octave: octaves = 0 }: StepNote) => degree + octave * octaves;
    const notes = [...this.notesOf(lane, step)].sort((a, b) => above(a) - above(b));
    const value = this.values(lane)[step] ?? 0;
    if (add) return this.toggleNote(lane, step, value + above(notes.at(-1) ?? {}) + 2);
    if (notes.length > 1) await this.setNotes(lane, step, () => notes.slice(0, -1));
  }

  /** Makes named chords of the notes of steps of the gate, or notes of named chords. */
  convertChords(to: "name" | "degrees", steps: number[]): Promise<void> {
    const { address } = this.session;
    return this.session.change((revision) =>
      post<ProjectState>("api/entry", {
        ...{ revision, ...address, step: steps[0] ?? 0, do: to, steps },
      }),
    );
  }

  /** Gives a step other notes, made of those that it has. */
  setNotes(
    lane: LaneName,
    step: number,
    made: (notes: readonly StepNote[]) => StepNote[],
  ): Promise<void> {
    const { address } = this.session;
    return this.session.edit(() => {
      const own = this.session.lane(lane, this.session.partAt(address)).own?.[step];
      const notes = made(own?.notes?.length ? own.notes : theOne);
      return { setOwn: { ...address, lane, step, own: { ...own, notes } } };
    });
  }

  /** Lets a degree be heard, unless the music plays and would drown it, or the room would hear it. */
  hearDegree(value: number): void {
    if (this.session.track.pitches) return; // which note that is, is known as it plays
    const degree = this.degrees.find((d) => d.degree === value);
    if (degree && this.session.previews.may) void this.session.hear(degree.key, degree.detune);
  }

  /** Whether all selected steps are locked against rolling and evolving. */
  get locked(): boolean {
    return this.selectedLanes.every((lane) => {
      const locked = this.session.lane(lane).locked ?? [];
      return this.stepsOf(lane).every((step) => locked.includes(step));
    });
  }

  /** Locks the selected steps, or unlocks them if all are locked. */
  toggleLocks(): Promise<void> {
    const unlock = this.locked;
    const edits = this.selectedLanes.map((lane) => {
      const steps = this.stepsOf(lane);
      const others = (this.session.lane(lane).locked ?? []).filter((s) => !steps.includes(s));
      const locked = unlock ? others : [...others, ...steps].sort((a, b) => a - b);
      return { setLane: { ...this.session.address, lane, locked } };
    });
    return this.session.editAll(unlock ? "unlock steps" : "lock steps", edits);
  }

  /** Adds to the selected steps of all lanes, each within its bounds, as one edit. */
  raise(by: number): Promise<void> {
    const lanes: Partial<Record<LaneName, Values>> = {};
    for (const lane of this.selectedLanes) {
      if (!this.session.spec(lane).leads || !this.boxed)
        lanes[lane] = this.raised(lane, this.stepsOf(lane), by);
    }
    return this.writeAll(lanes);
  }

  /** The values of some steps of a lane after adding to each of them. */
  raised(lane: LaneName, steps: number[], by: number): Values {
    const { least, most } = this.session.spec(lane);
    const values = this.values(lane);
    return Object.fromEntries(
      steps.map((step) => [step, Math.min(most, Math.max(least, (values[step] ?? 0) + by))]),
    );
  }
}
