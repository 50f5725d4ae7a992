import type { ServerClock } from "../api/serverClock";
import type { Status } from "../api/types";

/** What the server's transport is doing, and where it is by now. */
export class Transport {
  #status = $state.raw<Status>();
  #waiting: (() => void)[] = [];

  constructor(private readonly serverClock: ServerClock) {}

  adopt(status: Status): void {
    this.#set(status);
  }

  /** Says that nothing is known any more, because the server is away. */
  lose(): void {
    this.#set(undefined);
  }

  #set(status: Status | undefined): void {
    this.#status = status;
    this.#waiting.splice(0).forEach((resolve) => resolve());
  }

  /** Asks for something, and waits until the server has said what has come of it, if it was done. */
  async after(ask: () => Promise<boolean>): Promise<void> {
    const before = this.#status;
    if ((await ask()) && this.#status === before)
      await new Promise<void>((resolve) => this.#waiting.push(resolve));
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
    return this.#status?.loop ?? { from: 0, to: 0, goesOn: false };
  }

  /** Since when chance has decided what plays; it changes where chance goes on in another pass of the loop. */
  get decidedAt(): number {
    return this.#status?.playing && this.loop.goesOn ? this.#status.at : 0;
  }

  /** How things stand with the clock of another machine; undefined if none is followed. */
  get clock(): Status["clock"] {
    return this.#status?.clock;
  }

  /** Whether playing waits for another machine's start. */
  get waits(): boolean {
    return this.clock?.state === "waits";
  }

  /** The same in a few words. */
  get clockWords(): string {
    const { state = "", tempo = 0 } = this.clock ?? {};
    const words: Record<string, string> = {
      silent: "no clock comes",
      comes: "its clock comes; playing starts with it",
      waits: "waiting for start",
      leads: "playing follows it",
      joins: "waiting for its clock",
      lost: "its clock is lost; playing runs on",
    };
    return `${words[state] ?? ""}${tempo ? `, ${(tempo / 1000).toFixed(1)} bpm` : ""}`;
  }

  /** The jump that waits, if one does. */
  get jump(): Status["jump"] {
    return this.#status?.jump;
  }

  /** The tick of the song in whose bar the program ended while it played, if it did. */
  get interruptedAt(): number | undefined {
    return this.#status?.interrupted ? this.#status.stopped : undefined;
  }

  /** How many ticks pass in a millisecond by now; undefined while stopped. */
  get ticksPerMilli(): number | undefined {
    return this.playing ? this.#status?.ticksPerMilli : undefined;
  }

  /** Whether the project that was opened last waits to come in. */
  get opening(): boolean {
    return this.#status?.opening ?? false;
  }

  /** The tick of the song that is heard at a time of the page (performance.now, ms); undefined while stopped. */
  tickAt(pageMillis: number): number | undefined {
    const status = this.#status;
    if (!status?.playing || !this.serverClock.known) return undefined;
    const millis = (this.serverClock.serverNanos(pageMillis) - status.at) / 1e6;
    return Math.max(0, status.tick + millis * status.ticksPerMilli);
  }
}
