import { faderOf, type MappingFrom } from "../input/mappings";
import { sameControl } from "./stage.svelte";
import { gateLane } from "../chart/gate";
import { post } from "../api/http";
import type {
  Control,
  EntryRequest,
  PlayedAnswer,
  PlayedRequest,
  ProjectState,
  Switch,
} from "../api/types";
import type { Layout } from "../input/layouts";
import { strokeOf, type Stroke } from "../input/port";
import { isSwitch, switchOf, type SwitchFrom } from "../input/switches";
import { SimulatedController } from "../input/simulatedController";
import type { ChartView } from "./chartView.svelte";
import { passesOn } from "./inputs.svelte";

/** What becomes of notes that are played: they are only heard, entered step by step, or in time. */
export type PlayingMode = "hear" | "steps" | "time";

/** What can be learned from notes that are played. */
export type Learned = "root" | "scale" | "chord";

/** Notes that belong together are struck within this time, in milliseconds: a rolled chord still is one. */
const chordWithin = 60;

/** Keys that only change others, and the one that leaves what one is in. */
const modifiers = /^(Shift|Control|Alt|Meta|CapsLock|Tab|Escape)/;

/** A note that was struck at a time of the page's clock, in milliseconds, and released at another if it was. */
interface Held {
  velocity: number;
  at: number;
  released?: number;
}

/** Notes that belong together, by their keys. */
interface Group {
  at: number;
  notes: Map<number, Held>;
}

/** Whether a note of a group is still held. */
const isHeld = ({ notes }: Group): boolean =>
  [...notes.values()].some(({ released }) => released === undefined);

/** Hands on a keyboard: which one, and what becomes of what they play. */
export class Playing {
  readonly keyboard = new SimulatedController();
  mode = $state<PlayingMode>("hear");
  /** Where notes outside the scale go; empty leaves them. */
  fit = $state("");
  /** How far notes that are played in time go to their steps, in percent. */
  strength = $state(50);
  /** Whether what is played in time takes the place of what was there. */
  replace = $state(false);
  /** Whether the computer's keys play. */
  computerKeys = $state(false);
  /** The lowest key that the keyboard on the screen shows. */
  lowest = $state(48);
  /** How its keys lie. */
  layout = $state<Layout>("piano");
  /** How hard keys of the screen and the computer are struck; without it by where, or as is usual. */
  velocity = $state<number>();

  #open = $state(false);
  #portName = $state("");
  #down = $state.raw<ReadonlySet<number>>(new Set());
  #learn = $state<Learned>();
  /** What the message that comes in next is to switch on. */
  #switching = $state.raw<Pick<Switch, "control" | "value" | "do">>();
  /** The control that the fader is to turn that is moved next, and its range. */
  #turning = $state.raw<{ control: Control; from: number; to: number }>();
  /** The keys of the computer that are down and press switches. */
  readonly #switchKeys = new Set<string>();
  #groups: Group[] = [];
  /** The tick of the step that was entered last in time. */
  #after = 0;

  constructor(private readonly view: ChartView) {
    const { session } = view;
    $effect(() => {
      if (!session.transport.playing) this.#after = 0;
    });
    session.inputs.playTo((bytes, at, sounds) => this.#receive(bytes, at, sounds));
    $effect(() => {
      session.inputs.playExtra(this.#open && this.#portName ? this.#portName : undefined);
    });
    $effect(() => {
      if (!this.#open) return;
      const rule = $derived(session.project.inputs?.find(({ kind }) => kind === "screen"));
      const close = this.keyboard.open((bytes, at) => {
        session.monitor.add([{ page: at, where: this.keyboard.name, data: [...bytes] }]);
        session.comesIn({ kind: "screen", id: rule?.id ?? 0 }, [...bytes], at);
        if (rule?.playsIn ?? true) this.#receive(bytes, at, !passesOn(rule ? [rule] : []));
      });
      return () => {
        close();
        this.#letGo();
      };
    });
  }

  /** Whether the keyboard is on the screen. */
  get open(): boolean {
    return this.#open;
  }

  /** Moves the keyboard by semitones, as far as there are keys. */
  shift(by: number): void {
    this.lowest = Math.max(0, Math.min(96, this.lowest + by));
  }

  toggle(): void {
    this.#open = !this.#open;
    this.computerKeys = this.#open;
    if (this.#open) void this.view.session.sound.start();
  }

  /** The name of the port that is played besides those that the project lists; empty is none. */
  get portName(): string {
    return this.#portName;
  }

  selectPort(name: string): void {
    this.#portName = name;
  }

  /** The keys that are down. */
  get down(): ReadonlySet<number> {
    return this.#down;
  }

  get learning(): Learned | undefined {
    return this.#learn;
  }

  /** Takes the notes that are played next as the project's root or scale, or as the chord of the step. */
  learn(what: Learned): void {
    this.#learn = this.#learn === what ? undefined : what;
  }

  /** Has what is played next switch a value of a control on, or no more. */
  learnSwitch(control: Control, value: number): void {
    if (this.learnsSwitch(control, value)) {
      this.#switching = undefined;
      return;
    }
    this.#switching = { control, value };
    if (!this.#open) this.toggle();
  }

  /** Has the fader that is moved next turn a control, or no more. */
  learnFader(control: Control, from: number, to: number): void {
    const learns = !this.learnsFader(control);
    this.#turning = learns ? { control, from, to } : undefined;
    if (learns && !this.#open) this.toggle();
  }

  learnsFader(control: Control): boolean {
    return this.#turning !== undefined && sameControl(this.#turning.control, control);
  }

  /** The control for which a fader is learned. */
  get faderLearned(): Control | undefined {
    return this.#turning?.control;
  }

  /** Takes a message as the fader that is learned. */
  async #learnedFader(from: MappingFrom): Promise<void> {
    const of = this.#turning;
    if (!of) return;
    this.#turning = undefined;
    const { session } = this.view;
    await session.edit(() => ({
      setProject: { mappings: [...(session.project.mappings ?? []), { ...from, ...of }] },
    }));
  }

  /** Has what is played next do something that is no value of a control, or no more. */
  learnDoing(what: NonNullable<Switch["do"]>, value: number): void {
    const learns = !this.learnsDoing(what);
    this.#switching = learns ? { do: what, control: { name: what }, value } : undefined;
    if (learns && !this.#open) this.toggle();
  }

  learnsDoing(what: Switch["do"]): boolean {
    return what !== undefined && this.#switching?.do === what;
  }

  learnsSwitch(control: Control, value: number): boolean {
    const of = this.#switching;
    return (
      !of?.do &&
      of?.value === value &&
      of.control.name === control.name &&
      of.control.track === control.track
    );
  }

  /**
   * Takes a key of the computer that goes down or up: as the switch that is learned, or as one that it is. Returns whether it is one; what
   * plays notes or has a field keeps its keys.
   */
  takeKey(key: string, down: boolean): boolean {
    if (this.#switching && down && !modifiers.test(key)) {
      void this.#learned({ message: "key", channel: 0, number: 0, key });
      return true;
    }
    const { session } = this.view;
    if (!session.project.switches?.some((s) => s.message === "key" && s.key === key)) return false;
    session.keyComes(key, down);
    if (down) this.#switchKeys.add(key);
    else this.#switchKeys.delete(key);
    return true;
  }

  /** Releases the keys that are switches, as where another window takes the keyboard. */
  releaseKeys(): void {
    for (const key of [...this.#switchKeys]) this.takeKey(key, false);
  }

  /** Takes a message as the switch that is learned. */
  async #learned(from: SwitchFrom): Promise<void> {
    const of = this.#switching;
    if (!of) return;
    this.#switching = undefined;
    const { session } = this.view;
    await session.edit(() => ({
      setProject: {
        switches: [...(session.project.switches ?? []), { ...from, ...of, when: "bar" as const }],
      },
    }));
  }

  /** Enters a rest in place of a note, or steps back by one. */
  async enter(what: "rest" | "tie" | "back"): Promise<void> {
    if (what !== "back") await this.#enter({ do: what, step: this.#step });
    this.#goOn(what === "back" ? -1 : 1);
  }

  get #step(): number {
    return this.view.stepOf(gateLane);
  }

  #goOn(by: number): void {
    const { first, length } = this.view.session.loop(gateLane);
    const next = (((this.#step - first + by) % length) + length) % length;
    this.view.moveCursor(gateLane, first + next);
  }

  /** Takes a message that is played in, and has a note sound unless it does elsewhere. */
  #receive(bytes: Uint8Array, at: number, sounds: boolean): void {
    const { session } = this.view;
    const from = this.#switching && switchOf([...bytes]);
    if (from) {
      void this.#learned(from);
      return;
    }
    const fader = this.#turning && faderOf([...bytes]);
    if (fader) {
      void this.#learnedFader(fader);
      return;
    }
    const stroke = strokeOf(bytes);
    if (!stroke || isSwitch(session.project.switches ?? [], [...bytes])) return;
    if (stroke.velocity > 0) this.#strike(stroke, at, sounds);
    else this.#release(stroke, at);
  }

  #strike({ key, velocity }: Stroke, at: number, sounds: boolean): void {
    this.#down = new Set([...this.#down, key]);
    const { session } = this.view;
    if (sounds)
      session.player.hold(
        { of: "played", key, patch: session.patchOf(session.track.id) },
        velocity,
      );
    const last = this.#groups.at(-1);
    const inTime = this.mode !== "steps" && !this.#learn;
    if (last && isHeld(last) && (!inTime || at - last.at < chordWithin)) {
      last.notes.set(key, { velocity, at });
    } else {
      this.#groups.push({ at, notes: new Map([[key, { velocity, at }]]) });
    }
  }

  #release({ key }: Stroke, at: number): void {
    this.#down = new Set([...this.#down].filter((other) => other !== key));
    this.view.session.player.letGo({ of: "played", key });
    const group = this.#groups.findLast(({ notes }) => {
      const note = notes.get(key);
      return note && note.released === undefined;
    });
    const note = group?.notes.get(key);
    if (!group || !note) return;
    note.released = at;
    if (isHeld(group)) return;
    this.#groups = this.#groups.filter((other) => other !== group);
    void this.#finish(group);
  }

  #letGo(): void {
    for (const key of this.#down) {
      this.view.session.player.letGo({ of: "played", key });
    }
    this.#down = new Set();
    this.#groups = [];
  }

  async #finish({ notes: held }: Group): Promise<void> {
    const { session } = this.view;
    const notes = [...held].map(([key, { velocity }]) => ({ key, velocity }));
    if (this.#learn) {
      const what = this.#learn;
      this.#learn = undefined;
      if (what === "chord") return this.#enter({ do: "chord", step: this.#step, notes });
      const heard = { do: what, notes: notes.map(({ key }) => key) };
      return session.change((revision) =>
        post<ProjectState>("api/entry/key", { revision, ...heard }),
      );
    }
    if (this.mode === "steps") {
      const step = this.#step;
      this.#goOn(1); // at once, so that whoever plays fast does not wait
      return this.#enter({ do: "notes", step, notes, fit: this.fit });
    }
    if (this.mode === "time" && session.transport.playing) {
      await this.#enterInTime({
        ...{ track: session.track.id, part: session.part.id, fit: this.fit },
        notes: [...held].map(([key, { velocity, at, released = at }]) => ({
          ...{ key, velocity, at: Math.round(session.serverNanos(at)) },
          held: Math.round((released - at) * 1e6),
        })),
        ...{ strength: this.strength, replace: this.replace && this.#after > 0 },
        after: this.#after,
      });
    }
  }

  /** Enters what was played into a step of the part that is written. */
  #enter(entry: Pick<EntryRequest, "do" | "step" | "notes" | "fit">): Promise<void> {
    const { session } = this.view;
    const { address } = session;
    return session.change((revision) =>
      post<ProjectState>("api/entry", { revision, ...address, ...entry }),
    );
  }

  #enterInTime(played: PlayedRequest): Promise<void> {
    return this.view.session.change(async () => {
      const { began, project } = await post<PlayedAnswer>("api/entry/played", played);
      this.#after = began;
      return project;
    });
  }
}
