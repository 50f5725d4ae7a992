/** Messages of a single byte that machines in time tell each other (MIDI 1.0). */
const realTime: Readonly<Record<number, string>> = {
  0xf8: "clock",
  0xfa: "start",
  0xfb: "continue",
  0xfc: "stop",
  0xfe: "active sensing",
};

/** A MIDI message in words. */
export function decoded(
  [status = 0, first = 0, second = 0]: readonly number[],
  noteName: (key: number) => string,
  /** How a program reads that is counted from 1. */
  program: (value: number) => string = String,
): string {
  switch (status & 0xf0) {
    case 0x80:
      return `note off ${noteName(first)}`;
    case 0x90:
      return second > 0
        ? `note on ${noteName(first)}, velocity ${second}`
        : `note off ${noteName(first)}`;
    case 0xa0:
      return `pressure ${second} on ${noteName(first)}`;
    case 0xb0:
      return `CC ${first}: ${second}`;
    case 0xc0:
      return `program ${program(first + 1)}`;
    case 0xd0:
      return `pressure ${first}`;
    case 0xe0:
      return `bend ${second * 128 + first - 8192}`;
  }
  if (status === 0xf2) return `position ${first + 128 * second} sixteenths`;
  return realTime[status] ?? "system message";
}
