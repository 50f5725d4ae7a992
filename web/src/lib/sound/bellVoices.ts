import { BellVoice } from "./bellVoice";

export const voiceCount = 32;

/** What a voice of the bell is told: to strike a note at a time of the audio clock in seconds, or, at velocity 0, to release it. */
export interface Told {
  voice: number;
  at: number;
  hertz: number;
  velocity: number;
}

/** All voices of the bell and what they were told ahead of time. */
export class BellVoices {
  readonly #voices: readonly BellVoice[];
  /** Ordered by time. */
  #told: Told[] = [];

  constructor(private readonly sampleRate: number) {
    this.#voices = Array.from({ length: voiceCount }, () => new BellVoice(sampleRate));
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

  #act({ voice, hertz, velocity }: Told): void {
    if (velocity > 0) this.#voices[voice]?.attack(hertz, velocity);
    else this.#voices[voice]?.release();
  }
}
