import type { WireSound } from "../api/types";

/** Sounds that have been announced and are not yet handed to the synth, ordered by time. */
export class SoundQueue {
  #waiting: WireSound[] = [];

  /** Adds sounds; the server sends them in the order of their times. */
  push(sounds: WireSound[]): void {
    this.#waiting.push(...sounds);
  }

  /** Takes out all sounds that are to be heard before a time of the server's clock. */
  takeBefore(serverNanos: number): WireSound[] {
    let due = 0;
    while ((this.#waiting[due]?.at ?? Infinity) < serverNanos) due++;
    return this.#waiting.splice(0, due);
  }

  clear(): void {
    this.#waiting = [];
  }
}
