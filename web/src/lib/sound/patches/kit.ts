import { drumAt, type Drum } from "./drums";
import { level, Noise, perSample, silence, sine, wrap, type Sound } from "./sound";

/** The frequencies of a cymbal's partials, in hertz, none of which is a multiple of another. */
const metal = [2050, 3070, 3690, 4550, 5420, 6790];

/** How long a drum that is struck again takes to make room for itself, as a time constant in seconds. */
const rise = 0.0008;

/** A percussion kit: whatever General MIDI has at a key, as a tone that falls, noise, and metal. It rings as long as it rings. */
export class Kit implements Sound {
  #drum: Drum = drumAt(36);
  #peak = 0;
  #reached = 0;
  #toned = 0;
  #noisy = 0;
  #fallen = 0;
  #phase = 0;
  readonly #metal = metal.map(() => 0);
  #low = 0;
  readonly #noise = new Noise();

  constructor(private readonly sampleRate: number) {}

  attack(_hertz: number, velocity: number, key: number): void {
    this.#drum = drumAt(key);
    this.#peak = (1.8 * level * velocity) / 127;
    this.#toned = this.#noisy = this.#fallen = 1;
    this.#phase = 0;
  }

  release(): void {
    // Percussion rings on, whatever becomes of the key.
  }

  render(samples: Float32Array, from: number, to: number): void {
    const drum = this.#drum;
    if (this.#toned < silence && this.#noisy < silence) return;
    const [up, fall] = [perSample(rise, this.sampleRate), perSample(0.03, this.sampleRate)];
    const tone = perSample(drum.tone.lasts, this.sampleRate);
    const noise = perSample(drum.noise.lasts, this.sampleRate);
    const above = 2 * Math.PI * drum.noise.above;
    const cut = above / (this.sampleRate + above);
    for (let i = from; i < to; i++) {
      this.#reached += up * (this.#peak - this.#reached);
      const hertz = drum.tone.hertz * (1 + drum.tone.falls * this.#fallen);
      this.#phase = wrap(this.#phase + hertz / this.sampleRate);
      let rough = this.#noise.next();
      if (drum.noise.metal > 0) rough += drum.noise.metal * (this.#ring() - rough);
      this.#low += cut * (rough - this.#low);
      const sample =
        drum.tone.loud * this.#toned * sine(this.#phase) +
        drum.noise.loud * this.#noisy * (rough - this.#low);
      this.#toned -= tone * this.#toned;
      this.#noisy -= noise * this.#noisy;
      this.#fallen -= fall * this.#fallen;
      samples[i] = (samples[i] ?? 0) + this.#reached * sample;
    }
  }

  /** The clang of metal: squares of frequencies that do not fit. */
  #ring(): number {
    let sum = 0;
    for (let k = 0; k < metal.length; k++) {
      const phase = wrap((this.#metal[k] ?? 0) + (metal[k] ?? 0) / this.sampleRate);
      this.#metal[k] = phase;
      sum += phase < 0.5 ? 1 : -1;
    }
    return sum / metal.length;
  }
}
