import { get, post } from "../api/http";
import { Socket } from "../api/socket";
import type { Calibrated, Input, Lists, Message, TransportRequest, WireBatch } from "../api/types";
import { Player } from "../sound/player.svelte";
import { Devices } from "./devices.svelte";
import { Inputs } from "./inputs.svelte";
import { MonitorLog } from "./monitorLog.svelte";
import { PageSound } from "./pageSound.svelte";
import { Places } from "./places.svelte";
import { Previews } from "./previews.svelte";
import { ProgramCount } from "./programCount.svelte";
import { Selection } from "./selection.svelte";
import { Shelf } from "./shelf.svelte";
import { SongStart } from "./songStart.svelte";
import { Transport } from "./transport.svelte";

/** A port says that it is there by this, or by a reset: nobody needs to know of either. */
const activeSensing = 0xfe;

/** The connection to the server: all that it tells the page, and what is heard of it. */
export class Session extends Selection {
  readonly places: Places;
  readonly transport: Transport;
  readonly player: Player;
  readonly shelf: Shelf;
  readonly sound: PageSound;
  readonly previews: Previews;
  readonly devices = new Devices();
  readonly inputs: Inputs;
  readonly monitor = new MonitorLog();
  readonly programs = new ProgramCount();
  readonly song = new SongStart(this, (request) => this.#order(request));

  #socket: Socket;
  #listeners: ((batch: WireBatch) => void)[] = [];
  #connected = $state(false);
  /** What was read of channels of audio interfaces. */
  calibrations = $state.raw<readonly Calibrated[]>([]);

  constructor() {
    super();
    this.#socket = new Socket(
      (message) => this.#receive(message),
      (is) => this.#connectedIs(is),
    );
    this.player = new Player(this.#socket.clock, (track) => this.patchOf(track));
    this.places = new Places(this.#socket.clock);
    this.transport = new Transport(this.#socket.clock);
    this.shelf = new Shelf(this);
    this.previews = new Previews(this, this.#socket.clock);
    this.inputs = new Inputs(this);
    this.sound = new PageSound(this.player, this.notices, () => this.connected);
  }

  /** The patch by which a track is heard on the built-in sound: a kit's, or that of its route. */
  patchOf(id: number): string {
    const track = this.project.tracks.find((t) => t.id === id);
    if (track?.kind === "kit") return "kit";
    return track?.routes?.find((route) => route.output === 0)?.patch ?? "bell";
  }

  get connected(): boolean {
    return this.#connected;
  }

  /** Lets a note be heard at once, for placing it by ear. */
  async hear(key: number, detune = 0, velocity = 90): Promise<void> {
    const player = await this.previews.start();
    const patch = this.patchOf(this.track.id);
    player?.strike({ of: "tried", key, detune, patch }, velocity);
  }

  /** Converts a time of the page (performance.now, ms) to nanoseconds of the server's clock. */
  serverNanos(pageMillis: number): number {
    return this.#socket.clock.serverNanos(pageMillis);
  }

  /** Converts nanoseconds of the server's clock to a time of the page (performance.now, ms). */
  pageMillis(serverNanos: number): number {
    return this.#socket.clock.pageMillis(serverNanos);
  }

  /** Has a function told of all that is announced, for as long as the page is there. */
  listen(listener: (batch: WireBatch) => void): void {
    this.#listeners.push(listener);
  }

  /** Tells the server of a message that has come in at an input, and when (performance.now, ms); without bytes the input is gone. */
  comesIn({ kind, id }: { kind: Input["kind"]; id: number }, message: number[], at: number): void {
    if (kind !== "screen" && kind !== "browserPort") return;
    if (message.length > 3 || (message[0] ?? 0) >= activeSensing) return;
    const when = Math.round(this.serverNanos(at));
    this.#socket.send({ sent: 0, input: { kind, id, at: when, message } });
  }

  /** Tells the server that a key of the computer goes down or up. */
  keyComes(key: string, down: boolean): void {
    const at = Math.round(this.serverNanos(performance.now()));
    this.#socket.send({ sent: 0, input: { kind: "screen", at, message: [], key, down } });
  }

  async #order(request: TransportRequest): Promise<boolean> {
    let done = false;
    await this.attempt(async () => {
      await post("api/transport", request);
      done = true;
    });
    return done;
  }

  #receive(message: Message): void {
    if (message.devices) this.devices.adopt(message.devices);
    if (message.inputs) this.inputs.adopt(message.inputs);
    if (message.heard) this.inputs.hear(message.heard);
    if (message.project) this.adopt(message.project);
    if (message.transport) {
      this.transport.adopt(message.transport);
      if (!message.transport.playing) this.places.clear();
    }
    if (message.stage) this.stage.adopt(message.stage);
    if (message.batch) {
      const { sounds = [], places = [], clicks = [], withdrawn = [], release } = message.batch;
      if (release) this.player.silence();
      this.player.withdraw(withdrawn);
      this.player.announce(sounds);
      this.player.click(clicks);
      for (const listener of this.#listeners) listener(message.batch);
      this.places.announce(places);
    }
    if (message.takes) this.shelf.adopt(message.takes.takes);
    if (message.calibrations) this.calibrations = message.calibrations.calibrations;
    if (message.problems) this.notices.setProblems(message.problems.problems);
    if (message.notice) this.notices.add(message.notice.text);
  }

  #connectedIs(is: boolean): void {
    this.#connected = is;
    if (is) {
      void this.attempt(async () => this.takeLists(await get<Lists>("api/lists")));
      return;
    }
    this.player.silence();
    this.places.clear();
    this.transport.lose();
    this.notices.setProblems([]);
    this.stage.reconnect();
    this.forgetRevision();
  }
}
