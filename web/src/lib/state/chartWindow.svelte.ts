import { getChart, type Stretch } from "../api/chart";
import type { Chart, ChartPart, Degree, LaneName, LaneSpec } from "../api/types";
import { degreeName } from "../chart/values";
import type { Standing } from "./places.svelte";
import type { Session } from "./session.svelte";

const pitchRowsShown = 16;

/** The lowest degree that is shown unless others are in use. */
const usualPitchRoom = -2;

/** Which stretch of time and which degrees the chart shows, and what is in it. */
export abstract class ChartWindow {
  /** The loop view shows the loops from their first steps; the timeline the bars that are playing. */
  following = $state(false);
  bars = $state(3);
  /** How wide the strips are, in pixels. */
  width = $state(0);

  #page = $state(0);
  #pitchBottom = $state<number>();
  #chart = $state.raw<Chart>();

  constructor(readonly session: Session) {
    $effect.pre(() => {
      void session.document;
      return () => this.forget(); // another project is opened
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

  /** Forgets what was shown of a project. */
  protected forget(): void {
    this.#chart = this.#pitchBottom = undefined;
    this.#page = 0;
  }

  async #load(at: Stretch, signal: AbortSignal): Promise<void> {
    try {
      this.#chart = await getChart(at, signal);
    } catch (error) {
      if (!signal.aborted)
        this.session.notices.add(`The chart cannot be drawn: ${(error as Error).message}.`);
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

  /** The notes that the pitch lane can ask for, from its lowest degree up. */
  get degrees(): Degree[] {
    return this.#chart?.degrees ?? [];
  }

  /** How a number field shows and reads a degree: by its name, or counted from 1. */
  readonly degreeText = {
    show: (degree: number): string => degreeName(degree, this.degrees) || String(degree + 1),
    read: (text: string) => this.session.notes.degreeOf(text, this.degrees),
  };

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
}
