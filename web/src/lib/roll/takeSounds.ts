import type { Roll, RollNote } from "../api/types";
import type { Sounding } from "../sound/soundQueue";

/** How the notes of a take that start in [from, to) sound, as note-ons and note-offs: those of muted tracks do not. */
export function takeSounds(
  roll: Roll,
  notes: readonly RollNote[],
  from: number,
  to: number,
): Omit<Sounding, "at">[] {
  const muted = roll.tracks.filter((track) => track.mute).map((track) => track.id);
  const kits = roll.tracks.filter((track) => track.kit).map((track) => track.id);
  return notes.flatMap(({ start, end, track, channel, key, detune = 0, velocity }) => {
    if (start < from || start >= to || muted.includes(track)) return [];
    const sound = {
      ...{ track, channel, key, detune },
      ...(kits.includes(track) ? { patch: "kit" } : {}),
    };
    return [
      { ...sound, tick: start, velocity },
      { ...sound, tick: end, velocity: 0 },
    ];
  });
}
