import type { Synth } from "./bell";

/** A release must come after its attack, or the note would hang. */
const leastNote = 0.01;

/** How many notes can be struck in a tenth of a second, as many as the bell has voices: more would only slow the page. */
export const mostInTenth = 32;

/** What a key is: its channel, its MIDI note, and how far above that note's pitch it is to sound, in cents. */
export interface Key {
  channel: number;
  key: number;
  detune?: number;
}

/** The keys of a synth: knows which are down or about to be, so that all can be let go at once. */
export class Voices {
  #down = new Map<string, { struck: number; hertz: number }>();
  #tenth = 0;
  #struckInTenth = 0;

  constructor(readonly synth: Synth) {}

  /** Strikes a key (velocity above 0) or lets it go, `late` seconds from now. */
  play(key: Key, velocity: number, late: number): void {
    const at = this.synth.now() + Math.max(0, late);
    const name = `${key.channel} ${key.key}`;
    if (velocity > 0) {
      if (!this.#hasRoom(at)) return;
      const hertz = frequency(key);
      this.synth.attack(hertz, velocity, at);
      this.#down.set(name, { struck: at, hertz });
    } else {
      this.#letGo(name, at);
    }
  }

  /** Counts a note that is to be struck, if there is room for it. */
  #hasRoom(at: number): boolean {
    const tenth = Math.floor(at * 10);
    if (tenth !== this.#tenth) this.#struckInTenth = 0;
    this.#tenth = tenth;
    return ++this.#struckInTenth <= mostInTenth;
  }

  releaseAll(): void {
    for (const name of [...this.#down.keys()]) this.#letGo(name, this.synth.now());
  }

  #letGo(name: string, at: number): void {
    const down = this.#down.get(name);
    if (!down) return;
    this.synth.release(down.hertz, Math.max(at, down.struck + leastNote));
    this.#down.delete(name);
  }
}

/** The frequency of a key in hertz: A4, MIDI note 69, is 440. */
function frequency({ key, detune = 0 }: Key): number {
  return 440 * 2 ** ((key - 69 + detune / 100) / 12);
}
