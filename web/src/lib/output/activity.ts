/** How long a route is seen to play after a note began on it, in milliseconds. */
const seenFor = 160;

/** Which routes notes begin on. */
export class Activity {
  #begun: { route: string; page: number }[] = [];

  /** Remembers a note of a track that begins at an output at a time of the page (performance.now, ms). */
  note(track: number, output: number, page: number): void {
    this.#begun.push({ route: routeName(track, output), page });
  }

  /** The routes on which notes began just now. */
  at(now: number): ReadonlySet<string> {
    this.#begun = this.#begun.filter(({ page }) => page > now - seenFor);
    return new Set(this.#begun.filter(({ page }) => page <= now).map(({ route }) => route));
  }

  clear(): void {
    this.#begun = [];
  }
}

/** Names the way of a track to an output. */
export function routeName(track: number, output: number): string {
  return `${track} ${output}`;
}
