// Runs on the browser's audio thread, of which TypeScript knows nothing.
import { VoltageRenderer, type Told } from "./renderer";

declare const currentTime: number;
declare const sampleRate: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: typeof AudioWorkletProcessor): void;

/** How often the page is told which voltages there are, in seconds. */
const tellEvery = 0.1;

class Voltages extends AudioWorkletProcessor {
  readonly #renderer = new VoltageRenderer(sampleRate);
  #told = 0;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<Told>) => this.#renderer.tell(data, currentTime);
  }

  process(_: Float32Array[][], [output]: Float32Array[][]): boolean {
    if (output) this.#renderer.render(output);
    if (currentTime - this.#told >= tellEvery) {
      this.#told = currentTime;
      this.port.postMessage(this.#renderer.takeLevels());
    }
    return true;
  }
}

registerProcessor("voltages", Voltages);
