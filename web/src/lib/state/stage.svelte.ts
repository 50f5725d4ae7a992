import { SvelteMap } from "svelte/reactivity";
import { post, remove } from "../api/http";
import type {
  Control,
  DoRequest,
  Doing,
  QueuedAction,
  Part,
  PartAddress,
  Pattern,
  StageMessage,
  Track,
} from "../api/types";
import { bitsOf, loopControls, stepsOf } from "../chart/loopSteps";
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
  #message = $state.raw<StageMessage>({
    changes: [],
    given: [],
    queue: [],
    back: 0,
    number: 0,
    faders: [],
    moved: [],
    song: { plays: false, sections: [], end: 0, chains: [], bars: [] },
  });

  constructor(private readonly session: Selection) {}

  /** The number of the message that was taken over last; an answer can come later than news that is newer. */
  #number = 0;

  /** Takes what the server says over, unless it is old; what it says again draws nothing anew. */
  adopt(message: StageMessage): void {
    if (message.number < this.#number) return;
    this.#number = message.number;
    const same = { ...message, number: this.#message.number };
    if (JSON.stringify(same) !== JSON.stringify(this.#message)) this.#message = message;
  }

  /** Takes whatever comes next, as of a server that has started anew. */
  reconnect(): void {
    this.#number = 0;
  }

  get changes(): StageMessage["changes"] {
    return this.#message.changes;
  }

  /** How the song plays. */
  get song(): StageMessage["song"] {
    return this.#message.song;
  }

  get queue(): QueuedAction[] {
    return this.#message.queue;
  }

  /** The values of all controls that macros move away from where they stand. */
  get allMoved(): StageMessage["moved"] {
    return this.#message.moved;
  }

  /** The value that a control has as macros move it from the one that stands; undefined where they leave it. */
  moved(control: Control): number | undefined {
    return this.#message.moved.find((change) => sameControl(change.control, control))?.value;
  }

  /** Where a fader stands that has to come to where its control stands. */
  faderOf(control: Control): number | undefined {
    return this.#message.faders.find((fader) => sameControl(fader.control, control))?.value;
  }

  /** How many actions can be undone. */
  get back(): number {
    return this.#message.back;
  }

  /** The value that a control has: of its live change, or what it has without one. */
  value(control: Control, written: number): number {
    const change = this.changes.find((change) => sameControl(change.control, control));
    return change?.value ?? this.#without(control, written);
  }

  /** The value that a control has without a live change: what the song or a chain has given, or the written one. */
  #without(control: Control, written: number): number {
    const given = this.#message.given.find((change) => sameControl(change.control, control));
    return given?.value ?? written;
  }

  /** What gives a control a value: a live change, or none where it has that value without one. */
  doing(control: Control, value: number, written: number): Doing {
    return value === this.#without(control, written) ? { control } : { control, value };
  }

  on(control: Control, written: boolean): boolean {
    return this.value(control, written ? 1 : 0) === 1;
  }

  isChanged(control: Control): boolean {
    return this.changes.some((change) => sameControl(change.control, control));
  }

  /** The action of a control that waits, the first. */
  waiting(control: Control): QueuedAction | undefined {
    return this.queue.find((action) => sameControl(action.doing.control, control));
  }

  /** The pattern that a track plays. A live change can be of a pattern that is no more, as of another project, until what came of it is told. */
  playing({ id, patterns, playing }: Track): number {
    const live = this.value({ name: "pattern", track: id }, playing);
    return patterns.some((pattern) => pattern.id === live) ? live : playing;
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

  /** The steps, from 0, that a part loops in place of its gate's own loop; none where it plays that. */
  looped(address: PartAddress, part: Part): number[] {
    const written = bitsOf(part.held ?? []);
    return stepsOf(
      loopControls.map((name, row) => this.value({ name, ...address }, written[row] ?? 0)),
    );
  }

  /** What has a part loop steps, or play on without any. */
  loop(address: PartAddress, part: Part, steps: number[]): Doing[] {
    const [written, bits] = [bitsOf(part.held ?? []), bitsOf(steps)];
    return loopControls.flatMap((name, row) => {
      const [control, value, was] = [{ name, ...address }, bits[row] ?? 0, written[row] ?? 0];
      return value === this.value(control, was) ? [] : [this.doing(control, value, was)];
    });
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
    return this.do([this.doing(control, on ? 1 : 0, written ? 1 : 0)], when);
  }

  /** Does something once, or takes it back where it waits. */
  once(control: Control): Promise<void> {
    const waiting = this.waiting(control);
    return waiting ? this.takeBack(waiting) : this.do([{ control, value: 1 }]);
  }

  /** Does things from a moment on. */
  async do(doings: Doing[], when = this.when): Promise<void> {
    if (doings.length === 0) return;
    return this.#ask(() =>
      post("api/stage", { do: doings, when, ...(when === "bars" && { bars: this.bars }) }),
    );
  }

  /** Turns the control of an address, as a fader does. */
  turn(address: string, value: number): Promise<void> {
    return this.#ask(() => post("api/controls", { address, value, turns: true }));
  }

  /** Gives controls the values of a scene, from a moment on. */
  scene(scene: number, when = this.when): Promise<void> {
    return this.#ask(() =>
      post("api/stage/scene", { scene, when, ...(when === "bars" && { bars: this.bars }) }),
    );
  }

  /** Has the tempo go to another over some bars from the next one on. */
  ramp(tempo: number, bars: number): Promise<void> {
    return this.#ask(() => post("api/stage/ramp", { tempo, bars }));
  }

  /** Turns to a pattern of a track, or takes back what waits there. */
  play(track: Track, pattern: number): Promise<void> {
    const control = { name: "pattern", track: track.id };
    const waiting = this.waiting(control);
    if (waiting?.doing.value === pattern) return this.takeBack(waiting);
    return this.do([this.doing(control, pattern, track.playing)]);
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
export function sameControl(a: Control, b: Control): boolean {
  return (
    a.name === b.name &&
    (a.track ?? 0) === (b.track ?? 0) &&
    (a.pattern ?? 0) === (b.pattern ?? 0) &&
    (a.part ?? 0) === (b.part ?? 0) &&
    (a.lane ?? "") === (b.lane ?? "") &&
    (a.bar ?? 0) === (b.bar ?? 0) &&
    (a.id ?? 0) === (b.id ?? 0)
  );
}
