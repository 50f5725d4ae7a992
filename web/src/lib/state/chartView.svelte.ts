import { getChart } from "../api/chart";
import type { Chart, Degree, LaneName } from "../api/types";
import type { Session } from "./session.svelte";

const pitchRowsShown = 16;

/** The step that the keys act on. */
export interface Cursor {
  lane: LaneName;
  step: number;
}

/** Values by step of a lane, counted from 0. */
interface Draft {
  lane: LaneName;
  values: Readonly<Record<number, number>>;
}

/** Which stretch of time the chart shows, what is in it, and where the user's hand is. */
export class ChartView {
  /** Home shows the loops from their first steps; follow shows the bars that are playing. */
  following = $state(false);
  bars = $state(3);
  cursor = $state<Cursor>({ lane: "gate", step: 0 });

  /** How wide the strips are, in pixels. */
  width = $state(0);

  /** Values that are seen and are not yet stored. */
  #draft = $state.raw<Draft>();
  #writing = 0;
  #page = $state(0);
  #pitchBottom = $state(-2);
  #chart = $state.raw<Chart>();

  constructor(readonly session: Session) {
    $effect(() => {
      const { revision } = session.snapshot;
      const { track, part } = session.address;
      const { from, to } = this;
      const stale = new AbortController();
      // A revision of 0 marks a server that is away; its answer would be a failure.
      if (revision > 0) void this.#load(track, part, from, to, stale.signal);
      return () => stale.abort();
    });
  }

  async #load(
    track: number,
    part: number,
    from: number,
    to: number,
    signal: AbortSignal,
  ): Promise<void> {
    try {
      this.#chart = await getChart(track, part, from, to, signal);
    } catch (error) {
      if (!signal.aborted) this.session.notices.add(`The chart cannot be drawn: ${error}`);
    }
  }

  /** The chart that arrived last; while another is on its way this one stays. */
  get chart(): Chart | undefined {
    return this.#chart;
  }

  get from(): number {
    return this.following ? this.#page * this.#length : 0;
  }

  get to(): number {
    return this.from + this.#length;
  }

  get #length(): number {
    return this.bars * this.session.bar;
  }

  /** The chosen step of a lane, if it were the lane that the keys act on. */
  stepOf(lane: LaneName): number {
    const { first, length } = this.session.loop(lane);
    return Math.min(Math.max(this.cursor.step, first), first + length - 1);
  }

  moveCursor(lane: LaneName, step: number): void {
    this.cursor = { lane, step };
  }

  /** The notes that the pitch lane can ask for, from its lowest degree up. */
  get degrees(): Degree[] {
    return this.#chart?.degrees ?? [];
  }

  get degreesPerOctave(): number {
    const [first, second] = this.degrees.filter((d) => d.root);
    return first && second ? second.degree - first.degree : 7;
  }

  /** The degrees that the pitch strip shows: always all that its loop uses, and room to draw in. */
  get pitchRows(): { least: number; most: number } {
    const { first, length } = this.session.loop("pitch");
    const used = this.session.lane("pitch").steps.slice(first, first + length);
    const [lowest, highest] = [Math.min(...used), Math.max(...used)];
    const span = Math.max(pitchRowsShown, highest - lowest + 3);
    const { least, most } = this.session.spec("pitch");
    const bottom = Math.min(Math.max(this.#pitchBottom, highest - span + 2, least), lowest - 1);
    return { least: Math.max(least, bottom), most: Math.min(most, bottom + span - 1) };
  }

  movePitchRows(by: number): void {
    this.#pitchBottom = this.pitchRows.least + by;
  }

  /** Turns to the page on which a tick is. */
  turnTo(tick: number): void {
    this.#page = Math.floor(tick / this.#length);
  }

  /** The values of a lane as they are seen: stored ones under those that are being painted. */
  values(lane: LaneName): number[] {
    const stored = this.session.lane(lane).steps;
    const draft = this.#draft;
    if (draft?.lane !== lane) return stored;
    return stored.map((value, step) => draft.values[step] ?? value);
  }

  /** Shows values that are being painted over the stored ones; without values, nothing any more. */
  overlay(lane: LaneName, values?: Draft["values"]): void {
    this.#draft = values && { lane, values };
  }

  /** Writes values into steps as one edit. They are seen at once, so the next key can build on them. */
  async write(lane: LaneName, values: Draft["values"]): Promise<void> {
    const shown = this.#draft?.lane === lane ? this.#draft.values : {};
    this.overlay(lane, { ...shown, ...values });
    const steps = Object.entries(values).map(([step, value]) => ({ step: Number(step), value }));
    this.#writing++;
    await this.session.edit({ setSteps: { ...this.session.address, lane, steps } });
    this.#writing--;
    if (this.#writing === 0) this.overlay(lane);
  }
}
