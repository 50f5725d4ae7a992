import worklet from "./synth.worklet.ts?worker&url";
import { connectTo } from "./audioOutputs";
import { voiceCount, type Told } from "./synthVoices";
import type { Synth } from "./voices";

/**
 * Makes the built-in sound, a stand-in for instruments at MIDI outputs. Call it on a user's gesture; it plays on the
 * usual audio output, or on the one of the id. It is computed on the
 * browser's audio thread by a fixed number of voices, so that no number of notes holds the page up or fills its memory.
 */
export async function startSynth(cue = ""): Promise<Synth> {
  const context = new AudioContext();
  await context.resume();
  await context.audioWorklet.addModule(worklet);
  const node = new AudioWorkletNode(context, "built-in sound", {
    numberOfInputs: 0,
    outputChannelCount: [1],
  });
  await connectTo(context, node, cue);
  const tell = (told: Told) => node.port.postMessage(told);
  return {
    voices: Array.from({ length: voiceCount }, (_, voice) => ({
      attack: (note, velocity, at) => tell({ voice, at, velocity, ...note }),
      release: (at) => tell({ voice, at, velocity: 0, patch: "", hertz: 0, key: 0 }),
    })),
    now: () => context.currentTime,
  };
}
