import { bounds } from "../api/generated";
import type { Track, VoltageChannel } from "../api/types";

/** What a channel of voltages says. */
export type Signal = VoltageChannel["signal"];

type NumberKey = keyof typeof bounds.VoltageChannel;
type ToggleKey =
  | "hertzPerVolt"
  | "exponential"
  | "staysOnStop"
  | "inverted"
  | "byVelocity"
  | "bipolar"
  | "smooth"
  | "swung";

/** A number of a channel; it is counted in a unit that is so many of its own. */
export interface NumberOf {
  key: NumberKey;
  label: string;
  help: string;
  unit?: string;
  scale: number;
  note?: boolean;
}

/** A choice of a channel. */
export interface ToggleOf {
  key: ToggleKey;
  label: string;
  help: string;
}

const inVolts = { unit: "V", scale: 1000 };
const inMillis = { unit: "ms", scale: 10 };

const numbers: NumberOf[] = [
  {
    key: "mod",
    label: "mod lane",
    help: "Which mod lane of the track; from 9 on which of the curves that it sends.",
    scale: 1,
  },
  {
    key: "zero",
    label: "note at 0 V",
    help: "The MIDI note whose pitch is 0 V, or in Hz/V 1 V.",
    scale: 1,
    note: true,
  },
  { key: "lowest", label: "lowest", help: "The lowest voltage of the channel.", ...inVolts },
  { key: "highest", label: "highest", help: "The highest voltage of the channel.", ...inVolts },
  {
    key: "height",
    label: "on is",
    help: "The voltage of a gate, a trigger or a pulse.",
    ...inVolts,
  },
  { key: "length", label: "length", help: "How long a trigger or a pulse is on.", ...inMillis },
  {
    key: "gap",
    label: "gap",
    help: "How long a gate is off before the next note, taken from the one before.",
    ...inMillis,
  },
  {
    key: "lead",
    label: "lead",
    help: "How long before its gate it changes; a reset how long before the first pulse.",
    ...inMillis,
  },
  { key: "slew", label: "slew", help: "How long a change takes.", ...inMillis },
  { key: "slide", label: "slide", help: "How long a pitch that slides takes.", ...inMillis },
  { key: "rest", label: "at rest", help: "The voltage while nothing plays.", ...inVolts },
  { key: "pulses", label: "pulses a quarter", help: "Pulses in a quarter note.", scale: 1 },
];

const toggles: ToggleOf[] = [
  {
    key: "hertzPerVolt",
    label: "Hz/V",
    help: "Twice the voltage is an octave, in place of a volt an octave.",
  },
  {
    key: "exponential",
    label: "slides fast first",
    help: "A slide goes fast first and slower towards its end, else evenly.",
  },
  { key: "byVelocity", label: "high by velocity", help: "A gate is as high as its note is loud." },
  { key: "inverted", label: "inverted", help: "Low is on." },
  {
    key: "bipolar",
    label: "bipolar",
    help: "From the lowest voltage to the highest; else from 0.",
  },
  {
    key: "smooth",
    label: "smooth",
    help: "From value to value in a line, over a 24th of a quarter note; else in steps.",
  },
  {
    key: "swung",
    label: "follows the swing",
    help: "Its pulses follow the swing of the project; else they are evenly apart.",
  },
  { key: "staysOnStop", label: "stays on stop", help: "On stop it stays; else it goes to rest." },
];

/** What there is to say of each signal, besides which voice or part it is. */
const ofSignals: Record<Signal, (NumberKey | ToggleKey)[]> = {
  pitch: [
    "zero",
    "lowest",
    "highest",
    "lead",
    "slew",
    "slide",
    "exponential",
    "hertzPerVolt",
    "staysOnStop",
    "rest",
  ],
  gate: ["height", "gap", "slew", "byVelocity", "inverted"],
  trigger: ["height", "length", "inverted"],
  velocity: ["highest", "lead", "slew", "staysOnStop", "rest"],
  mod: ["mod", "lowest", "highest", "bipolar", "smooth", "lead", "slew", "staysOnStop", "rest"],
  clock: ["pulses", "height", "length", "swung", "inverted"],
  run: ["height", "inverted"],
  reset: ["height", "length", "lead", "inverted"],
};

/** The numbers and the choices of a channel of a signal. */
export function fieldsOf(signal: Signal): { numbers: NumberOf[]; toggles: ToggleOf[] } {
  const of = ofSignals[signal];
  return {
    numbers: numbers.filter(({ key }) => of.includes(key)),
    toggles: toggles.filter(({ key }) => of.includes(key)),
  };
}

/** Whether a signal is of a voice of a track, of a track, or of neither. */
export const isOfVoice = (signal: Signal): boolean =>
  signal === "pitch" || signal === "gate" || signal === "velocity";

export const isOfTrack = (signal: Signal): boolean =>
  isOfVoice(signal) || signal === "trigger" || signal === "mod" || signal === "reset";

/** With how many decimals a voltage of a signal is shown, in volts: of a pitch a millivolt is 1.2 cents. */
export const decimalsOf = (signal: Signal): number => (signal === "pitch" ? 3 : 2);

/** Whose signal a channel carries, in a few words. */
export function channelWords(channel: VoltageChannel, tracks: readonly Track[]): string {
  const { signal, voice = 1, part = 0, mod = 1 } = channel;
  const of = tracks.find(({ id }) => id === channel.track);
  const name = of?.name ?? (channel.track ? "a track that is gone" : "no track");
  const struck = of?.patterns.flatMap(({ parts }) => parts).find(({ id }) => id === part);
  if (signal === "trigger") return `${struck?.name ?? "a part that is gone"}, ${name}`;
  if (signal === "mod") return `${name}, mod ${mod}`;
  if (signal === "reset") return of ? name : "";
  if (!isOfVoice(signal)) return "";
  return voice > 1 ? `${name}, voice ${voice}` : name;
}
