import type { RollNote } from "../api/types";
import type { TakeDesk } from "../state/takeDesk.svelte";
import type { RollScale } from "./rollScale";

/** How close to its right edge a note is taken by its end, in pixels. */
const endGrip = 5;

/** How far the pointer goes before a press becomes a drag, in pixels. */
const slack = 3;

type SvgEvent<E extends Event> = E & { currentTarget: SVGSVGElement };

interface Drag {
  what: "box" | "move" | "end";
  x: number;
  y: number;
  toX: number;
  toY: number;
  moved: boolean;
  /** What was selected before a box was drawn, and stays so. */
  before: ReadonlySet<number>;
  note?: RollNote;
}

/** What mouse, finger and keys do on the notes of a roll. */
export class RollPointer {
  #drag = $state.raw<Drag>();

  constructor(
    private readonly desk: TakeDesk,
    private readonly scale: () => RollScale,
  ) {}

  /** How far the selected notes are dragged. */
  readonly #way = $derived.by(() => {
    const drag = this.#drag;
    if (!drag?.moved || drag.what === "box") return { ticks: 0, semitones: 0 };
    const scale = this.scale();
    const ticks = scale.tick(drag.toX) - scale.tick(drag.x);
    const grid = this.desk.gridTicks;
    return {
      ticks: Math.round(ticks / grid) * grid,
      semitones: drag.what === "move" ? scale.key(drag.toY) - scale.key(drag.y) : 0,
    };
  });

  /** A note as it is shown while it is dragged. */
  shown(note: RollNote): Pick<RollNote, "start" | "end" | "key"> {
    if (!this.#drag?.moved || !this.desk.selected.has(note.place)) return note;
    const { ticks, semitones } = this.#way;
    if (this.#drag.what === "end")
      return { ...note, end: Math.max(note.start + 1, note.end + ticks) };
    return { start: note.start + ticks, end: note.end + ticks, key: note.key + semitones };
  }

  /** The box that is being drawn. */
  get box(): { x: number; y: number; width: number; height: number } | undefined {
    const drag = this.#drag;
    if (drag?.what !== "box" || !drag.moved) return undefined;
    return {
      x: Math.min(drag.x, drag.toX),
      y: Math.min(drag.y, drag.toY),
      width: Math.abs(drag.toX - drag.x),
      height: Math.abs(drag.toY - drag.y),
    };
  }

  /** The note that is dragged, in words. */
  get readOut(): { x: number; y: number; text: string } | undefined {
    const drag = this.#drag;
    if (!drag?.note || !drag.moved) return undefined;
    const { start, end, key } = this.shown(drag.note);
    const scale = this.scale();
    const at = `${this.desk.session.notes.name(key)} · ${place(this.desk.barLines.position(start))}`;
    const text =
      drag.what === "end"
        ? `${at} · ${((end - start) / this.desk.gridTicks).toFixed(2)} × ${this.desk.grid}`
        : at;
    return {
      x: Math.min(scale.x(start), scale.width - 150),
      y: Math.max(16, scale.y(key) - 4),
      text,
    };
  }

  down = (event: SvgEvent<PointerEvent>): void => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { x, y } = at(event);
    const scale = this.scale();
    const note = scale.noteAt(this.desk.roll?.notes ?? [], x, y);
    const before = event.shiftKey ? this.desk.selected : new Set<number>();
    if (!note) {
      this.#drag = { what: "box", x, y, toX: x, toY: y, moved: false, before };
      this.desk.select(before);
      return;
    }
    if (event.shiftKey) {
      const next = new Set(this.desk.selected);
      if (!next.delete(note.place)) next.add(note.place);
      this.desk.select(next);
      return;
    }
    if (!this.desk.selected.has(note.place)) this.desk.select([note.place]);
    const what =
      x > scale.x(note.end) - endGrip && scale.x(note.end) - scale.x(note.start) > 2 * endGrip
        ? "end"
        : "move";
    this.#drag = { what, x, y, toX: x, toY: y, moved: false, before, note };
  };

  move = (event: SvgEvent<PointerEvent>): void => {
    if (!this.#drag) return;
    const { x, y } = at(event);
    const moved = this.#drag.moved || Math.hypot(x - this.#drag.x, y - this.#drag.y) > slack;
    this.#drag = { ...this.#drag, toX: x, toY: y, moved };
    const { box } = this;
    if (!box) return;
    const scale = this.scale();
    const inside = (this.desk.roll?.notes ?? []).filter(
      (note) =>
        (this.desk.track === undefined || note.track === this.desk.track) &&
        scale.x(note.end) >= box.x &&
        scale.x(note.start) <= box.x + box.width &&
        scale.y(note.key) + scale.row >= box.y &&
        scale.y(note.key) <= box.y + box.height,
    );
    this.desk.select([...this.#drag.before, ...inside.map((note) => note.place)]);
  };

  up = (): void => {
    const drag = this.#drag;
    const { ticks, semitones } = this.#way;
    if (!drag?.moved || drag.what === "box") {
      this.#drag = undefined;
      return;
    }
    const stored =
      drag.what === "end" ? this.desk.shape({ length: ticks }) : this.desk.move(ticks, semitones);
    // The notes stay where they were dragged until the take with them there has come.
    void stored.finally(() => (this.#drag = undefined));
  };

  cancel = (): void => {
    this.#drag = undefined;
  };

  doubleClick = (event: SvgEvent<MouseEvent>): void => {
    const { x, y } = at(event);
    const scale = this.scale();
    if (scale.noteAt(this.desk.roll?.notes ?? [], x, y)) return;
    const grid = this.desk.gridTicks;
    void this.desk.add(Math.floor(scale.tick(x) / grid) * grid, scale.key(y));
  };

  wheel = (event: SvgEvent<WheelEvent>): void => {
    event.preventDefault();
    const way = event.deltaY || event.deltaX;
    this.desk.scroll(Math.sign(way) * Math.max(1, this.desk.bars / 4));
  };

  key = (event: SvgEvent<KeyboardEvent>): void => {
    const act = event.altKey ? this.#altKeys[event.key] : this.#keys(event.shiftKey)[event.key];
    if (!act || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    void this.desk.session.run.press(act);
  };

  readonly #altKeys: Record<string, () => unknown> = {
    ArrowLeft: () => this.desk.move(-this.desk.gridTicks, 0),
    ArrowRight: () => this.desk.move(this.desk.gridTicks, 0),
    ArrowUp: () => this.desk.shape({ length: this.desk.gridTicks }),
    ArrowDown: () => this.desk.shape({ length: -this.desk.gridTicks }),
  };

  #keys(shift: boolean): Record<string, () => unknown> {
    return {
      ArrowLeft: () => this.#goTo(-1, shift),
      ArrowRight: () => this.#goTo(1, shift),
      ArrowUp: () => this.desk.selected.size && this.desk.move(0, shift ? 12 : 1),
      ArrowDown: () => this.desk.selected.size && this.desk.move(0, shift ? -12 : -1),
      Delete: () => this.desk.delete(),
      Backspace: () => this.desk.delete(),
      "+": () => this.desk.selected.size && this.desk.shape({ velocity: 8 }),
      "-": () => this.desk.selected.size && this.desk.shape({ velocity: -8 }),
      Home: () => this.desk.scroll(-1e6),
      End: () => this.desk.scroll(1e6),
      Escape: () => this.desk.select([]),
    };
  }

  /** Selects the next note, or the one before; `add` keeps what was selected. */
  #goTo(by: 1 | -1, add: boolean): void {
    const { roll, track, selected } = this.desk;
    const notes = (roll?.notes ?? []).filter((n) => track === undefined || n.track === track);
    const places = notes.map((note) => note.place);
    const edge = by > 0 ? Math.max(...selected) : Math.min(...selected);
    const next = selected.size ? places.indexOf(edge) + by : by > 0 ? 0 : places.length - 1;
    const place = places[Math.min(places.length - 1, Math.max(0, next))];
    if (place !== undefined) this.desk.select(add ? [...selected, place] : [place]);
  }
}

function at(event: SvgEvent<MouseEvent>): { x: number; y: number } {
  const box = event.currentTarget.getBoundingClientRect();
  return { x: event.clientX - box.x, y: event.clientY - box.y };
}

/** A moment as a bar and what of it has gone. */
function place(position: number): string {
  return `bar ${(position + 1).toFixed(2)}`;
}
