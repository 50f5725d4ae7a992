import { level, Noise, perSample, silence, type Sound } from "./sound";

/** The lowest pitch that the string is long enough for, in hertz. */
const lowest = 16;

/** How fast the string is damped once it is released, as a time constant in seconds. */
const fade = 0.08;

/**
 * A plucked string: a burst of noise that goes round a delay line and loses its high partials each time (K. Karplus and A. Strong,
 * Digital synthesis of plucked-string and drum timbres, 1983).
 */
export class Pluck implements Sound {
  readonly #string: Float32Array;
  #at = 0;
  #length = 2;
  #part = 0;
  #loud = 0;
  #down = false;
  #last = 0;
  readonly #noise = new Noise();
  readonly #fade: number;

  constructor(private readonly sampleRate: number) {
    this.#string = new Float32Array(Math.ceil(sampleRate / lowest) + 2);
    this.#fade = perSample(fade, sampleRate);
  }

  attack(hertz: number, velocity: number): void {
    // Averaging two neighbours delays by half a sample.
    const period = Math.min(this.#string.length - 2, Math.max(2, this.sampleRate / hertz - 0.5));
    this.#length = Math.floor(period);
    this.#part = period - this.#length;
    const soft = 1 - velocity / 160; // softer notes are duller
    let smooth = 0;
    for (let i = 0; i <= this.#length; i++) {
      smooth += (1 - soft * 0.8) * (this.#noise.next() - smooth);
      this.#string[i] = smooth;
    }
    this.#at = 0;
    this.#last = 0;
    this.#loud = (1.6 * level * velocity) / 127;
    this.#down = true;
  }

  release(): void {
    this.#down = false;
  }

  render(samples: Float32Array, from: number, to: number): void {
    if (this.#loud < silence) return;
    const string = this.#string;
    for (let i = from; i < to; i++) {
      const next = this.#at === this.#length ? 0 : this.#at + 1;
      const here = 0.4985 * ((string[this.#at] ?? 0) + (string[next] ?? 0));
      const sample = here + this.#part * (this.#last - here);
      this.#last = here;
      string[this.#at] = sample;
      this.#at = next;
      if (!this.#down) this.#loud -= this.#fade * this.#loud;
      samples[i] = (samples[i] ?? 0) + this.#loud * sample;
    }
  }
}
