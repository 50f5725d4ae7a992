import { frequencyOf } from "../voltages/frequency";

/** How much of what is heard is looked at at once, in samples: a third of a second. */
const looked = 16_384;

/** How long an oscillator settles at a voltage before it is heard, in milliseconds: longer than what is looked at. */
const settles = 600;

/**
 * Hears an oscillator that is plugged into an audio input of this machine at some voltages, one after the other, and returns its
 * frequency at each, in hertz. It throws, in a sentence, if nothing is heard.
 */
export async function hearOscillator(
  volts: readonly number[],
  send: (volts: number) => Promise<void>,
): Promise<number[]> {
  const plain = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };
  const stream = await navigator.mediaDevices.getUserMedia({ audio: plain }).catch(() => {
    throw new Error("The browser lets the page hear no audio input, so nothing was measured.");
  });
  const context = new AudioContext();
  try {
    const heard = new AnalyserNode(context, { fftSize: looked });
    context.createMediaStreamSource(stream).connect(heard);
    const frequencies: number[] = [];
    for (const wanted of volts) {
      await send(wanted);
      await new Promise((resolve) => setTimeout(resolve, settles));
      const samples = new Float32Array(looked);
      heard.getFloatTimeDomainData(samples);
      const hertz = frequencyOf(samples, context.sampleRate);
      if (!hertz)
        throw new Error(
          `No pitch is heard at ${wanted} V, so nothing was kept: patch the oscillator into an audio input, and open its level.`,
        );
      frequencies.push(hertz);
    }
    return frequencies;
  } finally {
    for (const track of stream.getTracks()) track.stop();
    await context.close();
  }
}
