import { FMSynth, PolySynth, getContext, getDestination, start } from "tone";

/** A synth that can be told ahead of time; times are of its own audio clock, in seconds. */
export interface Synth {
  now(): number;
  /** Strikes a note of a frequency in hertz. */
  attack(hertz: number, velocity: number, at: number): void;
  /** Lets the note of that frequency go. */
  release(hertz: number, at: number): void;
}

/** Makes the built-in bell, a stand-in for a synth at a MIDI output. Call it on a user's gesture. */
export async function startBell(): Promise<Synth> {
  await start();
  const bell = new PolySynth(FMSynth, {
    harmonicity: 3.01,
    modulationIndex: 6,
    envelope: { attack: 0.002, decay: 0.5, sustain: 0.25, release: 0.6 },
    modulationEnvelope: { attack: 0.002, decay: 0.3, sustain: 0.1, release: 0.4 },
    volume: -12,
  }).connect(getDestination());
  return {
    now: () => getContext().rawContext.currentTime,
    attack: (hertz, velocity, at) => {
      bell.triggerAttack(hertz, at, velocity / 127);
    },
    release: (hertz, at) => {
      bell.triggerRelease(hertz, at);
    },
  };
}
