import type { Switch } from "../api/types";

/** What of a message can be a switch: a note that is struck, a controller that is up, or a program. */
export type SwitchFrom = Pick<Switch, "message" | "channel" | "number" | "key">;

/** The switch that a message is, as MIDI 1.0 has it; undefined for all others. */
export function switchOf(bytes: readonly number[]): SwitchFrom | undefined {
  const [status = 0, number = 0, value = 0] = bytes;
  const channel = (status & 0x0f) + 1;
  switch (status & 0xf0) {
    case 0x90:
      return value > 0 ? { message: "note", channel, number } : undefined;
    case 0xb0:
      return value >= 64 ? { message: "control", channel, number } : undefined;
    case 0xc0:
      return { message: "program", channel, number };
  }
  return undefined;
}

/** Whether a message is of a switch; a controller that comes down is too, and a note that ends. */
export function isSwitch(switches: readonly Switch[], bytes: readonly number[]): boolean {
  const [status = 0, number = 0] = bytes;
  const kinds: Partial<Record<number, Switch["message"]>> = {
    0x80: "note",
    0x90: "note",
    0xb0: "control",
    0xc0: "program",
  };
  return switches.some(
    (s) =>
      s.message === kinds[status & 0xf0] &&
      s.number === number &&
      (s.channel === 0 || s.channel === (status & 0x0f) + 1),
  );
}

/** What switches do that is no value of a control. */
export const doings: { value: NonNullable<Switch["do"]>; words: string }[] = [
  { value: "keep", words: "keep the last bars" },
  { value: "play", words: "play, or stop" },
  { value: "record", words: "record, or end the take" },
  { value: "tap", words: "tap the tempo" },
  { value: "one", words: "one is now" },
  { value: "back", words: "undo the last live change" },
  { value: "panic", words: "panic" },
  { value: "next", words: "go on with the next section" },
  { value: "previous", words: "go back to the section before" },
  { value: "luck", words: "another luck" },
];

/** What a switch does, in a few words. */
export function switchDoes(s: Switch): string {
  const doing = doings.find(({ value }) => value === s.do);
  return doing?.words ?? `${s.control.name} ${s.value}`;
}

/** What a switch is, in a few words. */
export function switchWords({ message, channel, number, key }: SwitchFrom): string {
  if (message === "key") return `key ${key?.replace(/^(Key|Digit)/, "") ?? ""}`;
  const on = channel === 0 ? "any channel" : `channel ${channel}`;
  const what = message === "control" ? "CC" : message;
  return `${what} ${message === "program" ? number + 1 : number}, ${on}`;
}
