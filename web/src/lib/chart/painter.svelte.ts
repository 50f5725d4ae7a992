import type { LaneName } from "../api/types";
import type { ChartView } from "../state/chartView.svelte";
import { cellAt, type Cell, type ValueScale } from "./geometry";
import { Gate } from "./gate";
import { valueText } from "./values";

/** How wide a character of the readout is, in pixels. */
export const readoutCharacter = 7.5;

/** What is painted on: a strip as it is laid out at the moment. */
export interface Canvas {
  name: LaneName;
  cells: Cell[];
  scale: ValueScale;
  values: number[];
}

/** Paints values across a strip with the pointer; a stroke becomes one edit. */
export class Painter {
  #last: { x: number; y: number } | undefined;
  #gate = 0;
  #stroke: Record<number, number> = {};
  #readout = $state<{ x: number; y: number; text: string }>();

  constructor(
    private readonly view: ChartView,
    private readonly canvas: () => Canvas,
  ) {}

  /** The value under the pointer in words, and where to show it; undefined between strokes. */
  get readout(): { x: number; y: number; text: string } | undefined {
    return this.#readout;
  }

  begin(event: PointerEvent & { currentTarget: HTMLElement }): void {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { cells, values } = this.canvas();
    const at = this.#point(event);
    const cell = cellAt(cells, at.x);
    if (!cell) return;
    const before = values[cell.step];
    const wanted = event.shiftKey ? Gate.tie : Gate.on;
    this.#gate = before === wanted ? Gate.off : wanted;
    this.#stroke = {};
    this.#last = at;
    this.#paint(at);
  }

  move(event: PointerEvent & { currentTarget: HTMLElement }): void {
    if (this.#last) this.#paint(this.#point(event));
  }

  end(): void {
    if (!this.#last) return;
    this.#last = undefined;
    this.#readout = undefined;
    void this.view.write(this.canvas().name, this.#stroke);
  }

  cancel(): void {
    this.#last = undefined;
    this.#readout = undefined;
    this.view.overlay(this.canvas().name);
  }

  #point(event: PointerEvent & { currentTarget: HTMLElement }): { x: number; y: number } {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  }

  /** Paints every cell from the last point to this one, so that a quick hand leaves no gaps. */
  #paint(to: { x: number; y: number }): void {
    const { name, cells, scale } = this.canvas();
    const from = this.#last ?? to;
    const here = cellAt(cells, to.x);
    for (const cell of cells) {
      const middle = cell.x + cell.width / 2;
      const within = middle > Math.min(from.x, to.x) && middle < Math.max(from.x, to.x);
      if (!within && cell !== here) continue;
      const share = cell === here || to.x === from.x ? 1 : (middle - from.x) / (to.x - from.x);
      this.#stroke[cell.step] = this.#value(name, scale, from.y + share * (to.y - from.y));
    }
    this.view.overlay(name, { ...this.#stroke });
    this.#last = to;
    if (here) this.#show(here, to);
  }

  #value(name: LaneName, scale: ValueScale, y: number): number {
    return name === "gate" ? this.#gate : scale.value(y);
  }

  #show(cell: Cell, at: { x: number; y: number }): void {
    const { name } = this.canvas();
    this.view.moveCursor(name, cell.step);
    const spec = this.view.session.spec(name);
    const text = valueText(spec, this.view.values(name)[cell.step] ?? 0, this.view.degrees);
    const widest = text.length * readoutCharacter + 24;
    const x = at.x > this.view.width - widest ? at.x - widest : at.x + 14;
    this.#readout = { x, y: Math.max(16, at.y - 8), text };
  }
}
