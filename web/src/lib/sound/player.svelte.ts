import type { ServerClock } from "../api/serverClock";
import type { WireClick, WireSound } from "../api/types";
import { startSynth } from "./synth";
import PulseWorker from "./pulse.worker?worker";
import { SoundQueue, type Sounding } from "./soundQueue";
import { Voices, type Key } from "./voices";

/** How long before its time a sound is handed to the synth; until then a stop can take it back. */
const handOver = 60;

/** How long a note sounds that is only tried, in seconds. */
const struckFor = 0.25;

/** How long a click sounds, in seconds. */
const clickFor = 0.04;

/** Plays announced sounds on the built-in synth, at their times. */
export class Player {
  #queue = new SoundQueue();
  #clicks: WireClick[] = [];
  readonly #pulse = new PulseWorker();
  #voices = $state.raw<Voices>();
  #starting: Promise<void> | undefined;
  #muted = $state(false);

  constructor(
    private readonly clock: ServerClock,
    /** The patch by which a track is heard. */
    private readonly patchOf: (track: number) => string,
    /** The id of the audio output on which it plays; empty is the usual one. */
    private readonly output = "",
  ) {
    this.#pulse.onmessage = () => this.#handOverWhatIsDue();
  }

  /** Ends what sounds, for good. */
  close(): void {
    this.silence();
    this.#pulse.terminate();
  }

  get ready(): boolean {
    return this.#voices !== undefined;
  }

  /** Whether what is played sounds in this page. */
  get sounds(): boolean {
    return this.ready && !this.#muted;
  }

  /** Has what is played sound in this page, once the synth has started, or in others only. */
  set sounds(sounds: boolean) {
    this.#muted = !sounds;
    if (!sounds) this.silence();
  }

  /** Loads and starts the synth; browsers allow that only on a user's gesture. */
  start(): Promise<void> {
    this.#starting ??= this.#load();
    return this.#starting;
  }

  announce(sounds: Sounding[]): void {
    if (!this.sounds || !this.clock.known) return;
    this.#queue.push(sounds);
    const due = this.clock.serverNanos(performance.now() + handOver);
    if (sounds.some(({ at }) => at < due)) this.#handOverWhatIsDue(); // as what a hand plays, which waits for no pulse
  }

  /** Strikes a note now and lets it go soon, once the synth has started. */
  strike(key: Key, velocity: number): void {
    this.#voices?.play(key, velocity, 0);
    this.#voices?.play(key, 0, struckFor);
  }

  /** Strikes a note now, until it is let go. */
  hold(key: Key, velocity: number): void {
    this.#voices?.play(key, velocity, 0);
  }

  letGo(key: Key): void {
    this.#voices?.play(key, 0, 0);
  }

  /** Takes back what was announced, as far as the synth does not have it yet. */
  withdraw(sounds: WireSound[]): void {
    if (sounds.length > 0) this.#queue.withdraw(sounds);
  }

  /** Clicks at times of the server's clock, higher where a bar begins. */
  click(clicks: WireClick[]): void {
    if (this.sounds && this.clock.known) this.#clicks.push(...clicks);
  }

  /** Forgets what is to come and releases everything. */
  silence(): void {
    this.#queue.clear();
    this.#clicks = [];
    this.#voices?.releaseAll();
  }

  async #load(): Promise<void> {
    try {
      this.#voices = new Voices(await startSynth(this.output));
    } catch (error) {
      this.#starting = undefined;
      throw error;
    }
  }

  #handOverWhatIsDue(): void {
    const voices = this.#voices;
    if (!voices) return;
    const page = performance.now();
    const until = this.clock.serverNanos(page + handOver);
    const late = (at: number) => (this.clock.pageMillis(at) - page) / 1000;
    for (const sound of this.#queue.takeBefore(until)) {
      const { at, track, channel, key, detune = 0, velocity } = sound;
      const patch = sound.patch ?? this.patchOf(track);
      voices.play({ of: `${track} ${channel}`, key, detune, patch }, velocity, late(at));
    }
    for (const { at, first } of this.#clicks.filter((click) => click.at < until)) {
      const click = { of: "click", key: first ? 96 : 89 };
      voices.play(click, 70, late(at));
      voices.play(click, 0, late(at) + clickFor);
    }
    this.#clicks = this.#clicks.filter((click) => click.at >= until);
  }
}
