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

  /** Each stretching of the loop waits for the one before it, from whose loop it goes on. */
  #stretched = Promise.resolve();

  constructor(
    private readonly session: Session,
    private readonly order: (request: TransportRequest) => Promise<boolean>,
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

  /** Whether the song plays from where playing begins. */
  get playsSong(): boolean {
    return this.session.stage.song.plays;
  }

  /** Has the song play, or not any more; while playing from the next bar on. */
  setPlaysSong(song: boolean): Promise<boolean> {
    return this.order({ do: "song", song });
  }

  /** Has the song go over to the section so many places after the one that plays. */
  goOver(places: number): Promise<boolean> {
    return this.order({ do: "section", section: { places, when: "bar" } });
  }

  async togglePlaying(): Promise<boolean> {
    const { playing, waits } = this.session.transport;
    return playing || waits ? this.order({ do: "stop" }) : this.play();
  }

  /** Plays from the selected bar; asked for once more, without the start of another machine for which that waits. */
  async play(): Promise<boolean> {
    await this.session.sound.start();
    return this.order({ do: "play", from: this.bar });
  }

  /** Has the nearest bar line come now, over so many beats. */
  oneIsNow(beats: number): Promise<boolean> {
    const at = Math.round(this.session.serverNanos(performance.now()));
    return this.order({ do: "one", at, beats });
  }

  /** Has all play so many milliseconds earlier from now on, or below 0 later. */
  move(millis: number): Promise<boolean> {
    return this.order({ do: "move", millis });
  }

  /** Has all outputs end whatever sounds. */
  panic(): Promise<boolean> {
    return this.order({ do: "panic" });
  }

  /** Plays on from the bar in which playing stopped. */
  async goOn(): Promise<void> {
    if (this.session.transport.playing) return;
    await this.session.sound.start();
    await this.order({ do: "goOn" });
  }

  async toggleRecording(): Promise<boolean> {
    const { recording, armed } = this.session.transport;
    if (recording || armed) return this.order({ do: "endRecording" });
    await this.session.sound.start();
    return this.order({ do: "record", record: { ...this.recordOptions, start: this.bar } });
  }

  /** The bar to which the song is to jump, from 1, if it is to. */
  get jump(): number | undefined {
    const jump = this.session.transport.jump;
    return jump && this.session.bars.at(jump.to) + 1;
  }

  /** Has the song jump to the selected bar, or takes a jump back that waits. */
  async toggleJump(): Promise<boolean> {
    return this.jump === undefined ? this.#jumpToBar() : this.order({ do: "jump" });
  }

  /** Has the song jump to the selected bar at the moment that is selected; of several jumps the last counts. */
  #jumpToBar(): Promise<boolean> {
    const { when, bars } = this.session.stage;
    return this.order({
      do: "jump",
      jump: { to: this.bar, when, goesOn: this.goesOn, ...(when === "bars" && { bars }) },
    });
  }

  /** Goes to the selected bar: by a jump, or by playing from it. */
  async jumpOrPlay(): Promise<boolean> {
    return this.session.transport.playing ? this.#jumpToBar() : this.togglePlaying();
  }

  /** Whether chance goes on from pass to pass of the loop, and in a jump, instead of being as it is in the song. */
  get goesOn(): boolean {
    return this.session.transport.loop.goesOn;
  }

  setLoop(loop: BarRange | undefined, goesOn = this.goesOn): Promise<boolean> {
    return this.order(loop ? { do: "loop", loop: { ...loop, goesOn } } : { do: "loop" });
  }

  /** Makes the loop longer or shorter at its end; it begins with the bar from which to play. */
  stretchLoop(by: number): Promise<void> {
    this.#stretched = this.#stretched.then(() => {
      const loop = this.loop ?? { from: this.#bar, bars: 0 };
      const bars = loop.bars + by;
      const next = bars > 0 ? { from: loop.from, bars } : undefined;
      return this.session.transport.after(() => this.setLoop(next));
    });
    return this.#stretched;
  }
}
