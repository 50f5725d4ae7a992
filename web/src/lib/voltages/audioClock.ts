const second = 1e9;

/** How much of what it is off a clock takes up with each reading once it has settled, and how much of that its rate does. */
const gain = 0.01;
const rateGain = (gain * gain) / 4; // neither swings nor creeps

/** How many readings count alike before, so that a clock settles fast. */
const settling = 1 / gain;

/** How far off a reading is that is of a clock that has jumped, as after the machine has slept; in nanoseconds. */
const jump = 5e7;

/**
 * Tells which time of the server's clock is heard at a time of an audio clock. The two run apart, by some 50 ppm as a rule, and readings
 * of both are uneven by a millisecond or so, so each moves it a little only: a loop that follows the phase and the rate.
 */
export class AudioClock {
  #readings = 0;
  #audio = 0;
  #server = 0;
  /** How much faster than the audio clock the server's goes, as a share. */
  #faster = 0;

  /** Takes in that at a time of the audio clock, in seconds, a time of the server's is heard, in nanoseconds. */
  read(audio: number, server: number): void {
    const passed = (audio - this.#audio) * second;
    const expected = this.serverNanos(audio);
    const off = server - expected;
    if (this.#readings === 0 || Math.abs(off) > jump) {
      [this.#readings, this.#audio, this.#server] = [1, audio, server];
      return;
    }
    if (passed <= 0) return;
    this.#readings++;
    this.#audio = audio;
    this.#server = expected + off * Math.max(gain, 1 / this.#readings);
    if (this.#readings > settling) this.#faster += (off * rateGain) / passed;
  }

  get known(): boolean {
    return this.#readings > 0;
  }

  /** The time of the server's clock at a time of the audio clock, in nanoseconds. */
  serverNanos(audio: number): number {
    return this.#server + (audio - this.#audio) * second * (1 + this.#faster);
  }

  /** How many nanoseconds of the server's clock pass in a second of the audio clock. */
  get nanosPerSecond(): number {
    return second * (1 + this.#faster);
  }
}
