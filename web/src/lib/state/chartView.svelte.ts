import { gateLane } from "../chart/gate";
import { getChart, type Stretch } from "../api/chart";
import type { Chart, ChartPart, Degree, EditJSON, LaneName, LaneSpec } from "../api/types";
import {
  noStrips,
  rectangle,
  stepsWithin,
  withRange,
  type Rectangle,
  type Strip,
} from "../chart/box";
import type { Hand } from "../chart/hand";
import type { Standing } from "./places.svelte";
import { LaneHeights } from "./laneHeights.svelte";
import { Roller } from "./roller.svelte";
import type { Session } from "./session.svelte";

const pitchRowsShown = 16;

/** The lowest degree that is shown unless others are in use. */
const usualPitchRoom = -2;

/** The step that the keys act on. */
export interface Cursor {
  lane: LaneName;
  step: number;
}

/** Steps by lane. */
export type Chosen = Readonly<Partial<Record<LaneName, number[]>>>;

/** Values by step of a lane, counted from 0. */
export type Values = Readonly<Record<number, number>>;

type Drafts = Partial<Record<LaneName, Values>>;

/** Which stretch of time the chart shows, what is in it, and where the user's hand is. */
export class ChartView {
  /** Home shows the loops from their first steps; follow shows the bars that are playing. */
  following = $state(false);
  bars = $state(3);
  #cursor = $state.raw<Cursor>({ lane: gateLane, step: 0 });

  /** What the pointer does on a strip. */
  hand = $state<Hand>("draw");
  /** How far the scattering hand spreads values, in percent of a lane's range either way. */
  scatter = $state(20);

  /** Which page of the sheet is open. */
  sheet = $state<"step" | "lane" | "part" | "track" | "roll">("step");

  /** How wide the strips are, in pixels. */
  width = $state(0);

  /** The steps in a box that was drawn, and of which part; none while only the cursor's step is chosen. */
  #choice = $state.raw<{ part: string; steps: Chosen }>({ part: "", steps: {} });
  /** Values that are seen and are not yet stored, by lane, and of which part. */
  #drafts = $state.raw<{ part: string; lanes: Drafts }>({ part: "", lanes: {} });
  #writing = 0;
  #strips = noStrips();
  #box = $state.raw<Rectangle>();
  #page = $state(0);
  #pitchBottom = $state<number>();
  #chart = $state.raw<Chart>();

  readonly roller = new Roller(this);
  readonly heights = new LaneHeights();

  constructor(readonly session: Session) {
    $effect.pre(() => {
      void session.document;
      return () => this.#forget(); // another project is opened
    });
    $effect(() => {
      const { revision } = session.snapshot;
      const { track, pattern } = session.address;
      const { from, to } = this;
      void session.stage.changes; // what is performed is drawn as it plays
      void session.transport.decidedAt;
      const stale = new AbortController();
      // A revision of 0 marks a server that is away; its answer would be a failure.
      if (revision > 0) void this.#load({ track, pattern, from, to }, stale.signal);
      return () => stale.abort();
    });
  }

  /** Forgets what was shown and chosen of a project. */
  #forget(): void {
    this.#cursor = { lane: gateLane, step: 0 };
    this.#chart = this.#pitchBottom = undefined;
    this.#page = 0;
  }

  async #load(at: Stretch, signal: AbortSignal): Promise<void> {
    try {
      this.#chart = await getChart(at, signal);
    } catch (error) {
      if (!signal.aborted) this.session.notices.add(`The chart cannot be drawn: ${error}`);
    }
  }

  /** The chart that arrived last; while another is on its way this one stays. */
  get chart(): Chart | undefined {
    const { track, pattern } = this.session.address;
    return this.#chart?.track === track && this.#chart.pattern === pattern
      ? this.#chart
      : undefined;
  }

  /** What the chart has of the part that is being written. */
  get chartPart(): ChartPart | undefined {
    return this.chart?.parts[this.session.partIndex];
  }

  /** Where a lane of a part stands while the pattern that is written plays. */
  standing(part: number, lane: string): Standing | undefined {
    const { track, pattern, places, stage, transport } = this.session;
    if (transport.opening) return undefined; // what plays is the project before
    return pattern.id === stage.playing(track) ? places.of(track.id, part, lane) : undefined;
  }

  get from(): number {
    return this.session.bars.start(this.#firstBar);
  }

  get to(): number {
    return this.session.bars.start(this.#firstBar + this.bars);
  }

  get #firstBar(): number {
    return this.following ? this.#page * this.bars : 0;
  }

  /** The chosen step of a lane, if it were the lane that the keys act on. */
  stepOf(lane: LaneName): number {
    const { first, length } = this.session.loop(lane);
    return Math.min(Math.max(this.cursor.step, first), first + length - 1);
  }

  /** Where the keys act: on the gate lane if the part does not have the lane that was chosen last. */
  get cursor(): Cursor {
    const { lane, step } = this.#cursor;
    return this.session.lanes.some((spec) => spec.name === lane)
      ? this.#cursor
      : { lane: gateLane, step };
  }

  moveCursor(lane: LaneName, step: number): void {
    this.#cursor = { lane, step };
  }

  /** The steps in the box that was drawn, by lane. A box does not outlast the turn to another part. */
  get chosen(): Chosen {
    return this.#choice.part === this.#partName ? this.#choice.steps : {};
  }

  choose(steps: Chosen): void {
    this.#choice = { part: this.#partName, steps };
  }

  /** What is not yet stored of the part that is written. */
  get #draft(): Drafts {
    return this.#drafts.part === this.#partName ? this.#drafts.lanes : {};
  }

  get #partName(): string {
    const { track, pattern, part } = this.session.address;
    return `${this.session.document} ${track} ${pattern} ${part}`;
  }

  /** Chooses all steps of the loop of the cursor's lane. */
  chooseLoop(): void {
    const { lane } = this.cursor;
    const { first, length } = this.session.loop(lane);
    this.choose({ [lane]: Array.from({ length }, (_, i) => first + i) });
  }

  /** Takes the steps from where the cursor is to another one into the choice. */
  chooseTo(lane: LaneName, step: number): void {
    const here = this.stepOf(lane);
    this.choose({ ...this.chosen, [lane]: withRange(this.chosen[lane] ?? [], here, step) });
    this.moveCursor(lane, step);
  }

  /** The steps of a lane that edits act on: those in the box, else that of the cursor. */
  stepsOf(lane: LaneName): number[] {
    return this.chosen[lane] ?? (this.boxed ? [] : [this.stepOf(lane)]);
  }

  /** Tells where a lane's strip is and what stands on it, for boxes; returns how to take that back. */
  register(lane: LaneName, strip: () => Strip): () => void {
    this.#strips.set(lane, strip);
    return () => this.#strips.delete(lane);
  }

  /** Gives a lane's strip the focus. */
  focusLane(lane: LaneName): void {
    this.#strips.get(lane)?.().focus?.();
  }

  /** Gives the strip of the lane the focus that comes so many behind a lane. */
  focusBeside(lane: LaneName, by: number): void {
    const { lanes } = this.session;
    const beside = lanes[lanes.findIndex(({ name }) => name === lane) + by];
    if (beside) this.focusLane(beside.name);
  }

  /** The box that is being drawn, in pixels of the window. */
  get box(): Rectangle | undefined {
    return this.#box;
  }

  /** Begins a box at the pointer; it grows until the pointer is let go. */
  beginBox(press: PointerEvent): void {
    const begun = { x: press.clientX, y: press.clientY };
    const grow = (event: PointerEvent) => {
      this.#box = rectangle(begun, { x: event.clientX, y: event.clientY });
      this.choose(stepsWithin(this.#box, this.#strips));
    };
    const end = () => {
      this.#box = undefined;
      window.removeEventListener("pointermove", grow);
      window.removeEventListener("pointerup", end);
      window.removeEventListener("pointercancel", end);
    };
    window.addEventListener("pointermove", grow);
    window.addEventListener("pointerup", end);
    window.addEventListener("pointercancel", end);
    grow(press);
  }

  get boxed(): boolean {
    return Object.keys(this.chosen).length > 0;
  }

  /** The notes that the pitch lane can ask for, from its lowest degree up. */
  get degrees(): Degree[] {
    return this.#chart?.degrees ?? [];
  }

  /** The length that fills its step. */
  get wholeStep(): number {
    return this.session.lists.wholeStep;
  }

  /** What the values of a lane are by its amount, as the chart has it. */
  inForce(lane: LaneName): number[] | undefined {
    return this.chartPart?.lanes.find((l) => l.lane === lane)?.inForce;
  }

  /** The lane of degrees. */
  get #pitch(): LaneSpec {
    const spec = this.session.lists.lanes.find(({ reads }) => reads === "degree");
    if (!spec) throw new Error("there is no lane of degrees");
    return spec;
  }

  get degreesPerOctave(): number {
    const [first, second] = this.degrees.filter((d) => d.root);
    return first && second ? second.degree - first.degree : 7;
  }

  /** The degrees that the pitch strip shows: always all that its loop uses, and room to draw in. */
  get pitchRows(): { least: number; most: number } {
    const { first, length } = this.session.loop(this.#pitch.name);
    const used = this.session.lane(this.#pitch.name).steps.slice(first, first + length);
    const [lowest, highest] = [Math.min(...used), Math.max(...used)];
    const { least, most } = this.#pitch;
    const room = this.#pitchRoom(lowest, highest);
    return {
      least: Math.max(least, Math.min(room, lowest - 1)),
      most: Math.min(most, Math.max(room + pitchRowsShown - 1, highest + 1)),
    };
  }

  /** The lowest of the degrees in which there is room to draw: where they were moved to, else around those in use. */
  #pitchRoom(lowest: number, highest: number): number {
    const usual = Math.max(usualPitchRoom, highest - pitchRowsShown + 2);
    return this.#pitchBottom ?? Math.min(usual, lowest - 1);
  }

  /** Moves the degrees in which there is room to draw, by some up; those that are in use stay in sight. */
  movePitchRows(by: number): void {
    const { least, most } = this.#pitch;
    const from = this.#pitchBottom ?? this.pitchRows.least;
    this.#pitchBottom = Math.min(Math.max(from + by, least), most - pitchRowsShown + 1);
  }

  /** Turns to the page on which a tick is. */
  turnTo(tick: number): void {
    this.#page = Math.floor(this.session.bars.at(tick) / this.bars);
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
    this.#drafts = { part: this.#partName, lanes: { ...this.#draft, [lane]: values } };
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

  /** The lanes that edits act on: those of the box, else that of the cursor. */
  get #lanes(): LaneName[] {
    return this.boxed ? (Object.keys(this.chosen) as LaneName[]) : [this.cursor.lane];
  }

  /** Whether all chosen steps are locked against rolling and evolving. */
  get locked(): boolean {
    return this.#lanes.every((lane) => {
      const locked = this.session.lane(lane).locked ?? [];
      return this.stepsOf(lane).every((step) => locked.includes(step));
    });
  }

  /** Locks the chosen steps, or unlocks them if all are locked. */
  toggleLocks(): Promise<void> {
    const unlock = this.locked;
    const edits = this.#lanes.map((lane) => {
      const steps = this.stepsOf(lane);
      const others = (this.session.lane(lane).locked ?? []).filter((s) => !steps.includes(s));
      const locked = unlock ? others : [...others, ...steps].sort((a, b) => a - b);
      return { setLane: { ...this.session.address, lane, locked } };
    });
    return this.session.editAll(unlock ? "unlock steps" : "lock steps", edits);
  }

  /** Adds to the chosen steps of all lanes, each within its bounds, as one edit. */
  raise(by: number): Promise<void> {
    const lanes: Partial<Record<LaneName, Values>> = {};
    for (const lane of this.#lanes) {
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
