import { Envelope, level, LowPass, pulse, sine, wrap, type Sound } from "./sound";

/** The vibrato: so many times a second, so deep as a share of the frequency (12 cents), once a note has lasted so long. */
const vibratoHertz = 5.2;
const vibratoDepth = 0.007;
const vibratoAfter = 0.3;

/** A lead: a narrow pulse, which begins to waver when it is held. */
export class Lead implements Sound {
  #hertz = 0;
  #phase = 0;
  #vibrato = 0;
  #age = 0;
  #peak = 0;
  readonly #loud: Envelope;
  readonly #filter: LowPass;

  constructor(private readonly sampleRate: number) {
    this.#loud = new Envelope(sampleRate, { rise: 0.004, decay: 0.3, fade: 0.08 }, 0.75);
    this.#filter = new LowPass(sampleRate);
  }

  attack(hertz: number, velocity: number): void {
    this.#hertz = hertz;
    this.#peak = (0.55 * level * velocity) / 127;
    this.#age = 0;
    this.#loud.attack();
  }

  release(): void {
    this.#loud.release();
  }

  render(samples: Float32Array, from: number, to: number): void {
    if (this.#loud.silent) return;
    for (let i = from; i < to; i++) {
      this.#age++;
      this.#vibrato = wrap(this.#vibrato + vibratoHertz / this.sampleRate);
      const depth = this.#age > vibratoAfter * this.sampleRate ? vibratoDepth : 0;
      const cycles = (this.#hertz / this.sampleRate) * (1 + depth * sine(this.#vibrato));
      this.#phase = wrap(this.#phase + cycles);
      const sample = this.#filter.next(pulse(this.#phase, cycles, 0.3), this.#hertz * 5);
      samples[i] = (samples[i] ?? 0) + this.#peak * this.#loud.next() * sample;
    }
  }
}
