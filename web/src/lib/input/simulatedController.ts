import type { InputPort } from "./port";

/** How often a keyboard tells that it is still there, in milliseconds: MIDI 1.0 asks for 300 at most. */
const sensingEvery = 250;

/**
 * Stands in for a real keyboard: it sends what one sends, byte for byte. Keys are let go by strikes of velocity 0,
 * as many keyboards do it, and in between it tells that it is still there.
 */
export class SimulatedController implements InputPort {
  readonly id = "simulated";
  readonly name = "simulated keyboard";

  #receive: ((bytes: Uint8Array, pageMillis: number) => void) | undefined;
  #down = new Set<number>();

  constructor(private readonly channel = 0) {}

  open(receive: (bytes: Uint8Array, pageMillis: number) => void): () => void {
    this.#receive = receive;
    const sensing = setInterval(() => this.#send(0xfe), sensingEvery);
    return () => {
      clearInterval(sensing);
      for (const key of [...this.#down]) this.release(key);
      this.#receive = undefined;
    };
  }

  press(key: number, velocity: number): void {
    if (this.#down.has(key)) return;
    this.#down.add(key);
    this.#send(0x90 | this.channel, key, velocity);
  }

  release(key: number): void {
    if (this.#down.delete(key)) this.#send(0x90 | this.channel, key, 0);
  }

  /** Moves a knob, a fader or a pedal, or presses a button: a controller. */
  control(number: number, value: number): void {
    this.#send(0xb0 | this.channel, number, value);
  }

  #send(...bytes: number[]): void {
    this.#receive?.(new Uint8Array(bytes), performance.now());
  }
}
