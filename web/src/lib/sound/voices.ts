import { chokes } from "./patches/drums";

/** A release must come after its attack, or the note would hang. */
const leastNote = 0.01;

/** How long a voice is taken to be heard after its release, in seconds. */
const tail = 0.6;

/** A note as a voice plays it: of a patch, at a frequency in hertz; kits go by the MIDI key. */
export interface VoiceNote {
  patch: string;
  hertz: number;
  key: number;
}

/** One note at a time, ahead of time: times are of the audio clock, in seconds, and never before those told already. */
export interface Voice {
  /** Strikes a note, whatever the voice was doing. */
  attack(note: VoiceNote, velocity: number, at: number): void;
  release(at: number): void;
}

/** A fixed number of voices and their clock. */
export interface Synth {
  readonly voices: readonly Voice[];
  now(): number;
}

/**
 * What a key is: of what, as of a channel, or of notes that are tried; its MIDI note; how far above that note's pitch it is to
 * sound, in cents; and by which patch, which is the bell if it is not said.
 */
export interface Key {
  of: string;
  key: number;
  detune?: number;
  patch?: string;
}

/** A voice, when it was struck, when it is silent again, and the key that holds it. */
interface Slot {
  readonly voice: Voice;
  struck: number;
  silentFrom: number;
  key: string | undefined;
  /** Which keys silence each other on it, if it plays one of them. */
  group?: string | undefined;
}

/** Gives keys the voices of a synth, and knows which are down or about to be, so that all can be released at once. */
export class Voices {
  readonly #slots: readonly Slot[];
  readonly #down = new Map<string, Slot>();
  /** The voice that played the last of keys that silence each other. */
  readonly #choked = new Map<string, Slot>();

  constructor(private readonly synth: Synth) {
    this.#slots = synth.voices.map((voice) => ({
      voice,
      struck: -Infinity,
      silentFrom: -Infinity,
      key: undefined,
    }));
  }

  /** Strikes a key (velocity above 0) or releases it, `late` seconds from now. */
  play(key: Key, velocity: number, late: number): void {
    const at = this.synth.now() + Math.max(0, late);
    const name = `${key.of} ${key.key}`;
    if (velocity > 0) this.#strike(name, key, velocity, at);
    else this.#release(name, at);
  }

  releaseAll(): void {
    for (const name of [...this.#down.keys()]) this.#release(name, this.synth.now());
  }

  #strike(name: string, key: Key, velocity: number, at: number): void {
    const patch = key.patch ?? "bell";
    const choked = patch === "kit" ? chokes(key.key) : undefined;
    const group = choked && `${key.of} ${choked}`;
    const last = group ? this.#choked.get(group) : undefined;
    const slot = this.#down.get(name) ?? (group && last?.group === group ? last : this.#free(at));
    if (!slot) return;
    if (slot.key !== undefined) this.#down.delete(slot.key);
    slot.voice.attack({ patch, hertz: frequency(key), key: key.key }, velocity, at);
    slot.group = group;
    if (group) this.#choked.set(group, slot);
    Object.assign(slot, { struck: at, silentFrom: Infinity, key: name });
    this.#down.set(name, slot);
  }

  /** A voice that is silent at a time; where none is, the one that was struck first. */
  #free(at: number): Slot | undefined {
    let oldest: Slot | undefined;
    for (const slot of this.#slots) {
      if (slot.silentFrom <= at) return slot;
      if (!oldest || slot.struck < oldest.struck) oldest = slot;
    }
    return oldest;
  }

  #release(name: string, at: number): void {
    const slot = this.#down.get(name);
    if (!slot) return;
    const end = Math.max(at, slot.struck + leastNote);
    slot.voice.release(end);
    slot.silentFrom = end + tail;
    slot.key = undefined;
    this.#down.delete(name);
  }
}

/** The frequency of a key in hertz: A4, MIDI note 69, is 440. */
function frequency({ key, detune = 0 }: Key): number {
  return 440 * 2 ** ((key - 69 + detune / 100) / 12);
}
