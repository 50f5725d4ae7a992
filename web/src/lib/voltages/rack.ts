import type { VoltageChannel, VoltageSetup } from "../api/types";
import { soundOf } from "../sound/patches/patches";
import { perSample, saw, wrap, type Sound } from "../sound/patches/sound";

/** Which channel goes into which socket of a voice of the rack; what is missing is not patched. */
export interface PatchedVoice {
  pitch: number;
  hertzPerVolt: boolean;
  gate?: number;
  gateInverted?: boolean;
  velocity?: number;
  mod?: number;
}

/** A drum of the rack, which is struck by a trigger. */
export interface PatchedDrum {
  trigger: number;
  inverted: boolean;
}

export interface Patch {
  voices: PatchedVoice[];
  drums: PatchedDrum[];
  /** The voltage of a sample of 1. */
  fullScale: number;
}

/** Patches the channels of a setup: each pitch into a voice of its own, each trigger into a drum. */
export function patchOf({ channels, fullScale }: VoltageSetup): Patch {
  const beside = (pitch: VoltageChannel, signal: VoltageChannel["signal"]) =>
    channels.find(
      (c) =>
        c.signal === signal &&
        c.track === pitch.track &&
        (signal === "mod" || c.voice === pitch.voice),
    );
  const voices = channels
    .filter(({ signal }) => signal === "pitch")
    .map((pitch) => {
      const gate = beside(pitch, "gate");
      return {
        pitch: pitch.channel,
        hertzPerVolt: pitch.hertzPerVolt ?? false,
        gate: gate?.channel,
        gateInverted: gate?.inverted,
        velocity: beside(pitch, "velocity")?.channel,
        mod: beside(pitch, "mod")?.channel,
      };
    });
  const drums = channels
    .filter(({ signal }) => signal === "trigger")
    .map(({ channel, inverted = false }) => ({ trigger: channel, inverted }));
  return { voices, drums, fullScale: fullScale / 1000 };
}

/** Middle C, which an oscillator plays at 0 V, or at 1 V with Hz/V: 261.63 Hz (A4 = 440 Hz, ISO 16). */
const middleC = 440 * 2 ** (-9 / 12);

/** Above which voltage a gate or trigger is on (common practice: between 1 and 2.5 V). */
const threshold = 1.5;

/** The envelope's times, in seconds. */
const [attack, release] = [0.003, 0.12];

/** The filter's cutoff without a mod, in hertz, and how many octaves a volt moves it. */
const [cutoff, octavesPerVolt] = [900, 0.8];

/** The keys of General MIDI percussion by which the drums sound, in the order in which they are patched. */
const drumKeys = [36, 38, 42, 45, 46, 39, 50, 56];

/** An oscillator, an envelope that its gate opens, and a filter that a mod moves. */
class RackVoice {
  #phase = 0;
  #level = 0;
  #low = 0;
  #band = 0;

  readonly #rises: number;
  readonly #falls: number;

  constructor(private readonly sampleRate: number) {
    this.#rises = perSample(attack, sampleRate);
    this.#falls = perSample(release, sampleRate);
  }

  /** The next sample, from the voltages at its sockets. */
  next(pitch: number, on: boolean, loud: number, mod: number, hertzPerVolt: boolean): number {
    const hertz = hertzPerVolt ? middleC * Math.max(0, pitch) : middleC * 2 ** pitch;
    const step = Math.min(0.45, hertz / this.sampleRate);
    this.#phase = wrap(this.#phase + step);
    const wave = saw(this.#phase, step);
    this.#level += ((on ? 1 : 0) - this.#level) * (on ? this.#rises : this.#falls);
    // A state-variable filter of two poles; its frequency is kept where it is stable.
    const to = Math.min(this.sampleRate / 8, cutoff * 2 ** (octavesPerVolt * mod));
    const f = 2 * Math.sin((Math.PI * to) / this.sampleRate);
    this.#low += f * this.#band;
    this.#band += f * (wave - this.#low - this.#band);
    return this.#low * this.#level * loud;
  }
}

/** A modular synth that hears voltages only: what is at its sockets. */
export class Rack {
  #patch: Patch = { voices: [], drums: [], fullScale: 1 };
  #voices: RackVoice[] = [];
  #drums: { sound: Sound; on: boolean }[] = [];

  constructor(private readonly sampleRate: number) {}

  patch(patch: Patch): void {
    this.#patch = patch;
    this.#voices = patch.voices.map((_, i) => this.#voices[i] ?? new RackVoice(this.sampleRate));
    this.#drums = patch.drums.map(
      (_, i) => this.#drums[i] ?? { sound: soundOf("kit", this.sampleRate), on: false },
    );
  }

  /** Writes what it sounds like, from the samples of all channels. */
  render(channels: readonly Float32Array[], into: Float32Array): void {
    const { fullScale } = this.#patch;
    const volts = (channel: number | undefined, sample: number, without: number) =>
      channel === undefined ? without : (channels[channel - 1]?.[sample] ?? 0) * fullScale;
    into.fill(0);
    this.#patch.voices.forEach((to, i) => {
      const voice = this.#voices[i];
      for (let at = 0; at < into.length; at++) {
        const on = volts(to.gate, at, 0) > threshold !== (to.gateInverted ?? false);
        const loud = Math.max(0, volts(to.velocity, at, 4) / 5);
        const mod = volts(to.mod, at, 1.5);
        into[at]! +=
          0.3 * (voice?.next(volts(to.pitch, at, 0), on, loud, mod, to.hertzPerVolt) ?? 0);
      }
    });
    this.#patch.drums.forEach((to, i) => {
      const drum = this.#drums[i];
      if (!drum) return;
      let from = 0;
      for (let at = 0; at < into.length; at++) {
        const on = volts(to.trigger, at, 0) > threshold !== to.inverted;
        if (on && !drum.on) {
          drum.sound.render(into, from, at);
          from = at;
          drum.sound.attack(0, 100, drumKeys[i % drumKeys.length] ?? 36);
        }
        drum.on = on;
      }
      drum.sound.render(into, from, into.length);
    });
  }
}
