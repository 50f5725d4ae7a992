import { midiOutputs, type OutputPort } from "../output/midiOutputs";

/** Where the browser keeps which of its ports each output is: a port's name by an output's. */
const boundKey = "jettyfog ports";

/** The MIDI ports of this browser: whether the page may use them, which are there, and which output each is. */
export class BrowserPorts {
  #ports = $state.raw<OutputPort[]>([]);
  #access = $state<boolean | string>(false);
  #exclusive = $state(false);
  #bound = $state.raw<Readonly<Record<string, string>>>(stored());

  /** The function is told of ports that are gone. */
  constructor(private readonly gone: (name: string) => void) {}

  get ports(): readonly OutputPort[] {
    return this.#ports;
  }

  /** True once the browser lets the page use its ports, false before it was asked, else why it does not. */
  get access(): boolean | string {
    return this.#access;
  }

  /** Whether it lets the page send system exclusive messages, which get notes in tune. */
  get exclusive(): boolean {
    return this.#exclusive;
  }

  find(name: string): OutputPort | undefined {
    return this.#ports.find((port) => port.name === name);
  }

  /** The name of the port that the outputs of a name are, if that was said. */
  boundTo(output: string): string | undefined {
    return this.#bound[output];
  }

  /** Has the outputs of a name be a port, on this machine; an empty name is none. */
  bind(output: string, port: string): void {
    const others = Object.entries(this.#bound).filter(([name]) => name !== output);
    this.#bound = Object.fromEntries(port ? [...others, [output, port]] : others);
    localStorage.setItem(boundKey, JSON.stringify(this.#bound));
  }

  /** Asks the browser for its ports, which asks the user; with system exclusive messages for those too. */
  async use(exclusive: boolean): Promise<void> {
    try {
      await midiOutputs(exclusive, (ports) => this.#change(ports));
      this.#access = true;
      this.#exclusive ||= exclusive;
    } catch (error) {
      if (this.#access === true) return; // what was allowed before stays
      this.#access = String(error instanceof Error ? error.message : error).replace(/\.+$/, "");
    }
  }

  /** Uses ports at once where the user has allowed it before. */
  async again(): Promise<void> {
    if (Object.keys(this.#bound).length === 0) return;
    const asked = { name: "midi" } as unknown as PermissionDescriptor;
    const permission = await navigator.permissions.query(asked).catch(() => undefined);
    if (permission?.state === "granted") await this.use(false);
  }

  #change(ports: OutputPort[]): void {
    const before = this.#ports;
    for (const { name } of before) {
      if (!ports.some((port) => port.name === name)) this.gone(name);
    }
    this.#ports = ports;
  }
}

function stored(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(boundKey) ?? "{}") as Record<string, string>;
  } catch {
    return {};
  }
}
