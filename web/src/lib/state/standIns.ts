import type { Output, Route, Track } from "../api/types";
import { PortQueue } from "../output/portQueue";
import type { Session } from "./session.svelte";

const [noteOff, noteOn] = [0x80, 0x90];

/** Outputs that the built-in sound plays, as nothing else does. */
export class StandIns {
  readonly #queues = new Map<number, PortQueue>();

  constructor(
    private readonly session: Session,
    private readonly routeTo: (track: Track, output: number) => Route | undefined,
  ) {}

  get queues(): Iterable<PortQueue> {
    return this.#queues.values();
  }

  /** The queue of an output, whose notes sound in this page. */
  of(output: Output): PortQueue {
    const queue =
      this.#queues.get(output.id) ?? new PortQueue((data, page) => this.#play(output, data, page));
    this.#queues.set(output.id, queue);
    return queue;
  }

  /** Ends what sounds of outputs that are played otherwise now. */
  keepOnly(outputs: readonly number[]): void {
    for (const [id, queue] of this.#queues) {
      if (outputs.includes(id)) continue;
      queue.release(performance.now());
      this.#queues.delete(id);
    }
  }

  release(): void {
    for (const queue of this.#queues.values()) queue.release(performance.now());
  }

  #play(
    output: Output,
    [status = 0, key = 0, velocity = 0]: readonly number[],
    page: number,
  ): void {
    const kind = status & 0xf0;
    if (kind !== noteOn && kind !== noteOff) return;
    const channel = status & 0xf;
    const of = this.#trackOn(output, channel + 1);
    this.session.player.announce([
      {
        at: this.session.serverNanos(page),
        tick: 0,
        track: -output.id, // of no track, so that no note of one ends it
        channel,
        key,
        velocity: kind === noteOn ? velocity : 0,
        patch: of ? this.session.patchOf(of.id) : "bell",
      },
    ]);
  }

  /** The track that goes to an output on a channel, from 1. */
  #trackOn(output: Output, channel: number): Track | undefined {
    return this.session.project.tracks.find((track) => {
      const route = this.routeTo(track, output.id);
      return route && (route.channel || track.channel) === channel;
    });
  }
}
