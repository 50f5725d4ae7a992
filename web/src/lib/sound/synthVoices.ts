import { soundOf } from "./patches/patches";
import type { Sound } from "./patches/sound";

export const voiceCount = 32;

/** What a voice is told: to strike a note at a time of the audio clock in seconds, or, at velocity 0, to release it. */
export interface Told {
  voice: number;
  at: number;
  velocity: number;
  patch: string;
  hertz: number;
  key: number;
}

/** A voice, which has a sound for each patch that it has played; one goes on fading while another begins. */
class SynthVoice {
  readonly #sounds = new Map<string, Sound>();
  #patch = "";

  constructor(private readonly sampleRate: number) {}

  attack({ patch, hertz, velocity, key }: Told): void {
    if (patch !== this.#patch) this.release();
    let sound = this.#sounds.get(patch);
    if (!sound) {
      sound = soundOf(patch, this.sampleRate);
      this.#sounds.set(patch, sound);
    }
    this.#patch = patch;
    sound.attack(hertz, velocity, key);
  }

  release(): void {
    this.#sounds.get(this.#patch)?.release();
  }

  render(samples: Float32Array, from: number, to: number): void {
    for (const sound of this.#sounds.values()) sound.render(samples, from, to);
  }
}

/** All voices of the built-in sound and what they were told ahead of time. */
export class SynthVoices {
  readonly #voices: readonly SynthVoice[];
  /** Ordered by time. */
  #told: Told[] = [];

  constructor(private readonly sampleRate: number) {
    this.#voices = Array.from({ length: voiceCount }, () => new SynthVoice(sampleRate));
  }

  /** Tells a voice; a strike takes back what the voice was told to do from then on. */
  tell(told: Told): void {
    if (told.velocity > 0) {
      this.#told = this.#told.filter(({ voice, at }) => voice !== told.voice || at < told.at);
    }
    const after = this.#told.findLastIndex(({ at }) => at <= told.at);
    this.#told.splice(after + 1, 0, told);
  }

  /** Fills samples that begin at a time of the audio clock. */
  render(samples: Float32Array, begin: number): void {
    samples.fill(0);
    for (let from = 0; from < samples.length;) {
      let told = this.#told[0];
      while (told && this.#sample(told, begin) <= from) {
        this.#act(told);
        this.#told.shift();
        told = this.#told[0];
      }
      const to = told ? Math.min(samples.length, this.#sample(told, begin)) : samples.length;
      for (const voice of this.#voices) voice.render(samples, from, to);
      from = to;
    }
    // However many voices sound together, they stay within full scale.
    for (let i = 0; i < samples.length; i++) samples[i] = Math.tanh(samples[i] ?? 0);
  }

  #sample({ at }: Told, begin: number): number {
    return Math.round((at - begin) * this.sampleRate);
  }

  #act(told: Told): void {
    const voice = this.#voices[told.voice];
    if (told.velocity > 0) voice?.attack(told);
    else voice?.release();
  }
}
