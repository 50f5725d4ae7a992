import { gateLane } from "../chart/gate";
import type { LaneName } from "../api/types";
import {
  noStrips,
  rectangle,
  stepsWithin,
  withRange,
  type Rectangle,
  type Strip,
} from "../chart/box";
import { ChartWindow } from "./chartWindow.svelte";

/** The step that the keys act on. */
export interface Cursor {
  lane: LaneName;
  step: number;
}

/** Steps by lane. */
export type Selected = Readonly<Partial<Record<LaneName, number[]>>>;

/** Which steps of the chart are selected: that of the cursor, or those in a box that was drawn. */
export abstract class ChartSelection extends ChartWindow {
  #cursor = $state.raw<Cursor>({ lane: gateLane, step: 0 });
  /** The steps in a box that was drawn, and of which part; none while only the cursor's step is selected. */
  #selection = $state.raw<{ part: string; steps: Selected }>({ part: "", steps: {} });
  #strips = noStrips();
  #box = $state.raw<Rectangle>();

  protected override forget(): void {
    super.forget();
    this.#cursor = { lane: gateLane, step: 0 };
  }

  /** The selected step of a lane, if it were the lane that the keys act on. */
  stepOf(lane: LaneName): number {
    const { first, length } = this.session.loop(lane);
    return Math.min(Math.max(this.cursor.step, first), first + length - 1);
  }

  /** Where the keys act: on the gate lane if the part does not have the lane that was selected last. */
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
  get selected(): Selected {
    return this.#selection.part === this.partName ? this.#selection.steps : {};
  }

  select(steps: Selected): void {
    this.#selection = { part: this.partName, steps };
  }

  /** Names the part that is written, of whichever project. */
  protected get partName(): string {
    const { track, pattern, part } = this.session.address;
    return `${this.session.document} ${track} ${pattern} ${part}`;
  }

  /** Selects all steps of the loop of the cursor's lane. */
  selectLoop(): void {
    const { lane } = this.cursor;
    const { first, length } = this.session.loop(lane);
    this.select({ [lane]: Array.from({ length }, (_, i) => first + i) });
  }

  /** Takes the steps from where the cursor is to another one into the choice. */
  selectTo(lane: LaneName, step: number): void {
    const here = this.stepOf(lane);
    this.select({ ...this.selected, [lane]: withRange(this.selected[lane] ?? [], here, step) });
    this.moveCursor(lane, step);
  }

  /** The steps of a lane that edits act on: those in the box, else that of the cursor. */
  stepsOf(lane: LaneName): number[] {
    return this.selected[lane] ?? (this.boxed ? [] : [this.stepOf(lane)]);
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
      this.select(stepsWithin(this.#box, this.#strips));
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
    return Object.keys(this.selected).length > 0;
  }

  /** What copying and reshaping a lane act on: it alone, all that sits on the gate's steps, or the lanes of those that are named. */
  along = $state<"lane" | "steps" | "some">("lane");
  alongLanes = $state.raw<readonly LaneName[]>([]);

  /** Takes a lane to those that are named, or out of them. */
  toggleAlong(lane: LaneName): void {
    this.alongLanes = this.alongLanes.includes(lane)
      ? this.alongLanes.filter((other) => other !== lane)
      : [...this.alongLanes, lane];
  }

  /** The lanes that copying and reshaping a lane act on. A lane with a loop of its own stands elsewhere than the gate, so it is alone. */
  actedOn(lane: LaneName): LaneName[] {
    const { session } = this;
    if (this.along === "lane" || !this.onGate(lane)) return [lane];
    const lanes = session.lanes.map(({ name }) => name).filter((name) => this.onGate(name));
    if (this.along === "steps") return lanes;
    const named = lanes.filter((name) => this.alongLanes.includes(name));
    return named.length > 0 ? named : [lane];
  }

  /** Whether a lane sits on the gate's steps, or is the gate lane. */
  onGate(lane: LaneName): boolean {
    return lane === gateLane || this.session.lane(lane).linked;
  }

  /** The lanes that edits act on: those of the box, else that of the cursor. */
  protected get selectedLanes(): LaneName[] {
    return this.boxed ? (Object.keys(this.selected) as LaneName[]) : [this.cursor.lane];
  }
}
