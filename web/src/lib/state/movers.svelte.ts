import type { Control, Listing, Macro, MacroMove, Modulator, Track } from "../api/types";
import { changeOf, type ChangeOf } from "./selection.svelte";
import type { Session } from "./session.svelte";

/** The curves of macros and faders, and what they are called. */
export const curves: { value: NonNullable<MacroMove["curve"]>; label: string }[] = [
  { value: "", label: "straight" },
  { value: "slow start", label: "slow start" },
  { value: "fast start", label: "fast start" },
  { value: "s", label: "slow at both ends" },
];

/** A control that can be moved, and what it is called. */
export interface Movable {
  control: Control;
  words: string;
  /** What it belongs to, in words. */
  of: string;
}

/** Macros and modulators: what moves controls, by hand and by itself. */
export class Movers {
  /** The positions to which macros are dragged, by their ids, until they are asked for. */
  readonly #dragged = new Map<number, number>();

  constructor(private readonly session: Session) {}

  get macros(): Macro[] {
    return this.session.project.macros ?? [];
  }

  /** The modulators that move a track, are sent by it, or are its clock. */
  of(track: Track): Modulator[] {
    return this.modulators.filter(
      ({ id, moves, sends }) =>
        moves.some(({ control }) => !control.track || control.track === track.id) ||
        (sends ?? []).some((send) => send.track === track.id) ||
        (track.source.kind === "modulator" && track.source.modulator === id),
    );
  }

  get modulators(): Modulator[] {
    return this.session.project.modulators ?? [];
  }

  /** Where a macro stands, in thousandths. */
  position(macro: Macro): number {
    return this.session.stage.value({ name: "macro", id: macro.id }, macro.position);
  }

  /** Moves a macro to a position, as a hand does: of what is dragged faster than it is answered the last one counts. */
  async move(macro: Macro, position: number): Promise<void> {
    const value = Math.max(0, Math.min(1000, Math.round(position)));
    const moves = this.#dragged.size > 0;
    this.#dragged.set(macro.id, value);
    if (moves) return; // the one that is asked for now asks for it next
    for (let next; (next = this.#dragged.entries().next().value);) {
      const [id, to] = next;
      await this.session.stage.turn(`/macro/${id}`, to);
      if (this.#dragged.get(id) === to) this.#dragged.delete(id);
    }
  }

  /** Takes the live change of a macro away. */
  putBack(macro: Macro): Promise<void> {
    return this.session.stage.do([{ control: { name: "macro", id: macro.id } }], "now");
  }

  /** The amount of a modulator, in percent. */
  amount(modulator: Modulator): number {
    return this.session.stage.value({ name: "modulation", id: modulator.id }, modulator.amount);
  }

  /** The amount of a modulator as macros move it, in percent. */
  effectiveAmount(modulator: Modulator): number {
    const control = { name: "modulation", id: modulator.id };
    return this.session.stage.moved(control) ?? this.amount(modulator);
  }

  setAmount(modulator: Modulator, value: number): Promise<void> {
    const control = { name: "modulation", id: modulator.id };
    return this.session.stage.do(
      [this.session.stage.doing(control, value, modulator.amount)],
      "now",
    );
  }

  /** Adds a macro, and returns its id. */
  async addMacro(): Promise<number> {
    const id = freeID(this.macros);
    const name = freeName(this.macros, "Macro");
    await this.#setMacros((all) => [...all, { id, name, position: 0, moves: [] }]);
    return id;
  }

  changeMacro(id: number, change: ChangeOf<Macro, Partial<Macro>>): Promise<void> {
    return this.#setMacros((all) =>
      all.map((m) => (m.id === id ? { ...m, ...changeOf(change, m) } : m)),
    );
  }

  removeMacro(id: number): Promise<void> {
    return this.#setMacros((all) => all.filter((m) => m.id !== id));
  }

  changeMove(id: number, at: number, change: Partial<MacroMove> | undefined): Promise<void> {
    return this.#setMacros((all) =>
      all.map((m) => (m.id === id ? { ...m, moves: changed(m.moves, at, change) } : m)),
    );
  }

  #setMacros(change: (all: Macro[]) => Macro[]): Promise<void> {
    return this.session.edit(() => ({ setProject: { macros: change(this.macros) } }));
  }

  /** Adds a modulator, and returns its id. */
  async addModulator(): Promise<number> {
    const id = freeID(this.modulators);
    const name = freeName(this.modulators, "Modulator");
    const added: Modulator = {
      ...{ id, name, shape: "sine" as const, amount: 100, value: "1/1" as const, times: 4 },
      ...{ stretch: { n: 1, m: 1 }, points: [0, 100, 0, -100], moves: [] },
    };
    await this.#setModulators((all) => [...all, added]);
    return id;
  }

  changeModulator(id: number, change: ChangeOf<Modulator, Partial<Modulator>>): Promise<void> {
    return this.#setModulators((all) =>
      all.map((m) => (m.id === id ? { ...m, ...changeOf(change, m) } : m)),
    );
  }

  removeModulator(id: number): Promise<void> {
    return this.#setModulators((all) => all.filter((m) => m.id !== id));
  }

  #setModulators(change: (all: Modulator[]) => Modulator[]): Promise<void> {
    return this.session.edit(() => ({ setProject: { modulators: change(this.modulators) } }));
  }

  /** What there is to know of a control. */
  spec(control: Control): Listing | undefined {
    const { controls } = this.session.lists;
    const of = scopeOf(control, controls);
    return controls.find((spec) => spec.name === control.name && spec.of === of);
  }

  /** Which control it is, in words. */
  words(control: Control): string {
    const spec = this.spec(control);
    const words = `${control.lane ? `${control.lane} ` : ""}${spec?.words ?? control.name}`;
    if (control.name === "macro")
      return this.macros.find(({ id }) => id === control.id)?.name ?? "a macro that is gone";
    if (control.name === "modulation")
      return `${this.modulators.find(({ id }) => id === control.id)?.name ?? "a modulator that is gone"}: amount`;
    if (!control.track) return words;
    const track = this.session.project.tracks.find(({ id }) => id === control.track);
    return `${track?.name ?? "a track that is gone"}: ${words}`;
  }

  /** All controls that are there and for which want is true. */
  controls(want: (spec: Listing) => boolean): Movable[] {
    const { project, lists } = this.session;
    const specs = lists.controls.filter(want);
    const of = (scope: string) => specs.filter((spec) => spec.of === scope);
    const movable = (control: Control, group: string): Movable => ({
      control,
      words: this.words(control).replace(`${group}: `, ""),
      of: group,
    });
    return [
      ...of("project").map(({ name }) => movable({ name }, "project")),
      ...of("macro").flatMap(({ name }) =>
        this.macros.map(({ id }) => movable({ name, id }, "macros")),
      ),
      ...of("modulator").flatMap(({ name }) =>
        this.modulators.map(({ id }) => movable({ name, id }, "modulators")),
      ),
      ...project.tracks.flatMap((track) => [
        ...of("track").map(({ name }) => movable({ name, track: track.id }, track.name)),
        ...this.#ofParts(track, of("part"), of("lane")).map((c) => movable(c, track.name)),
      ]),
    ];
  }

  /** Controls of the parts and lanes of the pattern of a track that is written. */
  #ofParts(track: Track, parts: Listing[], lanes: Listing[]): Control[] {
    const pattern = this.session.stage.written(track);
    return pattern.parts.flatMap((part) => {
      const at = { track: track.id, pattern: pattern.id, part: part.id };
      const spread = (lane: { spread?: unknown }) => lane.spread !== undefined;
      return [
        ...parts.map(({ name }) => ({ name, ...at })),
        ...Object.entries(part.lanes).flatMap(([lane, value]) =>
          lanes
            .filter(({ name }) => (name !== "depth" && name !== "lean") || spread(value))
            .map(({ name }) => ({ name, ...at, lane: lane as NonNullable<Control["lane"]> })),
        ),
      ];
    });
  }
}

/** Whether macros or modulators move something of a track, or of all, away from where it stands. */
export function movesTrack(session: Session, track: number): boolean {
  const movers = new Movers(session);
  const about = (control: Control) => !control.track || control.track === track;
  return (
    session.stage.allMoved.some(({ control }) => control.name !== "modulation" && about(control)) ||
    movers.modulators.some(
      (m) => movers.effectiveAmount(m) > 0 && m.moves.some(({ control }) => about(control)),
    )
  );
}

/** By how much values of a unit are divided to be read. */
export function readBy(spec: Pick<Listing, "unit"> | undefined): number {
  return spec?.unit === "0.1 %" ? 10 : 1;
}

/** What values of a unit are read in. */
export function unitOf(spec: Pick<Listing, "unit"> | undefined): string {
  return spec?.unit === "0.1 %" ? "%" : (spec?.unit ?? "");
}

function scopeOf(control: Control, controls: Listing[]): string {
  if (control.name === "macro") return "macro";
  if (control.name === "modulation") return "modulator";
  if (!control.track) return "project";
  if (control.lane) return "lane";
  return controls.some((spec) => spec.name === control.name && spec.of === "track")
    ? "track"
    : "part";
}

/** A list with the one at a place changed, or without it. */
export function changed<T>(list: readonly T[], at: number, change: Partial<T> | undefined): T[] {
  return list.flatMap((one, i) => (i !== at ? [one] : change ? [{ ...one, ...change }] : []));
}

function freeID(list: readonly { id: number }[]): number {
  let id = 1;
  while (list.some((one) => one.id === id)) id++;
  return id;
}

function freeName(list: readonly { name: string }[], word: string): string {
  let n = list.length + 1;
  while (list.some(({ name }) => name === `${word} ${n}`)) n++;
  return `${word} ${n}`;
}
