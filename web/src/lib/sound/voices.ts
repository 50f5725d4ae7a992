import type { Synth } from "./bell";

/** A release must come after its attack, or the note would hang. */
const leastNote = 0.01;

/** The keys of a synth: knows which are down or about to be, so that all can be let go at once. */
export class Voices {
  #down = new Map<number, number>();

  constructor(readonly synth: Synth) {}

  /** Strikes a key (velocity above 0) or lets it go, `late` seconds from now. */
  play(key: number, velocity: number, late: number): void {
    const at = this.synth.now() + Math.max(0, late);
    if (velocity > 0) {
      this.synth.attack(key, velocity, at);
      this.#down.set(key, at);
    } else if (this.#down.has(key)) {
      this.#letGo(key, at);
    }
  }

  releaseAll(): void {
    for (const key of [...this.#down.keys()]) this.#letGo(key, this.synth.now());
  }

  #letGo(key: number, at: number): void {
    const struck = this.#down.get(key) ?? at;
    this.synth.release(key, Math.max(at, struck + leastNote));
    this.#down.delete(key);
  }
}
