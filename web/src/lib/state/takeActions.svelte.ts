import { get } from "../api/http";
import type { Mend, PerformedAction } from "../api/types";

/** What was performed while a take was recorded, and how it is to be mended when it is played again. */
export class TakeActions {
  #of = $state<number>();
  #performed = $state.raw<PerformedAction[]>([]);
  #mends = $state.raw(new Map<number, Mend>());
  /** The action that is selected, by its place in the log. */
  selected = $state<number>();

  /** Turns to a take that has a log, or to none. */
  turnTo(id: number | undefined): void {
    if (id === this.#of) return;
    this.#of = id;
    this.#performed = [];
    this.#mends = new Map();
    this.selected = undefined;
    if (id === undefined) return;
    get<PerformedAction[]>(`api/takes/${id}/actions`)
      .then((performed) => {
        if (this.#of === id) this.#performed = performed;
      })
      .catch(() => {}); // a take without a log has none
  }

  /** The actions as they are to be, without those that are left out. */
  get all(): PerformedAction[] {
    return this.#performed
      .filter(({ entry }) => !this.#mends.has(entry) || this.#mends.get(entry)?.tick !== undefined)
      .map((action) => ({ ...action, tick: this.#mends.get(action.entry)?.tick ?? action.tick }));
  }

  get mends(): Mend[] {
    return [...this.#mends.values()];
  }

  isMoved(entry: number): boolean {
    return this.#mends.has(entry);
  }

  /** Has an action count from another tick of the take. */
  move(entry: number, tick: number, length: number): void {
    const within = Math.max(0, Math.min(length - 1, Math.round(tick)));
    this.#mend(entry, { entry, tick: within });
  }

  /** Leaves an action out. */
  remove(entry: number): void {
    this.#mend(entry, { entry });
    this.selected = undefined;
  }

  /** Has all be as it was performed. */
  reset(): void {
    this.#mends = new Map();
  }

  #mend(entry: number, mend: Mend): void {
    this.#mends = new Map(this.#mends).set(entry, mend);
  }
}
