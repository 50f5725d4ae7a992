/** Somewhere that channel messages come from: a keyboard, a controller, or what stands in for one. */
export interface InputPort {
  readonly id: string;
  readonly name: string;
  /** Has a function told of each message and of when it came (performance.now, ms); returns how to end that. */
  open(receive: (bytes: Uint8Array, pageMillis: number) => void): () => void;
}

/** A key that was struck, or with velocity 0 let go. */
export interface Stroke {
  channel: number;
  key: number;
  velocity: number;
}

/** The stroke that a message is, as MIDI 1.0 has it; undefined for all others, as clocks and controllers. */
export function strokeOf(bytes: Uint8Array): Stroke | undefined {
  const [status = 0, key = 0, velocity = 0] = bytes;
  if (bytes.length !== 3 || key > 127 || velocity > 127) return undefined;
  const channel = status & 0x0f;
  if ((status & 0xf0) === 0x90) return { channel, key, velocity };
  if ((status & 0xf0) === 0x80) return { channel, key, velocity: 0 };
  return undefined;
}
