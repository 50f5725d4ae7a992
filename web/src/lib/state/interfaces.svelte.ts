import { askForNames, audioOutputs, type AudioOutput } from "../sound/audioOutputs";

/** Where the browser keeps which audio interface each output of voltages is: an interface's name by an output's. */
const boundKey = "jettyfog interfaces";

/** The audio outputs of this machine, and which output of voltages each is. */
export class Interfaces {
  #list = $state.raw<readonly AudioOutput[]>([]);
  #bound = $state.raw<Readonly<Record<string, string>>>(stored());

  /** The function is told of interfaces that are gone. */
  constructor(private readonly gone: (name: string) => void) {
    navigator.mediaDevices?.addEventListener("devicechange", () => void this.#look());
    void this.#look();
  }

  get list(): readonly AudioOutput[] {
    return this.#list;
  }

  find(name: string): AudioOutput | undefined {
    return this.#list.find((one) => one.name === name);
  }

  /** The name of the interface that the outputs of a name are, if that was said. */
  boundTo(output: string): string | undefined {
    return this.#bound[output];
  }

  /** Has the outputs of a name be an interface, on this machine; an empty name is none. */
  bind(output: string, name: string): void {
    const others = Object.entries(this.#bound).filter(([of]) => of !== output);
    this.#bound = Object.fromEntries(name ? [...others, [output, name]] : others);
    localStorage.setItem(boundKey, JSON.stringify(this.#bound));
  }

  /** Asks the user for the names of the interfaces. It throws if the browser does not tell them. */
  async ask(): Promise<void> {
    await askForNames();
    await this.#look();
  }

  async #look(): Promise<void> {
    const list = await audioOutputs();
    for (const { name } of this.#list) {
      if (!list.some((one) => one.name === name)) this.gone(name);
    }
    this.#list = list;
  }
}

function stored(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(boundKey) ?? "{}") as Record<string, string>;
  } catch {
    return {};
  }
}
