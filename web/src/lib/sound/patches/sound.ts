/** One sounding thing: a voice of one patch. Struck while it sounds, it goes on without a click as far as its kind allows. */
export interface Sound {
  /** Strikes a note of a frequency in hertz with a velocity of 1 to 127; a kit goes by the MIDI key. */
  attack(hertz: number, velocity: number, key: number): void;
  release(): void;
  /** Adds to samples, from one on and up to another. */
  render(samples: Float32Array, from: number, to: number): void;
}

/** A voice at full velocity has this share of full scale, so that several at once stay within it as a rule. */
export const level = 0.25;

/** Below this share of full scale, −100 dB, a voice is silent. */
export const silence = 1e-5;

/** By how much of the way something nears its goal in a sample, whose time constant is so many seconds. */
export function perSample(seconds: number, sampleRate: number): number {
  return 1 - Math.exp(-1 / (seconds * sampleRate));
}

/** A cycle of a sine: looking it up is several times as quick as computing it. */
const cycle = Float32Array.from({ length: 8192 }, (_, i) => Math.sin((2 * Math.PI * i) / 8192));

/** The sine of a phase in cycles, from 0 up. */
export function sine(phase: number): number {
  return cycle[(phase * cycle.length) & (cycle.length - 1)] ?? 0;
}

/**
 * What takes the steps out of a sawtooth or a pulse near a jump at phase 0, so that it has few false partials: the polynomial
 * band-limited step (V. Välimäki and A. Huovilainen, Antialiasing oscillators in subtractive synthesis, 2007).
 */
function step(phase: number, perSample: number): number {
  if (phase < perSample) {
    const t = phase / perSample;
    return t + t - t * t - 1;
  }
  if (phase > 1 - perSample) {
    const t = (phase - 1) / perSample;
    return t * t + t + t + 1;
  }
  return 0;
}

/** A sawtooth from −1 to 1 at a phase from 0 to 1, of so many cycles a sample. */
export function saw(phase: number, cycles: number): number {
  return 2 * phase - 1 - step(phase, cycles);
}

/** A pulse, up for a share of its cycle, whose mean is 0. */
export function pulse(phase: number, cycles: number, width: number): number {
  const other = phase + 1 - width;
  return saw(phase, cycles) - saw(other - Math.floor(other), cycles) + 1 - 2 * (1 - width);
}

/** A phase so much later, from 0 to 1. */
export function wrap(phase: number): number {
  return phase - Math.floor(phase);
}

/** White noise from −1 to 1 that is the same each time: a linear congruential generator (Numerical Recipes, 1992). */
export class Noise {
  #state = 1;

  next(): number {
    this.#state = (Math.imul(this.#state, 1664525) + 1013904223) >>> 0;
    return this.#state / 0x80000000 - 1;
  }
}

/** How loud a note is: rises, decays to where it rests while the key is down, fades when it is released. */
export class Envelope {
  value = 0;
  #down = false;
  #rising = false;
  readonly #rise: number;
  readonly #decay: number;
  readonly #fade: number;

  /** Time constants in seconds; rests is a share of the peak. */
  constructor(
    sampleRate: number,
    { rise, decay, fade }: { rise: number; decay: number; fade: number },
    private readonly rests: number,
  ) {
    this.#rise = perSample(rise, sampleRate);
    this.#decay = perSample(decay, sampleRate);
    this.#fade = perSample(fade, sampleRate);
  }

  attack(): void {
    this.#down = this.#rising = true;
  }

  release(): void {
    this.#down = this.#rising = false;
  }

  get silent(): boolean {
    return !this.#down && this.value < silence;
  }

  next(): number {
    if (this.#rising) {
      this.value += this.#rise * (1.05 - this.value);
      if (this.value >= 1) this.#rising = false;
    } else if (this.#down) this.value += this.#decay * (this.rests - this.value);
    else this.value -= this.#fade * this.value;
    return this.value;
  }
}

/** A low-pass filter of 12 dB an octave: two of one pole, one after the other. */
export class LowPass {
  #first = 0;
  #second = 0;

  constructor(private readonly sampleRate: number) {}

  next(sample: number, hertz: number): number {
    const way = Math.min(0.99, (2 * Math.PI * hertz) / (this.sampleRate + 2 * Math.PI * hertz));
    this.#first += way * (sample - this.#first);
    this.#second += way * (this.#first - this.#second);
    return this.#second;
  }
}
