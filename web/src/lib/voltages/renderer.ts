import type { Corrected, WireLine } from "../api/types";
import { corrected, voltageAt } from "./line";

/** What a renderer is told. */
export interface Told {
  /** What channels do, in the place of all that was said before. */
  lines?: WireLine[];
  /** Whether more is to come, so that hearing nothing means that the program is not there. */
  playing?: boolean;
  /** The voltage at full scale. */
  fullScale?: number;
  /** After how many seconds of hearing nothing gates are off; 0 is never. */
  silence?: number;
  /** What has to be sent for voltages, by channel. */
  corrections?: Readonly<Record<number, Corrected[]>>;
  /** At a time of the audio clock, in seconds, a time of the server's is heard; and how many of its nanoseconds pass in a second. */
  clock?: { audio: number; nanos: number; perSecond: number };
}

/** Within what time a clock that is off is taken up, in seconds, and how far off it may be for that, in nanoseconds. */
const takenUpIn = 0.5;
const jump = 5e7;

/** Renders what channels of voltages do as samples. */
export class VoltageRenderer {
  #lines = new Map<number, WireLine>();
  #playing = false;
  #fullScale = 10;
  #silence = 0;
  #corrections: Readonly<Record<number, Corrected[]>> = {};
  /** Which time of the server's clock the next sample is heard at; nothing before it was told. */
  #nanos: number | undefined;
  #perSecond = 1e9;
  /** For how long nothing was heard, in samples. */
  #unheard = 0;
  #levels: Record<number, number> = {};

  constructor(private readonly sampleRate: number) {}

  /** The voltages of the last samples, by channel; of what is on or off the farthest from off since this was asked last. */
  takeLevels(): Readonly<Record<number, number>> {
    const levels = this.#levels;
    this.#levels = {};
    return levels;
  }

  /** Takes in what it is told at a time of the audio clock, in seconds. */
  tell(told: Told, audio: number): void {
    const { lines, playing, fullScale, silence, corrections, clock } = told;
    if (lines) {
      this.#lines = new Map(lines.map((line) => [line.channel, line]));
      this.#unheard = 0;
    }
    this.#playing = playing ?? this.#playing;
    this.#fullScale = fullScale ?? this.#fullScale;
    this.#silence = silence ?? this.#silence;
    this.#corrections = corrections ?? this.#corrections;
    if (!clock) return;
    const is = clock.nanos + (audio - clock.audio) * clock.perSecond;
    const off = is - (this.#nanos ?? Infinity);
    if (Math.abs(off) > jump) [this.#nanos, this.#perSecond] = [is, clock.perSecond];
    else this.#perSecond = clock.perSecond + off / takenUpIn; // time goes on, and never back
  }

  /** Writes the next samples of all channels from 1 on, as shares of full scale. Channels that carry nothing are left. */
  render(channels: readonly Float32Array[]): void {
    const samples = channels[0]?.length ?? 0;
    this.#unheard += samples;
    if (this.#nanos === undefined) return;
    const lost =
      this.#playing && this.#silence > 0 && this.#unheard > this.#silence * this.sampleRate;
    const perSample = this.#perSecond / this.sampleRate;
    for (const line of this.#lines.values()) {
      const into = channels[line.channel - 1];
      if (!into) continue;
      if (lost && line.rest !== undefined) {
        into.fill(this.#sample(line, line.rest));
        this.#levels[line.channel] ??= line.rest;
      } else this.#render(line, into, this.#nanos, perSample);
    }
    this.#nanos += samples * perSample;
  }

  #render(line: WireLine, into: Float32Array, from: number, per: number): void {
    const { segments } = line;
    /** The first sample that is not before a moment, of those from one on. */
    const sampleAt = (nanos: number, least: number) => {
      let at = Math.max(least, Math.min(into.length, Math.ceil((nanos - from) / per)));
      while (at > least && from + (at - 1) * per >= nanos) at--; // what rounding has left
      while (at < into.length && from + at * per < nanos) at++;
      return at;
    };
    let i = 0;
    segments.forEach((segment, n) => {
      const end = n + 1 < segments.length ? sampleAt(segments[n + 1]!.at, i) : into.length;
      if (end <= i) return;
      const { at, takes, start, end: volts } = segment;
      const settled = start === volts ? i : Math.min(end, sampleAt(at + takes, i));
      for (; i < settled; i++) into[i] = this.#sample(line, voltageAt(segment, from + i * per));
      this.#notes(line, settled < end ? volts : voltageAt(segment, from + (end - 1) * per));
      if (settled < end) into.fill(this.#sample(line, volts), settled, end);
      i = end;
    });
  }

  /** Notes the voltage of a channel, or of what is on or off the one that is farthest from off. */
  #notes({ channel, rest }: WireLine, volts: number): void {
    const before = this.#levels[channel];
    const far = rest === undefined || before === undefined;
    if (far || Math.abs(volts - rest) > Math.abs(before - rest)) this.#levels[channel] = volts;
  }

  #sample({ channel, uncorrected }: WireLine, volts: number): number {
    const sent = uncorrected ? volts : corrected(this.#corrections[channel] ?? [], volts);
    return Math.max(-1, Math.min(1, sent / this.#fullScale));
  }
}
