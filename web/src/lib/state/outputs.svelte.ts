import { get } from "../api/http";
import type { Output, WireBatch, WireMessage, WireSound } from "../api/types";
import { Activity } from "../output/activity";
import { PortQueue } from "../output/portQueue";
import PulseWorker from "../sound/pulse.worker?worker";
import { BrowserPorts } from "./browserPorts.svelte";
import { builtIn, OutputRoutes } from "./outputRoutes.svelte";
import { own } from "./own";
import { changeOf, type ChangeOf } from "./selection.svelte";
import type { Session } from "./session.svelte";
import { StandIns } from "./standIns";
import { VoltageOutputs } from "./voltageOutputs.svelte";

/** How long before its time a message is handed to a port, in milliseconds; until then a stop can take it back. */
const handOver = 25;

/** How long a test note sounds, in milliseconds. */
const testFor = 300;

/** A clock of MIDI, which comes so often that the monitor leaves it out. */
const clockByte = 0xf8;

/** Whether the server plays an output, not a page. */
const isServers = ({ kind }: Output): boolean => kind === "serverDevice" || kind === "osc";

/** The outputs of the project, and the MIDI ports of this browser that play them. */
export class Outputs extends OutputRoutes {
  readonly activity = new Activity();

  /** The MIDI ports of this browser. */
  readonly browser = new BrowserPorts((gone) => this.#lose(gone));

  /** What plays outputs of voltages. */
  readonly voltages = new VoltageOutputs(this.session, () => this.list);

  /** The names of the ports that this page plays, and no other page. */
  #owned = $state.raw<ReadonlySet<string>>(new Set());
  /** What plays outputs on the built-in sound while nothing else does. */
  readonly standIns = new StandIns(this.session, (track, output) => this.routeTo(track, output));
  readonly #queues = new Map<string, PortQueue>();
  /** The port that each output was on last. */
  readonly #ported = new Map<number, string>();

  constructor(session: Session) {
    super(session);
    session.listen((batch) => this.#take(batch));
    session.inputs.askClock((port) =>
      this.list.some(
        (o) => o.kind === "browserPort" && o.clock !== undefined && this.portOf(o) === port,
      ),
    );
    new PulseWorker().onmessage = () => this.#handOver();
    $effect(() => {
      const names = this.#wanted.split("\n").filter((name) => name);
      const closes = names.map((name) => this.#own(name));
      return () => closes.forEach((close) => close());
    });
    $effect(() => {
      if (!session.connected) this.#release();
    });
    $effect(() => {
      const missing = this.list.filter((o) => o.standIn && this.stateOf(o).missing);
      this.standIns.keepOnly(missing.map(({ id }) => id));
    });
    const leave = () => this.#release();
    $effect(() => {
      window.addEventListener("pagehide", leave);
      return () => window.removeEventListener("pagehide", leave);
    });
    void this.browser.again();
  }

  /** Whether tracks are tuned by messages that the browser does not let the page send yet. */
  get lacksTuning(): boolean {
    if (this.browser.access !== true || this.browser.exclusive) return false;
    const ports = this.list.filter(({ kind }) => kind === "browserPort").map(({ id }) => id);
    return this.session.project.tracks.some(
      (track) =>
        track.tuned?.by === "messages" &&
        this.routesOf(track).some(({ output }) => ports.includes(output)),
    );
  }

  /** Whether any port is played by this page. */
  get plays(): boolean {
    return this.#owned.size > 0;
  }

  /** The name of the port or device that an output is on this machine, if that was said. */
  portOf(output: Output): string | undefined {
    if (isServers(output)) return this.session.devices.stateOf(output)?.device;
    return this.browser.boundTo(output.name);
  }

  /** Has a port of this browser or a device play an output from now on; an empty name has none. */
  async select(output: Output, kind: Output["kind"], name: string): Promise<void> {
    if (output.kind === "browserPort") this.#bind(output, kind === "browserPort" ? name : "");
    else if (kind === "browserPort") this.#bind(output, name);
    if (output.kind !== kind) await this.change(output, { kind });
    if (kind === "serverDevice")
      await this.session.attempt(() => this.session.devices.bind(output.name, name));
  }

  /** Has a port of this browser play an output, on this machine; an empty name has none. */
  #bind(output: Output, port: string): void {
    const before = this.browser.boundTo(output.name);
    if (before) this.#queues.get(before)?.release(performance.now());
    this.browser.bind(output.name, port);
    if (this.#owned.has(port)) void this.#chase([output.id]);
  }

  /** Whether an output plays in this page, and if not why, in a few words; and whether that is since nothing is there to play it. */
  stateOf(output: Output): { ready: boolean; missing?: boolean; words: string } {
    const { devices } = this.session;
    if (output.kind === "voltages") return this.voltages.stateOf(output);
    const missing = (words: string) => ({ ready: false, missing: true, words });
    if (devices.held) return { ready: false, words: "not active yet" };
    const device = isServers(output) ? devices.stateOf(output) : undefined;
    if (device) return device.ready ? device : missing(device.words);
    if (output.kind === "osc") return missing("no address is given");
    if (output.kind === "serverDevice") return missing("no device is selected");
    const port = this.portOf(output);
    if (!port) return missing("no port is selected");
    if (this.browser.access !== true) return missing("MIDI ports are not in use");
    if (!this.browser.find(port)) return missing(`${port} is not plugged in`);
    if (!this.#owned.has(port)) return { ready: false, words: "another page plays it" };
    return { ready: true, words: `plays ${port}` };
  }

  /** Asks the browser for its ports, which asks the user; with tuning messages for those too. */
  async usePorts(tuning = false): Promise<void> {
    const before = this.browser.access;
    await this.browser.use(tuning);
    if (this.browser.access === true) await this.session.inputs.usePorts();
    if (before === true && tuning && !this.browser.exclusive)
      this.session.notices.add("The browser does not allow tuning messages.");
  }

  /** The lowest id that no output has. */
  #freeId(): number {
    let id = 1;
    while (this.list.some((output) => output.id === id)) id++;
    return id;
  }

  /** Adds an output, and returns its id. */
  async add(): Promise<number> {
    const id = this.#freeId();
    const { devices } = this.session;
    const isFree = ({ name }: { name: string }) =>
      !this.list.some((output) => output.name === name || this.portOf(output) === name);
    const port = this.browser.ports.find(isFree);
    const device = port ? undefined : devices.list.find(isFree);
    const output: Output = {
      ...{ id, name: (port ?? device)?.name ?? `Output ${id}` },
      kind: device ? "serverDevice" : "browserPort",
    };
    if (port) this.#bind(output, port.name);
    await this.session.edit({ setProject: { outputs: [...this.list, output] } });
    if (device) await this.session.attempt(() => devices.bind(output.name, device.name));
    return id;
  }

  /** Adds an output of voltages, and returns its id. */
  addVoltages(): Promise<number> {
    const voltages = { fullScale: 10_000, silence: 20, channels: [] };
    return this.#addOf("Modular", "Voltages", { kind: "voltages", voltages });
  }

  /** Adds an output that is a program, and returns its id. */
  addOSC(): Promise<number> {
    return this.#addOf("Program", "Program", { kind: "osc" });
  }

  /** Adds an output by a name, or if that is taken by another with its id. */
  async #addOf(
    name: string,
    other: string,
    of: Pick<Output, "kind" | "voltages">,
  ): Promise<number> {
    const id = this.#freeId();
    const taken = this.list.some((output) => output.name === name);
    const output: Output = { id, name: taken ? `${other} ${id}` : name, ...of };
    await this.session.edit({ setProject: { outputs: [...this.list, output] } });
    return id;
  }

  /** Changes an output; the port of this machine stays with it. */
  async change(output: Output, change: ChangeOf<Output, Partial<Output>>): Promise<void> {
    const changed = { ...output, ...changeOf(change, output) };
    const port = this.portOf(output);
    if (port && changed.name !== output.name) await this.#rebind(changed, port);
    return this.session.edit(() => ({
      setProject: {
        outputs: this.list.map((other) =>
          other.id === output.id ? { ...other, ...changeOf(change, other) } : other,
        ),
      },
    }));
  }

  /** Has a port or device that an output is on this machine be that of its new name. */
  async #rebind(output: Output, port: string): Promise<void> {
    if (output.kind === "browserPort") this.#bind(output, port);
    else await this.session.attempt(() => this.session.devices.bind(output.name, port));
  }

  /** Plays a middle C on a channel, from 1, of an output. */
  async test(output: Output | undefined, channel: number): Promise<void> {
    if (!output) {
      await this.session.sound.start();
      return this.session.player.strike({ of: "tried", key: 60 }, 90);
    }
    if (isServers(output))
      return this.session.attempt(() => this.session.devices.test(output, channel));
    const queue = this.#queueOf(output.id);
    if (!queue) {
      this.session.notices.add(`Nothing was played: ${this.stateOf(output).words}.`);
      return;
    }
    const now = performance.now();
    const on = [0x90 + channel - 1, 60, 90];
    const off = [0x80 + channel - 1, 60, 64];
    queue.play(on, now);
    queue.play(off, now + testFor);
    this.session.monitor.add(
      [on, off].map((data, i) => ({ page: now + i * testFor, where: output.id, data })),
    );
  }

  /** The names of the ports that are wanted and there, each once, a line each. */
  readonly #wanted = $derived.by(() => {
    if (this.session.devices.held) return "";
    const ports = this.list.filter(({ kind }) => kind === "browserPort");
    const names = ports.map((output) => this.portOf(output) ?? "");
    return [...new Set(names.filter((name) => this.browser.find(name)))].sort().join("\n");
  });

  /** Waits until no other page plays a port, and plays it until it is closed. */
  #own(name: string): () => void {
    const letGo = own(`port ${name}`, () => {
      this.#owned = new Set([...this.#owned, name]);
      const of = this.list.filter((output) => this.portOf(output) === name);
      void this.#chase(of.map(({ id }) => id));
    });
    return () => {
      letGo();
      this.#queues.get(name)?.release(performance.now());
      this.#owned = new Set([...this.#owned].filter((other) => other !== name));
    };
  }

  /** Forgets what sounds on a port that is gone. */
  #lose(name: string): void {
    this.#queues.get(name)?.forget();
    if (this.#owned.has(name))
      this.session.notices.add(
        `${name} is gone; the rest plays on. It is used again once it is back.`,
      );
  }

  /** Brings outputs up to date that are played from now on. */
  async #chase(ids: number[]): Promise<void> {
    await this.session.attempt(async () => {
      const { messages = [] } = await get<WireBatch>("api/transport/chase");
      for (const id of ids)
        this.#queueOf(id)?.pushMissing(messages.filter(({ output }) => output === id));
    });
  }

  #queueOf(id: number): PortQueue | undefined {
    const output = this.list.find((other) => other.id === id);
    if (id === builtIn) return this.#shown("built-in sound");
    if (output?.standIn && this.stateOf(output).missing) return this.standIns.of(output);
    if (output && isServers(output))
      return this.stateOf(output).ready ? this.#shown(`device ${id}`) : undefined;
    // What sounds on an output that was just removed still ends on its port.
    const name = output ? this.portOf(output) : this.#ported.get(id);
    if (name) this.#ported.set(id, name);
    if (!name || !this.#owned.has(name) || !this.browser.find(name)) return undefined;
    let queue = this.#queues.get(name);
    if (!queue) {
      queue = new PortQueue((data, at) => this.browser.find(name)?.send(data, at));
      this.#queues.set(name, queue);
    }
    queue.velocityZero = output?.velocityZero ?? false;
    queue.exclusive = this.browser.exclusive;
    return queue;
  }

  /** The queue of what others play, the server or the built-in sound; here it is only shown. */
  #shown(name: string): PortQueue {
    const queue = this.#queues.get(name) ?? new PortQueue(() => {});
    this.#queues.set(name, queue);
    return queue;
  }

  #take({
    sounds = [],
    withdrawn = [],
    messages = [],
    unsent = [],
    release,
    panic,
  }: WireBatch): void {
    const now = performance.now();
    if (panic) for (const queue of this.#queues.values()) queue.panic(now);
    else if (release) this.#release();
    const all = (wire: readonly WireSound[]) => wire.map(messageOf);
    for (const message of [...all(withdrawn), ...unsent])
      this.#queueOf(message.output)?.unsend([message]);
    this.#push([...all(sounds), ...messages]);
  }

  #push(messages: readonly WireMessage[]): void {
    for (const id of new Set(messages.map(({ output }) => output)))
      this.#queueOf(id)?.push(messages.filter(({ output }) => output === id));
    for (const { track, output, data, at } of messages) {
      if (((data[0] ?? 0) & 0xf0) === 0x90)
        this.activity.note(track, output, this.session.pageMillis(at));
    }
    const due = this.session.serverNanos(performance.now() + handOver);
    if (messages.some(({ at }) => at < due)) this.#handOver(); // as what a hand plays, which waits for no pulse
  }

  #handOver(): void {
    const before = this.session.serverNanos(performance.now() + handOver);
    const page = (at: number) => this.session.pageMillis(at);
    for (const queue of [...this.#queues.values(), ...this.standIns.queues]) {
      const messages = queue.handOver(before, page);
      const shown = messages.filter(({ data }) => data[0] !== clockByte);
      this.session.monitor.add(
        shown.map(({ at, output, data }) => ({ page: page(at), where: output, data })),
      );
    }
    for (const output of this.list) {
      if (output.activeSensing && output.kind === "browserPort")
        this.#queueOf(output.id)?.sense(performance.now());
    }
  }

  #release(): void {
    this.activity.clear();
    this.standIns.release();
    for (const queue of this.#queues.values()) queue.release(performance.now());
  }
}

/** A note of the built-in sound as the message that it would be. */
function messageOf({ at, track, channel, key, velocity }: WireSound): WireMessage {
  const data = velocity > 0 ? [0x90 + channel, key, velocity] : [0x80 + channel, key, 64];
  return { at, track, output: builtIn, data };
}
