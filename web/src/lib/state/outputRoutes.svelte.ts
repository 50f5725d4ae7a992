import { get } from "../api/http";
import type { Clash, Output, Route, Track } from "../api/types";
import type { Session } from "./session.svelte";

/** The id of the built-in sound. */
export const builtIn = 0;

/** The outputs of the project, the routes of tracks to them, and what clashes there. */
export abstract class OutputRoutes {
  #clashes = $state.raw<Clash[]>([]);

  constructor(protected readonly session: Session) {
    $effect(() => {
      const { revision } = session.snapshot;
      if (revision > 0 && this.list.length > 0) void this.#look(revision);
    });
  }

  /** The project's outputs besides the built-in sound. */
  get list(): Output[] {
    return this.session.project.outputs ?? [];
  }

  /** What a track and others write at the same place of an output, in words; empty if nothing. */
  clashesOf(track: Track, output: number): string {
    return this.#clashes
      .filter((clash) => clash.output === output && clash.tracks.includes(track.id))
      .map(({ what, channel, tracks }) => {
        const others = this.session.project.tracks.filter(
          ({ id }) => id !== track.id && tracks.includes(id),
        );
        const names = others.map(({ name }) => name).join(" and ");
        return `${names} also ${others.length > 1 ? "write" : "writes"} ${what} on channel ${channel}`;
      })
      .join("; ");
  }

  /** The routes of a track, those too that it does not name. */
  routesOf(track: Track): Route[] {
    return track.routes ?? [this.session.lists.wholeRoute];
  }

  /** Changes the routes that a track has by then, so that changes that follow each other quickly all count. */
  #setRoutes(track: Track, change: (routes: Route[]) => Route[]): Promise<void> {
    return this.session.setTrack((now) => ({ routes: change(this.routesOf(now)) }), track);
  }

  /** Changes the route of a track that leads where another does. */
  setRoute(
    track: Track,
    { output, onlyPart, part = 0 }: Route,
    change: Partial<Route>,
  ): Promise<void> {
    const is = (route: Route) => leads(route, output, onlyPart ? part : undefined);
    return this.#setRoutes(track, (routes) =>
      routes.map((route) => (is(route) ? { ...route, ...change } : route)),
    );
  }

  /** The route by which a track, or one part of a kit or traveller of a field, goes to an output. */
  routeTo(track: Track, output: number, part?: number): Route | undefined {
    return this.routesOf(track).find((route) => leads(route, output, part));
  }

  /** The parts of a kit, or travellers of a field, of any pattern, each once. */
  partsOf(track: Track): { id: number; name: string }[] {
    if (track.kind === "melodic") return [];
    const own = track.patterns.flatMap((pattern) => pattern.parts);
    const parts =
      track.kind === "kit"
        ? own
        : own.flatMap(({ field }) =>
            (field?.travellers ?? []).map(({ id }) => ({ id, name: `Traveller ${id}` })),
          );
    return parts.filter(({ id }, i) => parts.findIndex((part) => part.id === id) === i);
  }

  /** Has a track, or one part of a kit or traveller of a field, go to an output, or not any more. */
  toggle(track: Track, output: number, part?: number): Promise<void> {
    const added: Route = { ...this.session.lists.wholeRoute, output };
    if (part !== undefined) Object.assign(added, { onlyPart: true, part });
    return this.#setRoutes(track, (routes) => {
      const others = routes.filter((route) => !leads(route, output, part));
      return others.length < routes.length ? others : [...routes, added];
    });
  }

  /** Takes an output away, and the routes that lead there. */
  remove(output: Output): Promise<void> {
    const tracks = this.session.project.tracks.filter((track) =>
      this.routesOf(track).some((route) => route.output === output.id),
    );
    const edits = tracks.map((track) => ({
      setTrack: {
        track: track.id,
        routes: this.routesOf(track).filter((route) => route.output !== output.id),
      },
    }));
    const outputs = this.list.filter((other) => other !== output);
    return this.session.editAll(`removal of “${output.name}”`, [
      ...edits,
      { setProject: { outputs } },
    ]);
  }

  async #look(revision: number): Promise<void> {
    try {
      const clashes = await get<Clash[]>("api/project/clashes");
      if (revision === this.session.snapshot.revision) this.#clashes = clashes;
    } catch {
      // The page says elsewhere that the server is away.
    }
  }
}

/** Whether a route leads a whole track, or one part of a kit or traveller of a field, to an output. */
function leads(route: Route, output: number, part?: number): boolean {
  if (route.output !== output || (route.onlyPart ?? false) !== (part !== undefined)) return false;
  return part === undefined || (route.part ?? 0) === part;
}
