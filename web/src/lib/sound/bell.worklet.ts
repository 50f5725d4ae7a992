// Runs on the browser's audio thread, of which TypeScript knows nothing.
import { BellVoices, type Told } from "./bellVoices";

declare const currentTime: number;
declare const sampleRate: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: typeof AudioWorkletProcessor): void;

class Bell extends AudioWorkletProcessor {
  readonly #voices = new BellVoices(sampleRate);

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<Told>) => this.#voices.tell(data);
  }

  process(_: Float32Array[][], [output]: Float32Array[][]): boolean {
    if (output?.[0]) this.#voices.render(output[0], currentTime);
    return true;
  }
}

registerProcessor("bell", Bell);
