import { get } from "../api/http";
import type { ModulatorCurve } from "../api/types";
import type { Session } from "./session.svelte";

/** Where modulators go over some bars, as far as it is known; asked for anew whenever that can be something else. */
export class Curves {
  #curves = $state.raw<ModulatorCurve[]>([]);

  constructor(session: Session, stretch: () => { bar: number; bars: number }) {
    $effect(() => {
      const { bar, bars } = stretch();
      if (session.snapshot.revision === 0 || (session.project.modulators ?? []).length === 0)
        return;
      void [session.stage.changes, session.stage.song, session.transport.decidedAt];
      const stale = new AbortController();
      get<ModulatorCurve[]>(`api/modulators?bar=${bar}&bars=${bars}`, stale.signal)
        .then((curves) => (this.#curves = curves))
        .catch(() => {}); // the old curves stay while the server is away
      return () => stale.abort();
    });
  }

  /** The levels of a modulator, −1000 to 1000, evenly over the bars; none where they are not known. */
  levels(modulator: number): number[] {
    return this.#curves.find((curve) => curve.modulator === modulator)?.levels ?? [];
  }
}

/** The path of a curve over a width, as high as it may be. */
export function curvePath(levels: readonly number[], width: number, height: number): string {
  const middle = height / 2;
  return levels
    .map((level, i) => {
      const x = (i / levels.length) * width;
      return `${i ? "L" : "M"}${x.toFixed(1)} ${(middle - (level / 1000) * (middle - 2)).toFixed(1)}`;
    })
    .join("");
}
