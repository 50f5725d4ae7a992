/** After this long without a press another run of them begins, in milliseconds. */
const pause = 3_000;

/** Tells which edits are made by presses of a key that follow each other, and are one step of undo. */
export class EditRun {
  #name = "";
  #last = -Infinity;
  #pressing = false;

  /** Calls a function; the edits that it makes at once, before it waits for anything, are of the run. */
  press<T>(make: () => T): T {
    const now = performance.now();
    if (now - this.#last > pause) this.#name = crypto.randomUUID();
    this.#last = now;
    this.#pressing = true;
    try {
      return make();
    } finally {
      this.#pressing = false;
    }
  }

  /** The name of the run that an edit made now is of; undefined if it is of none. */
  get name(): string | undefined {
    return this.#pressing ? this.#name : undefined;
  }
}
