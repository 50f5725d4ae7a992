import { SynthVoices, voiceCount } from "./synthVoices";
import { Voices, type Key } from "./voices";

/** A note-on, or with velocity 0 a note-off, at a time in seconds. */
export interface OfflineSound extends Key {
  seconds: number;
  velocity: number;
}

/** How many samples are computed at a time; what is struck is told to the sample all the same. */
const block = 4096;

/**
 * Computes what the built-in sound plays, in pieces of a second, each in two channels one after the other. The sounds must be in
 * the order of their times. The same sounds give the same samples.
 */
export function* renderOffline(
  sounds: readonly OfflineSound[],
  seconds: number,
  rate: number,
): Generator<Int16Array<ArrayBuffer>> {
  const synth = new SynthVoices(rate);
  let frame = 0;
  const voices = new Voices({
    voices: Array.from({ length: voiceCount }, (_, voice) => ({
      attack: (note, velocity, at) => synth.tell({ voice, at, velocity, ...note }),
      release: (at) => synth.tell({ voice, at, velocity: 0, patch: "", hertz: 0, key: 0 }),
    })),
    now: () => frame / rate,
  });
  const total = Math.ceil(seconds * rate);
  let next = 0;
  let piece = new Int16Array(0);
  let filled = 0;
  while (frame < total) {
    const samples = new Float32Array(Math.min(block, total - frame));
    const until = (frame + samples.length) / rate;
    for (; (sounds[next]?.seconds ?? Infinity) < until; next++) {
      const sound = sounds[next] as OfflineSound;
      voices.play(sound, sound.velocity, sound.seconds - frame / rate);
    }
    synth.render(samples, frame / rate);
    for (const sample of samples) {
      if (filled === piece.length) {
        if (filled > 0) yield piece;
        piece = new Int16Array(2 * Math.min(rate, total - frame));
        filled = 0;
      }
      piece[filled++] = piece[filled++] = Math.round(32767 * sample);
      frame++;
    }
  }
  if (filled > 0) yield piece;
}
