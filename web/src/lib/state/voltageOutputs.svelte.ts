import { untrack } from "svelte";
import type { Output, VoltageReading, VoltageSetup, WireBatch } from "../api/types";
import { post } from "../api/http";
import { VoltagePlayer } from "../voltages/player";
import { patchOf } from "../voltages/rack";
import { otherChannels } from "../sound/audioOutputs";
import { Interfaces } from "./interfaces.svelte";
import { own } from "./own";
import type { Session } from "./session.svelte";

/** What plays an output of voltages: an interface of a name, or the rack; and what releases that. */
type Player = { on: string; player: VoltagePlayer; channels: number; release: () => void };

/** How an output stands, in a few words; missing is that nothing is there to play it. */
interface State {
  ready: boolean;
  missing?: boolean;
  words: string;
}

const rack = "rack";

/** The outputs of voltages of the project, and what plays them in this page. */
export class VoltageOutputs {
  readonly interfaces = new Interfaces((name) => this.#lose(name));

  readonly #players = new Map<number, Player>();
  /** The voltages that are sent at present, by output and channel. */
  #levels = $state.raw<Readonly<Record<number, Readonly<Record<number, number>>>>>({});
  #beyond = $state.raw<Readonly<Record<string, string>>>({});
  #states = $state.raw<Readonly<Record<number, State>>>({});
  /** Whether the browser lets the page sound, as the user has done something. */
  #awake = $state(false);

  constructor(
    private readonly session: Session,
    private readonly outputs: () => readonly Output[],
  ) {
    session.listen((batch) => this.#take(batch));
    $effect(() => {
      if (session.player.ready) this.#awake = true;
    });
    $effect(() => {
      const wanted = this.#wantedNow;
      void this.session.calibrations; // which count at once
      untrack(() => this.#settle(wanted));
    });
    $effect(() => {
      if (session.connected) untrack(() => this.#ask()); // which may have another clock than before
    });
    $effect(() => {
      const leave = () => this.#closeAll();
      window.addEventListener("pagehide", leave);
      return () => window.removeEventListener("pagehide", leave);
    });
  }

  /** The voltage that a channel carries at present; nothing while this page does not play it. */
  level(output: number, channel: number): number | undefined {
    return this.#levels[output]?.[channel];
  }

  /** Which notes are beyond what a channel reaches, in words; empty if none are. */
  beyond(output: number, channel: number): string {
    return this.#beyond[`${output} ${channel}`] ?? "";
  }

  stateOf(output: Output): State {
    return this.#states[output.id] ?? this.#idle(output);
  }

  /** Has an interface play an output from now on, on this machine; an empty name has none. */
  select(output: Output, name: string): void {
    this.#awake = true;
    this.interfaces.bind(output.name, name);
  }

  /** Has the page sound from now on, as the user has done something. */
  wake(): void {
    this.#awake = true;
  }

  /** Has a channel of an output carry a voltage until something plays; without one what it carried before. */
  test(output: Output, channel: number, volts?: number): Promise<void> {
    const millivolts = volts === undefined ? undefined : Math.round(volts * 1000);
    return this.session.attempt(() =>
      post("api/voltages/test", { output: output.id, channel, millivolts }),
    );
  }

  /** What was read of a channel of the interface that an output is on this machine. */
  readingsOf(output: Output, channel: number): readonly VoltageReading[] {
    const on = this.interfaces.boundTo(output.name);
    return (
      this.session.calibrations.find((c) => c.interface === on && c.channel === channel)
        ?.readings ?? []
    );
  }

  /** Keeps what was read of a channel of the interface that an output is on this machine. */
  calibrate(output: Output, channel: number, readings: readonly VoltageReading[]): Promise<void> {
    const on = this.interfaces.boundTo(output.name) ?? "";
    return this.session.attempt(() =>
      post("api/voltages/calibrate", { output: output.id, channel, interface: on, readings }),
    );
  }

  /** Looks which interfaces there are. */
  async find(): Promise<void> {
    try {
      await this.interfaces.ask();
    } catch {
      this.session.notices.add("The browser does not tell the names of audio interfaces.");
    }
  }

  /** Each output of voltages, and what is to play it, if anything is. */
  readonly #wantedNow = $derived.by(() => {
    const active = this.#awake && !this.session.devices.held;
    return this.outputs().flatMap((output) => {
      const { voltages: setup, name, standIn } = output;
      if (!setup) return [];
      const bound = this.interfaces.boundTo(name);
      const there = bound && this.interfaces.find(bound) ? bound : undefined;
      const on =
        there && this.#mixed(there, setup) ? undefined : (there ?? (standIn ? rack : undefined));
      return { output, setup, on: active ? on : undefined };
    });
  });

  /** What else would reach channels of an interface that carry voltages, in words; empty if nothing would. */
  #mixed(name: string, { channels }: VoltageSetup): string {
    if (!this.interfaces.find(name)?.usual) return "";
    const carries = (numbers: number[]) =>
      channels.some(({ channel }) => numbers.includes(channel));
    if (carries([1, 2]) && this.session.player.sounds)
      return `the built-in sound plays on channels 1 and 2 of ${name}: use others for voltages`;
    if (carries([3, 4]) && this.session.previews.cue?.id === otherChannels.id)
      return `the cue is on channels 3 and 4 of ${name}: select another cue`;
    return "";
  }

  #idle(output: Output): State {
    const name = this.interfaces.boundTo(output.name);
    if (this.session.devices.held) return { ready: false, words: "not active yet" };
    if (name && !this.interfaces.find(name) && !output.standIn)
      return { ready: false, missing: true, words: `${name} is not plugged in` };
    const mixed = name && output.voltages ? this.#mixed(name, output.voltages) : "";
    if (mixed) return { ready: false, missing: true, words: mixed };
    if (!name && !output.standIn)
      return { ready: false, missing: true, words: "no interface is selected" };
    return { ready: false, words: "press Play or “sound” to start it" };
  }

  /** Has each output be played by what is to play it. */
  #settle(
    wanted: readonly { output: Output; setup: VoltageSetup; on: string | undefined }[],
  ): void {
    for (const id of [...this.#players.keys()])
      if (!wanted.some(({ output }) => output.id === id)) this.#close(id);
    for (const { output, setup, on } of wanted) {
      const channels = Math.max(1, ...setup.channels.map(({ channel }) => channel));
      const now = this.#players.get(output.id);
      if (now?.on === on && now?.channels === channels) {
        this.#set(now.player, setup, now.on);
        continue;
      }
      if (now) this.#close(output.id);
      if (on) this.#open(output, setup, on, channels);
    }
  }

  #set(player: VoltagePlayer, setup: VoltageSetup, on: string): void {
    const of = this.session.calibrations.filter((one) => one.interface === on);
    const corrections = Object.fromEntries(of.map((c) => [c.channel, c.calibration]));
    const silence = (setup.silence ?? 0) / 10;
    player.tell({ fullScale: setup.fullScale / 1000, silence, corrections });
    player.patch(patchOf(setup));
  }

  /** Has an output be played by the rack, or by an interface once no other page plays that. */
  #open(output: Output, setup: VoltageSetup, on: string, channels: number): void {
    const { id } = output;
    const player = new VoltagePlayer(
      (page) => this.session.serverNanos(page),
      (volts) => (this.#levels = { ...this.#levels, [id]: volts }),
    );
    const one: Player = { on, player, channels, release: () => {} };
    this.#players.set(id, one);
    this.#set(player, setup, on);
    if (on === rack) return void this.#start(id, one, setup);
    this.#say(id, { ready: false, words: `another page or output plays ${on}` });
    one.release = own(`voltages ${on}`, () => void this.#start(id, one, setup));
  }

  /** Asks what channels do at present, if this page plays any. */
  async #ask(): Promise<void> {
    if (this.#players.size > 0) await this.session.attempt(() => post("api/voltages/show", {}));
  }

  async #start(id: number, one: Player, setup: VoltageSetup): Promise<void> {
    const { on, player, channels } = one;
    try {
      const sink = this.interfaces.find(on)?.id ?? "";
      const has = await player.start(channels, on === rack ? { rack: patchOf(setup) } : { sink });
      if (this.#players.get(id) !== one) return;
      await this.#ask();
      const beyond = setup.channels.map(({ channel }) => channel).filter((c) => c > has);
      const words = on === rack ? "the rack plays it (simulated)" : `plays ${on}`;
      const few = `plays ${on}, which has no channel ${beyond.join(", ")}: nothing is sent there`;
      this.#say(id, { ready: true, words: beyond.length > 0 ? few : words });
    } catch {
      if (this.#players.get(id) !== one) return;
      this.#say(id, { ready: false, words: `${on} cannot be used: select it anew, or another` });
    }
  }

  #say(id: number, state: State): void {
    this.#states = { ...this.#states, [id]: state };
  }

  #close(id: number): void {
    const now = this.#players.get(id);
    now?.player.close();
    now?.release();
    this.#players.delete(id);
    this.#states = Object.fromEntries(
      Object.entries(this.#states).filter(([of]) => of !== `${id}`),
    );
    this.#levels = Object.fromEntries(
      Object.entries(this.#levels).filter(([of]) => of !== `${id}`),
    );
  }

  #closeAll(): void {
    for (const id of [...this.#players.keys()]) this.#close(id);
  }

  #lose(name: string): void {
    if ([...this.#players.values()].some(({ on }) => on === name))
      this.session.notices.add(
        `${name} is gone; the rest plays on. It is used again once it is back.`,
      );
  }

  #take({ voltages = [] }: WireBatch): void {
    for (const shown of voltages) {
      for (const { channel, beyond = "" } of shown.lines) {
        const of = `${shown.output} ${channel}`;
        if ((this.#beyond[of] ?? "") !== beyond) this.#beyond = { ...this.#beyond, [of]: beyond };
      }
      this.#players.get(shown.output)?.player.show(shown);
    }
  }
}
