import { post } from "../api/http";
import type {
  ClockAct,
  ClockSettings,
  HeardInput,
  Input,
  InputsMessage,
  InputState,
} from "../api/types";
import { EchoGuard } from "../input/echoGuard";
import { midiPorts } from "../input/midiPorts";
import type { InputPort } from "../input/port";
import { own } from "./own";
import { changeOf, type ChangeOf } from "./selection.svelte";
import type { Session } from "./session.svelte";

/** Where the browser keeps which of its ports each input is: a port's name by an input's. */
const boundKey = "jettyfog inputs";

/** Is given each message that comes in where notes are played in, and whether it sounds by itself: what is passed on sounds at the tracks' outputs. */
type PlayedIn = (bytes: Uint8Array, pageMillis: number, sounds: boolean) => void;

/** What comes in, and what becomes of it: inputs of the project, ports of this browser, and devices of the machine. */
export class Inputs {
  #machine = $state.raw<InputsMessage>({
    ...{ devices: [], inputs: [] },
    clock: { on: false, runs: false, tempo: 120_000, drift: 0, jitter: 0 },
  });
  #ports = $state.raw<InputPort[]>([]);
  #asked = $state(false);
  #bound = $state.raw<Readonly<Record<string, string>>>(stored());
  /** The port that is played while the keyboard is on the screen, though the project does not list it. */
  #extra = $state<string>();
  readonly #echoes = new EchoGuard();
  #played: PlayedIn = () => {};
  #givesClock: (port: string) => boolean = () => false;

  constructor(private readonly session: Session) {
    session.listen(({ sounds = [], messages = [] }) => {
      const notes = sounds.map(({ at, channel, key, velocity }) => ({
        at,
        data: velocity > 0 ? [0x90 + channel, key, velocity] : [0x80 + channel, key, 0],
      }));
      this.#echoes.remember([...notes, ...messages], (at) => session.pageMillis(at));
    });
    $effect(() => {
      const names = this.#wanted.split("\n").filter((name) => name);
      const closes = names.map((name) => this.#open(name));
      return () => closes.forEach((close) => close());
    });
    void this.#again();
  }

  /** Is asked whether a port is given a clock. */
  askClock(givesClock: (port: string) => boolean): void {
    this.#givesClock = givesClock;
  }

  /** Is told what is played in at ports that are heard by this page. */
  playTo(played: PlayedIn): void {
    this.#played = played;
  }

  adopt(state: InputsMessage): void {
    this.#machine = state;
  }

  /** Takes what came in at the machine. */
  hear({ kind, id, at, message }: HeardInput): void {
    const input = this.list.find((one) => (id > 0 ? one.id === id : one.kind === kind));
    const page = this.session.pageMillis(at);
    this.session.monitor.add([{ page, where: input?.name ?? kind, data: message }]);
    if (input?.playsIn ?? true)
      this.#played(Uint8Array.from(message), page, !passesOn(input ? [input] : []));
  }

  /** The project's inputs. */
  get list(): Input[] {
    return this.session.ready ? (this.session.project.inputs ?? []) : [];
  }

  /** The MIDI ports of this browser that send. */
  get ports(): readonly InputPort[] {
    return this.#ports;
  }

  /** The devices of the machine that send. */
  get devices(): readonly { name: string }[] {
    return this.#machine.devices;
  }

  /** How the simulated clock goes. */
  get clock(): ClockSettings {
    return this.#machine.clock;
  }

  /** Has the simulated clock do something. */
  act(act: ClockAct): Promise<void> {
    return this.session.attempt(() => post("api/inputs/clock", act));
  }

  /** Asks the browser for its MIDI inputs, which asks the user. */
  async findPorts(): Promise<void> {
    const { notices } = this.session;
    try {
      await midiPorts((ports) => this.#change(ports));
      this.#asked = true;
      if (!this.#ports.length) notices.add("The browser knows no MIDI input. Is one plugged in?");
    } catch (error) {
      const why = String(error instanceof Error ? error.message : error).replace(/\.+$/, "");
      notices.add(`The browser gives no MIDI inputs: ${why}. The keyboard on the screen plays on.`);
    }
  }

  /** Uses ports at once where the user has allowed it before. */
  async #again(): Promise<void> {
    if (Object.keys(this.#bound).length === 0) return;
    const asked = { name: "midi" } as unknown as PermissionDescriptor;
    const permission = await navigator.permissions.query(asked).catch(() => undefined);
    if (permission?.state === "granted") await this.usePorts();
  }

  /** Uses ports where the browser lets the page, and says nothing where it does not. */
  async usePorts(): Promise<void> {
    await midiPorts((ports) => this.#change(ports)).then(
      () => (this.#asked = true),
      () => undefined,
    );
  }

  #change(ports: InputPort[]): void {
    const gone = this.#ports.filter((port) => !ports.some(({ name }) => name === port.name));
    for (const { name } of gone) {
      if (this.#heard.has(name))
        this.session.notices.add(
          `${name} is gone. All that it had down is released, and it is heard again once it is back.`,
        );
    }
    this.#ports = ports;
  }

  /** Has a port be played that the project does not list, or none. */
  playExtra(name: string | undefined): void {
    this.#extra = name;
  }

  /** The names of the ports that are to be heard and are there, each once, a line each. */
  readonly #wanted = $derived.by(() => {
    const listed = this.session.devices.held
      ? []
      : this.list.filter(({ kind }) => kind === "browserPort").map((input) => this.portOf(input));
    const names = [...listed, this.#extra].filter((name) =>
      this.#ports.some((port) => port.name === name),
    );
    return [...new Set(names)].sort().join("\n");
  });

  /** The ports that this page hears, and no other page. */
  readonly #heard = new Set<string>();

  /** Waits until no other page hears a port, and hears it until it is closed. */
  #open(name: string): () => void {
    let close = () => {};
    const port = this.#ports.find((one) => one.name === name);
    const letGo = own(`input ${name}`, () => {
      this.#heard.add(name);
      close = port?.open((bytes, at) => this.#receive(name, bytes, at)) ?? close;
    });
    return () => {
      letGo();
      close();
      this.#heard.delete(name);
      for (const input of this.#inputsOf(name)) this.session.comesIn(input, [], 0);
    };
  }

  /** The inputs of the project that a port is, or what stands for one that is none. */
  #inputsOf(port: string): Pick<Input, "kind" | "id" | "playsIn" | "passesTo">[] {
    const listed = this.list.filter(
      (input) => input.kind === "browserPort" && this.portOf(input) === port,
    );
    return listed.length > 0 ? listed : [{ kind: "browserPort", id: 0, playsIn: true }];
  }

  #receive(port: string, bytes: Uint8Array, at: number): void {
    if (this.#echoes.isEcho(bytes, at)) return;
    if ((bytes[0] ?? 0) >= ofTime && this.#givesClock(port)) return; // it is the one that comes back
    const inputs = this.#inputsOf(port);
    if (bytes[0] !== clockByte)
      this.session.monitor.add([{ page: at, where: port, data: [...bytes] }]);
    for (const input of inputs) this.session.comesIn(input, [...bytes], at);
    if (inputs.some(({ playsIn }) => playsIn)) this.#played(bytes, at, !passesOn(inputs));
  }

  /** The name of the port or device that an input is on this machine, if that was said. */
  portOf(input: Input): string | undefined {
    if (input.kind === "serverDevice") return this.#stateOf(input)?.device;
    return this.#bound[input.name];
  }

  #stateOf({ id }: Input): InputState | undefined {
    return this.#machine.inputs.find(({ input }) => input === id);
  }

  /** Whether an input is heard, and if not why, in a few words. */
  stateOf(input: Input): { ready: boolean; words: string } {
    const { devices } = this.session;
    if (input.kind === "screen") return { ready: true, words: "the keyboard of this page" };
    if (input.kind === "osc")
      return devices.oscIn
        ? { ready: true, words: `OSC at ${devices.oscIn}` }
        : { ready: false, words: "start with --osc-in PORT" };
    if (devices.held) return { ready: false, words: "not active yet" };
    if (input.kind === "serverDevice")
      return this.#stateOf(input) ?? { ready: false, words: "no device is selected" };
    const port = this.portOf(input);
    if (!port) return { ready: false, words: "no port is selected" };
    if (!this.#asked) return { ready: false, words: "MIDI inputs are not in use" };
    if (!this.#ports.some(({ name }) => name === port))
      return { ready: false, words: `${port} is not plugged in` };
    return { ready: true, words: `hears ${port}` };
  }

  /** Has a port of this browser, or a device, be an input from now on; an empty name is none. */
  async select(input: Input, kind: Input["kind"], name: string): Promise<void> {
    if (kind === "browserPort") this.#bind(input.name, name);
    if (input.kind !== kind) await this.change(input, { kind });
    if (kind === "serverDevice")
      await this.session.attempt(() =>
        post("api/inputs/bind", { input: input.name, device: name }),
      );
  }

  #bind(input: string, port: string): void {
    const others = Object.entries(this.#bound).filter(([name]) => name !== input);
    this.#bound = Object.fromEntries(port ? [...others, [input, port]] : others);
    localStorage.setItem(boundKey, JSON.stringify(this.#bound));
  }

  /** Adds an input of a kind, and returns its id. */
  async add(kind: Input["kind"], name: string, device = ""): Promise<number> {
    let id = 1;
    while (this.list.some((input) => input.id === id)) id++;
    const taken = this.list.some((input) => input.name === name);
    const input: Input = {
      ...{ id, kind, name: taken ? `${name} ${id}` : name },
      ...{ playsIn: true, switches: true },
    };
    await this.session.edit({ setProject: { inputs: [...this.list, input] } });
    if (device) await this.select(input, kind, device);
    return id;
  }

  /** Changes an input; the port of this machine stays with it. */
  async change(input: Input, change: ChangeOf<Input, Partial<Input>>): Promise<void> {
    const changed = { ...input, ...changeOf(change, input) };
    const port = this.portOf(input);
    if (port && changed.name !== input.name) {
      if (input.kind === "browserPort") this.#bind(changed.name, port);
      else
        await this.session.attempt(() =>
          post("api/inputs/bind", { input: changed.name, device: port }),
        );
    }
    return this.session.edit(() => ({
      setProject: {
        inputs: this.list.map((one) =>
          one.id === input.id ? { ...one, ...changeOf(change, one) } : one,
        ),
      },
    }));
  }

  /** Removes an input; if its clock was followed none is from then on. */
  remove(input: Input): Promise<void> {
    const inputs = this.list.filter(({ id }) => id !== input.id);
    const followed = this.session.project.clockIn?.input === input.id;
    return this.session.edit({
      setProject: { inputs, ...(followed ? { clockIn: {} } : {}) },
    });
  }
}

/** Whether any of some inputs passes notes on to tracks. */
export function passesOn(inputs: readonly Pick<Input, "passesTo">[]): boolean {
  return inputs.some(({ passesTo }) => passesTo?.length);
}

const clockByte = 0xf8;

/** What machines in time tell each other begins here: positions, clocks, starts and stops. */
const ofTime = 0xf2;

function stored(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(boundKey) ?? "{}") as Record<string, string>;
  } catch {
    return {};
  }
}
