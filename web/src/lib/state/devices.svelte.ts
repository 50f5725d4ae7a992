import { post } from "../api/http";
import type { Device, DevicesMessage, Output, OutputState } from "../api/types";

/** The MIDI devices of the machine on which the program runs, and how the outputs stand that they play. */
export class Devices {
  #state = $state.raw<DevicesMessage>({ devices: [], outputs: [], held: true });

  adopt(state: DevicesMessage): void {
    this.#state = state;
  }

  /** The devices that can be selected. */
  get list(): readonly Device[] {
    return this.#state.devices;
  }

  /** Why the machine's devices cannot be found; empty if they can. */
  get problem(): string {
    return this.#state.problem ?? "";
  }

  /** Whether the project came from elsewhere, and nobody has agreed that it plays anything of this machine but the built-in sound. */
  get held(): boolean {
    return this.#state.held ?? false;
  }

  /** The address at which OSC comes in; empty if it does nowhere. */
  get oscIn(): string {
    return this.#state.oscIn ?? "";
  }

  stateOf(output: Output): OutputState | undefined {
    return this.#state.outputs.find((one) => one.output === output.id);
  }

  /** Has a device play the outputs of a name, on this machine; an empty name has none. */
  bind(output: string, device: string): Promise<unknown> {
    return post("api/devices/bind", { output, device });
  }

  /** Has the project use the outputs of this machine. */
  agree(): Promise<unknown> {
    return post("api/devices/agree", {});
  }

  /** Plays a middle C on a channel, from 1. */
  test(output: Output, channel: number): Promise<unknown> {
    return post("api/devices/test", { output: output.id, channel });
  }
}
