// Runs on the browser's audio thread, of which TypeScript knows nothing.
import { Rack, type Patch } from "./rack";

declare const sampleRate: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: typeof AudioWorkletProcessor): void;

class RackProcessor extends AudioWorkletProcessor {
  readonly #rack = new Rack(sampleRate);

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<Patch>) => this.#rack.patch(data);
  }

  process([input]: Float32Array[][], [output]: Float32Array[][]): boolean {
    if (input?.length && output?.[0]) this.#rack.render(input, output[0]);
    return true;
  }
}

registerProcessor("rack", RackProcessor);
