/** How many messages are kept. */
const kept = 200;

/** A message that went out or came in, and when (performance.now, ms). */
export interface Monitored {
  id: number;
  page: number;
  /** The id of the output to which it went, or the name of the input from which it came. */
  where: number | string;
  data: readonly number[];
}

/** What went out to outputs and came in last, for the monitor. */
export class MonitorLog {
  #list = $state.raw<Monitored[]>([]);
  #count = 0;

  /** The latest first. */
  get list(): readonly Monitored[] {
    return this.#list;
  }

  /** Adds messages that went or came one after the other. */
  add(messages: Omit<Monitored, "id">[]): void {
    if (messages.length === 0) return;
    const latest = messages.map((one) => ({ ...one, id: this.#count++ })).reverse();
    this.#list = [...latest, ...this.#list].slice(0, kept);
  }
}
