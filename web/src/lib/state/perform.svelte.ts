import { get } from "../api/http";
import { getOutlines } from "../api/chart";
import type { Control, Outline, ScenePicture, Track } from "../api/types";
import { Curves } from "./curves.svelte";
import { Movers } from "./movers.svelte";
import { bandsOf, silencesOf, type Band, type Stretch } from "./performAhead";
import type { Session } from "./session.svelte";

/** How many bars the strips show, and how many of them have gone by. */
export const stripBars = 8;
const barsBefore = 2;

/** By how much the tempo is pushed, in tenths of a percent. */
const push = 30;

/** What is held down, by the key or the button that holds it. */
export type Held = "fill" | "slower" | "faster";

/** What the Perform screen shows, and what is held on it. */
export class Perform {
  /** Whether what is held stays so until it is pressed again. */
  latch = $state(false);
  /** Whether the keys that transpose are shown. */
  transposing = $state(false);
  /** Whether ramps of the tempo and the phase are shown. */
  timing = $state(false);
  /** Whether what fields are given by name is on the screen. */
  layering = $state(false);
  /** Whether the loop of a track's steps is shown, and of which track. */
  looping = $state(false);
  loopTrack = $state<number>();
  /** Whether sections and scenes are written, instead of being gone to. */
  arranging = $state(false);
  /** The section or the scene that is written. */
  section = $state<number>();
  scene = $state<number>();
  page = $state<"section" | "scene">("section");
  /** Whether macros and modulators are written, which, and on which page. */
  moving = $state(false);
  macro = $state<number>();
  modulator = $state<number>();
  moverPage = $state<"macro" | "modulator">("macro");

  #bar = $state(0);
  #outlines = $state.raw<Outline[]>([]);
  readonly curves: Curves;
  readonly movers: Movers;
  #pictures = $state.raw<ScenePicture[]>([]);
  /** From which tick on each track plays its pattern, as far as that was seen. */
  #since = $state.raw(new Map<number, { pattern: number; from: number }>());

  constructor(readonly session: Session) {
    this.movers = new Movers(session);
    this.curves = new Curves(session, () => ({ bar: this.#bar, bars: stripBars }));
    $effect(() => {
      if (session.snapshot.revision === 0) return; // the server is away
      void [
        session.stage.changes,
        session.stage.queue,
        session.stage.song,
        session.transport.decidedAt,
      ];
      const stale = new AbortController();
      getOutlines(this.#bar, stale.signal, stripBars)
        .then((outlines) => (this.#outlines = outlines))
        .catch(() => {}); // the old picture stays while the server is away
      return () => stale.abort();
    });
    $effect(() => {
      if (session.snapshot.revision === 0) return;
      const stale = new AbortController();
      get<ScenePicture[]>("api/scenes", stale.signal)
        .then((pictures) => (this.#pictures = pictures))
        .catch(() => {});
      return () => stale.abort();
    });
    $effect(() => {
      if (!session.transport.playing) {
        this.#bar = 0;
        this.#since = new Map();
        return;
      }
      const watch = setInterval(() => {
        const tick = session.transport.tickAt(performance.now());
        if (tick === undefined) return;
        this.#bar = Math.max(0, session.bars.at(tick) - barsBefore);
        this.#see(tick);
      }, 100);
      return () => clearInterval(watch);
    });
  }

  /** Notes from when on tracks play the patterns that they play. */
  #see(tick: number): void {
    const { project, stage } = this.session;
    const changed = project.tracks.filter(
      (track) => this.#since.get(track.id)?.pattern !== stage.playing(track),
    );
    if (changed.length === 0) return;
    const first = this.#since.size === 0;
    const next = new Map(this.#since);
    for (const track of changed)
      next.set(track.id, { pattern: stage.playing(track), from: first ? 0 : tick });
    this.#since = next;
  }

  /** The first tick that the strips show, and the one at which they end. */
  get from(): number {
    return this.session.bars.start(this.#bar);
  }

  get to(): number {
    return this.session.bars.start(this.#bar + stripBars);
  }

  get bar(): number {
    return this.#bar;
  }

  outline(track: number): Outline | undefined {
    return this.#outlines.find((outline) => outline.track === track);
  }

  picture(scene: number | undefined): ScenePicture | undefined {
    return this.#pictures.find((picture) => picture.scene === scene);
  }

  /** The section that plays at a tick. */
  sectionAt(tick: number): number {
    return this.session.stage.song.sections.findLast(({ from }) => from <= tick)?.section ?? 0;
  }

  /** From which tick on a track plays its pattern, as far as that was seen. */
  since(track: number): number {
    return this.#since.get(track)?.from ?? 0;
  }

  /** The patterns of a track on its strip, one after the other. */
  bands(track: Track): Band[] {
    return bandsOf(this, track);
  }

  /** Where a track is silent on its strip. */
  silences(track: Track): Stretch[] {
    return silencesOf(this, track, this.outline(track.id)?.silent ?? false);
  }

  /** Whether something is held down. */
  isHeld(held: Held): boolean {
    const { stage, session } = { stage: this.session.stage, session: this.session };
    if (held === "fill") return stage.on({ name: "fill" }, session.project.filling);
    return stage.value({ name: "push" }, 0) === (held === "faster" ? push : -push);
  }

  /** Holds something down; latched, a second press releases it. */
  hold(held: Held): void {
    if (this.latch && this.isHeld(held)) return this.#letGo(held);
    const value = held === "fill" ? 1 : held === "faster" ? push : -push;
    void this.session.stage.do([{ control: controlOf(held), value }], "now");
  }

  /** Releases what is held, if it is not latched. */
  release(held: Held): void {
    if (!this.latch && this.isHeld(held)) this.#letGo(held);
  }

  #letGo(held: Held): void {
    void this.session.stage.do([{ control: controlOf(held) }], "now");
  }

  /** Holds something down, or releases it, by a press of a key on its button. */
  toggle(held: Held): void {
    if (this.isHeld(held)) this.#letGo(held);
    else this.hold(held);
  }

  /** Keeps the last eight bars of what was heard as a take. */
  keepLastBars(): void {
    void this.session.shelf.keepWake({ bars: 8 });
  }

  /** Releases all that is held and not latched. */
  releaseAll(): void {
    for (const held of ["fill", "slower", "faster"] as const) this.release(held);
  }

  /** Does a scene by its place, from 0. */
  sceneAt(index: number): void {
    const scene = this.session.project.scenes?.[index];
    if (scene) void this.session.stage.scene(scene.id);
  }

  /** Takes back what was queued last. */
  takeBackLast(): void {
    const last = this.session.stage.queue.reduce<{ id: number } | undefined>(
      (a, b) => (a && a.id > b.id ? a : b),
      undefined,
    );
    const queued = this.session.stage.queue.find(({ id }) => id === last?.id);
    if (queued) void this.session.stage.takeBack(queued);
  }

  /** Has the section that waits for it end with its pass. */
  releaseSection(): void {
    void this.session.stage.do([{ control: { name: "release" }, value: 1 }], "now");
  }

  /** Has the song go on with a section; before playing begins it is the one with which it begins. */
  goToSection(section: number): void {
    const { stage, transport } = this.session;
    if (!transport.playing) return;
    const waiting = stage.waiting({ name: "section" });
    if (waiting?.doing.value === section) void stage.takeBack(waiting);
    else
      void stage.do([{ control: { name: "section" }, value: section }], sectionMoment(stage.when));
  }
}

/** A section begins with a bar. */
function sectionMoment(when: Session["stage"]["when"]): Session["stage"]["when"] {
  return when === "bars" ? "bars" : "bar";
}

function controlOf(held: Held): Control {
  return { name: held === "fill" ? "fill" : "push" };
}
