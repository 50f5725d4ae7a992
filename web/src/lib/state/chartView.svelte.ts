import type { EditJSON, LaneName } from "../api/types";
import type { Tool } from "../chart/tools";
import { ChartSelection } from "./chartSelection.svelte";
import { LaneHeights } from "./laneHeights.svelte";
import { Roller } from "./roller.svelte";

/** Values by step of a lane, counted from 0. */
export type Values = Readonly<Record<number, number>>;

type Drafts = Partial<Record<LaneName, Values>>;

/** The chart of the Write screen: what is shown and selected, and how steps are written. */
export class ChartView extends ChartSelection {
  /** What the pointer does on a strip. */
  tool = $state<Tool>("draw");
  /** How far the random tool spreads values, in percent of a lane's range either way. */
  scatter = $state(20);

  /** Which page of the sheet is open. */
  sheet = $state<"step" | "lane" | "part" | "track" | "roll">("step");

  /** Values that are seen and are not yet stored, by lane, and of which part. */
  #drafts = $state.raw<{ part: string; lanes: Drafts }>({ part: "", lanes: {} });
  #writing = 0;

  readonly roller = new Roller(this);
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
