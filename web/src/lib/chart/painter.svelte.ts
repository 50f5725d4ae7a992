import type { LaneSpec } from "../api/types";
import type { ChartView } from "../state/chartView.svelte";
import { cellAt, type Cell, type ValueScale } from "./geometry";
import { Gate } from "./gate";
import { toolOf, type Tool } from "./tools";
import { effective, valueText } from "./values";

/** How wide a character of the readout is, in pixels. */
export const readoutCharacter = 7.5;

/** What is painted on: a strip as it is laid out at the moment. */
export interface Canvas {
  spec: LaneSpec;
  cells: Cell[];
  scale: ValueScale;
  values: number[];
}

interface Point {
  x: number;
  y: number;
}

type Press = PointerEvent & { currentTarget: HTMLElement };

/** Writes values across a strip with the pointer; a stroke becomes one edit. */
export class Painter {
  #first: Point | undefined;
  #last: Point = { x: 0, y: 0 };
  #tool: Tool = "draw";
  #gate = 0;
  /** The values before the stroke. */
  #before: number[] = [];
  #stroke: Record<number, number> = {};
  #heard: number | undefined;
  /** The step whose value is written, and where the pointer is. */
  #shown = $state.raw<{ step: number; at: Point }>();
  readonly #readout = $derived.by(
    () => this.#shown && this.#read(this.#shown.step, this.#shown.at),
  );

  constructor(
    private readonly view: ChartView,
    private readonly canvas: () => Canvas,
  ) {}

  /** The value under the pointer in words, and where to show it; undefined between strokes. */
  get readout(): { x: number; y: number; text: string } | undefined {
    return this.#readout;
  }

  begin(event: Press): void {
    if (event.button !== 0) return;
    const { cells, values, spec } = this.canvas();
    const { name } = spec;
    const at = point(event);
    const cell = cellAt(cells, at.x);
    if (!cell) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    this.#tool = toolOf(this.view.tool, event);
    if (!this.view.stepsOf(name).includes(cell.step)) this.view.select({});
    if (spec.notes && event.shiftKey) {
      this.view.moveCursor(name, cell.step);
      void this.view.toggleNote(name, cell.step, this.canvas().scale.value(at.y));
      return;
    }
    const wanted = event.shiftKey ? Gate.tie : Gate.on;
    this.#gate = values[cell.step] === wanted ? Gate.off : wanted;
    this.#before = [...values];
    this.#stroke = {};
    this.#first = this.#last = at;
    this.#heard = undefined;
    this.#paint(at);
  }

  move(event: Press): void {
    if (this.#first) this.#paint(point(event));
  }

  end(): void {
    if (!this.#first) return;
    this.#first = this.#shown = undefined;
    void this.view.write(this.canvas().spec.name, this.#stroke);
  }

  cancel(): void {
    this.#first = this.#shown = undefined;
    this.view.overlay(this.canvas().spec.name);
  }

  #paint(to: Point): void {
    const { spec, cells } = this.canvas();
    const { name, leads } = spec;
    const here = cellAt(cells, to.x);
    if (this.#tool === "move" && !leads) this.#moveAll(to);
    else if (this.#tool === "line") this.#line(to);
    else this.#draw(to, here);
    this.view.overlay(name, { ...this.#stroke });
    this.#last = to;
    if (here) this.#show(here, to);
  }

  /** Writes every cell from the last point to this one, so that a quick pointer leaves no gaps. */
  #draw(to: Point, here: Cell | undefined): void {
    const { spec, cells, scale } = this.canvas();
    const from = this.#last;
    for (const cell of cells) {
      if (cell !== here && !within(cell, from, to)) continue;
      if (this.#tool === "random" && !spec.leads) {
        this.#stroke[cell.step] ??= scale.value(yBetween(from, to, cell, here)) + this.#scattered();
        this.#stroke[cell.step] = scale.bounded(this.#stroke[cell.step] ?? 0);
      } else {
        this.#stroke[cell.step] = spec.leads
          ? this.#gate
          : scale.value(yBetween(from, to, cell, here));
      }
    }
  }

  /** Writes a straight line from where the pointer went down, anew for each place of the pointer. */
  #line(to: Point): void {
    const { spec, cells, scale } = this.canvas();
    const from = this.#first ?? to;
    const [start, here] = [cellAt(cells, from.x), cellAt(cells, to.x)];
    this.#stroke = {};
    for (const cell of cells) {
      if (cell !== start && cell !== here && !within(cell, from, to)) continue;
      this.#stroke[cell.step] = spec.leads
        ? this.#gate
        : scale.value(yBetween(from, to, cell, here));
    }
  }

  /** Moves the selected steps, or all of the loop, by as much as the pointer has moved. */
  #moveAll(to: Point): void {
    const { spec, scale } = this.canvas();
    const { name, least, most } = spec;
    const by = scale.value(to.y) - scale.value((this.#first ?? to).y);
    const { first, length } = this.view.session.loop(name);
    const loop = Array.from({ length }, (_, i) => first + i);
    for (const step of this.view.selected[name] ?? loop) {
      this.#stroke[step] = Math.min(most, Math.max(least, (this.#before[step] ?? 0) + by));
    }
  }

  #scattered(): number {
    const { least, most } = this.canvas().spec;
    const reach = ((most - least) * this.view.scatter) / 100;
    return Math.round((Math.random() * 2 - 1) * reach);
  }

  #show({ step }: Cell, at: Point): void {
    const { spec } = this.canvas();
    this.view.moveCursor(spec.name, step);
    this.#shown = { step, at };
    const value = this.view.values(spec.name)[step] ?? 0;
    if (spec.reads === "degree" && value !== this.#heard) this.#hear(value);
  }

  /** What is written at a step and what will be heard, which is known once the chart has come. */
  #read(step: number, at: Point): { x: number; y: number; text: string } {
    const { spec } = this.canvas();
    const { view } = this;
    const value = view.values(spec.name)[step] ?? 0;
    const heard = effective(view.inForce(spec.name), value, spec);
    const text = valueText(spec, value, view);
    const both = heard === value ? text : `${text} → ${heard}`;
    const widest = both.length * readoutCharacter + 24;
    const x = at.x > view.width - widest ? at.x - widest : at.x + 14;
    return { x, y: Math.max(16, at.y - 8), text: both };
  }

  #hear(value: number): void {
    this.#heard = value;
    this.view.hearDegree(value);
  }
}

function point(event: Press): Point {
  const box = event.currentTarget.getBoundingClientRect();
  return { x: event.clientX - box.left, y: event.clientY - box.top };
}

function within(cell: Cell, from: Point, to: Point): boolean {
  const middle = cell.x + cell.width / 2;
  return middle > Math.min(from.x, to.x) && middle < Math.max(from.x, to.x);
}

/** The height of the way between two points over the middle of a cell. */
function yBetween(from: Point, to: Point, cell: Cell, here: Cell | undefined): number {
  if (cell === here || to.x === from.x) return to.y;
  const share = (cell.x + cell.width / 2 - from.x) / (to.x - from.x);
  return from.y + Math.min(1, Math.max(0, share)) * (to.y - from.y);
}
