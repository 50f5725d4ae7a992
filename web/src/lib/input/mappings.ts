import type { Mapping } from "../api/types";

/** What of a message can turn a control: a controller, the pitch bend, or the pressure of a channel. */
export type MappingFrom = Pick<Mapping, "message" | "channel" | "number">;

/** The fader, knob or wheel that a message is of, as MIDI 1.0 has it; undefined for all others. */
export function faderOf(bytes: readonly number[]): MappingFrom | undefined {
  const [status = 0, number = 0] = bytes;
  const channel = (status & 0x0f) + 1;
  switch (status & 0xf0) {
    case 0xb0:
      return number < 120 ? { message: "control", channel, number } : undefined;
    case 0xd0:
      return { message: "pressure", channel, number: 0 };
    case 0xe0:
      return { message: "bend", channel, number: 0 };
  }
  return undefined;
}

/** What messages turn controls, and what they are called. */
export const mappedMessages: { value: Mapping["message"]; label: string }[] = [
  { value: "control", label: "CC" },
  { value: "control14", label: "CC, 14 bit" },
  { value: "bend", label: "pitch bend" },
  { value: "pressure", label: "pressure" },
  { value: "note", label: "note velocity" },
];

/** What a mapping hears, in a few words. */
export function mappingWords({ message, channel, number }: MappingFrom): string {
  const what = mappedMessages.find(({ value }) => value === message)?.label ?? message;
  const numbered = message === "bend" || message === "pressure" ? what : `${what} ${number}`;
  return `${numbered}, ${channel === 0 ? "any channel" : `channel ${channel}`}`;
}
