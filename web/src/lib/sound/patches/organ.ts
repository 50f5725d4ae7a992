import { Envelope, level, sine, wrap, type Sound } from "./sound";

/** The partials: which, and how loud. */
const partials = [
  { ratio: 0.5, loud: 0.35 },
  { ratio: 1, loud: 0.6 },
  { ratio: 2, loud: 0.35 },
  { ratio: 3, loud: 0.25 },
  { ratio: 4, loud: 0.15 },
];

/** An organ: sines that sound as long as the key is down. */
export class Organ implements Sound {
  #cycles = 0;
  #phase = 0;
  #peak = 0;
  readonly #loud: Envelope;

  constructor(private readonly sampleRate: number) {
    this.#loud = new Envelope(sampleRate, { rise: 0.004, decay: 1, fade: 0.025 }, 1);
  }

  attack(hertz: number, velocity: number): void {
    this.#cycles = hertz / this.sampleRate;
    this.#peak = (0.8 * level * velocity) / 127;
    this.#loud.attack();
  }

  release(): void {
    this.#loud.release();
  }

  render(samples: Float32Array, from: number, to: number): void {
    if (this.#loud.silent) return;
    for (let i = from; i < to; i++) {
      this.#phase = wrap(this.#phase + this.#cycles / 2); // two cycles of the note, so that all partials fit
      let sample = 0;
      for (const { ratio, loud } of partials) sample += loud * sine(2 * ratio * this.#phase);
      samples[i] = (samples[i] ?? 0) + this.#peak * this.#loud.next() * sample;
    }
  }
}
