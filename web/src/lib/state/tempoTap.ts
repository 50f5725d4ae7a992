import { bounds } from "../api/generated";
import type { OpenProject } from "./openProject.svelte";

/** Taps further apart than this begin anew, in milliseconds. */
const pause = 1_500;

/** How many of the last taps count. */
const mostTaps = 8;

/** Tempos are in thousandths of a beat a minute. */
const { min, max } = bounds.Project.tempo;

/** The tempo by taps: from the second one on each sets it at once. */
export class TempoTap {
  #taps: number[] = [];

  constructor(private readonly project: OpenProject) {}

  tap(): void {
    const now = performance.now();
    const goesOn = now - (this.#taps.at(-1) ?? -Infinity) <= pause;
    this.#taps = goesOn ? [...this.#taps, now].slice(-mostTaps) : [now];
    const [first] = this.#taps;
    if (first === undefined || this.#taps.length < 2) return;
    const beatsPerMinute = (60_000 * (this.#taps.length - 1)) / (now - first);
    const tempo = Math.min(max, Math.max(min, Math.round(beatsPerMinute * 10) * 100)) / 1000;
    void this.project.run.press(() => this.project.setTempo(tempo));
  }
}
