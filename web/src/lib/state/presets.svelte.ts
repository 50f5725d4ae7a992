import { get, post } from "../api/http";
import type {
  HeardPreset,
  LaneAddress,
  ListedPreset,
  PresetRequest,
  ProjectState,
} from "../api/types";
import type { Player } from "../sound/player.svelte";
import type { ChartView } from "./chartView.svelte";

/** How long after the press a preset is heard while nothing plays, in milliseconds. */
const delay = 150;

/** What was kept by name for any project, and what can be done with it: all of it about the part, and the lane, that are written. */
export class Presets {
  #listed = $state.raw<ListedPreset[]>([]);
  /** What is looked for: words that the name, the kind or the description have. */
  search = $state("");
  /** The kind that is looked for; empty is all. */
  kind = $state<ListedPreset["kind"] | "">("");
  #heard = $state<string>();
  #player: Player | undefined;
  #ends: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly view: ChartView) {}

  /** Those that are looked for. */
  get found(): ListedPreset[] {
    const words = this.search.toLowerCase().split(/\s+/).filter(Boolean);
    return this.#listed.filter(({ kind, name, words: about }) => {
      const text = `${kind} ${name} ${about}`.toLowerCase();
      return (!this.kind || kind === this.kind) && words.every((word) => text.includes(word));
    });
  }

  get count(): number {
    return this.#listed.length;
  }

  refresh(): Promise<void> {
    return this.#list(() => get<ListedPreset[]>("api/presets/"));
  }

  /** Keeps what is written, under a name. */
  async keep(kind: ListedPreset["kind"], name: string): Promise<void> {
    const recipe = { ...this.view.roller.settings, name, lane: this.view.cursor.lane };
    await this.#list(() =>
      this.#ask("api/presets/", { kind, name, ...(kind === "roll" && { roll: recipe }) }),
    );
  }

  delete({ kind, name }: ListedPreset): Promise<void> {
    return this.#list(() => this.#ask("api/presets/delete", { kind, name }));
  }

  /** Keeps the preset of a file; returns why it cannot. */
  async load(text: string): Promise<void> {
    await this.#list(() => post<ListedPreset[]>("api/presets/file", text));
  }

  /** Has the project use a preset. */
  use({ kind, name }: ListedPreset): Promise<void> {
    this.stop();
    const at = this.#at;
    return this.view.session.change((revision) =>
      post<ProjectState>("api/presets/use", { kind, name, revision, at }),
    );
  }

  isHeard({ kind, name }: ListedPreset): boolean {
    return this.#heard === `${kind} ${name}`;
  }

  /** Lets a preset be heard for some bars, from the next bar on while something plays; nothing of the project changes. */
  async hear({ kind, name }: ListedPreset): Promise<void> {
    const { session } = this.view;
    this.stop();
    const player = await session.previews.start();
    if (!player) return;
    await session.attempt(async () => {
      const heard = await this.#ask<HeardPreset>("api/presets/hear", { kind, name });
      const begins = this.#nextBar();
      const millis = (tick: number) => begins + tick / session.snapshot.ticksPerMilli;
      const sounds = heard.notes.flatMap(({ start, end, key, detune = 0, velocity }) => {
        const sound = {
          ...{ track: heard.track, channel: 1, key, detune },
          ...(heard.kit ? { patch: "kit" } : {}),
        };
        return [
          { ...sound, tick: start, at: session.serverNanos(millis(start)), velocity },
          { ...sound, tick: end, at: session.serverNanos(millis(end)), velocity: 0 },
        ];
      });
      player.announce(sounds.sort((a, b) => a.at - b.at || a.velocity - b.velocity));
      this.#player = player;
      this.#heard = `${kind} ${name}`;
      this.#ends = setTimeout(() => this.stop(), millis(heard.end) - performance.now());
    });
  }

  stop(): void {
    clearTimeout(this.#ends);
    if (this.#heard !== undefined) this.#player?.silence();
    this.#heard = undefined;
  }

  /** The page's time at which the next bar begins, or soon while nothing plays. */
  #nextBar(): number {
    const { session } = this.view;
    const now = performance.now();
    const tick = session.transport.playing ? session.transport.tickAt(now) : undefined;
    if (tick === undefined) return now + delay;
    const next = session.bars.tick(Math.floor(session.bars.position(tick)) + 1);
    return now + (next - tick) / session.snapshot.ticksPerMilli;
  }

  get #at(): LaneAddress {
    return { ...this.view.session.address, lane: this.view.cursor.lane };
  }

  #ask<Answer = ListedPreset[]>(path: string, request: Omit<PresetRequest, "at">): Promise<Answer> {
    return post<Answer>(path, { ...request, at: this.#at });
  }

  #list(ask: () => Promise<ListedPreset[]>): Promise<void> {
    return this.view.session.attempt(async () => {
      this.#listed = await ask();
    });
  }
}
