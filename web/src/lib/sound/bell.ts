import worklet from "./bell.worklet.ts?worker&url";
import { voiceCount, type Told } from "./bellVoices";
import type { Synth } from "./voices";

/**
 * Makes the built-in bell, a stand-in for a synth at a MIDI output. Call it on a user's gesture. It is computed on the
 * browser's audio thread by a fixed number of voices, so that no number of notes holds the page up or fills its memory.
 */
export async function startBell(): Promise<Synth> {
  const context = new AudioContext();
  await context.resume();
  await context.audioWorklet.addModule(worklet);
  const bell = new AudioWorkletNode(context, "bell", {
    numberOfInputs: 0,
    outputChannelCount: [1],
  });
  bell.connect(context.destination);
  const tell = (told: Told) => bell.port.postMessage(told);
  return {
    voices: Array.from({ length: voiceCount }, (_, voice) => ({
      attack: (hertz, velocity, at) => tell({ voice, at, hertz, velocity }),
      release: (at) => tell({ voice, at, hertz: 0, velocity: 0 }),
    })),
    now: () => context.currentTime,
  };
}
