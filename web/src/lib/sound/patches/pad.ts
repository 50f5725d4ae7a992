import { Envelope, level, LowPass, saw, wrap, type Sound } from "./sound";

/** How far the three sawtooths are out of tune, as factors of a frequency: 7 cents either way. */
const detuned = [2 ** (-7 / 1200), 1, 2 ** (7 / 1200)];

/** A pad: three sawtooths slightly out of tune, which swell and fade slowly. */
export class Pad implements Sound {
  #cycles = 0;
  #hertz = 0;
  #peak = 0;
  readonly #phases = [0, 0.37, 0.71];
  readonly #loud: Envelope;
  readonly #filter: LowPass;

  constructor(private readonly sampleRate: number) {
    this.#loud = new Envelope(sampleRate, { rise: 0.18, decay: 1.5, fade: 0.45 }, 0.8);
    this.#filter = new LowPass(sampleRate);
  }

  attack(hertz: number, velocity: number): void {
    this.#hertz = hertz;
    this.#cycles = hertz / this.sampleRate;
    this.#peak = (1.8 * level * velocity) / 127;
    this.#loud.attack();
  }

  release(): void {
    this.#loud.release();
  }

  render(samples: Float32Array, from: number, to: number): void {
    if (this.#loud.silent) return;
    for (let i = from; i < to; i++) {
      let raw = 0;
      for (let k = 0; k < detuned.length; k++) {
        const cycles = this.#cycles * (detuned[k] ?? 1);
        const phase = wrap((this.#phases[k] ?? 0) + cycles);
        this.#phases[k] = phase;
        raw += 0.4 * saw(phase, cycles);
      }
      const loud = this.#loud.next();
      const sample = this.#filter.next(raw, 300 + this.#hertz * (1 + 2 * loud));
      samples[i] = (samples[i] ?? 0) + this.#peak * loud * sample;
    }
  }
}
