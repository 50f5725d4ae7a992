import type { WireSound } from "../api/types";

/** A sound that is announced, and by which patch, if that is not for its track to say. */
export type Sounding = WireSound & { patch?: string };

/** Sounds that have been announced and are not yet handed to the synth, ordered by time. */
export class SoundQueue {
  #waiting: Sounding[] = [];

  /** Adds sounds that are in the order of their times; some may come before sounds that were added already. */
  push(sounds: Sounding[]): void {
    const last = this.#waiting.at(-1)?.at ?? -Infinity;
    this.#waiting.push(...sounds);
    if ((sounds[0]?.at ?? Infinity) < last) this.#waiting.sort((a, b) => a.at - b.at);
  }

  /** Takes out all sounds that are to be heard before a time of the server's clock. */
  takeBefore(serverNanos: number): Sounding[] {
    let due = 0;
    while ((this.#waiting[due]?.at ?? Infinity) < serverNanos) due++;
    return this.#waiting.splice(0, due);
  }

  /** Takes sounds out that must not be heard after all. */
  withdraw(sounds: WireSound[]): void {
    const name = ({ at, channel, key }: WireSound) => `${at} ${channel} ${key}`;
    const withdrawn = new Set(sounds.map(name));
    this.#waiting = this.#waiting.filter(
      (sound) => sound.velocity === 0 || !withdrawn.has(name(sound)),
    );
  }

  clear(): void {
    this.#waiting = [];
  }
}
