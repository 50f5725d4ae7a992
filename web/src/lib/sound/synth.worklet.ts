// Runs on the browser's audio thread, of which TypeScript knows nothing.
import { SynthVoices, type Told } from "./synthVoices";

declare const currentTime: number;
declare const sampleRate: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: typeof AudioWorkletProcessor): void;

class BuiltIn extends AudioWorkletProcessor {
  readonly #voices = new SynthVoices(sampleRate);

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<Told>) => this.#voices.tell(data);
  }

  process(_: Float32Array[][], [output]: Float32Array[][]): boolean {
    if (output?.[0]) this.#voices.render(output[0], currentTime);
    return true;
  }
}

registerProcessor("built-in sound", BuiltIn);
