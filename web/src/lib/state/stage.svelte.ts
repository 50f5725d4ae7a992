import { SvelteMap } from "svelte/reactivity";
import { post, remove } from "../api/http";
import type {
  Control,
  DoRequest,
  Doing,
  QueuedAction,
  Part,
  Pattern,
  StageMessage,
  Track,
} from "../api/types";
import type { Selection } from "./selection.svelte";

/** From which moment an action counts. */
export type When = DoRequest["when"];

/** What performing has changed on top of the project, and what waits to be done. */
export class Stage {
  /** From which moment what is pressed counts, while playing, and how many bars of "bars". */
  when = $state<When>("now");
  bars = $state(4);

  /** The patterns that were selected to be written, by track. */
  #written = new SvelteMap<number, number>();
  #message = $state.raw<StageMessage>({ changes: [], queue: [], back: 0 });

  constructor(private readonly session: Selection) {}

  /** Takes what the server says over; what it says again draws nothing anew. */
  adopt(message: StageMessage): void {
    if (JSON.stringify(message) !== JSON.stringify(this.#message)) this.#message = message;
  }

  get changes(): StageMessage["changes"] {
    return this.#message.changes;
  }

  get queue(): QueuedAction[] {
    return this.#message.queue;
  }

  /** How many actions can be undone. */
  get back(): number {
    return this.#message.back;
  }

  /** The value that a control has: of its live change, or the written one. */
  value(control: Control, written: number): number {
    return this.changes.find((change) => same(change.control, control))?.value ?? written;
  }

  on(control: Control, written: boolean): boolean {
    return this.value(control, written ? 1 : 0) === 1;
  }

  isChanged(control: Control): boolean {
    return this.changes.some((change) => same(change.control, control));
  }

  /** The action of a control that waits, the first. */
  waiting(control: Control): QueuedAction | undefined {
    return this.queue.find((action) => same(action.doing.control, control));
  }

  /** The pattern that a track plays. */
  playing(track: Track): number {
    return this.value({ name: "pattern", track: track.id }, track.playing);
  }

  /** The pattern of a track that is being written: the one that was selected, else the one that plays. */
  written(track: Track): Pattern {
    const of = (id: number | undefined) => track.patterns.find((pattern) => pattern.id === id);
    const pattern = of(this.#written.get(track.id)) ?? of(this.playing(track));
    if (!pattern) throw new Error("a track always has the pattern that plays");
    return pattern;
  }

  /** Forgets which patterns were selected. */
  forget(): void {
    this.#written.clear();
  }

  /** Turns to another pattern of a track, whatever plays. */
  write(track: Track, pattern: number): void {
    this.#written.set(track.id, pattern);
  }

  trackOn(name: "mute" | "solo" | "active", track: Track): boolean {
    const written = { mute: track.mute, solo: track.solo, active: !track.offAir }[name];
    return this.on({ name, track: track.id }, written);
  }

  partOn(part: Part): boolean {
    return this.on(this.muteOf(part), part.mute);
  }

  muteOf(part: Part): Control {
    return { name: "part mute", ...this.session.addressOf(part) };
  }

  /** Mutes, solos or activates a track, or the other way about. */
  toggleTrack(name: "mute" | "solo" | "active", track: Track): Promise<void> {
    const written = { mute: track.mute, solo: track.solo, active: !track.offAir }[name];
    return this.toggle({ name, track: track.id }, written);
  }

  /** Turns a control on or off; what waits of it is taken back instead. */
  toggle(control: Control, written: boolean, when = this.when): Promise<void> {
    const waiting = this.waiting(control);
    if (waiting) return this.takeBack(waiting);
    const on = !this.on(control, written);
    // What is written needs no live change.
    return this.do([on === written ? { control } : { control, value: on ? 1 : 0 }], when);
  }

  /** Does something once, or takes it back where it waits. */
  once(control: Control): Promise<void> {
    const waiting = this.waiting(control);
    return waiting ? this.takeBack(waiting) : this.do([{ control, value: 1 }]);
  }

  /** Does things from a moment on. */
  do(doings: Doing[], when = this.when): Promise<void> {
    return this.#ask(() =>
      post("api/stage", { do: doings, when, ...(when === "bars" && { bars: this.bars }) }),
    );
  }

  takeBack(action: QueuedAction): Promise<void> {
    return this.#ask(() => remove(`api/stage/queue/${action.id}`));
  }

  undo(): Promise<void> {
    return this.#ask(() => post("api/stage/back", {}));
  }

  reset(): Promise<void> {
    return this.#ask(() => post("api/stage/reset", {}));
  }

  /** Writes the live changes into the project, as one step of undo. */
  store(): Promise<void> {
    return this.session.change((revision) => post("api/stage/store", { revision }));
  }

  #ask(ask: () => Promise<StageMessage>): Promise<void> {
    return this.session.inTurn(async () => this.adopt(await ask()));
  }
}

/** Whether two controls are one. */
function same(a: Control, b: Control): boolean {
  return (
    a.name === b.name &&
    (a.track ?? 0) === (b.track ?? 0) &&
    (a.pattern ?? 0) === (b.pattern ?? 0) &&
    (a.part ?? 0) === (b.part ?? 0) &&
    (a.lane ?? "") === (b.lane ?? "")
  );
}
