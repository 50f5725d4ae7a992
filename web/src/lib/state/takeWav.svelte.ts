import { getTakeNotes } from "../api/takeNotes";
import type { Roll } from "../api/types";
import { millisAt } from "../roll/rollScale";
import { takeSounds } from "../roll/takeSounds";
import type { OfflineSound } from "../sound/offline";
import { wavHeader } from "../sound/wav";
import WavWorker from "../sound/wav.worker?worker";
import type { WavJob } from "../sound/wav.worker";
import type { Session } from "./session.svelte";
import { pathOf } from "./takeWindow.svelte";

const rate = 48_000;

/** Both channels, of 2 bytes each. */
const frameBytes = 4;

/** How long the last notes fade, in seconds. */
const fades = 2;

/** The longest take: a file of this format has room for less than 4 GiB. */
const mostSeconds = Math.floor((2 ** 32 - 1000) / (rate * frameBytes)) - fades;

/** How many quarter notes of a take are fetched at once. */
const quartersAtOnce = 64;

/** Renders a take as a .wav file through the voices of the built-in sound, beside everything else. */
export class TakeWav {
  /** How many seconds are done, and of how many; undefined while nothing is rendered. */
  #progress = $state.raw<{ done: number; of: number }>();
  #cancel = () => {};

  constructor(private readonly session: Session) {}

  get progress(): { done: number; of: number } | undefined {
    return this.#progress;
  }

  cancel(): void {
    this.#cancel();
  }

  /** Renders the ticks [from, to) of a take, and returns the file; nothing if it was cancelled or cannot be. */
  async render(roll: Roll, from: number, to: number): Promise<Blob | undefined> {
    const begin = millisAt(roll.paces, from);
    const seconds = (millisAt(roll.paces, to) - begin) / 1000;
    if (seconds > mostSeconds) {
      this.session.notices.add(
        `No .wav was made: it would last ${Math.round(seconds / 3600)} hours, and a file has room for ${Math.floor(mostSeconds / 3600)}; select a shorter stretch.`,
      );
      return undefined;
    }
    const stop = new AbortController();
    this.#cancel = () => stop.abort();
    this.#progress = { done: 0, of: seconds + fades };
    try {
      const sounds = await this.#sounds(roll, from, to, begin, stop.signal);
      return await this.#compute({ sounds, seconds: seconds + fades, rate }, stop.signal);
    } catch {
      if (!stop.signal.aborted)
        this.session.notices.add("No .wav was made: the take could not be fetched. Try again.");
      return undefined;
    } finally {
      this.#progress = undefined;
    }
  }

  async #sounds(
    roll: Roll,
    from: number,
    to: number,
    begin: number,
    signal: AbortSignal,
  ): Promise<OfflineSound[]> {
    const sounds: OfflineSound[] = [];
    const step = quartersAtOnce * this.session.lists.ticksPerQuarter;
    for (let at = from; at < to; at += step) {
      const end = Math.min(at + step, to);
      const notes = await getTakeNotes(pathOf(roll.summary.id), at, end, signal);
      for (const sound of takeSounds(roll, notes, at, end)) {
        const { track, channel, key, detune = 0, velocity, tick } = sound;
        sounds.push({
          ...{ of: `${track} ${channel}`, key, detune, velocity },
          patch: sound.patch ?? this.session.patchOf(track),
          seconds: (millisAt(roll.paces, tick) - begin) / 1000,
        });
      }
    }
    // A release comes before a strike at the same time.
    return sounds.sort((a, b) => a.seconds - b.seconds || a.velocity - b.velocity);
  }

  #compute(job: WavJob, signal: AbortSignal): Promise<Blob> {
    const worker = new WavWorker();
    const pieces: BlobPart[] = [];
    let bytes = 0;
    return new Promise<Blob>((resolve, reject) => {
      signal.addEventListener("abort", () => reject(new Error("cancelled")));
      worker.onerror = reject;
      worker.onmessage = ({ data: piece }: MessageEvent<Int16Array<ArrayBuffer> | null>) => {
        if (!piece) {
          resolve(new Blob([wavHeader(bytes, rate, 2), ...pieces], { type: "audio/wav" }));
          return;
        }
        // A piece that is a blob lies where the browser keeps files, not in the page's memory.
        pieces.push(new Blob([piece]));
        bytes += piece.byteLength;
        this.#progress = { done: bytes / frameBytes / rate, of: job.seconds };
      };
      worker.postMessage(job);
    }).finally(() => worker.terminate());
  }
}
