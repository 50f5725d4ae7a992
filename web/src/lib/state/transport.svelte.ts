import type { ServerClock } from "../api/serverClock";
import type { Status } from "../api/types";

/** What the server's transport is doing, and where it is by now. */
export class Transport {
  #status = $state.raw<Status>();

  constructor(private readonly clock: ServerClock) {}

  adopt(status: Status): void {
    this.#status = status;
  }

  /** Says that nothing is known any more, because the server is away. */
  lose(): void {
    this.#status = undefined;
  }

  get playing(): boolean {
    return this.#status?.playing ?? false;
  }

  get recording(): boolean {
    return this.#status?.recording ?? false;
  }

  /** Whether a take will be recorded once its first bar comes. */
  get armed(): boolean {
    return this.#status?.armed ?? false;
  }

  /** The range of the song that is looped, in ticks; one that ends at 0 is none. */
  get loop(): Status["loop"] {
    return this.#status?.loop ?? { from: 0, to: 0 };
  }

  /** The tick of the song that is heard at a time of the page (performance.now, ms); undefined while stopped. */
  tickAt(pageMillis: number, ticksPerQuarter: number): number | undefined {
    const status = this.#status;
    if (!status?.playing || !this.clock.known) return undefined;
    const minutes = (this.clock.serverNanos(pageMillis) - status.at) / 60e9;
    return Math.max(0, status.tick + (minutes * status.tempo * ticksPerQuarter) / 1000);
  }
}
