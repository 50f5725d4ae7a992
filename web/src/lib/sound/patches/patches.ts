import { Bass } from "./bass";
import { Bell } from "./bell";
import { Kit } from "./kit";
import { Lead } from "./lead";
import { Organ } from "./organ";
import { Pad } from "./pad";
import { Pluck } from "./pluck";
import type { Sound } from "./sound";

/** The patches of the built-in sound, and how each makes a voice. */
const patches: Record<string, new (sampleRate: number) => Sound> = {
  bell: Bell,
  pluck: Pluck,
  bass: Bass,
  pad: Pad,
  lead: Lead,
  organ: Organ,
  kit: Kit,
};

/** A voice of a patch; one that is not known is a bell. */
export function soundOf(patch: string, sampleRate: number): Sound {
  return new (patches[patch] ?? Bell)(sampleRate);
}
