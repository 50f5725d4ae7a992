import type { RecordOptions, TransportRequest } from "../api/types";
import type { Session } from "./session.svelte";

/** Bars of the song, counted from 1. */
export interface BarRange {
  from: number;
  bars: number;
}

/** Playing and recording: where they start, and which bars are looped. */
export class SongStart {
  /** What to record. */
  recordOptions = $state<RecordOptions>({ countIn: 0, from: 0, bars: 0, again: false });
  /** The bar from which to play, from 1. */
  #bar = $state(1);

  constructor(
    private readonly session: Session,
    private readonly order: (request: TransportRequest) => Promise<void>,
  ) {}

  get bar(): number {
    return this.#bar;
  }

  set bar(bar: number) {
    this.#bar = Math.min(10_000, Math.max(1, bar));
  }

  /** The bars that are looped, if any are. */
  get loop(): BarRange | undefined {
    const { from, to } = this.session.transport.loop;
    if (to === 0) return undefined;
    const first = this.session.bars.at(from);
    return {
      from: first + 1,
      bars: Math.max(1, Math.round(this.session.bars.position(to)) - first),
    };
  }

  async togglePlaying(): Promise<void> {
    if (this.session.transport.playing) return this.order({ do: "stop" });
    await this.session.sound.start();
    return this.order({ do: "play", from: this.bar });
  }

  /** Plays on from the bar in which playing stopped. */
  async goOn(): Promise<void> {
    if (this.session.transport.playing) return;
    await this.session.sound.start();
    return this.order({ do: "goOn" });
  }

  async toggleRecording(): Promise<void> {
    const { recording, armed } = this.session.transport;
    if (recording || armed) return this.order({ do: "endRecording" });
    await this.session.sound.start();
    return this.order({ do: "record", record: { ...this.recordOptions, start: this.bar } });
  }

  setLoop(loop: BarRange | undefined): Promise<void> {
    return this.order(loop ? { do: "loop", loop } : { do: "loop" });
  }

  /** Makes the loop longer or shorter at its end; it begins with the bar from which to play. */
  stretchLoop(by: number): Promise<void> {
    const loop = this.loop ?? { from: this.#bar, bars: 0 };
    const bars = loop.bars + by;
    return this.setLoop(bars > 0 ? { from: loop.from, bars } : undefined);
  }
}
