import { Envelope, level, LowPass, pulse, saw, wrap, type Sound } from "./sound";

/** A bass: a sawtooth and a square an octave below, through a filter that closes after the strike. */
export class Bass implements Sound {
  #cycles = 0;
  #saw = 0;
  #sub = 0;
  #peak = 0;
  #hertz = 0;
  readonly #loud: Envelope;
  readonly #bright: Envelope;
  readonly #filter: LowPass;

  constructor(private readonly sampleRate: number) {
    this.#loud = new Envelope(sampleRate, { rise: 0.003, decay: 0.5, fade: 0.06 }, 0.7);
    this.#bright = new Envelope(sampleRate, { rise: 0.002, decay: 0.12, fade: 0.1 }, 0.15);
    this.#filter = new LowPass(sampleRate);
  }

  attack(hertz: number, velocity: number): void {
    this.#hertz = hertz;
    this.#cycles = hertz / this.sampleRate;
    this.#peak = (level * velocity) / 127;
    this.#loud.attack();
    this.#bright.attack();
  }

  release(): void {
    this.#loud.release();
    this.#bright.release();
  }

  render(samples: Float32Array, from: number, to: number): void {
    if (this.#loud.silent) return;
    for (let i = from; i < to; i++) {
      this.#saw = wrap(this.#saw + this.#cycles);
      this.#sub = wrap(this.#sub + this.#cycles / 2);
      const raw =
        0.7 * saw(this.#saw, this.#cycles) + 0.6 * pulse(this.#sub, this.#cycles / 2, 0.5);
      const cutoff = this.#hertz * (1.5 + 9 * this.#bright.next());
      const sample = this.#filter.next(raw, cutoff);
      samples[i] = (samples[i] ?? 0) + this.#peak * this.#loud.next() * sample;
    }
  }
}
