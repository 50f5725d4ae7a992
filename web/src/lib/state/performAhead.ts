import type { SceneValue, Track } from "../api/types";
import type { Session } from "./session.svelte";

/** A pattern of a track on its strip, from a tick on. */
export interface Band {
  from: number;
  to: number;
  name: string;
  /** How it comes about; "plays" is what plays by now. */
  by: "plays" | "queue" | "song" | "chain";
  /** The action that waits, to be taken back. */
  id?: number;
}

/** A stretch of a strip, in ticks. */
export interface Stretch {
  from: number;
  to: number;
}

/** What is shown of time, and of what goes on. */
interface Shown {
  session: Session;
  from: number;
  to: number;
  /** From which tick on a track plays its pattern. */
  since: (track: number) => number;
}

/** What sections to come give a control of a track that no hand has changed. */
function givenBySong({ session }: Shown, track: Track, name: string) {
  const { stage, project } = session;
  if (stage.isChanged({ name, track: track.id })) return [];
  return stage.song.sections.flatMap(({ from, section }) => {
    const scene = project.song?.find(({ id }) => id === section)?.scene;
    const values: SceneValue[] = project.scenes?.find(({ id }) => id === scene)?.values ?? [];
    const value = values.find(
      ({ control }) => control.name === name && control.track === track.id,
    )?.value;
    return value === undefined ? [] : [{ from, value }];
  });
}

/** The patterns of a track, one after the other. */
export function bandsOf(shown: Shown, track: Track): Band[] {
  const { stage } = shown.session;
  const name = (id: number) => track.patterns.find((p) => p.id === id)?.name ?? "";
  const coming: Band[] = [];
  const add = (at: number, pattern: number | undefined, by: Band["by"], id?: number) => {
    if (at > shown.from && at < shown.to)
      coming.push({
        from: at,
        to: shown.to,
        name: name(pattern ?? track.playing),
        by,
        ...(id && { id }),
      });
  };
  for (const { id, at, doing } of stage.queue)
    if (doing.control.name === "pattern" && doing.control.track === track.id)
      add(at, doing.value, "queue", id);
  for (const { at, track: of, pattern, silent } of stage.song.chains)
    if (of === track.id) add(at, silent ? -1 : pattern, "chain");
  for (const { from, value } of givenBySong(shown, track, "pattern"))
    if (from > shown.since(track.id)) add(from, value, "song");
  coming.sort((a, b) => a.from - b.from);
  const bands: Band[] = [
    { from: shown.from, to: shown.to, name: name(stage.playing(track)), by: "plays" },
  ];
  for (const band of coming) {
    const last = bands.at(-1);
    if (!last || (last.name === band.name && band.by !== "queue")) continue;
    last.to = band.from;
    bands.push(band);
  }
  return bands;
}

/** Where a track is silent, which is silent by now or is not. */
export function silencesOf(shown: Shown, track: Track, now: boolean): Stretch[] {
  const { stage, transport } = shown.session;
  const waiting = stage.queue.flatMap(({ at, doing: { control, value } }) =>
    control.name === "mute" && control.track === track.id
      ? [{ from: at, value: value ?? (track.mute ? 1 : 0) }]
      : [],
  );
  const tick = transport.playing ? (transport.tickAt(performance.now()) ?? shown.from) : shown.to;
  const coming = [...givenBySong(shown, track, "mute"), ...waiting]
    .filter(({ from }) => from > tick && from < shown.to)
    .sort((a, b) => a.from - b.from);
  const silences: Stretch[] = [];
  let [from, silent] = [shown.from, now];
  for (const change of [...coming, { from: shown.to, value: 0 }]) {
    if (silent) silences.push({ from, to: change.from });
    [from, silent] = [change.from, change.value > 0];
  }
  return silences;
}
