import { level, perSample, silence, sine, type Sound } from "./sound";

/** A bell by frequency modulation: the ratio of the modulator's frequency to the carrier's, and its index. */
const ratio = 3.01;
const struckIndex = 6;
const restingIndex = 0.6;

/** Where the sound rests while a key is down, as a share of its peak. */
const sustain = 0.25;

/** Time constants of the envelopes in seconds: each is two thirds of the way there after one of them. */
const rise = 0.001;
const decay = 0.15;
const dulling = 0.1;
const fade = 0.1;

/** How long a strike rises before it decays, in seconds. */
const risesFor = 0.005;

/**
 * One voice of the bell, a sine whose frequency is modulated by another (J. Chowning, The synthesis of complex audio
 * spectra by means of frequency modulation, 1973). Struck while it sounds, it goes on from where it is, without a click.
 */
export class Bell implements Sound {
  #hertz = 0;
  #carrier = 0;
  #modulator = 0;
  #loudness = 0;
  #index = 0;
  #peak = 0;
  /** Samples since the strike. */
  #age = 0;
  #down = false;

  constructor(private readonly sampleRate: number) {}

  attack(hertz: number, velocity: number): void {
    this.#hertz = hertz;
    this.#peak = (level * velocity) / 127;
    this.#age = 0;
    this.#down = true;
  }

  release(): void {
    this.#down = false;
  }

  render(samples: Float32Array, from: number, to: number): void {
    if (!this.#down && this.#loudness < silence) return;
    const up = perSample(rise, this.sampleRate);
    const down = perSample(this.#down ? decay : fade, this.sampleRate);
    const dull = perSample(dulling, this.sampleRate);
    const rest = this.#down ? this.#peak * sustain : 0;
    const rises = this.#down ? from + Math.max(0, risesFor * this.sampleRate - this.#age) : from;
    const cycles = this.#hertz / this.sampleRate;
    let [carrier, modulator] = [this.#carrier, this.#modulator];
    let [loudness, index] = [this.#loudness, this.#index];
    for (let i = from; i < to; i++) {
      const rising = i < rises;
      loudness += rising ? up * (this.#peak - loudness) : down * (rest - loudness);
      index += rising ? up * (struckIndex - index) : dull * (restingIndex - index);
      carrier += cycles * (1 + index * ratio * sine(modulator + 0.25));
      carrier -= Math.floor(carrier);
      modulator += cycles * ratio;
      modulator -= Math.floor(modulator);
      samples[i] = (samples[i] ?? 0) + loudness * sine(carrier);
    }
    [this.#carrier, this.#modulator] = [carrier, modulator];
    [this.#loudness, this.#index] = [loudness, index];
    this.#age += to - from;
  }
}
