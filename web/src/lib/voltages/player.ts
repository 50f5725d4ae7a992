import rackWorklet from "./rack.worklet.ts?worker&url";
import voltagesWorklet from "./voltages.worklet.ts?worker&url";
import type { WireVoltages } from "../api/types";
import type { Sinking } from "../sound/audioOutputs";
import { AudioClock } from "./audioClock";
import type { Patch } from "./rack";
import type { Told } from "./renderer";

/** How often the two clocks are compared, in milliseconds. */
const compareEvery = 100;

/** Until a context has played something it does not tell which of its time is heard. */
interface Heard {
  audio: number;
  page: number;
}

/** Plays the channels of one output of voltages: on an interface, each channel on its own, or on the rack. */
export class VoltagePlayer {
  readonly #context = new AudioContext();
  readonly #clock = new AudioClock();
  #node: AudioWorkletNode | undefined;
  #rack: AudioWorkletNode | undefined;
  #comparing: ReturnType<typeof setInterval> | undefined;
  #told: Told = {};

  constructor(
    /** Converts a time of the page (performance.now, ms) to nanoseconds of the server's clock. */
    private readonly serverNanos: (pageMillis: number) => number,
    /** Is told, some times a second, which voltages there are, by channel. */
    private readonly levels: (volts: Readonly<Record<number, number>>) => void,
  ) {}

  /**
   * Starts to play so many channels on the interface of an id, or on the rack, and returns how many channels there are. Browsers allow
   * that only once the user has done something. It throws if the interface cannot be used.
   */
  async start(channels: number, to: { sink: string } | { rack: Patch }): Promise<number> {
    const context = this.#context;
    await context.audioWorklet.addModule(voltagesWorklet);
    const { destination } = context;
    const sink = "sink" in to;
    if (sink && to.sink) await (context as Sinking).setSinkId(to.sink);
    const has = sink ? Math.min(channels, destination.maxChannelCount) : channels;
    const node = new AudioWorkletNode(context, "voltages", {
      ...{ numberOfInputs: 0, outputChannelCount: [Math.max(1, has)] },
      channelInterpretation: "discrete",
    });
    node.port.onmessage = ({ data }: MessageEvent<Record<number, number>>) => this.levels(data);
    this.#node = node;
    if (sink) {
      destination.channelCount = Math.max(1, has);
      destination.channelCountMode = "explicit";
      destination.channelInterpretation = "discrete"; // nothing is mixed
      node.connect(destination);
    } else {
      await context.audioWorklet.addModule(rackWorklet);
      this.#rack = new AudioWorkletNode(context, "rack", {
        ...{ channelCount: Math.max(1, channels), channelCountMode: "explicit" },
        ...{ channelInterpretation: "discrete", outputChannelCount: [1] },
      });
      this.patch(to.rack);
      node.connect(this.#rack).connect(destination);
    }
    await context.resume();
    this.tell(this.#told);
    this.#comparing = setInterval(() => this.#compare(), compareEvery);
    return has;
  }

  /** Patches the rack anew, if it is what plays. */
  patch(patch: Patch): void {
    this.#rack?.port.postMessage(patch);
  }

  /** Has channels do what they are to. */
  show({ lines, playing }: WireVoltages): void {
    this.tell({ lines, playing });
  }

  tell(told: Told): void {
    this.#told = { ...this.#told, ...told };
    this.#node?.port.postMessage(told);
  }

  close(): void {
    clearInterval(this.#comparing);
    void this.#context.close();
  }

  #compare(): void {
    const { audio, page } = this.#heard();
    this.#clock.read(audio, this.serverNanos(page));
    const clock = {
      ...{ audio, nanos: this.#clock.serverNanos(audio) },
      perSecond: this.#clock.nanosPerSecond,
    };
    this.#node?.port.postMessage({ clock } satisfies Told);
  }

  #heard(): Heard {
    const { contextTime = 0, performanceTime = 0 } = this.#context.getOutputTimestamp();
    if (contextTime > 0 && performanceTime > 0)
      return { audio: contextTime, page: performanceTime };
    return { audio: this.#context.currentTime, page: performance.now() };
  }
}
