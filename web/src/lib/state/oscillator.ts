import { frequencyOf } from "../voltages/frequency";

/** How much of what is heard is looked at at once, in samples: a third of a second. */
const looked = 16_384;

/** How long an oscillator settles at a voltage before it is heard, in milliseconds: longer than what is looked at. */
const settles = 600;

/** What an oscillator plays at a voltage, in hertz. */
export interface HeardAt {
  volts: number;
  hertz: number;
}

/**
 * Hears an oscillator that is plugged into an audio input of this machine at some voltages, one after the other; those at which it has
 * no pitch that can be heard are left out. It throws, in a sentence, if it has one at less than two.
 */
export async function hearOscillator(
  volts: readonly number[],
  send: (volts: number) => Promise<void>,
): Promise<HeardAt[]> {
  const plain = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };
  const stream = await navigator.mediaDevices.getUserMedia({ audio: plain }).catch(() => {
    throw new Error("The browser lets the page hear no audio input, so nothing was measured.");
  });
  const context = new AudioContext();
  try {
    const heard = new AnalyserNode(context, { fftSize: looked });
    context.createMediaStreamSource(stream).connect(heard);
    const all: HeardAt[] = [];
    for (const wanted of volts) {
      await send(wanted);
      await new Promise((resolve) => setTimeout(resolve, settles));
      const samples = new Float32Array(looked);
      heard.getFloatTimeDomainData(samples);
      const hertz = frequencyOf(samples, context.sampleRate);
      if (hertz) all.push({ volts: wanted, hertz });
    }
    if (all.length < 2)
      throw new Error(
        "No pitch is heard, so nothing was kept: patch the oscillator into an audio input, and open its level.",
      );
    return all;
  } finally {
    for (const track of stream.getTracks()) track.stop();
    await context.close();
  }
}
