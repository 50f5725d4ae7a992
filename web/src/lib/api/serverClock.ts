const samplesKept = 8;

/**
 * Tells the time of the server's clock. Each answer to a question bounds the difference between the
 * two clocks by half the time that it was under way; of the last samples the quickest is believed.
 */
export class ServerClock {
  #samples: { roundTrip: number; offset: number }[] = [];

  /** Takes an answer in: when it was asked and came (page, ms) and what it said (server, ns). */
  learn(sent: number, received: number, serverNanos: number): void {
    const roundTrip = received - sent;
    const offset = serverNanos / 1e6 - (sent + received) / 2;
    this.#samples = [...this.#samples, { roundTrip, offset }].slice(-samplesKept);
  }

  /** Forgets all samples, since a server that was started anew has a new clock. */
  reset(): void {
    this.#samples = [];
  }

  get known(): boolean {
    return this.#samples.length > 0;
  }

  /** Converts a time of the page (performance.now, ms) to nanoseconds of the server's clock. */
  serverNanos(pageMillis: number): number {
    return (pageMillis + this.#offset()) * 1e6;
  }

  /** Converts nanoseconds of the server's clock to a time of the page (performance.now, ms). */
  pageMillis(serverNanos: number): number {
    return serverNanos / 1e6 - this.#offset();
  }

  #offset(): number {
    let best = this.#samples[0];
    for (const sample of this.#samples) {
      if (best && sample.roundTrip < best.roundTrip) best = sample;
    }
    return best?.offset ?? 0;
  }
}
