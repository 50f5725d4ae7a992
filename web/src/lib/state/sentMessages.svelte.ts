/** How many messages are kept. */
const kept = 200;

/** A message that was sent, and when (performance.now, ms). */
export interface Sent {
  id: number;
  page: number;
  output: number;
  data: readonly number[];
}

/** What was sent last, for the monitor. */
export class SentMessages {
  #list = $state.raw<Sent[]>([]);
  #count = 0;

  /** The latest first. */
  get list(): readonly Sent[] {
    return this.#list;
  }

  /** Adds messages that were sent one after the other. */
  add(sent: Omit<Sent, "id">[]): void {
    if (sent.length === 0) return;
    const latest = sent.map((one) => ({ ...one, id: this.#count++ })).reverse();
    this.#list = [...latest, ...this.#list].slice(0, kept);
  }
}
