import type { WireMessage } from "../api/types";

/** How long a MIDI cable takes for a byte, in milliseconds: 10 bits at 31,250 baud (MIDI 1.0). */
const perByte = 0.32;

const [noteOff, noteOn, control, bend, exclusive] = [0x80, 0x90, 0xb0, 0xe0, 0xf0];

/** Controllers that end notes: the sustain pedal, all sound off, all notes off (MIDI 1.0, table III). */
const ending = [64, 120, 123];

/** What MIDI 1.0 asks of a sender that does not measure how a key is released. */
const releaseVelocity = 64;

/** The message that says that a sender is there, and how often it is sent at least, in milliseconds (MIDI 1.0: 300). */
const sensing = 0xfe;
const sensingAfter = 270;

/** Hands messages to a device. */
export type Send = (data: readonly number[], pageMillis: number) => void;

/** What waits to be handed to a device, and which of its keys are down. */
export class PortQueue {
  #waiting: WireMessage[] = [];
  /**
   * How many notes hold each key that is down once all is heard that was handed over, as two outputs can be one port; and all keys
   * that ever were down: channel × 128 + key.
   */
  readonly #down = new Map<number, number>();
  readonly #used = new Set<number>();
  /** When the last message that was handed over is sent. */
  #last = 0;
  /** Whether what the queue ends itself ends by note-ons of velocity 0. */
  velocityZero = false;
  /** Whether system exclusive messages are sent, which takes a permission of its own. */
  exclusive = false;

  constructor(private readonly send: Send) {}

  /** Adds messages that are in the order of their times; some may come before messages that were added already. */
  push(messages: readonly WireMessage[]): void {
    this.#waiting.push(...messages);
    this.#waiting.sort((a, b) => a.at - b.at); // which is stable
  }

  /** Adds those of messages that do not wait already: what brings a device up to date can have been announced meanwhile. */
  pushMissing(messages: readonly WireMessage[]): void {
    const waiting = new Set(this.#waiting.map(nameOf));
    this.push(messages.filter((message) => !waiting.has(nameOf(message))));
  }

  /** Takes note-ons out that must not be sent after all. */
  unsend(messages: readonly WireMessage[]): void {
    const unsent = new Set(messages.map(nameOf));
    this.#waiting = this.#waiting.filter((message) => !unsent.has(nameOf(message)));
  }

  /** Hands over what is to be sent before a time of the server's clock, and returns it. */
  handOver(before: number, pageMillis: (at: number) => number): WireMessage[] {
    let due = 0;
    while ((this.#waiting[due]?.at ?? Infinity) < before) due++;
    const messages = this.#waiting.splice(0, due);
    for (const { at, data } of messages) this.play(data, pageMillis(at));
    return messages;
  }

  /** Sends a message at a time of the page, not before what was handed over. */
  play(data: readonly number[], pageMillis: number): void {
    const [status = 0, key = 0, velocity = 0] = data;
    if (status > exclusive) return this.send(data, pageMillis); // machines in time wait for nothing
    if (status === exclusive) {
      if (this.exclusive) this.#send(data, pageMillis);
      return;
    }
    const place = (status & 0xf) * 128 + key;
    const kind = status & 0xf0;
    const holds = this.#down.get(place) ?? 0;
    if (kind === noteOn && velocity > 0) {
      if (holds > 0) this.#send(this.#offOf(place), pageMillis);
      this.#down.set(place, holds + 1);
      this.#used.add(place);
    } else if (kind === noteOn || kind === noteOff) {
      if (holds > 1) {
        this.#down.set(place, holds - 1);
        return; // another note holds the key
      }
      this.#down.delete(place);
    }
    this.#send(data, pageMillis);
  }

  #send(data: readonly number[], pageMillis: number): void {
    this.#last = Math.max(this.#last, pageMillis);
    this.send(data, this.#last);
  }

  /** Drops what waits, and ends what sounds. */
  release(now: number): void {
    this.#waiting = [];
    for (const place of this.#down.keys()) this.#send(this.#offOf(place), now);
    this.#down.clear();
  }

  /** Says that the page is there, if nothing else has for a while. */
  sense(now: number): void {
    if (now - this.#last >= sensingAfter) this.#send([sensing], now);
  }

  /** Drops what waits but for machines in time, and sends all that can end a note: on every channel, and for every key that was ever used, as fast as a cable takes it. */
  panic(now: number): void {
    this.#waiting = this.#waiting.filter(({ data: [status = 0] }) => status > exclusive);
    this.#down.clear();
    const messages = Array.from({ length: 16 }, (_, channel) => [
      ...ending.map((controller) => [control + channel, controller, 0]),
      [bend + channel, 0, 64],
    ]).flat();
    messages.push(...[...this.#used].map((place) => this.#offOf(place)));
    let at = Math.max(now, this.#last);
    for (const data of messages) {
      this.#send(data, at);
      at += data.length * perByte;
    }
  }

  #offOf(place: number): number[] {
    const [channel, key] = [Math.floor(place / 128), place % 128];
    if (this.velocityZero) return [noteOn + channel, key, 0];
    return [noteOff + channel, key, releaseVelocity];
  }

  /** Forgets everything, as the device is gone. */
  forget(): void {
    this.#waiting = [];
    this.#down.clear();
    this.#last = 0;
  }
}

/** What tells a message from all others: two of an output with the same bytes at the same time are one. */
function nameOf({ at, output, data }: WireMessage): string {
  return `${at} ${output} ${data.join(" ")}`;
}
