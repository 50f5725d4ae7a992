import type { Spread } from "../api/types";

/** Pulls what a spread lets be changed on its density: its ends, and the lean by dragging between them. */
export class SpreadPull {
  #pull = $state.raw<{ what: "lowest" | "highest" | "lean"; value: number }>();

  /** What is pulled, as a change of the spread; empty while nothing is. */
  get change(): Partial<Spread> {
    return this.#pull ? { [this.#pull.what]: this.#pull.value } : {};
  }

  /** The same in words. */
  get words(): string {
    return this.#pull ? `${this.#pull.what} ${this.#pull.value}` : "";
  }

  /** Takes hold at a number: of an end that is at most so far away, else of the lean. */
  begin(at: number, near: number, { lowest, highest, lean }: Spread): void {
    if (Math.abs(at - lowest) < near) this.#pull = { what: "lowest", value: lowest };
    else if (Math.abs(at - highest) < near) this.#pull = { what: "highest", value: highest };
    else this.#pull = { what: "lean", value: lean };
  }

  /** Pulls to a number; the ends stay in order and reach no farther than the widest. */
  move(to: number, { lowest, highest }: Spread, widest: number): void {
    if (!this.#pull) return;
    const { what } = this.#pull;
    const added = Math.round(to);
    if (what === "lowest")
      this.#pull = { what, value: Math.min(highest, Math.max(-widest, added)) };
    else if (what === "highest")
      this.#pull = { what, value: Math.max(lowest, Math.min(widest, added)) };
    else {
      const share = (added - lowest) / Math.max(1, highest - lowest);
      this.#pull = { what, value: Math.round(Math.min(1, Math.max(0, share)) * 200 - 100) };
    }
  }

  /** Lets go, and stores what has changed. */
  async end(spread: Spread, set: (change: Partial<Spread>) => Promise<void>): Promise<void> {
    if (!this.#pull) return;
    const { what, value } = this.#pull;
    if (value !== spread[what]) await set({ [what]: value });
    this.#pull = undefined;
  }

  cancel(): void {
    this.#pull = undefined;
  }
}
